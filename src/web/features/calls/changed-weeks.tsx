import type { ChangedWeeks } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { sayDayOfMonth } from '../../kit/ways.ts';

/** Of everybody whose weeks become others: how many calls each had, and has then. */
export function ChangedWeeksTable({ of, caption }: { readonly of: ChangedWeeks; readonly caption: string }) {
  const weeks = of[0]?.weeks ?? [];
  return (
    <div className="overflow-x-auto">
      <table className="border-collapse text-row">
        <caption className="sr-only">{caption}</caption>
        <thead>
          <tr className="text-note text-ink-2">
            <th scope="col" className="py-0.5 pr-4 text-left font-normal">
              calls in the week of
            </th>
            {weeks.map(({ monday }) => (
              <th key={monday} scope="col" className="px-2.5 text-right font-normal whitespace-nowrap">
                {sayDayOfMonth(dayOfIso(monday))}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {of.map(({ id, name, weeks: own }) => (
            <tr key={id} className="border-t border-line">
              <th scope="row" className="py-1 pr-4 text-left font-normal whitespace-nowrap">
                {name}
              </th>
              {own.map(({ monday, was, now }) => (
                <td key={monday} className="px-2.5 text-right font-mono whitespace-nowrap">
                  {was === now ? (
                    <span className="text-ink-2">{now}</span>
                  ) : (
                    <>
                      <s className="text-ink-2">{was}</s> <b className="font-semibold">{now}</b>
                    </>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
