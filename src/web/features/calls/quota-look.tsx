import type { QuotaLook } from '../../../contract/index.ts';
import { dayOfIso, joinAnd, plural, type QuotaTerms, sayHours, sayWhyListed } from '../../../core/index.ts';
import { DateBlock } from '../../kit/date-block.tsx';
import { sayDate } from '../../kit/ways.ts';
import { ChangedWeeksTable } from './changed-weeks.tsx';
import { PoolCurve } from './pool-curve.tsx';

interface QuotaLookPartProps {
  readonly look: QuotaLook;
  readonly says: QuotaTerms;
  readonly isOfNow: boolean;
}

/** So many people have their weeks side by side; of more the sums are told. */
const SIDE_BY_SIDE = 3;
/** Whose weeks are told that become others. */
const TOLD_CHANGED = 12;
const DAYS = ['M', 'T', 'W', 'T', 'F', 'S', 'S'];

/** What a quota comes to: its weeks, its pool, and the first lists, of which nothing is made. */
export function QuotaLookPart({ look, says, isOfNow }: QuotaLookPartProps) {
  const { people, forecast, first } = look;
  const isWeekend = people.some(({ weeks }) => weeks.some(({ days }) => days.slice(5).some((n) => n !== null)));
  const shown = isWeekend ? 7 : 5;
  const told = people.slice(0, SIDE_BY_SIDE);
  const weeks = people[0]?.weeks ?? [];
  const weeksAhead = plural(Math.floor(forecast.days.length / 7), 'week');
  const sumOf = (days: readonly (number | null)[]) => days.reduce<number>((sum, n) => sum + (n ?? 0), 0);
  const all = (at: number) => people.reduce((sum, { weeks: of }) => sum + sumOf(of[at]?.days ?? []), 0);
  return (
    <div className={`min-h-0 min-w-0 overflow-auto px-6 py-3 text-row ${isOfNow ? '' : 'opacity-60'} max-[720px]:px-4`}>
      <div className="flex flex-wrap items-end gap-x-8 gap-y-2">
        <Figure
          value={plural(all(1), 'call')}
          words={`in the week of ${sayDate(dayOfIso(weeks[1]?.monday ?? first.on))}`}
        />
        <Figure value={String(look.funnel.free)} words={`may be rung on ${sayDate(dayOfIso(look.funnel.on))}`} />
        <Figure
          value={forecast.dryOn === null ? 'it lasts' : sayDate(dayOfIso(forecast.dryOn))}
          words={forecast.dryOn === null ? `for the coming ${weeksAhead}` : 'the pool runs dry'}
          isLate={forecast.dryOn !== null}
        />
      </div>
      {look.changed && look.changed.length > 0 && (
        <section className="mt-3 border-t border-line-2 pt-2" aria-label="What changes">
          <h2 className="flex flex-wrap items-baseline gap-x-3 text-row font-semibold text-primary">
            What changes
            <span className="font-normal text-ink-2">lists that are made stay as they are</span>
          </h2>
          <ChangedWeeksTable of={look.changed.slice(0, TOLD_CHANGED)} caption="Calls of each week, now and then" />
          {look.changed.length > TOLD_CHANGED && (
            <p className="text-note text-ink-2">and {plural(look.changed.length - TOLD_CHANGED, 'more', 'more')}</p>
          )}
        </section>
      )}
      {people.length === 0 && <p className="mt-4 text-late">Nobody rings by it yet: nobody here has that role.</p>}
      {people.length > 0 && (
        <div className="mt-4 overflow-x-auto">
          <table className="w-full border-collapse font-mono text-row">
            <caption className="sr-only">Calls of each week and day</caption>
            <thead>
              <tr className="text-note text-ink-2">
                <th scope="col" className="py-1 text-left font-sans font-normal">
                  week of
                </th>
                {told.map(({ id, name, weekMinutes }) => (
                  <th
                    key={id}
                    scope="colgroup"
                    colSpan={shown + 1}
                    className="border-l border-line px-2 text-left font-sans font-semibold text-ink"
                  >
                    {name}, {sayHours(weekMinutes)} h
                  </th>
                ))}
                <th scope="col" className="border-l border-line px-2 text-right font-sans font-normal">
                  {people.length > 1 ? `all ${people.length}` : 'all'}
                </th>
                <th scope="col" className="pl-3 text-left font-sans font-normal">
                  {' '}
                </th>
              </tr>
              <tr className="text-note text-ink-2" aria-hidden>
                <td />
                {told.map(({ id }) => [
                  ...DAYS.slice(0, shown).map((letter, i) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: days of a week in their order
                    <td key={`${id} ${i}`} className={`text-center ${i === 0 ? 'border-l border-line' : ''}`}>
                      {letter}
                    </td>
                  )),
                  <td key={`${id} sum`} />,
                ])}
                <td className="border-l border-line" />
                <td />
              </tr>
            </thead>
            <tbody>
              {weeks.map(({ monday }, at) => (
                <tr key={monday} className="border-t border-line">
                  <th scope="row" className="py-1 pr-3 text-left font-sans font-normal">
                    <DateBlock day={dayOfIso(monday)} look="quiet" />
                  </th>
                  {told.map(({ id, weeks: of }) => {
                    const days = of[at]?.days.slice(0, shown) ?? [];
                    return [
                      ...days.map((calls, i) => (
                        <td
                          // biome-ignore lint/suspicious/noArrayIndexKey: days of a week in their order
                          key={`${id} ${i}`}
                          className={`text-center ${i === 0 ? 'border-l border-line' : ''} ${calls === null ? 'bg-line/60' : ''}`}
                        >
                          {calls ?? ''}
                        </td>
                      )),
                      <td key={`${id} sum`} className="px-2 text-right font-semibold">
                        {sumOf(of[at]?.days ?? [])}
                      </td>,
                    ];
                  })}
                  <td className="border-l border-line px-2 text-right font-head text-[17px] font-[650]">{all(at)}</td>
                  <td className="pl-3 font-sans text-note text-ink-2">{sayMissing(look, at)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {people.length > SIDE_BY_SIDE && (
        <p className="mt-1 text-note text-ink-2">
          {plural(people.length - SIDE_BY_SIDE, 'person more', 'people more')} ring too; the sums are of all.
        </p>
      )}
      <section className="mt-5 border-t border-line-2 pt-2">
        <h2 className="flex flex-wrap items-baseline gap-x-3 text-row font-semibold text-primary">
          The pool
          <span className="font-normal text-ink-2">{forecast.comeBack} of 100 who are rung come back to it</span>
          {forecast.lasts < 100 && (
            <span className="ml-auto font-normal text-ink-2">
              {forecast.lasts} of 100 of these calls would last for {weeksAhead}
            </span>
          )}
        </h2>
        <PoolCurve forecast={forecast} />
      </section>
      <section className="mt-4 border-t border-line-2 pt-2">
        <h2 className="flex flex-wrap items-baseline gap-x-3 text-row font-semibold text-primary">
          {sayDate(dayOfIso(first.on))}
          <span className="font-normal text-ink-2">
            {first.on > look.funnel.on
              ? 'a rehearsal, as if nobody were rung until then: nothing is made'
              : 'a rehearsal: nothing is made, the same day gives the same lists'}
          </span>
        </h2>
        <div className="mt-1 grid grid-cols-[repeat(auto-fill,minmax(280px,1fr))] gap-x-7">
          {first.lists.map(({ id, name, wanted, found, calls }) => (
            <div key={id}>
              <h3 className="flex items-baseline border-b border-line-2 py-1 font-semibold">
                {name}, {found}
                {found < wanted && <span className="ml-auto font-normal text-late">{wanted - found} too few</span>}
              </h3>
              <ol>
                {calls.slice(0, 8).map(({ contact, client, asset, why }, i) => (
                  <li key={contact.id} className="flex flex-wrap gap-x-2 border-b border-line py-1">
                    <span className="w-4 text-right text-ink-2">{i + 1}</span>
                    <span className="min-w-[150px] flex-1 truncate">
                      <b className="font-semibold">{contact.name}</b>{' '}
                      <span className="text-ink-2">{asset ?? (contact.name === client.name ? '' : client.name)}</span>
                    </span>
                    <span className="ml-auto whitespace-nowrap text-ink-2">
                      {sayWhyListed(why, dayOfIso(first.on))}
                    </span>
                  </li>
                ))}
              </ol>
              {found > 8 && <p className="py-1 text-note text-ink-2">and {found - 8} more</p>}
            </div>
          ))}
        </div>
        {says.pool.conditions.length === 0 && (
          <p className="mt-2 text-note text-ink-2">Everybody with a number is in the pool: no condition narrows it.</p>
        )}
      </section>
    </div>
  );
}

function Figure({
  value,
  words,
  isLate = false,
}: {
  readonly value: string;
  readonly words: string;
  readonly isLate?: boolean;
}) {
  return (
    <p className="border-l border-line-2 pl-4 first:border-l-0 first:pl-0">
      <b className={`block font-head text-[24px] leading-7 font-[650] ${isLate ? 'text-late' : ''}`}>{value}</b>
      <span className="text-note text-ink-2">{words}</span>
    </p>
  );
}

/** "13 off, Ayesha away; 10 beyond the limit of a day" */
function sayMissing({ people }: QuotaLook, at: number): string {
  const sum = (field: 'off' | 'beyond' | 'unplaced') =>
    people.reduce((total, { weeks }) => total + (weeks[at]?.[field] ?? 0), 0);
  const [off, beyond, unplaced] = [sum('off'), sum('beyond'), sum('unplaced')];
  const who = people.filter(({ weeks }) => (weeks[at]?.off ?? 0) > 0).map(({ name }) => name.split(' ')[0] ?? name);
  return [
    ...(off > 0 ? [`${off} off${who.length <= 2 ? ` (${joinAnd(who)})` : ''}`] : []),
    ...(beyond > 0 ? [`${beyond} beyond the limit of a day`] : []),
    ...(unplaced > 0 ? [`${unplaced} without a day`] : []),
  ].join(', ');
}
