import type { NoticePage } from '../../../contract/index.ts';
import {
  type FilledBlock,
  type FilledRun,
  LETTER_TOKENS,
  type LetterLanguage,
  type LetterToken,
} from '../../../core/index.ts';

interface LetterPageProps {
  readonly language: LetterLanguage;
  readonly from: NoticePage['from'];
  readonly to: readonly string[];
  readonly issued: string;
  readonly replaces: string | null;
  readonly subject: readonly FilledRun[];
  readonly body: readonly FilledBlock[];
  /** Tokens that nothing is known for. */
  readonly empty?: readonly LetterToken[];
}

/** A notice as it will be printed; what was filled in has dots below it. */
export function LetterPage({ language, from, to, issued, replaces, subject, body, empty = [] }: LetterPageProps) {
  return (
    <article
      lang={language}
      aria-label="The letter"
      className="mx-auto w-full max-w-[520px] border border-line-2 bg-base-100 px-8 py-7 text-[13.5px] leading-[20px] text-ink shadow-[0_1px_0_var(--line)]"
    >
      <header className="flex items-start justify-between border-b border-line-2 pb-3">
        <b className="font-head text-[21px] leading-7 font-[650] font-stretch-[84%]">{from.name}</b>
        <p className="text-right text-note leading-4.5 opacity-80">
          {from.lines.map((line) => (
            <span key={line} className="block">
              {line}
            </span>
          ))}
        </p>
      </header>
      <div className="mt-4 flex min-h-[84px] justify-between gap-6">
        <address className="not-italic">
          {to.map((line) => (
            <span key={line} className="block">
              {line}
            </span>
          ))}
        </address>
        <span className="text-right">{issued}</span>
      </div>
      <h2 className="mt-3 text-[16px] leading-6 font-[650]">
        <Runs runs={subject} />
      </h2>
      {replaces !== null && <p className="mt-2 italic">{replaces}</p>}
      <Blocks body={body} />
      {empty.length > 0 && (
        <p role="alert" className="mt-4 border-l-2 border-late pl-3 text-note leading-4.5 text-late" lang="en-GB">
          Not known here: {empty.map((token) => LETTER_TOKENS[token]).join('; ')}.
        </p>
      )}
    </article>
  );
}

/** Paragraphs, and lists of what belongs together. */
function Blocks({ body }: { readonly body: readonly FilledBlock[] }) {
  let number = 0;
  return body.map((block, i) => {
    number = block.kind === 'numbered' ? number + 1 : 0;
    const runs = <Runs runs={block.runs} />;
    // biome-ignore-start lint/suspicious/noArrayIndexKey: paragraphs of a letter that is only read
    if (block.kind === 'heading')
      return (
        <h3 key={i} className="mt-3 text-[14.5px] font-[650]">
          {runs}
        </h3>
      );
    const mark = block.kind === 'bullet' ? '•' : block.kind === 'numbered' ? `${number}.` : null;
    return (
      <p key={i} className={mark === null ? 'mt-2.5 min-h-5 whitespace-pre-line' : 'mt-1 flex gap-2'}>
        {mark !== null && <span>{mark}</span>}
        <span>{runs}</span>
      </p>
    );
    // biome-ignore-end lint/suspicious/noArrayIndexKey: paragraphs of a letter that is only read
  });
}

function Runs({ runs }: { readonly runs: readonly FilledRun[] }) {
  return runs.map(({ text, bold, italic, token }, i) => (
    <span
      // biome-ignore lint/suspicious/noArrayIndexKey: runs of a paragraph that is only read
      key={i}
      className={`${bold ? 'font-[650]' : ''} ${italic ? 'italic' : ''} ${token === null ? '' : 'underline decoration-dotted decoration-1 underline-offset-4'}`}
    >
      {text}
    </span>
  ));
}
