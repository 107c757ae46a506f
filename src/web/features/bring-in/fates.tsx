import type { BringIn } from '../../../contract/index.ts';
import { Figure } from '../../kit/figure.tsx';

/** Bars that the strip has room for; each stands for as many lines as need be. */
const MOST_BARS = 120;
/** Of several lines in one bar the most telling is drawn. */
const RANK = 'xuens';
const LOOKS: Readonly<Record<string, string>> = {
  n: 'h-3 bg-petrol-2',
  u: 'h-3 border border-ink',
  s: 'h-1.5 bg-line-2',
  e: 'h-1.5 border border-line-2',
  x: 'h-4 bg-late-fill',
};

/** What would become of all lines: figures, and a bar for each in the order of the file. */
export function Fates({ bringIn: { kind, counts, fates, state } }: { readonly bringIn: BringIn }) {
  const isOver = state === 'done';
  return (
    <section className="border-b border-line-2 px-5 pt-3 pb-2 max-[720px]:px-4" aria-label="What it comes to">
      <div className="flex flex-wrap gap-x-4 gap-y-2">
        <Figure words={isOver ? 'brought in' : 'new'} isQuiet={counts.new === 0} className="border-l-0 pl-0">
          {counts.new}
        </Figure>
        <Figure words="brought up to date" isQuiet={counts.update === 0}>
          {counts.update}
        </Figure>
        {counts.same > 0 && (
          <Figure words="say nothing new" isQuiet>
            {counts.same}
          </Figure>
        )}
        {counts.leave > 0 && (
          <Figure words="left, as chosen" isQuiet>
            {counts.leave}
          </Figure>
        )}
        <Figure
          words={kind === 'calendar' ? 'left out' : 'left, not readable'}
          isQuiet={counts.left === 0}
          className={counts.left > 0 ? 'text-late' : ''}
        >
          {counts.left}
        </Figure>
        <span className="ml-auto max-w-[210px] text-right text-note leading-4 text-ink-2">
          {isOver
            ? 'All of it can be taken out again in one click.'
            : 'What is brought in can be taken out again in one click, for 30 days.'}
        </span>
      </div>
      <div className="mt-2.5 flex h-4 items-center gap-px" aria-hidden>
        {barsOf(fates).map(({ fate, from }) => (
          <i key={from} className={`min-w-px flex-1 ${LOOKS[fate] ?? ''}`} title={`line ${from}`} />
        ))}
      </div>
      <div className="flex justify-between text-note text-ink-2" aria-hidden>
        <span>1</span>
        <span>{fates.length.toLocaleString('en-GB')}</span>
      </div>
    </section>
  );
}

function barsOf(fates: string): { fate: string; from: number }[] {
  const each = Math.ceil(fates.length / MOST_BARS);
  return Array.from({ length: Math.ceil(fates.length / Math.max(1, each)) }, (_, i) => {
    const part = fates.slice(i * each, (i + 1) * each);
    return { fate: [...RANK].find((rank) => part.includes(rank)) ?? 'n', from: i * each + 1 };
  });
}
