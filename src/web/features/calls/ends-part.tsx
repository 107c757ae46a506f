import type { CallFigures } from '../../../contract/index.ts';
import { FigureMark } from './figure-fills.tsx';
import { type Narrowing, type Show, stacked } from './figure-words.ts';

/** How calls ended, in figures: each opens its calls. */
export function EndsPart({ of, onShow }: { readonly of: CallFigures; readonly onShow: Show }) {
  const told = stacked(of.outcomes).filter(({ count }) => count > 0);
  const button = (count: number, words: string, narrowing: Narrowing, mark: React.ReactNode = null) => (
    <button
      type="button"
      key={words}
      className="flex cursor-pointer items-baseline gap-1.5 hover:underline"
      onClick={() => onShow(`Calls: ${words}`, narrowing)}
    >
      {mark}
      <b className="font-head text-[17px] font-bold">{count.toLocaleString('en-GB')}</b>
      <span className="text-ink-2">{words}</span>
    </button>
  );
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-row">
      {told.map(({ key, name, count, follows }) =>
        button(count, name, { ended: 'rung', outcome: key }, <FigureMark ending={follows} />),
      )}
      {of.notRung > 0 && button(of.notRung, 'not rung', { ended: 'notRung' }, <FigureMark ending="notRung" />)}
      {of.toRing > 0 && (
        <span className="flex items-baseline gap-1.5 text-ink-2">
          <FigureMark ending="toRing" />
          {of.toRing} still to ring
        </span>
      )}
      <span className="ml-auto">{button(of.listed, 'listed', {})}</span>
    </p>
  );
}
