import type { CallFigures } from '../../../contract/index.ts';
import { percentOf } from '../../../core/index.ts';

const CELL = 'py-1.5 pl-2 text-right whitespace-nowrap';
/** Left out where there is no room for it: the calls behind a name tell it too. */
const FOR_WIDE = `${CELL} max-[720px]:hidden`;

const COLUMNS = [
  ['', CELL],
  ['rung', CELL],
  ['of listed', FOR_WIDE],
  ['reached', CELL],
  ['share', CELL],
  ['whole lists', CELL],
  ['best row', FOR_WIDE],
] as const;

/** Calls by who rang: each name opens its calls. */
export function PeopleFigures({
  of,
  onShow,
}: {
  readonly of: CallFigures;
  readonly onShow: (id: string, name: string) => void;
}) {
  const all = { listed: of.listed, rung: of.rung, reached: of.reached };
  const share = ({ reached, rung }: { readonly reached: number; readonly rung: number }) =>
    percentOf({ due: rung, onTime: reached });
  const say = (count: number) => count.toLocaleString('en-GB');
  return (
    <table className="mt-2 w-full border-t border-line-2 text-row">
      <caption className="sr-only">Calls by who rang</caption>
      <thead className="text-ink-2">
        <tr className="border-b border-line-2">
          {COLUMNS.map(([name, look]) => (
            <th key={name} scope="col" className={`${look} font-normal`}>
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {of.people.map((one) => (
          <tr key={one.id} className="border-b border-line">
            <th scope="row" className="py-1.5 text-left font-semibold">
              <button type="button" className="cursor-pointer hover:underline" onClick={() => onShow(one.id, one.name)}>
                {one.name}
              </button>
            </th>
            <td className={CELL}>{say(one.rung)}</td>
            <td className={`${FOR_WIDE} text-ink-2`}>{say(one.listed)}</td>
            <td className={CELL}>{say(one.reached)}</td>
            <td className={`${CELL} font-semibold`}>{share(one) === null ? '' : `${share(one)}%`}</td>
            <td className={CELL}>
              {one.whole} of {one.lists}
            </td>
            <td className={FOR_WIDE}>{one.best}</td>
          </tr>
        ))}
      </tbody>
      {of.people.length > 1 && (
        <tfoot className="font-semibold">
          <tr>
            <th scope="row" className="py-1.5 text-left font-semibold">
              {of.people.length === 2 ? 'Both' : 'All of them'}
            </th>
            <td className={CELL}>{say(all.rung)}</td>
            <td className={`${FOR_WIDE} font-normal text-ink-2`}>{say(all.listed)}</td>
            <td className={CELL}>{say(all.reached)}</td>
            <td className={CELL}>{share(all) === null ? '' : `${share(all)}%`}</td>
            <td className={CELL}>
              {of.people.reduce((sum, { whole }) => sum + whole, 0)} of{' '}
              {of.people.reduce((sum, { lists }) => sum + lists, 0)}
            </td>
            <td className="max-[720px]:hidden" />
          </tr>
        </tfoot>
      )}
    </table>
  );
}
