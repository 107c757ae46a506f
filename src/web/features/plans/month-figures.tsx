import type { PlanLook } from '../../../contract/index.ts';
import { dayOfIso, monthShort, roundedTogether, sayHours, yearMonthDay } from '../../../core/index.ts';

type Months = PlanLook['items'][number]['before'];

export const COLUMNS = 'grid grid-cols-[repeat(12,minmax(0,1fr))_64px] gap-x-0.5';

const sum = (months: Months, of: 'tasks' | 'minutes') => months.reduce((total, month) => total + month[of], 0);

/** How much of one item is done in each month, as it is and as it would be. */
export function MonthFigures({
  before,
  after,
  isNew,
}: {
  readonly before: Months;
  readonly after: Months;
  readonly isNew: boolean;
}) {
  const most = Math.max(1, ...before.map(({ tasks }) => tasks), ...after.map(({ tasks }) => tasks));
  const tasks = sum(after, 'tasks');
  const had = sum(before, 'tasks');
  return (
    <div className={`${COLUMNS} items-start text-center font-mono text-note`}>
      {after.map(({ month, tasks: now }, i) => {
        const was = before[i]?.tasks ?? 0;
        const { month: number } = yearMonthDay(dayOfIso(month));
        return (
          <span key={month} className="leading-4.5" title={`${monthShort(number)}: ${now}`}>
            {was !== now && !isNew ? <s className="block text-ink-2">{was}</s> : <span className="block">&nbsp;</span>}
            <span className={was === now ? '' : 'font-semibold'}>{now === 0 ? '·' : now}</span>
            <span aria-hidden className="mx-auto mt-0.5 block h-[3px] w-4 bg-line">
              <span className="block h-full bg-petrol-2" style={{ width: `${(100 * now) / most}%` }} />
            </span>
          </span>
        );
      })}
      <span className="text-right leading-4.5">
        {had !== tasks && !isNew ? <s className="block text-ink-2">{had}</s> : <span className="block">&nbsp;</span>}
        <b className="block font-head text-body font-[650]">{tasks}</b>
        <span className="text-ink-2">{sayHours(sum(after, 'minutes'))} h</span>
      </span>
    </div>
  );
}

/** Hours a month of all who are on it: what is, and hatched what comes to it. */
export function HoursByMonth({ look, clients }: { readonly look: PlanLook; readonly clients: number }) {
  const first = look.items[0]?.after ?? [];
  const months = first.map(({ month }, i) => ({
    month,
    before: look.items.reduce((total, { before }) => total + (before[i]?.minutes ?? 0), 0),
    after: look.items.reduce((total, { after }) => total + (after[i]?.minutes ?? 0), 0),
  }));
  const hours = roundedTogether(
    months.map(({ after }) => after),
    60,
  );
  const most = Math.max(60, ...months.flatMap(({ before, after }) => [before, after]));
  const [was, is] = (['before', 'after'] as const).map((of) => months.reduce((total, month) => total + month[of], 0));
  const years = first.length > 0 ? [first[0], first.at(-1)].map((one) => (one?.month ?? '').slice(0, 4)) : [];
  return (
    <figure>
      <figcaption className="text-note leading-5 text-ink-2">
        hours a month of {clients === 1 ? 'the client' : `the ${clients}`}
      </figcaption>
      <div className={`${COLUMNS} items-end`}>
        {months.map(({ month, before, after }, i) => (
          <span key={month} className="flex flex-col items-center text-center font-mono text-note leading-4">
            {hours[i]}
            <span aria-hidden className="flex h-16 w-5 flex-col justify-end">
              {after > before && (
                <span className="hatched w-full" style={{ height: `${(64 * (after - before)) / most}px` }} />
              )}
              <span className="w-full bg-petrol-2" style={{ height: `${(64 * Math.min(before, after)) / most}px` }} />
            </span>
            <span className="font-sans text-ink-2">{monthShort(yearMonthDay(dayOfIso(month)).month)}</span>
          </span>
        ))}
        <span className="self-center text-right font-mono text-note leading-5">
          {was !== is && <s className="block text-ink-2">{sayHours(was ?? 0)} h</s>}
          <b className="block font-head text-[19px] font-[650]">{sayHours(is ?? 0)} h</b>
          <span className="font-sans text-ink-2">{years[0] === years[1] ? `in ${years[0]}` : `a year`}</span>
        </span>
      </div>
    </figure>
  );
}
