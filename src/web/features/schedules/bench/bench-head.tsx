import type { Schedule } from '../../../../contract/index.ts';
import { dayOfIso, plural } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { sayDate } from '../../../kit/ways.ts';
import { CalendarLink } from '../../calendars/calendar-link.tsx';
import type { BenchPlan } from './bench-plan.ts';

interface BenchHeadProps {
  readonly schedule: Schedule | null;
  /** Of the template; null while none is chosen. */
  readonly name: string | null;
  readonly plan: BenchPlan;
  readonly isChanged: boolean;
  /** What is in the way of saving. */
  readonly status: string | null;
  readonly isRefused: boolean;
  readonly busy: boolean;
  readonly onBringBack: () => void;
  readonly onRun: () => void;
  readonly onPutBack: () => void;
  readonly onSave: () => void;
}

/** What stands on the bench, how far it is from being saved, and the saving. */
export function BenchHead(props: BenchHeadProps) {
  const { schedule, name, plan, isChanged, status, isRefused } = props;
  const { may } = useWorkspace();
  return (
    <div className="page-head min-h-[52px]">
      <h1 className="truncate">{name ?? 'New schedule'}</h1>
      <span className="truncate text-note text-ink-2">
        {schedule
          ? `schedule for ${plan.forWhom}, running since ${sayDate(dayOfIso(schedule.since))}`
          : name === null
            ? ''
            : `a schedule for ${plan.forWhom}`}
      </span>
      <span className={`ml-auto text-right text-note leading-4 ${isRefused ? 'text-late' : ''}`} role="status">
        {status ??
          (schedule?.deletedOn
            ? `Deleted on ${sayDate(dayOfIso(schedule.deletedOn))}: it makes nothing.`
            : schedule && isChanged
              ? 'Changed, not saved.'
              : '')}
      </span>
      {schedule && !schedule.deletedOn && <CalendarLink of={{ kind: 'schedule', id: schedule.id }} className="btn" />}
      {may('plan') && <Deeds {...props} />}
    </div>
  );
}

function Deeds({ schedule, name, plan, isChanged, busy, onBringBack, onRun, onPutBack, onSave }: BenchHeadProps) {
  return (
    <>
      {schedule?.deletedOn && (
        <button type="button" className="btn" onClick={onBringBack}>
          Bring it back
        </button>
      )}
      {schedule && !schedule.deletedOn && !isChanged && (
        <button type="button" className="btn" onClick={onRun}>
          Run it …
        </button>
      )}
      {isChanged && (
        <button type="button" className="btn" onClick={onPutBack}>
          Put back
        </button>
      )}
      <button
        type="button"
        className="btn btn-primary"
        disabled={busy || name === null || plan.kind === 'problem' || (schedule !== null && !isChanged)}
        onClick={onSave}
      >
        {schedule
          ? 'Save the change'
          : plan.kind === 'plan' && name !== null && plan.owed.length > 0
            ? `Save and make ${plural(plan.owed.length, 'task')}`
            : 'Save the schedule'}
      </button>
    </>
  );
}
