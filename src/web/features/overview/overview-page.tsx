import { Fragment, type ReactNode } from 'react';
import { Link, Outlet, useLocation } from 'react-router';
import { shiftAddresses } from '../../../contract/addresses-later.ts';
import type { Overview, TaskLine as TaskOfList } from '../../../contract/index.ts';
import { callNames, dayOfIso, plural, sayDuration, sayLate } from '../../../core/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { Band } from '../../kit/band.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { sayFor } from '../tasks/task-words.ts';
import { useOverview } from './api.ts';
import { ComingWeeks } from './coming-weeks.tsx';
import { Assign, Nudge } from './deeds.tsx';
import { Elapsed } from './elapsed.tsx';
import { LastRun } from './last-run.tsx';
import { Line, type LineProps, MoreLines } from './line.tsx';
import { OnTime } from './on-time.tsx';
import { OverviewHead } from './overview-head.tsx';
import { minutesBetween, sayAsking, sayShort, saySince, sayUnderWay } from './overview-words.ts';
import { ToAnnounce, useToAnnounce } from './to-announce.tsx';

/** What whoever plans wants to see in the morning: what is wrong now, each with the one thing to do about it, and what is coming. */
export default function OverviewPage() {
  const { data, error, mutate } = useOverview();
  const today = useToday();
  return (
    <div className="flex min-h-0 flex-1">
      <title>{`${sayDay(today, today)} · Jolly Rota`}</title>
      {/* Arrow keys are a shortcut between links that Tab reaches as well. */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: see above */}
      <div className="@container min-h-0 min-w-0 flex-1 overflow-y-auto" onKeyDown={moveThroughRows}>
        {error && !data && <Trouble error={error} retry={() => void mutate()} />}
        {!error && !data && <Skeleton rows={14} />}
        {data && (
          <>
            <OverviewHead overview={data} />
            <Now overview={data} />
            <div className="grid grid-cols-[464px_minmax(0,1fr)_minmax(0,1.1fr)] border-t border-line-2 pb-16 @max-[1060px]:grid-cols-1">
              <ComingWeeks weeks={data.weeks} horizon={data.horizon} />
              <LastRun run={data.lastRun} horizon={data.horizon} />
              <OnTime />
            </div>
          </>
        )}
      </div>
      <Outlet />
    </div>
  );
}

