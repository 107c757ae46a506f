import { Link, Outlet, useLocation } from 'react-router';
import { shiftAddresses } from '../../../contract/addresses-later.ts';
import type { Overview, TaskLine } from '../../../contract/index.ts';
import {
  callNames,
  dayOfIso,
  monthName,
  plural,
  sayDuration,
  sayLate,
  weekdayName,
  weekdayOf,
  yearMonthDay,
} from '../../../core/index.ts';
import { useShell } from '../../app/shell/shell-context.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { Band } from '../../kit/band.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay, timeOf, waysShown } from '../../kit/ways.ts';
import { sayFor } from '../tasks/task-words.ts';
import { useOverview } from './api.ts';
import { ComingWeeks } from './coming-weeks.tsx';
import { Assign, Nudge } from './deeds.tsx';
import { Elapsed } from './elapsed.tsx';
import { LastRun } from './last-run.tsx';
import { Line, MoreLines } from './line.tsx';
import { OnTime } from './on-time.tsx';
import {
  hoursOf,
  lateBefore,
  minutesBetween,
  sayAsking,
  sayShort,
  saySince,
  sayToday,
  sayUnderWay,
} from './overview-words.ts';

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
            <Head overview={data} />
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

/** The day in large figures, how far its work is, and how full it is. */
function Head({ overview }: { readonly overview: Overview }) {
  const today = useToday();
  const { may } = useWorkspace();
  const { startNow } = useShell();
  const { month, day } = yearMonthDay(today);
  const dayFirst = waysShown().dateOrder === 'day first';
  const { due, done, toCheck, underWay, toStart } = overview.today;
  const states = [
    [done, 'done', 'done'],
    [toCheck, 'to check', 'toCheck'],
    [underWay, 'under way', 'underWay'],
    [toStart, 'to start', 'open'],
  ] as const;
  return (
    <header className="flex min-h-[76px] items-end gap-6 px-5 py-[9px] max-[720px]:flex-wrap max-[720px]:gap-x-4 max-[720px]:gap-y-2 max-[720px]:px-4">
      <h1 className="font-sans text-row leading-4 font-normal text-ink-2">
        {weekdayName(weekdayOf(today))}
        <span className="sr-only"> </span>
        <span className="mt-0.5 flex items-baseline gap-1.5">
          {!dayFirst && <span className="text-body text-ink">{monthName(month)} </span>}
          <b className="font-head text-[40px] leading-9.5 font-[650] text-ink font-stretch-[80%] shadow-[inset_0_-5px_0_var(--color-accent)]">
            {day}
          </b>{' '}
          {dayFirst && <span className="text-body text-ink">{monthName(month)}</span>}
        </span>
      </h1>
      <div className="min-w-0 flex-1 pb-px max-[720px]:order-3 max-[720px]:basis-full">
        <p className="mb-1.5 flex flex-wrap items-baseline gap-x-2 text-body leading-5">
          <b className="font-semibold">{due === 0 ? 'Nothing is due today' : `${plural(due, 'task')} due today:`}</b>
          {states.map(
            ([count, words, are]) =>
              count > 0 && (
                <Link key={are} className="link-line" to={`/tasks?due=today&are=${are}`}>
                  {count} {words}
                </Link>
              ),
          )}
          <span className="ml-auto text-ink-2 max-[720px]:ml-0 max-[720px]:text-row">{sayToday(overview)}</span>
        </p>
        <LoadBar overview={overview} />
      </div>
      {may('begin') && (
        <button
          type="button"
          className="btn btn-primary max-[720px]:ml-auto max-[720px]:h-11"
          onClick={() => startNow()}
        >
          Start a template
        </button>
      )}
    </header>
  );
}

/** What of today is finished and still to do, with what is late on top, against what everybody can do in a day. */
function LoadBar({ overview: { today, late } }: { readonly overview: Overview }) {
  const toDo = today.dueMinutes - today.finishedMinutes;
  const before = lateBefore({ today, late });
  const parts = [
    { minutes: today.finishedMinutes, colour: 'var(--color-primary)', words: 'finished' },
    { minutes: toDo, colour: 'var(--petrol-2)', words: 'to do' },
    { minutes: before, colour: 'var(--late-fill)', words: 'late from before' },
  ];
  const total = parts.reduce((sum, { minutes }) => sum + minutes, 0);
  const scale = Math.max(total, today.capacity, 1);
  const words = parts
    .filter(({ minutes }) => minutes > 0)
    .map(({ minutes, words: what }) => `${hoursOf(minutes)} h ${what}`)
    .join(', ');
  return (
    <div
      className="relative flex h-2 bg-base-300"
      role="img"
      aria-label={`${words || 'nothing to do'}; ${hoursOf(today.capacity)} h at hand`}
    >
      {parts.map(({ minutes, colour, words: what }) => (
        <i key={what} style={{ width: `${(minutes / scale) * 100}%`, background: colour }} />
      ))}
      {today.capacity > 0 && (
        <span
          className="absolute -top-[3px] h-3.5 w-[1.5px] bg-ink"
          style={{ left: `${(today.capacity / scale) * 100}%` }}
        />
      )}
    </div>
  );
}

