import { Link } from 'react-router';
import type { ClientWork, WorkMark } from '../../../../contract/index.ts';
import { type CivilDay, civilDay, dayOfIso, monthShort, yearMonthDay } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { Pennant, type PennantState, stateWords } from '../../../kit/pennant.tsx';
import { sayDay } from '../../../kit/ways.ts';

/** Share of the year that a pennant takes, and one with its date beside it. */
const PENNANT = 0.016;
const WITH_DATE = 0.042;

const LEGEND: readonly (readonly [PennantState, string])[] = [
  ['done', 'done'],
  ['coming', 'made'],
  ['bare', 'not made yet'],
];

/** A year of all that is done for somebody: a line for each piece of work, a mark for each date. */
export function YearLines({ work: { from, to, lines } }: { readonly work: ClientWork }) {
  const today = useToday();
  const [first, last] = [dayOfIso(from), dayOfIso(to)];
  const place = (day: CivilDay) => (day - first) / (last - first + 1);
  const months = monthsOf(first, last);
  if (lines.length === 0) return null;
  return (
    <section aria-labelledby="year-lines" className="px-5 pt-2.5 pb-3 max-[720px]:px-4">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 id="year-lines" className="text-body leading-5.5 text-primary">
          The year
        </h2>
        <span className="ml-auto flex gap-4 text-note text-ink-2">
          {LEGEND.map(([state, words]) => (
            <span key={state} className="inline-flex items-center gap-1.5">
              <Pennant state={state} label="" />
              {words}
            </span>
          ))}
        </span>
      </div>
      <div className="mt-1 overflow-x-auto">
        <div className="relative min-w-[780px]">
          <div className="grid grid-cols-[156px_minmax(0,1fr)]" aria-hidden>
            <span />
            <span className="relative h-6 border-b border-line-2">
              {months.map((month) => (
                <span
                  key={month}
                  className="absolute top-0.5 font-head text-row leading-5 font-[650] font-stretch-[82%]"
                  style={{ left: `calc(${place(month) * 100}% + 5px)` }}
                >
                  {monthShort(yearMonthDay(month).month)}
                  {(month === first || yearMonthDay(month).month === 1) &&
                    ` ’${String(yearMonthDay(month).year).slice(-2)}`}
                </span>
              ))}
            </span>
          </div>
          <ul>
            {lines.map(({ key, name, marks }) => (
              <li key={key} className="grid min-h-[25px] grid-cols-[156px_minmax(0,1fr)] border-b border-line">
                <span className="truncate pr-2 text-row leading-6" title={name}>
                  {name}
                </span>
                <span className="relative">
                  {months.map((month) => (
                    <i
                      key={month}
                      className="absolute inset-y-0 w-px bg-line"
                      style={{ left: `${place(month) * 100}%` }}
                    />
                  ))}
                  <i
                    className="absolute inset-y-0 w-[3px] bg-accent"
                    style={{ left: `calc(${place(today) * 100}% - 1px)` }}
                  />
                  <Marks marks={marks} place={place} today={today} />
                </span>
              </li>
            ))}
          </ul>
        </div>
      </div>
    </section>
  );
}

function monthsOf(first: CivilDay, last: CivilDay): CivilDay[] {
  const months: CivilDay[] = [];
  const { year, month } = yearMonthDay(first);
  for (let index = year * 12 + month - 1; ; index++) {
    const day = civilDay(Math.floor(index / 12), (index % 12) + 1, 1);
    if (day > last) return months;
    months.push(day);
  }
}

interface MarksProps {
  readonly marks: readonly WorkMark[];
  readonly place: (day: CivilDay) => number;
  readonly today: CivilDay;
}

/** Pennants, with their date where there is room for it; strokes where they stand too close for either. */
function Marks({ marks, place, today }: MarksProps) {
  const places = marks.map(({ on }) => place(dayOfIso(on)));
  const isDense = places.filter((at, i) => i > 0 && at - (places[i - 1] ?? 0) < PENNANT).length > marks.length / 4;
  return marks.map((mark, i) => {
    const at = places[i] ?? 0;
    const room = (places[i + 1] ?? 1) - at;
    return (
      <Mark
        key={`${mark.on} ${mark.taskId ?? i}`}
        mark={mark}
        at={at}
        today={today}
        look={isDense ? 'stroke' : room >= WITH_DATE ? 'with date' : 'pennant'}
      />
    );
  });
}

interface MarkProps {
  readonly mark: WorkMark;
  /** Its place, as a share of the year. */
  readonly at: number;
  readonly today: CivilDay;
  readonly look: 'stroke' | 'pennant' | 'with date';
}

function Mark({ mark, at, today, look }: MarkProps) {
  const day = dayOfIso(mark.on);
  const state: PennantState = mark.taskId === null ? 'bare' : mark.state;
  const words = `${sayDay(day, today)}: ${stateWords(state, mark.late).toLowerCase()}`;
  const sign = (
    <>
      {look === 'stroke' ? (
        <i className={`block h-3.5 w-[2px] ${strokeOf(mark)}`} />
      ) : (
        <Pennant state={state} late={mark.late} label="" />
      )}
      {look === 'with date' && <span className="text-note text-ink-2">{yearMonthDay(day).day}</span>}
    </>
  );
  const className = 'absolute top-1 flex items-center gap-0.5 leading-4';
  const style = { left: `calc(${at * 100}% - 1px)` };
  return mark.taskId === null ? (
    <span className={className} style={style} title={words}>
      {sign}
      <span className="sr-only">{words}</span>
    </span>
  ) : (
    <Link className={className} style={style} title={words} aria-label={words} to={`task/${mark.taskId}`}>
      {sign}
    </Link>
  );
}

function strokeOf({ state, late }: WorkMark): string {
  if (state === 'done') return 'bg-primary';
  return late ? 'bg-late-fill' : 'bg-ink-2 opacity-60';
}
