import type { LogFilter, LogGrouping, LogRow } from '../../../contract/index.ts';
import { percentOf } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Empty, NotAll, Skeleton, Trouble } from '../../kit/states.tsx';
import { useFiguresBy } from './api.ts';
import { onTimeOf } from './log-words.ts';

interface FiguresByProps {
  readonly filter: LogFilter;
  readonly by: LogGrouping;
  readonly onOpen: (key: string) => void;
}

const WITHOUT: Readonly<Record<LogGrouping, string>> = {
  schedule: 'made by hand',
  client: 'the workspace itself',
  asset: 'no asset',
  person: 'nobody',
  template: 'captured',
  category: 'no category',
};
const NAMED: Readonly<Record<LogGrouping, string>> = {
  schedule: 'schedule',
  client: 'client',
  asset: 'asset',
  person: 'person',
  template: 'template',
  category: 'category',
};

/** Of these, what is without one can be asked for by itself. */
const OPENS_WITHOUT: ReadonlySet<LogGrouping> = new Set(['client', 'asset', 'person', 'template']);

/** How much was on time of each, what was missed most often first; a row opens its days. */
export function FiguresBy({ filter, by, onOpen }: FiguresByProps) {
  const { rows, count, isHere, isMore, more, again, error } = useFiguresBy(filter, by);
  const { name: workspace } = useWorkspace();
  if (error && !isHere) return <Trouble error={error} retry={again} />;
  if (!isHere) return <Skeleton rows={10} />;
  if (rows.length === 0) return <Empty title="Nothing stands here.">No work was due then.</Empty>;
  const nameOf = ({ key, name }: LogRow) =>
    key !== '' ? (name ?? 'what is not there any more') : by === 'client' ? workspace : WITHOUT[by];
  return (
    <>
      <table className="tt is-static mt-2 border-t border-line-2" style={{ minWidth: 820 }}>
        <colgroup>
          <col />
          <col style={{ width: 76 }} />
          <col style={{ width: 180 }} />
          <col style={{ width: 84 }} />
          <col style={{ width: 84 }} />
          <col style={{ width: 84 }} />
          <col style={{ width: 96 }} />
          <col style={{ width: 96 }} />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">{NAMED[by]}</th>
            <th scope="col" className="num">
              on time
            </th>
            <th scope="col" aria-hidden />
            <th scope="col" className="num">
              due
            </th>
            <th scope="col" className="num">
              late
            </th>
            <th scope="col" className="num">
              lapsed
            </th>
            <th scope="col" className="num">
              still open
            </th>
            <th scope="col" className="num">
              skipped
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const of = onTimeOf(row);
            const rate = percentOf(of);
            const name = nameOf(row);
            return (
              <tr key={row.key}>
                <td>
                  {row.key !== '' || OPENS_WITHOUT.has(by) ? (
                    <button
                      type="button"
                      data-row
                      className="cursor-pointer font-semibold hover:underline hover:underline-offset-3"
                      onClick={() => onOpen(row.key)}
                    >
                      {name}
                    </button>
                  ) : (
                    <span className="font-semibold">{name}</span>
                  )}
                  <span className="ml-2 text-ink-2">{row.detail}</span>
                </td>
                <td className="num font-semibold">{rate === null ? '–' : `${rate}%`}</td>
                <td>
                  <span aria-hidden className="flex h-1.5 bg-base-300">
                    {of.due > 0 && (
                      <>
                        <i className="bg-primary" style={{ width: `${(row.onTime / of.due) * 100}%` }} />
                        <i className="bg-late-fill" style={{ width: `${100 - (row.onTime / of.due) * 100}%` }} />
                      </>
                    )}
                  </span>
                </td>
                {[of.due, row.late, row.lapsed, row.open, row.skipped].map((figure, i) => (
                  <td
                    // biome-ignore lint/suspicious/noArrayIndexKey: the five columns are always the same
                    key={i}
                    className={`num ${figure === 0 ? 'text-ink-2' : ''}`}
                  >
                    {figure}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      {error && <NotAll error={error} retry={again} />}
      {isMore && (
        <p className="px-5 py-3 text-row text-ink-2">
          <button type="button" className="btn mr-3" onClick={more}>
            More of them
          </button>
          {rows.length} of {count?.toLocaleString('en-GB')}
        </p>
      )}
    </>
  );
}