/** Bands of what is to be looked at now. */
function Now({ overview }: { readonly overview: Overview }) {
  const today = useToday();
  const { late, underWay, toCheck, heldUp, nobody, schedules, at } = overview;
  const gaps = useAnswer(shiftAddresses.gaps, {}).data?.gaps ?? [];
  const openAt = useOpenAt();
  const isQuiet =
    late.count +
      underWay.count +
      toCheck.count +
      heldUp.count +
      nobody.count +
      nobody.foreseenCount +
      schedules.count +
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
  const glyph = (task: TaskLine) => <Pennant state={task.state} late={task.late} heldUp={task.heldUp} />;
  const who = (task: TaskLine) =>
    task.assignee?.name ?? <span className="text-ink-2">{task.offeredTo ?? 'nobody yet'}</span>;
  return (
    <div className="grid grid-cols-[minmax(0,1.52fr)_minmax(0,1fr)] @max-[1060px]:grid-cols-1">
      <div className="border-line-2 @min-[1060px]:border-r">
        {late.count > 0 && (
          <Band name="late" count={late.count} isLate asides={[sayDuration(late.minutes)]}>
            <ul>
              {late.lines.map((task) => (
                <Line
                  key={task.id}
                  glyph={glyph(task)}
                  when={sayLate(task)}
                  isLate
                  title={task.title}
                  to={openAt(task.id)}
                  sub={sayFor(task)}
                  who={who(task)}
                  end={<LateEnd task={task} at={at} />}
                />
              ))}
              <MoreLines count={late.count} shown={late.lines.length} to="/tasks?are=late&due=any" />
            </ul>
          </Band>
        )}
        {underWay.count > 0 && (
          <Band name="under way" count={underWay.count} asides={[`at ${timeOf(at)}`]}>
            <ul>
              {underWay.lines.map((task) => (
                <Line
                  key={task.id}
                  glyph={glyph(task)}
                  when={saySince(task, today)}
                  title={task.title}
                  to={openAt(task.id)}
                  sub={[sayFor(task), task.stepsTotal > 0 ? `${task.stepsDone}/${task.stepsTotal}` : '']
                    .filter(Boolean)
                    .join(', ')}
                  who={who(task)}
                  end={<UnderWayEnd task={task} at={at} />}
                />
              ))}
              <MoreLines
                count={underWay.count}
                shown={underWay.lines.length}
                to="/tasks?are=underWay&late=no&due=any"
              />
            </ul>
          </Band>
        )}
      </div>
      <div className="@max-[1060px]:border-t @max-[1060px]:border-line-2">
        {toCheck.count > 0 && (
          <Band name="to check" count={toCheck.count}>
            <ul>
              {toCheck.lines.map((task) => (
                <Line
                  key={task.id}
                  glyph={glyph(task)}
                  title={task.title}
                  to={openAt(task.id)}
                  sub={[sayFor(task), task.assignee?.name ?? ''].filter(Boolean).join(', ')}
                  end={<ToCheckEnd task={task} to={openAt(task.id)} />}
                />
              ))}
              <MoreLines count={toCheck.count} shown={toCheck.lines.length} to="/tasks?are=toCheck&due=any" />
            </ul>
          </Band>
        )}
        {nobody.count + nobody.foreseenCount > 0 && (
          <Band name="nobody yet" count={nobody.count + nobody.foreseenCount}>
            <ul>
              {nobody.lines.map((task) => (
                <Line
                  key={task.id}
                  glyph={glyph(task)}
                  title={task.title}
                  to={openAt(task.id)}
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
        {heldUp.count > 0 && (
          <Band name="held up" count={heldUp.count}>
            <ul>
              {heldUp.lines.map((task) => (
                <Line
                  key={task.id}
                  glyph={glyph(task)}
                  title={task.title}
                  to={openAt(task.id)}
                  sub={task.hold?.reason ?? ''}
                  end={task.hold ? `until ${sayDay(dayOfIso(task.hold.until), today)}` : ''}
                />
              ))}
              <MoreLines count={heldUp.count} shown={heldUp.lines.length} to="/tasks?are=heldUp&due=any" />
            </ul>
          </Band>
        )}
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

const GAPS_SHOWN = 4;

/** The address of a task beside this page. */
function useOpenAt(): (taskId: string) => string {
  const { search } = useLocation();
  return (taskId) => `/overview/task/${taskId}${search}`;
}

function LateEnd({ task, at }: { readonly task: TaskLine; readonly at: string }) {
  const { me } = useWorkspace();
  const today = useToday();
  const openAt = useOpenAt();
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

function UnderWayEnd({ task, at }: { readonly task: TaskLine; readonly at: string }) {
  const today = useToday();
  if (task.startedAt === null) return '';
  // Nobody works through the night: hours since then would say nothing.
  if (task.startedAt.slice(0, 10) !== at.slice(0, 10))
    return <b className="font-semibold text-ink">{sayUnderWay(task, today)}</b>;
  return <Elapsed minutes={minutesBetween(task.startedAt, at)} estimate={task.estimateMinutes} />;
}

function ToCheckEnd({ task, to }: { readonly task: TaskLine; readonly to: string }) {
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
