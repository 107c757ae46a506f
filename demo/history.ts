import { dayOfIso, instantOf, isoOfDay, tryMinutesOfTime } from '../src/core/index.ts';
import type { Scope } from '../src/server/scope.ts';
import { type Outcome, outcomeOf } from './outcomes.ts';
import type { SeededRandom } from './random.ts';

interface PastTask {
  id: string;
  scheduleId: string;
  dueOn: string;
  startTime: string | null;
  dueTime: string | null;
  estimateMinutes: number;
  checkKeys: string[];
  assigneeId: string | null;
  templateName: string;
}

interface Fate {
  readonly id: string;
  readonly state: string;
  readonly startedAt: string | null;
  readonly doneAt: string | null;
  readonly doneBy: string | null;
  readonly note: string;
  readonly ticks: string;
}

/** Plays the past: what became of every task that was due up to now. */
export async function playHistory(
  scope: Scope,
  randomFor: (seed: string) => SeededRandom,
  notesOf: ReadonlyMap<string, readonly string[]>,
): Promise<void> {
  const tasks = await scope.sql<PastTask>(
    `select k.id, k.schedule_id as "scheduleId", k.due_on as "dueOn", k.start_time as "startTime", k.due_time as "dueTime",
       k.estimate_minutes as "estimateMinutes", k.assignee_id as "assigneeId", t.name as "templateName",
       array(select line->>'key' from jsonb_array_elements(k.check_lines) line) as "checkKeys"
     from task k join template t on t.workspace_id = k.workspace_id and t.id = k.template_id
     where k.workspace_id = $1 and k.due_on <= $2::date order by k.due_on, t.name, k.title, k.id`,
    [scope.today],
  );
  const gaps = typicalGaps(tasks);
  const nextNote = noteTaker(notesOf);
  const fates = tasks.map((task, i) => {
    const random = randomFor(`${i} ${task.dueOn} ${task.templateName}`);
    const daysAgo = scope.now.day - dayOfIso(task.dueOn);
    const outcome =
      daysAgo === 0 ? outcomeToday(scope, task) : outcomeOf(random, daysAgo, gaps.get(task.scheduleId) ?? 99);
    return fate(scope, task, outcome, random, nextNote);
  });
  await scope.sql(
    `update task set state = fate.state, started_at = fate.started_at, done_at = fate.done_at, done_by = fate.done_by,
       note = fate.note, ticks = fate.ticks
     from unnest($2::uuid[], $3::text[], $4::timestamptz[], $5::timestamptz[], $6::uuid[], $7::text[], $8::jsonb[])
       as fate (id, state, started_at, done_at, done_by, note, ticks)
     where task.workspace_id = $1 and task.id = fate.id`,
    [
      fates.map(({ id }) => id),
      fates.map(({ state }) => state),
      fates.map(({ startedAt }) => startedAt),
      fates.map(({ doneAt }) => doneAt),
      fates.map(({ doneBy }) => doneBy),
      fates.map(({ note }) => note),
      fates.map(({ ticks }) => ticks),
    ],
  );
}

/** Hands out the notes of each template in turn, so that the same words do not stand twice in a row. */
function noteTaker(notesOf: ReadonlyMap<string, readonly string[]>): (templateName: string) => string {
  const given = new Map<string, number>();
  return (name) => {
    const count = given.get(name) ?? 0;
    given.set(name, count + 1);
    const notes = notesOf.get(name) ?? [];
    return notes[count % notes.length] ?? '';
  };
}

/** Days between two of a series, by its count over the half year. */
function typicalGaps(tasks: readonly PastTask[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { scheduleId } of tasks) counts.set(scheduleId, (counts.get(scheduleId) ?? 0) + 1);
  return new Map([...counts].map(([id, count]) => [id, 183 / count]));
}

/** Today goes by the clock: what should be finished is, what should have begun has. */
function outcomeToday(scope: Scope, task: PastTask): Outcome {
  const start = task.startTime === null ? null : tryMinutesOfTime(task.startTime);
  if (start === null) return { kind: 'open' };
  const { minutes } = scope.now;
  if (start + task.estimateMinutes <= minutes) return { kind: 'done', daysLate: 0 };
  return { kind: start <= minutes ? 'underWay' : 'open' };
}

function fate(
  scope: Scope,
  task: PastTask,
  outcome: Outcome,
  random: SeededRandom,
  nextNote: (templateName: string) => string,
): Fate {
  const untouched = { id: task.id, startedAt: null, doneAt: null, doneBy: null, note: '', ticks: '{}' };
  switch (outcome.kind) {
    case 'open':
      return { ...untouched, state: 'open' };
    case 'lapsed':
      return { ...untouched, state: 'lapsed' };
    case 'skipped':
      return { ...untouched, state: 'skipped', note: outcome.reason };
    case 'underWay': {
      const startedAt = workedAt(scope, task, 0, random);
      const half = task.checkKeys.slice(0, Math.ceil(task.checkKeys.length / 2));
      return {
        ...untouched,
        state: 'underWay',
        startedAt,
        ticks: ticks(half, startedAt, scope.instant.toISOString(), task),
      };
    }
    case 'done': {
      const startedAt = workedAt(scope, task, outcome.daysLate, random);
      const spent = Math.max(1, Math.round(task.estimateMinutes * (0.7 + random.next() * 0.3)));
      const doneAt = notAfterNow(scope, new Date(new Date(startedAt).getTime() + spent * 60_000));
      const note = random.chance(0.12) ? nextNote(task.templateName) : '';
      return {
        ...untouched,
        state: 'done',
        startedAt,
        doneAt,
        doneBy: task.assigneeId,
        note,
        ticks: ticks(task.checkKeys, startedAt, doneAt, task),
      };
    }
  }
}

/** When work began: at its time where it has one, else in the working day; later days begin in the morning. */
function workedAt(scope: Scope, task: PastTask, daysLate: number, random: SeededRandom): string {
  const due = task.dueTime === null ? 16 * 60 : (tryMinutesOfTime(task.dueTime) ?? 0);
  const planned =
    task.startTime === null
      ? Math.max(8 * 60, due - task.estimateMinutes - random.whole(20, 180))
      : (tryMinutesOfTime(task.startTime) ?? 0);
  const minutes = daysLate > 0 ? random.whole(8 * 60, 11 * 60) : planned + random.whole(0, 4);
  const time = `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
  const date = isoOfDay(dayOfIso(task.dueOn) + daysLate);
  return notAfterNow(scope, new Date(instantOf(date, time, scope.workspace.zone)));
}

function notAfterNow(scope: Scope, at: Date): string {
  return (at > scope.instant ? scope.instant : at).toISOString();
}

/** Check lines ticked one after the other between two moments. */
function ticks(keys: readonly string[], from: string, to: string, { assigneeId }: PastTask): string {
  const [begin, end] = [new Date(from).getTime(), new Date(to).getTime()];
  const at = (index: number) => new Date(begin + ((end - begin) * (index + 1)) / keys.length).toISOString();
  return JSON.stringify(Object.fromEntries(keys.map((key, index) => [key, { at: at(index), by: assigneeId }])));
}
