import { Link, useNavigate, useSearchParams } from 'react-router';
import type { Schedule } from '../../contract/index.ts';
import { dayOfIso, plural, sayDate } from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';
import { DateBlock } from '../ui/date-block.tsx';
import { LongTable } from '../ui/long-table.tsx';
import { PennantString } from '../ui/pennant-string.tsx';
import { useScheduleActions } from './api.ts';

/** Schedules as lines: what and for whom, when, the next date, how the last eight went, who. */
export function ScheduleTable({ schedules }: { readonly schedules: readonly Schedule[] }) {
  return (
    <LongTable
      rows={schedules}
      columns={[null, '32%', 140, 160, 130, 170]}
      minWidth={980}
      head={['template and for whom', 'when', 'next', 'last eight', 'who', 'state'].map((words) => (
        <th key={words} scope="col">
          {words}
        </th>
      ))}
      row={(schedule, index) => <Row key={schedule.id} schedule={schedule} index={index} />}
    />
  );
}

function Row({ schedule, index }: { readonly schedule: Schedule; readonly index: number }) {
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const { me } = useWorkspace();
  const address = `/schedules/${schedule.id}`;
  const then =
    schedule.nextPhrase && `from ${sayDate(dayOfIso(schedule.nextPhrase.from))} ${schedule.nextPhrase.phrase}`;
  const forWhom = [schedule.asset?.name, schedule.client?.name].filter(Boolean).join(', ');
  return (
    // The link in the first cell is what the keyboard uses; the row is only a larger target.
    <tr aria-rowindex={index + 2} className="group" onClick={() => void navigate(address)}>
      <td>
        <Link to={address} data-row className="text-[15px] font-semibold" onClick={(event) => event.stopPropagation()}>
          {schedule.template.name}
        </Link>
        <span className="ml-2 text-ink-2">{forWhom}</span>
      </td>
      <td title={then ? `${schedule.phrase}; ${then}` : schedule.phrase}>
        {schedule.phrase}
        {then && <span className="text-ink-2">; {then}</span>}
      </td>
      <td className="date">
        {schedule.next ? <DateBlock day={dayOfIso(schedule.next)} /> : <span className="text-ink-2">none</span>}
      </td>
      <td>
        <PennantString
          tasks={schedule.lastEight}
          to={(taskId) => `/schedules/task/${taskId}${search.size > 0 ? `?${search}` : ''}`}
        />
      </td>
      <td>{schedule.assignee?.name ?? <span className="text-ink-2">nobody yet</span>}</td>
      <td className="!py-0">
        <span className="flex items-center justify-between gap-2">
          <State schedule={schedule} />
          {me.isManager && <PauseButton schedule={schedule} />}
        </span>
      </td>
    </tr>
  );
}

function State({ schedule }: { readonly schedule: Schedule }) {
  if (schedule.state === 'problem') {
    return (
      <b className="truncate font-semibold" title={schedule.problem ?? undefined}>
        no plan: {schedule.problem}
      </b>
    );
  }
  if (schedule.waits)
    return (
      <b
        className="truncate font-semibold"
        title={`The next one waits until that of ${sayDate(dayOfIso(schedule.waits.forOn))} is over.`}
      >
        waits{schedule.waits.days > 0 && `, ${plural(schedule.waits.days, 'day')}`}
        {schedule.waits.isTooLong && ': too long'}
      </b>
    );
  if (schedule.state !== 'running') return <span className="text-ink-2">{schedule.state}</span>;
  if (schedule.lateCount > 0) return <b className="font-semibold text-late">{schedule.lateCount} late</b>;
  if (schedule.assignee === null) return <b className="truncate font-semibold">nobody, {schedule.timesAYear} dates</b>;
  return <span />;
}

function PauseButton({ schedule }: { readonly schedule: Schedule }) {
  const { pause, resume } = useScheduleActions();
  if (schedule.state === 'ended' || schedule.state === 'problem') return null;
  const isPaused = schedule.state === 'paused';
  const words = isPaused ? 'Resume' : 'Pause';
  return (
    <button
      type="button"
      className={`btn btn-text !h-[26px] !min-h-[26px] !text-primary ${isPaused ? '' : 'opacity-0 focus-visible:opacity-100 group-focus-within:opacity-100 group-hover:opacity-100'}`}
      aria-label={`${words} ${schedule.template.name}${schedule.asset ? `, ${schedule.asset.name}` : ''}`}
      onClick={(event) => {
        event.stopPropagation();
        void (isPaused ? resume(schedule) : pause(schedule));
      }}
    >
      {words}
    </button>
  );
}
