import { lazy, type ReactNode, Suspense, useCallback, useLayoutEffect, useMemo, useRef } from 'react';
import { Outlet, useNavigate, useParams, useSearchParams } from 'react-router';
import type { DaySheet as DaySheetAnswer, TaskLine as TaskLineAnswer } from '../../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, plural, tryDayOfIso, tryMinutesOfTime } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { type TideControl, useTide } from '../../../app/shell/shell-context.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { moveThroughRows } from '../../../kit/arrow-rows.ts';
import { Band } from '../../../kit/band.tsx';
import { useChosen } from '../../../kit/chosen.ts';
import { Skeleton, Trouble } from '../../../kit/states.tsx';
import { sayNear, sayTime } from '../../../kit/ways.ts';
import { useDaySheet, useTaskActions } from '../api.ts';
import { finishTask, startTask } from '../deeds.ts';
import { useSheetOnDevice } from '../on-device.ts';
import { ChosenTasks } from './chosen-tasks.tsx';
import { DayHead } from './day-head.tsx';
import { DeletedTasks } from './deleted-tasks.tsx';
import { ProjectedTaskLine, TaskLine, type TaskLineBand } from './task-line.tsx';

/** What one person has to do on a day, in three bands. */
export default function DaySheet() {
  const { personId = '', taskId } = useParams();
  const { today } = useWorkspace();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const day = tryDayOfIso(search.get('date') ?? '') ?? today;
  const { data, error, mutate } = useDaySheet(personId, day === today ? undefined : isoOfDay(day));

  const goTo = useCallback(
    (next: CivilDay, person = personId) =>
      void navigate({ pathname: `/day-sheet/${person}`, search: next === today ? '' : `?date=${isoOfDay(next)}` }),
    [navigate, personId, today],
  );
  // The router draws a new address when it is ready; a second press of a key counts from where the first one leads.
  const headed = useRef(day);
  // Before the page is seen: the next press may come as soon as it is.
  useLayoutEffect(() => {
    headed.current = day;
  }, [day]);
  const step = (days: number) => {
    headed.current += days;
    goTo(headed.current);
  };
  const tide = useMemo<TideControl>(
    () => ({
      personId,
      chosen: day === today ? null : { from: day, to: day },
      spans: false,
      onChoose: ({ to }) => goTo(to),
    }),
    [personId, day, today, goTo],
  );
  useTide(tide);
  useKeys([
    { key: '[', says: 'A day back', run: () => step(-1) },
    { key: ']', says: 'A day on', run: () => step(1) },
    { key: 't', says: 'Today', run: () => goTo(today) },
  ]);

  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  return (
    <div className="flex min-h-0 flex-1">
      <title>{`Day sheet${data ? `, ${data.person.name}` : ''} · Jolly Rota`}</title>
      {data ? (
        <Sheet sheet={data} openTaskId={taskId} onDay={goTo} onPerson={(id) => goTo(day, id)} />
      ) : (
        <div className="min-w-0 flex-1">
          <Skeleton rows={12} />
        </div>
      )}
      <Outlet />
    </div>
  );
}

const AskedSwaps = lazy(() => import('../../swaps/asked-swaps.tsx'));

interface SheetProps {
  readonly sheet: DaySheetAnswer;
  readonly openTaskId: string | undefined;
  readonly onDay: (day: CivilDay) => void;
  readonly onPerson: (personId: string) => void;
}

