import { ChevronDown, ChevronUp } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import {
  type AssignmentRule,
  type CivilDay,
  callNames,
  dayOfIso,
  isDated,
  isoOfDay,
  mayComeToDo,
  minutesOfHolder,
  monthIndexOf,
  monthShort,
  peopleHere,
  phraseParts,
  planYear,
  type SetTask,
  sayHours,
  sayWhy,
  stretchAt,
  type Timing,
  weekdayOf,
  weekdayShort,
  workingDaysBetween,
  writePhrase,
  yearMonthDay,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { Figure } from '../../../kit/figure.tsx';
import { sayDate, sayDay, sayTime, sayTimeSpan, waysShown } from '../../../kit/ways.ts';
import { hasSeveral } from '../who.ts';
import { type YearEdit, YearView } from '../year/year-view.tsx';
import { useAtOnce } from './at-once.ts';
import { type BenchDraft, withRecurrence } from './bench-draft.ts';
import type { BenchPlan } from './bench-plan.ts';
import { NextDates } from './next-dates.tsx';
import { type FaceOf, initialsOf, kindOf } from './who-faces.ts';
import { YearOfPeople } from './year-of-people.tsx';

interface WhatThisMakesProps {
  readonly plan: BenchPlan;
  /** Of the schedule that is changed; null for a new one. */
  readonly ownId: string | null;
  readonly draft: BenchDraft;
  readonly stretch: number;
  readonly edit: YearEdit | null;
  /** Whose dates stand out. */
  readonly chosenId: string | null;
  readonly onRehearse: () => void;
}

const NOTHING_OWED: readonly SetTask[] = [];

/** The rule as a sentence, three figures, the year, what a careful reader would remark, and the next dates. */
export const WhatThisMakes = memo(function WhatThisMakes({
  plan,
  ownId,
  draft,
  stretch,
  edit,
  chosenId,
  onRehearse,
}: WhatThisMakesProps) {
  const { today, yearStarts } = useWorkspace();
  const meets = useAtOnce(plan.kind === 'plan' ? plan.owed : NOTHING_OWED, ownId);
  if (plan.kind === 'problem') {
    return (
      <div className="max-w-[560px] pt-1">
        <h2 className="text-[25px] leading-7.5">Nothing yet</h2>
        <p className="mt-2">{plan.message}</p>
        <p className="mt-1 text-ink-2">The dates stand here again as soon as that is right.</p>
      </div>
    );
  }
  const isNarrow = hasSeveral(draft.assignment);
  return (
    <>
      <div className="flex items-start gap-7">
        <h2 className="flex-1 pt-px text-[25px] font-semibold leading-7.5" aria-live="polite">
          <Phrase {...stretchAt(draft, stretch)} turns={sayTurns(draft.assignment)} />
        </h2>
        <Figures plan={plan} />
      </div>
      <Year plan={plan} draft={draft} edit={edit} chosenId={chosenId} />
      {isNarrow && <FaceKey chosenId={chosenId} />}
      <ul className="mb-1 mt-2 text-row leading-5 empty:hidden" aria-label="Remarks">
        {draft.revisions.map(({ from, recurrence }) => (
          <li key={from}>
            <span className="mr-1.5 inline-block h-2.5 w-4 bg-petrol-3 align-baseline" aria-hidden />
            From {sayDate(dayOfIso(from))}: {writePhrase(recurrence, { start: 'unsaid', yearStarts })}.
          </li>
        ))}
        {[...plan.remarks, ...meets].map(({ kind, text, dates: [sooner] }) => (
          <li key={text}>
            {text}
            {kind === 'begins late' && sooner !== undefined && edit && (
              <>
                {' '}
                <button
                  type="button"
                  className="link-line"
                  onClick={() =>
                    edit.onChange(withRecurrence(draft, 0, { ...draft.recurrence, start: isoOfDay(sooner) }))
                  }
                >
                  Begin on {sayDay(sooner, today)}
                </button>
              </>
            )}
          </li>
        ))}
      </ul>
      <div className={isNarrow ? 'grid grid-cols-[minmax(0,1fr)_356px] items-start gap-x-5 max-[1240px]:block' : ''}>
        <NextDates
          occurrences={plan.outlook.next}
          whose={plan.whose}
          isNarrow={isNarrow}
          set={plan.set}
          titleOf={plan.titleOf}
        />
        {isNarrow && (
          <YearOfPeople
            dated={plan.outlook.coming.filter(isDated)}
            whose={plan.whose}
            minutes={minutesOfHolder(plan.set.parts)}
            chosenId={chosenId}
          />
        )}
      </div>
      <p className="mt-2">
        <button type="button" className="link-line" onClick={onRehearse}>
          Rehearse any span
        </button>{' '}
        <span className="text-note text-ink-2">as a table to copy or save; nothing is made</span>
      </p>
    </>
  );
});

/** What the year shows of who has a date, where different people may; null where it shows the dates themselves. */
function useFaces(plan: Extract<BenchPlan, { kind: 'plan' }>, draft: BenchDraft): FaceOf | null {
  const { people, today } = useWorkspace();
  return useMemo(() => {
    if (!hasSeveral(draft.assignment) || plan.set.who === null) return null;
    const called = callNames(people);
    const nameOf = (id: string) => called.get(id) ?? 'somebody';
    const mayDo = mayComeToDo(draft.assignment, peopleHere(plan.set.who.colleagues.colleagues), null);
    const initials = initialsOf(mayDo, called);
    return (occurrence) => {
      const assignment = plan.whose(occurrence);
      const personId = assignment.kind === 'one' ? assignment.personId : null;
      return {
        personId,
        initial: personId === null ? '–' : (initials.get(personId) ?? nameOf(personId).slice(0, 2)),
        name: personId === null ? 'nobody' : nameOf(personId),
        kind: kindOf(assignment),
        why: sayWhy(assignment, nameOf, today),
      };
    };
  }, [plan, draft.assignment, people, today]);
}

/** What the marks of the year mean where they tell of people. */
function FaceKey({ chosenId }: { readonly chosenId: string | null }) {
  const { people } = useWorkspace();
  const name = callNames(people).get(chosenId ?? '');
  return (
    <p className="mt-1.5 flex flex-wrap gap-x-5 text-note leading-4.5 text-ink-2">
      {name && (
        <span>
          <i className="mr-1.5 inline-block h-3 w-6 rounded-full bg-primary align-[-1px]" aria-hidden />
          {name}’s, chosen at the left
        </span>
      )}
      <span>
        <i className="mr-1.5 inline-block h-3 w-6 rounded-full bg-petrol-3 align-[-1px]" aria-hidden />
        own turn
      </span>
      <span>
        <i className="mr-1.5 inline-block size-3 rounded-full border border-ink align-[-1px]" aria-hidden />
        somebody takes over
      </span>
      <span>
        <i
          className="mr-1.5 inline-block h-3 w-6 rounded-full border border-dashed border-ink align-[-1px]"
          aria-hidden
        />
        swapped, or chosen by hand
      </span>
    </p>
  );
}

/** Twelve months of the plan from this one on, and those before and after. */
function Year({
  plan,
  draft,
  edit,
  chosenId,
}: {
  readonly plan: Extract<BenchPlan, { kind: 'plan' }>;
  readonly draft: BenchDraft;
  readonly edit: YearEdit | null;
  readonly chosenId: string | null;
}) {
  const { planned } = plan;
  const { today, workingCalendar } = useWorkspace();
  const faceOf = useFaces(plan, draft);
  const [years, setYears] = useState(0);
  const firstMonth = monthIndexOf(today) + years * 12;
  const year = useMemo(() => planYear(planned, workingCalendar, firstMonth), [planned, workingCalendar, firstMonth]);
  return (
    <div className="relative">
      <div className="absolute -right-1.5 -top-1 z-10 flex">
        {years !== 0 && (
          <button type="button" className="btn btn-text h-6 min-h-6 px-1.5" onClick={() => setYears(0)}>
            This year
          </button>
        )}
        <button
          type="button"
          className="btn btn-text h-6 min-h-6 w-6 min-w-6 p-0"
          aria-label="Twelve months earlier"
          title="Twelve months earlier (Page Up)"
          onClick={() => setYears(years - 1)}
        >
          <ChevronUp size={16} aria-hidden />
        </button>
        <button
          type="button"
          className="btn btn-text h-6 min-h-6 w-6 min-w-6 p-0"
          aria-label="Twelve months later"
          title="Twelve months later (Page Down)"
          onClick={() => setYears(years + 1)}
        >
          <ChevronDown size={16} aria-hidden />
        </button>
      </div>
      <YearView
        year={year}
        draft={draft}
        edit={edit}
        whose={plan.whose}
        faceOf={faceOf}
        chosenId={chosenId}
        onPage={(step) => setYears(years + step)}
      />
    </div>
  );
}

/** The phrase, its parts tied by letters to the sentences of the form when there are several rules. */
function Phrase({
  recurrence,
  timing,
  turns,
}: {
  readonly recurrence: BenchDraft['recurrence'];
  readonly timing: Timing;
  readonly turns: string;
}) {
  const { yearStarts } = useWorkspace();
  const parts = phraseParts(recurrence, { start: 'unsaid', yearStarts });
  const several = recurrence.rules.length > 1;
  return (
    <>
      {parts.map(({ about, text }, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the parts are drawn anew as a whole
        <span key={i}>
          {i === 0 ? text.charAt(0).toUpperCase() + text.slice(1) : text}
          {several && about.kind === 'rule' && (
            <sup className="ml-0.5 text-note font-semibold text-primary" aria-hidden>
              {letterOf(about.index)}
            </sup>
          )}
        </span>
      ))}
      <span className="font-normal text-ink-2">{sayTimesOfDay(timing)}</span>
      {turns}
    </>
  );
}

const TURNS_BY = {
  occurrence: ', each time the next',
  week: ', in turn by the week',
  month: ', in turn by the month',
} as const;

function sayTurns(rule: AssignmentRule): string {
  return rule.kind === 'inTurn' ? TURNS_BY[rule.turns.length.per] : '';
}

/** Times of day as a phrase says them, where they are of the day itself: due four days later is no part of the rule. */
function sayTimesOfDay({ starts, due, startTime, dueTime }: Timing): string {
  const from = starts.amount === 0 ? startTime : null;
  const to = due.amount === 0 ? dueTime : null;
  if (from !== null) return to === null ? ` at ${sayTime(from)}` : `, ${sayTimeSpan(from, to)}`;
  return to === null ? '' : `, by ${sayTime(to)}`;
}

export function letterOf(index: number): string {
  return 'abcdefghijkl'.charAt(index);
}

function Figures({ plan }: { readonly plan: Extract<BenchPlan, { kind: 'plan' }> }) {
  const { today, workingCalendar } = useWorkspace();
  const { timesAYear, minutesAYear, next } = plan.outlook;
  const first = next.find(isDated);
  return (
    <div className="flex flex-none gap-5">
      <Figure words="a year">{timesAYear}</Figure>
      <Figure words="a year">
        {minutesAYear > 0 ? sayHours(minutesAYear) : '–'} <small>h</small>
      </Figure>
      <Figure words={first ? `next, ${inWorkingDays(workingDaysBetween(today, first.on, workingCalendar))}` : 'next'}>
        {first ? <NextDate day={first.on} today={today} /> : 'none'}
      </Figure>
    </div>
  );
}

/** The figure large, the month and another year beside it in the order in which they are seen. */
function NextDate({ day, today }: { readonly day: CivilDay; readonly today: CivilDay }) {
  const { year, month, day: date } = yearMonthDay(day);
  const other = year === yearMonthDay(today).year ? '' : ` ${year}`;
  const weekday = weekdayShort(weekdayOf(day));
  return waysShown().dateOrder === 'day first' ? (
    <>
      {weekday} {date} <small>{`${monthShort(month)}${other}`}</small>
    </>
  ) : (
    <>
      {weekday} <small>{monthShort(month)}</small> {date} {other && <small>{other}</small>}
    </>
  );
}

function inWorkingDays(days: number): string {
  if (days === 0) return 'today';
  return days === 1 ? 'in 1 working day' : `in ${days} working days`;
}