/** Bands of what is to be looked at now. */
function Now({ overview }: { readonly overview: Overview }) {
  const today = useToday();
  const { late, underWay, toCheck, heldUp, nobody, schedules, at } = overview;
  const gaps = useAnswer(shiftAddresses.gaps, {}).data?.gaps ?? [];
  const toAnnounce = useToAnnounce();
  const openAt = useOpenAt();
  const isQuiet =
    late.count +
      underWay.count +
      toCheck.count +
      heldUp.count +
      nobody.count +
      nobody.foreseenCount +
      schedules.count +
      toAnnounce.count +
      gaps.length ===
    0;
  if (isQuiet && schedules.all === 0)
    return (
      <Empty title="Nothing is planned yet.">
        Write a{' '}
        <Link className="link-line" to="/templates/new">
          template
        </Link>{' '}
        for a piece of work that comes again, then say on a{' '}
        <Link className="link-line" to="/schedules/new">
          schedule
        </Link>{' '}
        when, who and for whom. What asks for you stands here from then on.
      </Empty>
    );
  if (isQuiet)
    return (
      <Empty title="Nothing asks for you.">Nothing is late, under way, to check, held up or without anybody.</Empty>
    );
  const who = (task: TaskOfList) =>
    task.assignee?.name ?? <span className="text-ink-2">{task.offeredTo ?? 'nobody yet'}</span>;
  return (
    <div className="grid grid-cols-[minmax(0,1.52fr)_minmax(0,1fr)] @max-[1060px]:grid-cols-1">
      <div className="border-line-2 @min-[1060px]:border-r">
        <TaskBand name="late" of={late} to="/tasks?are=late&due=any" isLate aside={sayDuration(late.minutes)}>
          {(task) => (
            <TaskLine
              task={task}
              when={sayLate(task)}
              isLate
              sub={sayFor(task)}
              who={who(task)}
              end={<LateEnd task={task} at={at} />}
            />
          )}
        </TaskBand>
        <TaskBand name="under way" of={underWay} to="/tasks?are=underWay&late=no&due=any" aside={`at ${timeOf(at)}`}>
          {(task) => (
            <TaskLine
              task={task}
              when={saySince(task, today)}
              sub={[sayFor(task), task.stepsTotal > 0 ? `${task.stepsDone}/${task.stepsTotal}` : '']
                .filter(Boolean)
                .join(', ')}
              who={who(task)}
              end={<UnderWayEnd task={task} at={at} />}
            />
          )}
        </TaskBand>
      </div>
      <div className="@max-[1060px]:border-t @max-[1060px]:border-line-2">
        <TaskBand name="to check" of={toCheck} to="/tasks?are=toCheck&due=any">
          {(task) => (
            <TaskLine
              task={task}
              sub={[sayFor(task), task.assignee?.name ?? ''].filter(Boolean).join(', ')}
              end={<ToCheckEnd task={task} to={openAt(task.id)} />}
            />
          )}
        </TaskBand>
        <ToAnnounce {...toAnnounce} />
        {nobody.count + nobody.foreseenCount > 0 && (
          <Band name="nobody yet" count={nobody.count + nobody.foreseenCount}>
            <ul>
              {nobody.lines.map((task) => (
                <TaskLine
                  key={task.id}
                  task={task}
                  sub={sayFor(task)}
                  end={
                    <>
                      {sayDay(dayOfIso(task.on), today)}
                      <Assign task={task} />
                    </>
                  }
                />
              ))}
              <MoreLines
                count={nobody.count}
                shown={nobody.lines.length}
                to="/tasks?are=open&person=none&offered=no&late=no&due=month"
              />
              {nobody.foreseen.map((one) => (
                <Line
                  key={one.scheduleId}
                  glyph={<Pennant state="bare" label="Not made yet" />}
                  title={one.title}
                  to={`/schedules/${one.scheduleId}`}
                  sub={sayFor(one)}
                  end={
                    <>
                      {sayDay(dayOfIso(one.on), today)}
                      {one.dates > 1 ? `, ${plural(one.dates, 'date')}` : ''}
                      <Link
                        className="deed"
                        to={`/schedules/${one.scheduleId}`}
                        aria-label={`Say who does ${one.title}`}
                      >
                        Say who
                      </Link>
                    </>
                  }
                />
              ))}
              <MoreLines count={nobody.foreseenCount} shown={nobody.foreseen.length} to="/schedules?state=nobody" />
            </ul>
          </Band>
        )}
        {gaps.length > 0 && (
          <Band name="no one on shift" count={gaps.length}>
            <ul>
              {gaps.slice(0, GAPS_SHOWN).map((gap) => (
                <Line
                  key={[gap.scheduleId, gap.work, gap.about, gap.group].join()}
                  glyph={<Pennant state="bare" label="No one on shift" />}
                  title={gap.work}
                  to={gap.scheduleId === null ? '/team' : `/schedules/${gap.scheduleId}`}
                  sub={[gap.about, gap.group].filter(Boolean).join(', ')}
                  end={
                    <>
                      {gap.days[0] ? sayDay(dayOfIso(gap.days[0]), today) : ''}
                      {gap.days.length > 1 ? ` and ${gap.days.length - 1} more` : ''}
                    </>
                  }
                />
              ))}
              <MoreLines count={gaps.length} shown={GAPS_SHOWN} to="/team" />
            </ul>
          </Band>
        )}
        <TaskBand name="held up" of={heldUp} to="/tasks?are=heldUp&due=any">
          {(task) => (
            <TaskLine
              task={task}
              sub={task.hold?.reason ?? ''}
              end={task.hold ? `until ${sayDay(dayOfIso(task.hold.until), today)}` : ''}
            />
          )}
        </TaskBand>
        {schedules.count > 0 && (
          <Band
            name={schedules.count === 1 ? 'schedule' : 'schedules'}
            count={schedules.count}
            asides={[schedules.count === 1 ? 'asks for you' : 'ask for you']}
          >
            <ul>
              {schedules.lines.map((one) => (
                <Line
                  key={one.id}
                  glyph={<Pennant state="bare" label="" />}
                  title={one.name}
                  to={`/schedules/${one.id}`}
                  sub={one.about ?? ''}
                  end={<span className="max-w-[190px] truncate">{sayAsking(one, today)}</span>}
                />
              ))}
              <MoreLines count={schedules.count} shown={schedules.lines.length} to="/schedules?state=problem" />
            </ul>
          </Band>
        )}
      </div>
    </div>
  );
}

