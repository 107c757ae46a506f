import {
  type Answer,
  type CheckLine,
  type Demand,
  dayOfIso,
  instantOf,
  isoOfDay,
  type SignOff,
  tryMinutesOfTime,
} from '../src/core/index.ts';
import { StoredFile } from '../src/server/files/stored/index.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { madeUpAnswer } from './answers.ts';
import { type Outcome, outcomeOf } from './outcomes.ts';
import type { DemoFile, DemoFiles } from './pictures.ts';
import type { SeededRandom } from './random.ts';

interface PastTask {
  id: string;
  scheduleId: string | null;
  dueOn: string;
  startTime: string | null;
  dueTime: string | null;
  estimateMinutes: number;
  checkLines: CheckLine[];
  demands: Demand[];
  signOff: SignOff | null;
  assigneeId: string | null;
  assetTag: string | null;
  templateName: string;
}

interface Given extends Answer {
  readonly at: string;
  readonly by: string | null;
}

interface Fate {
  readonly id: string;
  readonly state: string;
  readonly startedAt: string | null;
  readonly doneAt: string | null;
  readonly doneBy: string | null;
  readonly signedAt: string | null;
  readonly signedBy: string | null;
  readonly note: string;
  readonly ticks: Record<string, { at: string; by: string | null }>;
  readonly answers: Record<string, Given>;
  /** Demands that a file was added for. */
  readonly files: readonly string[];
}

/** What the past is played with. */
export interface Past {
  readonly scope: Scope;
  readonly randomFor: (seed: string) => SeededRandom;
  readonly notesOf: ReadonlyMap<string, readonly string[]>;
  /** The first person of each role, and the first manager under "manager". */
  readonly signers: ReadonlyMap<string, string>;
  readonly files: DemoFiles;
}

/** Plays the past: what became of every task that was due up to now. */
export async function playHistory(past: Past): Promise<void> {
  const { scope } = past;
  await takeOffered(scope);
  const tasks = await scope.sql<PastTask>(
    `select k.id, k.schedule_id as "scheduleId", k.due_on as "dueOn", k.start_time as "startTime", k.due_time as "dueTime",
       k.estimate_minutes as "estimateMinutes", k.assignee_id as "assigneeId", t.name as "templateName",
       said.check_lines as "checkLines", said.demands, said.sign_off as "signOff", a.tag as "assetTag"
     from task k join work_content said on said.workspace_id = k.workspace_id and said.id = k.content_id
     join template t on t.workspace_id = k.workspace_id and t.id = k.template_id
     left join asset a on a.workspace_id = k.workspace_id and a.id = k.asset_id
     where k.workspace_id = $1 and k.due_on <= $2::date order by k.due_on, t.name, k.title, k.id`,
    [scope.today],
  );
  const gaps = typicalGaps(tasks);
  const nextNote = noteTaker(past.notesOf);
  const fates = tasks.map((task, i) => {
    const random = past.randomFor(`${i} ${task.dueOn} ${task.templateName}`);
    const daysAgo = scope.now.day - dayOfIso(task.dueOn);
    const recurs = task.scheduleId === null ? 99 : (gaps.get(task.scheduleId) ?? 99);
    const outcome = daysAgo === 0 ? outcomeToday(scope, task) : outcomeOf(random, daysAgo, recurs);
    return fate(past, task, outcome, random, nextNote);
  });
  await writeFates(scope, fates);
  await addFiles(past, tasks, fates);
}

/** What any one of a role could take, one of them took. */
async function takeOffered(scope: Scope): Promise<void> {
  await scope.sql(
    `update task set assignee_id = (
       select p.id from person p where p.workspace_id = $1 and p.works_from is null and p.roles ? (task.offered_to->>'role')
       order by md5(task.nominal_date::text || p.name) limit 1)
     where workspace_id = $1 and offered_to is not null and due_on < $2::date`,
    [scope.today],
  );
}

async function writeFates(scope: Scope, fates: readonly Fate[]): Promise<void> {
  await scope.sql(
    `update task set state = fate.state, started_at = fate.started_at, done_at = fate.done_at, done_by = fate.done_by,
       signed_at = fate.signed_at, signed_by = fate.signed_by, note = fate.note, ticks = fate.ticks, answers = fate.answers
     from unnest($2::uuid[], $3::text[], $4::timestamptz[], $5::timestamptz[], $6::uuid[], $7::timestamptz[], $8::uuid[], $9::text[],
       $10::jsonb[], $11::jsonb[])
       as fate (id, state, started_at, done_at, done_by, signed_at, signed_by, note, ticks, answers)
     where task.workspace_id = $1 and task.id = fate.id`,
    [
      fates.map(({ id }) => id),
      fates.map(({ state }) => state),
      fates.map(({ startedAt }) => startedAt),
      fates.map(({ doneAt }) => doneAt),
      fates.map(({ doneBy }) => doneBy),
      fates.map(({ signedAt }) => signedAt),
      fates.map(({ signedBy }) => signedBy),
      fates.map(({ note }) => note),
      fates.map(({ ticks }) => JSON.stringify(ticks)),
      fates.map(({ answers }) => JSON.stringify(answers)),
    ],
  );
}

