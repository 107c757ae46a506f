import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { Schedule } from '../../contract/index.ts';
import { dayOfIso, sayDate } from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';
import { moveThroughRows } from '../ui/arrow-rows.ts';
import { DateBlock } from '../ui/date-block.tsx';
import { PennantString } from '../ui/pennant-string.tsx';
import { useScheduleActions } from './api.ts';

const ROW_HEIGHT = 36;

/** Schedules as lines: what and for whom, when, the next date, how the last eight went, who. Draws only the rows in view. */
export function ScheduleTable({ schedules }: { readonly schedules: readonly Schedule[] }) {
  const frame = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: schedules.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    // Before the frame is measured, a screenful.
    initialRect: { width: 1280, height: 800 },
  });
  const items = rows.getVirtualItems();
  const above = items[0]?.start ?? 0;
  const below = rows.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div ref={frame} className="min-h-0 flex-1 overflow-auto border-t border-line-2">
      <table className="tt min-w-[980px]" aria-rowcount={schedules.length + 1} onKeyDown={moveThroughRows}>
        <colgroup>
          <col />
          <col style={{ width: '32%' }} />
          <col style={{ width: 140 }} />
          <col style={{ width: 160 }} />
          <col style={{ width: 130 }} />
          <col style={{ width: 170 }} />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">template and for whom</th>
            <th scope="col">when</th>
            <th scope="col">next</th>
            <th scope="col">last eight</th>
            <th scope="col">who</th>
            <th scope="col">state</th>
          </tr>
        </thead>
        <tbody>
          {above > 0 && <Space height={above} />}
          {items.map(({ index }) => {
            const schedule = schedules[index];
            return schedule && <Row key={schedule.id} schedule={schedule} index={index} />;
          })}
          {below > 0 && <Space height={below} />}
        </tbody>
      </table>
    </div>
  );
}

function Space({ height }: { readonly height: number }) {
  return (
    <tr aria-hidden>
      <td colSpan={6} style={{ height, padding: 0, border: 0 }} />
    </tr>
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
