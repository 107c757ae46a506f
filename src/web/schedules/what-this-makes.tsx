import { isDated, phraseParts, sayDay, sayHours, workingDaysBetween } from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';
import type { BenchDraft } from './bench-draft.ts';
import { NextDates } from './next-dates.tsx';
import type { BenchPlan } from './schedule-bench.tsx';
import { YearView } from './year-view.tsx';

/** The rule as a sentence, three figures, the year, what a careful reader would remark, and the next dates. */
export function WhatThisMakes({ plan, draft }: { readonly plan: BenchPlan; readonly draft: BenchDraft }) {
  if (plan.kind === 'problem') {
    return (
      <div className="max-w-[560px] pt-1">
        <h2 className="text-[25px] leading-[30px]">Nothing yet</h2>
        <p className="mt-2">{plan.message}</p>
        <p className="mt-1 text-ink-2">The dates stand here again as soon as that is right.</p>
      </div>
    );
  }
  return (
    <>
      <div className="flex items-start gap-7">
        <h2 className="flex-1 pt-px text-[25px] font-semibold leading-[30px]" aria-live="polite">
          <Phrase draft={draft} />
        </h2>
        <Figures plan={plan} />
      </div>
      <YearView outlook={plan.outlook} />
      {plan.remarks.length > 0 && (
        <ul className="mb-1 mt-2 text-[14px] leading-5" aria-label="Remarks">
          {plan.remarks.map((remark) => (
            <li key={remark}>{remark}</li>
          ))}
        </ul>
      )}
      <NextDates occurrences={plan.outlook.next} timing={draft.timing} who={plan.who} />
    </>
  );
}

/** The phrase, its parts tied by letters to the sentences of the form when there are several rules. */
function Phrase({ draft }: { readonly draft: BenchDraft }) {
  const parts = phraseParts(draft.recurrence, { start: 'unsaid' });
  const several = draft.recurrence.rules.length > 1;
  return (
    <>
      {parts.map(({ about, text }, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the parts are drawn anew as a whole
        <span key={i}>
          {i === 0 ? text.charAt(0).toUpperCase() + text.slice(1) : text}
          {several && about.kind === 'rule' && (
            <sup className="ml-0.5 text-[13px] font-semibold text-primary" aria-hidden>
              {letterOf(about.index)}
            </sup>
          )}
        </span>
      ))}
    </>
  );
}

export function letterOf(index: number): string {
  return 'abcdefghijkl'.charAt(index);
}

function Figures({ plan }: { readonly plan: Extract<BenchPlan, { kind: 'plan' }> }) {
  const { today, workingCalendar } = useWorkspace();
  const { timesAYear, minutesAYear, next } = plan.outlook;
  const first = next.find(isDated);
  const [weekday, date, month, year] = first ? sayDay(first.on, today).split(' ') : [];
  return (
    <div className="flex flex-none gap-5">
      <div className="figure">
        <b>{timesAYear}</b>
        <span>a year</span>
      </div>
      <div className="figure">
        <b>
          {minutesAYear > 0 ? sayHours(minutesAYear) : '–'} <small>h</small>
        </b>
        <span>a year</span>
      </div>
      <div className="figure">
        <b>
          {first ? (
            <>
              {weekday} {date} <small>{[month, year].filter(Boolean).join(' ')}</small>
            </>
          ) : (
            'none'
          )}
        </b>
        <span>{first ? `next, ${inWorkingDays(workingDaysBetween(today, first.on, workingCalendar))}` : 'next'}</span>
      </div>
    </div>
  );
}

function inWorkingDays(days: number): string {
  if (days === 0) return 'today';
  return days === 1 ? 'in 1 working day' : `in ${days} working days`;
}