/** A photo or a paper for every demand that was met: the same few bytes, each under its own row. */
async function addFiles({ scope, files, randomFor }: Past, tasks: readonly PastTask[], fates: readonly Fate[]) {
  const { photos, papers } = files;
  for (const [i, fate] of fates.entries()) {
    for (const demandKey of fate.files) {
      const among = demandKey.includes('photo') ? photos : papers;
      const file: DemoFile = randomFor(`file ${i} ${demandKey}`).pick(among);
      await scope.insert(StoredFile, {
        ...file,
        id: scope.newId(),
        uploadKey: scope.newId(),
        templateId: null,
        taskId: fate.id,
        demandKey,
        isKept: false,
        uploadedAt: new Date(fate.doneAt ?? fate.startedAt ?? scope.instant),
        byContact: null,
        uploadedBy: tasks[i]?.assigneeId ?? null,
        removedAt: null,
      });
    }
  }
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
function typicalGaps(tasks: readonly PastTask[]): Map<string | null, number> {
  const counts = new Map<string | null, number>();
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
  past: Past,
  task: PastTask,
  outcome: Outcome,
  random: SeededRandom,
  nextNote: (templateName: string) => string,
): Fate {
  const { scope } = past;
  const untouched: Fate = {
    id: task.id,
    state: outcome.kind,
    startedAt: null,
    doneAt: null,
    doneBy: null,
    signedAt: null,
    signedBy: null,
    note: outcome.kind === 'skipped' ? outcome.reason : '',
    ticks: {},
    answers: {},
    files: [],
  };
  if (outcome.kind === 'underWay') {
    const startedAt = workedAt(scope, task, 0, random);
    const half = task.checkLines.slice(0, Math.ceil(task.checkLines.length / 2));
    const times = { from: startedAt, to: scope.instant.toISOString() };
    return { ...untouched, startedAt, ...proof(past, task, half, task.demands.filter(startsIt), times) };
  }
  if (outcome.kind !== 'done') return untouched;
  const startedAt = workedAt(scope, task, outcome.daysLate, random);
  const spent = Math.max(1, Math.round(task.estimateMinutes * (0.7 + random.next() * 0.3)));
  const doneAt = notAfterNow(scope, new Date(new Date(startedAt).getTime() + spent * 60_000));
  const asksNote = task.demands.some(({ kind }) => kind === 'note');
  const wanted = random.chance(0.12) || asksNote ? nextNote(task.templateName) : '';
  return {
    ...untouched,
    startedAt,
    doneAt,
    doneBy: task.assigneeId,
    note: wanted === '' && asksNote ? 'As planned, nothing new.' : wanted,
    ...proof(past, task, task.checkLines, task.demands, { from: startedAt, to: doneAt }),
    ...signed(past, task, doneAt, random),
  };
}

/** Checked the day after, by whoever is named; a few of the last days' still wait. */
function signed({ scope, signers }: Past, { signOff, assigneeId }: PastTask, doneAt: string, random: SeededRandom) {
  if (signOff === null) return {};
  const signer =
    signOff.by === 'person' ? signOff.personId : signers.get(signOff.by === 'role' ? signOff.role : 'manager');
  const at = new Date(new Date(doneAt).getTime() + 20 * 3600_000);
  const isRecent = scope.instant.getTime() - at.getTime() < 10 * 86_400_000;
  if (at > scope.instant || signer === undefined || (isRecent && random.chance(0.3))) return { state: 'toCheck' };
  const other = signer === assigneeId ? signers.get('manager') : signer;
  return { signedAt: at.toISOString(), signedBy: other ?? null };
}

/** Check lines ticked one after the other between two moments, each with what it asked for. */
function proof(
  { randomFor }: Past,
  task: PastTask,
  lines: readonly CheckLine[],
  demands: readonly Demand[],
  times: { from: string; to: string },
): Pick<Fate, 'ticks' | 'answers' | 'files'> {
  const [begin, end] = [new Date(times.from).getTime(), new Date(times.to).getTime()];
  const at = (index: number) =>
    new Date(begin + ((end - begin) * (index + 1)) / Math.max(1, lines.length)).toISOString();
  const by = task.assigneeId;
  const asked = [
    ...lines.flatMap((line, i) => line.demands.map((demand) => ({ demand, at: at(i) }))),
    ...demands.map((demand) => ({ demand, at: startsIt(demand) ? times.from : times.to })),
  ];
  const day = dayOfIso(task.dueOn);
  const answers = asked.flatMap(({ demand, at: when }) => {
    const level = randomFor(`level ${task.scheduleId} ${demand.key}`).next();
    const random = randomFor(`${task.dueOn} ${task.scheduleId} ${demand.key}`);
    const answer = madeUpAnswer(demand, random, level, day, task.assetTag ?? 'TQ');
    return answer ? [[demand.key, { ...answer, at: when, by }] as const] : [];
  });
  return {
    ticks: Object.fromEntries(lines.map(({ key }, i) => [key, { at: at(i), by }])),
    answers: Object.fromEntries(answers),
    files: asked.filter(({ demand }) => demand.kind === 'file').map(({ demand }) => demand.key),
  };
}

const startsIt = (demand: Demand) => demand.kind === 'tag' && demand.atStart === true;

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
