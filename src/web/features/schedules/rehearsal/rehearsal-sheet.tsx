import { useMemo } from 'react';
import {
  type Assignment,
  type DatedOccurrence,
  isoOfDay,
  type OmittedOccurrence,
  type PlannedSchedule,
  plural,
  type RehearsedLine,
  tryDayOfIso,
} from '../../../../core/index.ts';
import { sayDone, sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { DateBlank } from '../../../kit/blanks.tsx';
import { DateBlock } from '../../../kit/date-block.tsx';
import { CloseButton, SideSheet } from '../../../kit/side-sheet.tsx';
import { sayDate, sayDay } from '../../../kit/ways.ts';
import { sayWho } from '../who-words.ts';
import { useRehearsal } from './rehearsal.ts';
import { REHEARSAL_COLUMNS, type RehearsalWords, rehearsalLine } from './rehearsal-lines.ts';
import type { RehearsalQuestion } from './rehearsal-worker.ts';

interface RehearsalSheetProps {
  /** `YYYY-MM-DD..YYYY-MM-DD`, as it stands in the address. */
  readonly span: string;
  readonly schedule: PlannedSchedule;
  readonly set: RehearsalQuestion['set'];
  readonly title: string;
  readonly titleOf: RehearsalWords['title'];
  readonly onSpan: (span: string) => void;
  readonly onClose: () => void;
}

/** The most lines that are drawn; all of them are copied and saved. */
const SHOWN = 400;
const LONGEST_SPAN_DAYS = 366 * 100;

/** What would be made over any span, without making it: a table to copy, or to save as CSV or for a calendar. */
export function RehearsalSheet({ span, schedule, set, title, titleOf, onSpan, onClose }: RehearsalSheetProps) {
  const { today, people, workingCalendar, zone, now } = useWorkspace();
  const { from, to } = spanOf(span, today);
  const rehearsal = useRehearsal(schedule, set, from, to);
  const plan = rehearsal.kind === 'plan' ? rehearsal.plan : [];
  const whoOf = (assignment: Assignment) => sayWho(assignment, people);
  const lines = () => plan.map((one) => rehearsalLine(one, { title: titleOf, who: whoOf }, workingCalendar));
  const tasks = useMemo(() => plan.filter((one) => one.kind === 'task'), [plan]);
  const name = `rehearsal-${title
    .toLowerCase()
    .replace(/[^\p{L}\d]+/gu, '-')
    .replace(/^-|-$/g, '')}-${isoOfDay(from)}`;

  const copy = async () => {
    const { pasteOf } = await import('./rehearsal-files.ts');
    await navigator.clipboard.writeText(pasteOf(REHEARSAL_COLUMNS, lines()));
    sayDone(`Copied ${plural(plan.length, 'line')}.`);
  };
  const saveCsv = async () => {
    const { csvOf } = await import('./rehearsal-files.ts');
    save(`${name}.csv`, 'text/csv', csvOf(REHEARSAL_COLUMNS, lines()));
  };
  const saveIcs = async () => {
    const { icsOf } = await import('./rehearsal-files.ts');
    save(`${name}.ics`, 'text/calendar', icsOf({ title: titleOf, key: name, tasks, workspaceZone: zone, now }));
  };
  return (
    <SideSheet
      label="Rehearsal"
      onClose={onClose}
      className="absolute inset-y-0 right-0 z-20 w-[min(560px,100%)] max-[1000px]:fixed"
    >
      <div className="sticky top-0 z-10 border-b border-line-2 bg-base-100 px-5 pb-3 pt-4">
        <div className="flex items-start gap-2">
          <h2 className="flex-1 text-[20px] leading-6">Rehearsal</h2>
          <CloseButton onClose={onClose} />
        </div>
        <p className="text-note text-ink-2">{title}: what would be made, without making it.</p>
        <p className="mt-2 text-row leading-7">
          from{' '}
          <DateBlank
            label="Rehearse from"
            value={from}
            onChange={(day) => onSpan(`${isoOfDay(day)}..${isoOfDay(Math.max(day, to))}`)}
          />{' '}
          to{' '}
          <DateBlank
            label="Rehearse to"
            value={to}
            onChange={(day) => onSpan(`${isoOfDay(Math.min(from, day))}..${isoOfDay(day)}`)}
          />
        </p>
        <p className="text-row" role="status">
          {rehearsal.kind === 'working' && 'Working it out …'}
          {rehearsal.kind === 'problem' && rehearsal.message}
          {rehearsal.kind === 'plan' && inWords(plan)}
        </p>
        <div className="mt-2 flex flex-wrap gap-2">
          <button type="button" className="btn" disabled={plan.length === 0} onClick={() => copy().catch(sayTrouble)}>
            Copy
          </button>
          <button
            type="button"
            className="btn"
            disabled={plan.length === 0}
            onClick={() => saveCsv().catch(sayTrouble)}
          >
            Save as CSV
          </button>
          <button
            type="button"
            className="btn"
            disabled={tasks.length === 0}
            onClick={() => saveIcs().catch(sayTrouble)}
          >
            Save for a calendar (.ics)
          </button>
        </div>
      </div>
      <table className="tt is-static w-full px-5 [&_td]:h-[33px]">
        <colgroup>
          <col style={{ width: 154 }} />
          <col className="max-[720px]:hidden" style={{ width: 100 }} />
          <col style={{ width: 104 }} />
          <col />
        </colgroup>
        <thead>
          <tr>
            <th scope="col" className="pl-5">
              due
            </th>
            <th scope="col" className="max-[720px]:hidden">
              appears
            </th>
            <th scope="col">who</th>
            <th scope="col">{set.parts.length > 1 ? 'task' : 'remark'}</th>
          </tr>
        </thead>
        <tbody>
          {plan.slice(0, SHOWN).map((one) =>
            one.kind === 'task' ? (
              <tr key={`${one.occurrence.nominal} ${one.task.part.key} ${one.task.head}`}>
                <td className="date pl-5">
                  <DateBlock day={one.task.due} />
                </td>
                <td className="whitespace-nowrap text-ink-2 max-[720px]:hidden">
                  {sayDay(one.task.appears, one.task.appears)}
                </td>
                <td>{whoOf(one.task.assignment)}</td>
                <td className="whitespace-normal">
                  {set.parts.length > 1 && <span className="mr-2">{titleOf(one.task, one.occurrence)}</span>}
                  <span className="text-ink-2">{remarkOf(one.occurrence, today)}</span>
                </td>
              </tr>
            ) : (
              <tr key={one.nominal} className="text-ink-2">
                <td className="date pl-5">
                  <DateBlock day={one.on} look="quiet" />
                </td>
                <td className="max-[720px]:hidden" />
                <td />
                <td>{REASONS[one.because]}</td>
              </tr>
            ),
          )}
        </tbody>
      </table>
      {plan.length > SHOWN && (
        <p className="px-5 py-3 text-note text-ink-2">
          The first {SHOWN} of {plan.length} lines, up to {sayDate(dayOfLine(plan[SHOWN - 1]) ?? to)}. Copy or save to
          have them all.
        </p>
      )}
    </SideSheet>
  );
}

function spanOf(span: string, today: number): { from: number; to: number } {
  const [first = '', last = ''] = span.split('..');
  const from = tryDayOfIso(first) ?? today;
  const to = tryDayOfIso(last) ?? from + 364;
  return { from, to: Math.min(Math.max(from, to), from + LONGEST_SPAN_DAYS) };
}

function dayOfLine(line: RehearsedLine | undefined): number | undefined {
  return line?.kind === 'task' ? line.task.due : line?.on;
}

/** "24 tasks to be made, 2 dates left out: 1 a day off, 1 skipped by hand." */
function inWords(plan: readonly RehearsedLine[]): string {
  const made = plan.filter(({ kind }) => kind === 'task').length;
  const reasons = new Map<OmittedOccurrence['because'], number>();
  for (const one of plan) if (one.kind === 'omitted') reasons.set(one.because, (reasons.get(one.because) ?? 0) + 1);
  const left = [...reasons].map(([because, count]) => `${count} ${REASONS[because]}`);
  const words = made === 0 ? 'Nothing to be made' : `${plural(made, 'task')} to be made`;
  return left.length > 0
    ? `${words}; ${plural(plan.length - made, 'date')} left out: ${left.join(', ')}.`
    : `${words}.`;
}

const REASONS = {
  'day off': 'on a day off',
  closed: 'in a closed season',
  skipped: 'skipped by hand',
  paused: 'paused',
  'same day as another': 'on the same day as another',
  deleted: 'deleted on purpose',
} as const;

function remarkOf({ moved, nominal, isAdded, isForeseen }: DatedOccurrence, today: number): string {
  return [moved && `moved from ${sayDay(nominal, today)}`, isAdded && 'added by hand', isForeseen && 'foreseen']
    .filter((part): part is string => typeof part === 'string')
    .join(', ');
}

function save(name: string, type: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