interface TaskBandProps {
  readonly name: string;
  readonly of: Overview['late'];
  /** The list of all of them. */
  readonly to: string;
  readonly isLate?: boolean;
  readonly aside?: string;
  readonly children: (task: TaskOfList) => ReactNode;
}

/** Tasks of one kind, the first of them; nothing where there are none. */
function TaskBand({ name, of: { count, lines }, to, isLate = false, aside, children }: TaskBandProps) {
  if (count === 0) return null;
  return (
    <Band name={name} count={count} to={to} isLate={isLate} asides={aside === undefined ? [] : [aside]}>
      <ul>
        {lines.map((task) => (
          <Fragment key={task.id}>{children(task)}</Fragment>
        ))}
        <MoreLines count={count} shown={lines.length} to={to} />
      </ul>
    </Band>
  );
}

/** One task, which opens beside the page. */
function TaskLine({ task, ...rest }: { readonly task: TaskOfList } & Omit<LineProps, 'glyph' | 'title' | 'to'>) {
  const openAt = useOpenAt();
  return (
    <Line
      glyph={<Pennant state={task.state} late={task.late} heldUp={task.heldUp} />}
      title={task.title}
      to={openAt(task.id)}
      {...rest}
    />
  );
}

const GAPS_SHOWN = 4;

/** The address of a task beside this page. */
function useOpenAt(): (taskId: string) => string {
  const { search } = useLocation();
  return (taskId) => `/overview/task/${taskId}${search}`;
}

function LateEnd({ task, at }: { readonly task: TaskOfList; readonly at: string }) {
  const { me } = useWorkspace();
  const today = useToday();
  const openAt = useOpenAt();
  if (task.isForClient)
    return (
      <Link className="deed" to={openAt(task.id)} aria-label={`See what was asked for ${task.title}`}>
        See what was asked
      </Link>
    );
  if (task.assignee === null) return <Assign task={task} />;
  if (task.state === 'underWay') return sayUnderWay(task, today);
  if (task.assignee.id === me.id)
    return (
      <>
        yours
        <Link className="deed" to={openAt(task.id)} aria-label={`Open ${task.title}`}>
          Open
        </Link>
      </>
    );
  return <Nudge task={task} at={at} />;
}

function UnderWayEnd({ task, at }: { readonly task: TaskOfList; readonly at: string }) {
  const today = useToday();
  if (task.startedAt === null) return '';
  // Nobody works through the night: hours since then would say nothing.
  if (task.startedAt.slice(0, 10) !== at.slice(0, 10))
    return <b className="font-semibold text-ink">{sayUnderWay(task, today)}</b>;
  return <Elapsed minutes={minutesBetween(task.startedAt, at)} estimate={task.estimateMinutes} />;
}

function ToCheckEnd({ task, to }: { readonly task: TaskOfList; readonly to: string }) {
  const { me, may, people } = useWorkspace();
  const today = useToday();
  const isMine = task.assignee?.id !== me.id && (may('sign') || task.signsOff === me.name);
  const since = task.doneAt ? `since ${sayShort(task.doneAt, today)}` : '';
  const called = callNames(people);
  const signer = people.find(({ name }) => name === task.signsOff);
  const by = signer ? (signer.id === me.id ? 'you' : (called.get(signer.id) ?? signer.name)) : (task.signsOff ?? '');
  return (
    <>
      {[by, since].filter(Boolean).join(', ')}
      {isMine && (
        <Link className="deed" to={to} aria-label={`Check ${task.title}`}>
          Check
        </Link>
      )}
    </>
  );
}