function Sheet({ sheet: asked, openTaskId, onDay, onPerson }: SheetProps) {
  const { sheet, waits } = useSheetOnDevice(asked);
  const { may, me, today, nowMinutes } = useWorkspace();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const shown = useMemo(
    () => [
      ...sheet.late,
      ...sheet.thisDay,
      ...sheet.offered.tasks,
      ...sheet.unassigned.tasks,
      ...sheet.toCheck,
      ...sheet.coming,
      ...sheet.doneBefore.tasks,
    ],
    [sheet],
  );
  const { chosen, choose, clear } = useChosen(shown);
  const actions = useTaskActions();
  const day = dayOfIso(sheet.date);
  const address = (taskId: string) =>
    `/day-sheet/${sheet.person.id}/task/${taskId}${search.size > 0 ? `?${search}` : ''}`;
  const act = (task: TaskLineAnswer) => (action: 'start' | 'claim' | 'open' | 'finish') => {
    if (action === 'open') return void navigate(address(task.id));
    if (action === 'claim') return void actions.claim(task.id);
    if (action === 'finish') return void finishTask(task);
    void startTask(task).then((outcome) => {
      if (outcome !== 'refused') void navigate(address(task.id));
    });
  };
  const line = (band: TaskLineBand) => (task: TaskLineAnswer) => (
    <TaskLine
      key={task.id}
      task={task}
      day={day}
      band={band}
      isOpen={task.id === openTaskId}
      waits={waits(task.id)}
      to={address(task.id)}
      onAct={act(task)}
      choosing={
        may('give') ? { isChosen: chosen.includes(task), choose: (how) => choose(shown.indexOf(task), how) } : undefined
      }
    />
  );
  const done = sheet.thisDay.filter(({ state }) => state === 'done').length;
  const toCheck = sheet.thisDay.filter(({ state }) => state === 'toCheck').length;
  const isFree =
    sheet.late.length +
      sheet.thisDay.length +
      sheet.coming.length +
      sheet.projected.length +
      sheet.toCheck.length +
      sheet.offered.count +
      sheet.unassigned.count ===
    0;
  return (
    <div className="flex min-w-0 flex-1 flex-col">
      {/* Arrow keys are a shortcut between links that Tab reaches as well. */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: see above */}
      <div className="min-h-0 flex-1 overflow-y-auto pb-16" onKeyDown={moveThroughRows}>
        <DayHead sheet={sheet} day={day} onDay={onDay} onPerson={onPerson} />
        {day === today && sheet.person.id === me.id && (
          <Suspense>
            <AskedSwaps />
          </Suspense>
        )}
        {sheet.late.length > 0 && (
          <Band name="late" count={sheet.late.length} isLate>
            {sheet.late.map(line('late'))}
          </Band>
        )}
        <Band
          name={day === today ? 'this day' : sayNear(day, today)}
          count={sheet.thisDay.length + sheet.projected.length}
          asides={[done > 0 ? `${done} done` : '', toCheck > 0 ? `${toCheck} to check` : ''].filter(Boolean)}
        >
          {day === today ? withNowLine(sheet.thisDay, nowMinutes, line('thisDay')) : sheet.thisDay.map(line('thisDay'))}
          {sheet.projected.map((projected) => (
            <ProjectedTaskLine key={`${projected.scheduleId} ${projected.on} ${projected.title}`} line={projected} />
          ))}
          {sheet.thisDay.length + sheet.projected.length === 0 && (
            <p className="py-2.5 text-row text-ink-2 max-[720px]:px-4">
              {isFree
                ? `Nothing for ${sheet.person.name}: no task is due, and none is coming within a week.`
                : `Nothing is due ${sayNear(day, today)}.`}
            </p>
          )}
        </Band>
        {sheet.offered.count > 0 && (
          <Band name="to take" count={sheet.offered.count} asides={['by any one']}>
            {sheet.offered.tasks.map(line(sheet.person.id === me.id ? 'offered' : 'offeredToOthers'))}
            <MoreBelow count={sheet.offered.count - sheet.offered.tasks.length} />
          </Band>
        )}
        {sheet.unassigned.count > 0 && (
          <Band name="nobody’s" count={sheet.unassigned.count} asides={['to claim']}>
            {sheet.unassigned.tasks.map(line('unassigned'))}
            <MoreBelow count={sheet.unassigned.count - sheet.unassigned.tasks.length} />
          </Band>
        )}
        {sheet.toCheck.length > 0 && (
          <Band name="to check" count={sheet.toCheck.length} asides={['finished by others']}>
            {sheet.toCheck.map(line('toCheck'))}
          </Band>
        )}
        {sheet.coming.length > 0 && (
          <Band name="coming" count={sheet.coming.length}>
            {sheet.coming.map(line('coming'))}
          </Band>
        )}
        {sheet.doneBefore.count > 0 && (
          <Band name="done before" count={sheet.doneBefore.count}>
            {sheet.doneBefore.tasks.map(line('doneBefore'))}
            {sheet.doneBefore.count > sheet.doneBefore.tasks.length && (
              <p className="py-2 text-note text-ink-2 max-[720px]:px-4">
                and {sheet.doneBefore.count - sheet.doneBefore.tasks.length} more, done earlier
              </p>
            )}
          </Band>
        )}
        {sheet.deleted.length > 0 && <DeletedTasks deleted={sheet.deleted} />}
        <p className="sr-only" aria-live="polite">
          {plural(sheet.late.length, 'task')} late, {plural(sheet.thisDay.length, 'task')} this day
        </p>
      </div>
      {chosen.length > 0 && <ChosenTasks chosen={chosen} onClear={clear} />}
    </div>
  );
}

/** The heading of a band stands beside its first lines; the time of day is written only below it. */
const LINES_BESIDE_THE_HEADING = 3;

/** The lines of today, with a line for now between what has begun and what has not. */
function withNowLine(
  tasks: readonly TaskLineAnswer[],
  nowMinutes: number,
  line: (task: TaskLineAnswer) => ReactNode,
): ReactNode[] {
  const after = tasks.findIndex(
    ({ startTime, dueTime }) => (tryMinutesOfTime(startTime ?? dueTime ?? '') ?? Number.POSITIVE_INFINITY) > nowMinutes,
  );
  const lines = tasks.map(line);
  if (tasks.length === 0) return lines;
  const time = `${String(Math.floor(nowMinutes / 60)).padStart(2, '0')}:${String(nowMinutes % 60).padStart(2, '0')}`;
  const now = (
    <div key="now" className="relative z-[1] -my-px h-0.5 bg-accent max-[720px]:mx-0" aria-hidden>
      {(after === -1 ? tasks.length : after) >= LINES_BESIDE_THE_HEADING && (
        <span className="absolute -left-[54px] -top-2 rounded-[2px] bg-accent px-1.5 text-note font-[650] leading-4.5 text-accent-content max-[720px]:left-1">
          {sayTime(time)}
        </span>
      )}
    </div>
  );
  return after === -1 ? [...lines, now] : [...lines.slice(0, after), now, ...lines.slice(after)];
}

function MoreBelow({ count }: { readonly count: number }) {
  return count > 0 && <p className="py-2 text-note text-ink-2 max-[720px]:px-4">and {count} more, less urgent</p>;
}
