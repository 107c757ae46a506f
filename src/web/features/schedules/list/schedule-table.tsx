import { type KeyboardEvent, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { ScheduleFilter, ScheduleLine } from '../../../../contract/index.ts';
import { dayOfIso, plural } from '../../../../core/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useChosenIds } from '../../../kit/chosen.ts';
import { DateBlock } from '../../../kit/date-block.tsx';
import { LongTable } from '../../../kit/long-table.tsx';
import { PennantString } from '../../../kit/pennant-string.tsx';
import { NotAll } from '../../../kit/states.tsx';
import { sayDate } from '../../../kit/ways.ts';
import { type LinesView, wholeSchedules } from '../api.ts';
import { allFitting } from '../fitting.ts';
import { useSchedulesLookedAt } from '../looked-at.tsx';
import { ChosenBar } from './chosen-bar.tsx';
import { changesOf, type Deed } from './chosen-changes.ts';

/** Schedules as lines: what and for whom, when, the next date, how the last eight went, who. Chosen ones are changed together. */
export function ScheduleTable({ view, filter }: { readonly view: LinesView; readonly filter: ScheduleFilter }) {
  const { may, today, workingCalendar } = useWorkspace();
  const { fitting } = view.counts;
  const { order: _, ...which } = filter;
  const { ids, isAll, chooseOne, chooseTo, chooseAll, clear } = useChosenIds({
    // What does not fit any more is not changed unseen.
    of: JSON.stringify(which),
    count: fitting,
    idAt: (index) => view.at(index)?.id,
    all: async () => (await allFitting(filter)).ids,
  });
  const { look, busy, dialog } = useSchedulesLookedAt({ onSaved: clear, onRefused: sayTrouble });
  const [fetching, setFetching] = useState(false);
  /** Deeds are reckoned from the schedules as they stand whole; false where none of them changes by it. */
  const lookAt = async (which: readonly string[], deed: Deed): Promise<boolean> => {
    setFetching(true);
    try {
      const asked = changesOf(await wholeSchedules(which), deed, workingCalendar, today);
      if (asked.changes.length > 0) look(asked);
      return asked.changes.length > 0;
    } catch (error) {
      sayTrouble(error);
      return true;
    } finally {
      setFetching(false);
    }
  };
  const choose = (index: number, how: 'one' | 'range') => {
    if (how === 'one') chooseOne(index);
    else chooseTo(index).catch(sayTrouble);
  };
  const chosenHere = view.lines.filter(({ id }) => ids.has(id));
  const mayBePaused = chosenHere.length < ids.size || chosenHere.some(({ state }) => state === 'paused');
  return (
    <>
      <LongTable
        count={fitting}
        onView={view.onView}
        columns={[may('plan') ? 48 : 20, null, '28%', 140, 160, 130, 170]}
        minWidth={1200}
        head={
          <>
            <th scope="col">
              {may('plan') && (
                <input
                  type="checkbox"
                  className="check"
                  aria-label={isAll ? 'Choose none' : 'Choose all'}
                  checked={isAll}
                  onChange={isAll ? clear : () => void chooseAll().catch(sayTrouble)}
                />
              )}
            </th>
            {['template and for whom', 'when', 'next', 'last eight', 'who', 'state'].map((words) => (
              <th key={words} scope="col">
                {words}
              </th>
            ))}
          </>
        }
        row={(index) => {
          const line = view.at(index);
          return line ? (
            <Row
              key={line.id}
              schedule={line}
              index={index}
              isChosen={ids.has(line.id)}
              onChoose={choose}
              onLook={lookAt}
            />
          ) : null;
        }}
      />
      {view.trouble && <NotAll error={view.trouble} retry={view.retry} />}
      {ids.size > 0 && (
        <ChosenBar
          ids={[...ids]}
          mayBePaused={mayBePaused}
          busy={busy || fetching}
          onLook={(deed) => lookAt([...ids], deed)}
          onClear={clear}
        />
      )}
      {dialog}
    </>
  );
}

interface RowProps {
  readonly schedule: ScheduleLine;
  readonly index: number;
  readonly isChosen: boolean;
  readonly onChoose: (index: number, how: 'one' | 'range') => void;
  readonly onLook: (ids: readonly string[], deed: Deed) => Promise<boolean>;
}

function Row({ schedule, index, isChosen, onChoose, onLook }: RowProps) {
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const { may } = useWorkspace();
  const address = `/schedules/${schedule.id}`;
  const then =
    schedule.nextPhrase && `from ${sayDate(dayOfIso(schedule.nextPhrase.from))} ${schedule.nextPhrase.phrase}`;
  const forWhom = [schedule.asset?.name, schedule.client?.name].filter(Boolean).join(', ');
  const onKeyDown = (event: KeyboardEvent) => {
    if (!may('plan')) return;
    if (event.key === ' ') {
      event.preventDefault();
      onChoose(index, 'one');
    } else if (event.shiftKey && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      // The focus moves on as without Shift; what it comes from and goes to is chosen.
      if (!isChosen) onChoose(index, 'one');
      onChoose(index + (event.key === 'ArrowDown' ? 1 : -1), 'range');
    }
  };
  return (
    // The link in the second cell is what the keyboard uses; the row is only a larger target.
    <tr
      aria-rowindex={index + 2}
      aria-selected={isChosen}
      className="group"
      onClick={(event) => (event.shiftKey && may('plan') ? onChoose(index, 'range') : void navigate(address))}
    >
      <td className="pr-0 [text-overflow:clip]">
        {may('plan') && (
          <input
            type="checkbox"
            className="check"
            tabIndex={-1}
            aria-label={`Choose ${nameOf(schedule)}`}
            checked={isChosen}
            onClick={(event) => {
              event.stopPropagation();
              onChoose(index, event.shiftKey ? 'range' : 'one');
            }}
            onChange={() => undefined}
          />
        )}
      </td>
      <td>
        <Link
          to={address}
          data-row
          title={may('plan') ? 'Space chooses it, Shift with the arrows chooses more' : undefined}
          className="text-body font-semibold"
          onClick={(event) => event.stopPropagation()}
          onKeyDown={onKeyDown}
        >
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
      <td>
        {schedule.assignment.kind === 'nobody' ? <span className="text-ink-2">{schedule.who}</span> : schedule.who}
      </td>
      <td className="py-0">
        <span className="flex items-center justify-between gap-2">
          <State schedule={schedule} />
          {may('plan') && <PauseButton schedule={schedule} onLook={onLook} />}
        </span>
      </td>
    </tr>
  );
}

function State({ schedule }: { readonly schedule: ScheduleLine }) {
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
  if (schedule.assignment.kind === 'nobody')
    return <b className="truncate font-semibold">nobody, {schedule.timesAYear} dates</b>;
  return <span />;
}

function nameOf({ template, asset, client }: ScheduleLine): string {
  return [template.name, asset?.name ?? client?.name].filter(Boolean).join(', ');
}

function PauseButton({ schedule, onLook }: Pick<RowProps, 'schedule' | 'onLook'>) {
  const { today } = useWorkspace();
  if (schedule.state === 'ended' || schedule.state === 'problem') return null;
  const isPaused = schedule.state === 'paused';
  const words = isPaused ? 'Resume' : 'Pause';
  return (
    <button
      type="button"
      className={`btn btn-text h-[26px] min-h-[26px] text-primary ${isPaused ? '' : 'opacity-0 focus-visible:opacity-100 group-focus-within:opacity-100 group-hover:opacity-100'}`}
      aria-label={`${words} ${nameOf(schedule)}`}
      onClick={(event) => {
        event.stopPropagation();
        const deed: Deed = isPaused ? { kind: 'resume', on: today } : { kind: 'pause', from: today, until: null };
        void onLook([schedule.id], deed);
      }}
    >
      {words}
    </button>
  );
}
