import { escaped } from '../platform/html.ts';

/** What a mail says, before it is set as text and as HTML. */
export interface Letter {
  readonly subject: string;
  /** From which workspace, at its head. */
  readonly from: string;
  readonly greeting: string;
  readonly paragraphs: readonly string[];
  /** What there is of each kind, a line each with the one thing to do and where; none in most letters. */
  readonly bands?: readonly LetterBand[];
  /** The one thing to do, and where. */
  readonly deed: { readonly words: string; readonly url: string } | null;
  /** Below the deed, smaller. */
  readonly after: readonly string[];
}

export interface LetterBand {
  readonly title: string;
  readonly about: string;
  readonly lines: readonly {
    readonly text: string;
    readonly about: string;
    readonly verb: string;
    readonly url: string;
  }[];
  /** What is not told line by line, and where all of it stands; null where nothing is left. */
  readonly more: { readonly words: string; readonly url: string } | null;
}

const textOfBand = ({ title, about, lines, more }: LetterBand): string =>
  [
    about === '' ? title : `${title}, ${about}`,
    ...lines.map((line) => `- ${[line.text, line.about].filter(Boolean).join(', ')}\n  ${line.verb}: ${line.url}`),
    ...(more ? [`- ${more.words}: ${more.url}`] : []),
  ].join('\n');

export function textOf({ from, greeting, paragraphs, bands = [], deed, after }: Letter): string {
  const parts = [
    greeting,
    ...paragraphs,
    ...bands.map(textOfBand),
    ...(deed ? [`${deed.words}:\n${deed.url}`] : []),
    ...after,
    `-- \n${from}`,
  ];
  return `${parts.join('\n\n')}\n`;
}

const INK = '#10292f';
const DIM = '#46626a';
const PETROL = '#0b5563';
const LINE = '#d7e2df';

/** Plain, and styled in place, as programs that read mail have it. */
export function htmlOf({ subject, from, greeting, paragraphs, bands = [], deed, after }: Letter): string {
  const paragraph = (words: string, style = '') => `<p style="margin:0 0 12px;${style}">${escaped(words)}</p>`;
  const button = deed
    ? `<p style="margin:20px 0"><a href="${escaped(deed.url)}" style="display:inline-block;background:${PETROL};color:#f4fbfa;padding:10px 18px;border-radius:4px;text-decoration:none;font-weight:600">${escaped(deed.words)}</a></p>
<p style="margin:0 0 12px;font-size:13px;color:${DIM};word-break:break-all">${escaped(deed.url)}</p>`
    : '';
  return `<!doctype html>
<html lang="en-GB"><head><meta charset="utf-8"><title>${escaped(subject)}</title></head>
<body style="margin:0;background:#f1f5f4;color:${INK};font:15px/22px 'Atkinson Hyperlegible Next',Verdana,sans-serif">
<div style="max-width:560px;margin:0 auto;padding:24px 28px;background:#ffffff">
<p style="margin:0 0 18px;padding-bottom:10px;border-bottom:1px solid ${LINE};font-weight:700">${escaped(from)}</p>
${paragraph(greeting)}
${paragraphs.map((words) => paragraph(words)).join('\n')}
${bands.map(htmlOfBand).join('\n')}
${button}
${after.map((words) => paragraph(words, `font-size:13px;line-height:18px;color:${DIM}`)).join('\n')}
</div></body></html>
`;
}

const link = (url: string, words: string) =>
  `<a href="${escaped(url)}" style="color:${PETROL};font-weight:600">${escaped(words)}</a>`;

function htmlOfBand({ title, about, lines, more }: LetterBand): string {
  const row = (words: string, verb: string) =>
    `<tr><td style="padding:4px 8px 4px 0;border-top:1px solid ${LINE}">${words}</td><td style="padding:4px 0;border-top:1px solid ${LINE};text-align:right;white-space:nowrap">${verb}</td></tr>`;
  const rows = [
    ...lines.map(({ text, about: of, verb, url }) =>
      row(`${escaped(text)} <span style="color:${DIM}">${escaped(of)}</span>`, link(url, verb)),
    ),
    ...(more ? [row(`<span style="color:${DIM}">${escaped(more.words)}</span>`, link(more.url, 'Look'))] : []),
  ];
  return `<p style="margin:16px 0 4px"><b style="font-size:17px">${escaped(title)}</b> <span style="color:${DIM}">${escaped(about)}</span></p>
<table role="presentation" style="width:100%;border-collapse:collapse;font-size:14px;line-height:20px">${rows.join('')}</table>`;
}
