import type { Impact, ScheduleInput } from '../../../contract/index.ts';
import { groupBy, nameKey } from '../../../core/index.ts';
import { changedMeanwhile } from '../../platform/refusal.ts';
import { fieldChanges, type Scope } from '../../platform/scope.ts';
import {
  impactOf,
  insertSchedules,
  lockedSchedules,
  newSchedule,
  plannedYear,
  type ScheduleWrite,
  saveRows,
  saveTogether,
  scheduleRows,
  UNSEEN_ONLY,
  versioned,
} from '../../schedules/index.ts';
import { addDaysOff, writeDaysOff } from '../../settings/index.ts';
import { plainTask } from '../../tasks/index.ts';
import { insertTasks, lockedTasks, type NewTask, saveTasks, seenFrom } from '../../tasks/stored/index.ts';
import { effectOf } from '../effect.ts';
import type { BringIn } from '../entity.ts';
import { keepWritten, pagesOf } from '../pages.ts';
import type { ReadRow } from '../read-row.ts';
import { blank, insertTemplate } from '../template-lines.ts';
import { usualMinutesOf } from '../usual-minutes.ts';
import type { MadeEntry } from './made.ts';
import { keepOrigins } from './origins.ts';
import type { WrittenEntry } from './written.ts';

/** Entries of a file that are written, with what becomes of each. */
async function* going(scope: Scope, bringIn: BringIn): AsyncGenerator<{ fresh: Going[]; changed: Going[] }> {
  for await (const rows of pagesOf(scope, bringIn, 'number, fate, choice, read')) {
    const of = (effect: 'new' | 'update') =>
      rows.flatMap(({ number, read, ...row }) =>
        effectOf(bringIn.kind, row) === effect ? [{ number, read, made: read.made as MadeEntry }] : [],
      );
    yield { fresh: of('new'), changed: of('update') };
  }
}
interface Going {
  readonly number: number;
  readonly read: ReadRow;
  readonly made: MadeEntry;
}

/** Days off of all entries, each once. */
async function daysOffOf(scope: Scope, bringIn: BringIn): Promise<{ date: string; name: string }[]> {
  const days = new Map<string, string>();
  for await (const { fresh } of going(scope, bringIn))
    for (const { made } of fresh)
      if (made.of.becomes === 'days off')
        for (const { date, name } of made.of.days) if (!days.has(date)) days.set(date, name);
  return [...days].map(([date, name]) => ({ date, name }));
}

/** Templates by what they say, so that entries that say the same share one, and those that the file brought. */
interface Shared {
  readonly byWords: Map<string, string>;
  readonly made: Set<string>;
}

const noneShared = (): Shared => ({ byWords: new Map(), made: new Set() });

/** Templates in use before the file came, by their plain names. */
type TemplatesHere = ReadonlyMap<string, readonly { readonly id: string }[]>;

const templatesHere = async (scope: Scope): Promise<TemplatesHere> =>
  groupBy(
    await scope.sql<{ id: string; name: string }>(
      'select id, name from template where workspace_id = $1 and archived_at is null',
    ),
    ({ name }) => nameKey(name),
  );

/** Template, and what the schedule says of its own where it is one that was there already. */
async function templateFor(
  scope: Scope,
  bringIn: BringIn,
  work: MadeEntry['work'],
  shared: Shared,
  changeIds: string[],
  here: TemplatesHere,
): Promise<{ readonly id: string; readonly isNew: boolean }> {
  const key = JSON.stringify([nameKey(work.name), work.instructions, work.minutes, work.priority]);
  const known = shared.byWords.get(key);
  if (known !== undefined) return { id: known, isNew: false };
  const [only, other] = here.get(nameKey(work.name)) ?? [];
  if (only && !other) {
    shared.byWords.set(key, only.id);
    return { id: only.id, isNew: false };
  }
  const { id, changeId } = await insertTemplate(scope, {
    ...blank(work.name, work.minutes ?? usualMinutesOf(bringIn)),
    titlePattern: work.name.replace(/[{}]/g, '').trim(),
    ...{ instructions: work.instructions, links: work.links, category: work.category, priority: work.priority },
  });
  changeIds.push(changeId);
  shared.byWords.set(key, id);
  shared.made.add(id);
  return { id, isNew: true };
}

/** A schedule of a template that was there says in its own words what the entry says. */
function inOwnWords(input: ScheduleInput, work: MadeEntry['work'], isOwn: boolean): ScheduleInput {
  if (isOwn) return input;
  const own = {
    '': {
      ...(work.instructions === '' ? {} : { instructions: work.instructions }),
      ...(work.minutes === null ? {} : { estimateMinutes: work.minutes }),
    },
  };
  if (Object.keys(own['']).length === 0) return input;
  const { recurrence, timing, revisions } = input;
  const first = { from: recurrence.start, recurrence, timing, own };
  return { ...input, revisions: [first, ...revisions.map((one) => ({ ...one, own }))] };
}

export async function writeEntries(tx: Scope, bringIn: BringIn): Promise<readonly string[]> {
  const changeIds: string[] = [];
  const days = await daysOffOf(tx, bringIn);
  const added = days.length === 0 ? null : await addDaysOff(tx, days);
  if (added?.changeId) changeIds.push(added.changeId);
  const scope = added?.after ?? tx;
  const shared = noneShared();
  const here = await templatesHere(scope);
  for await (const { fresh, changed } of going(scope, bringIn)) {
    const written = new Map<number, WrittenEntry>();
    const put = (number: number, more: WrittenEntry) => written.set(number, { ...written.get(number), ...more });
    const { schedules, tasks } = await prepared(scope, bringIn, fresh, { here, shared, changeIds, put });
    const { entries } = await saveTogether(
      scope,
      { writes: await writesOf(scope, changed), added: schedules.map(({ input }) => newSchedule(input)) },
      UNSEEN_ONLY,
    );
    const rewritten = changed.filter(({ made }) => made.of.becomes === 'schedule');
    changeIds.push(...(await scope.recordEach(entries)));
    rewritten.forEach(({ number, read }) => void put(number, { scheduleId: read.targetId ?? '' }));
    schedules.forEach(
      ({ number }, i) => void put(number, { newScheduleId: entries[rewritten.length + i]?.subjectId ?? '' }),
    );
    await insertTasks(
      scope,
      tasks.map(({ task }) => task),
    );
    tasks.forEach(({ number, task }) => void put(number, { newTaskId: task.id }));
    changeIds.push(
      ...(await scope.recordEach(
        tasks.map(({ task }) => ({ subject: 'task', subjectId: task.id, action: 'brought in', fields: {} })),
      )),
    );
    changeIds.push(...(await changeTasksOf(scope, changed, put)));
    for (const { number, made } of fresh)
      if (made.of.becomes === 'days off') put(number, { daysOff: made.of.days.length });
    await keepOrigins(scope, [...fresh, ...changed], written);
    await keepWritten(
      scope,
      bringIn,
      [...written].map(([number, before]) => ({ number, before })),
    );
  }
  return changeIds;
}

/** New schedules with their templates, and new tasks, of a page. */
async function prepared(
  scope: Scope,
  bringIn: BringIn,
  fresh: readonly Going[],
  {
    here,
    shared,
    changeIds,
    put,
  }: {
    here: TemplatesHere;
    shared: Shared;
    changeIds: string[];
    put: (number: number, more: WrittenEntry) => void;
  },
) {
  const schedules: { number: number; input: ScheduleInput }[] = [];
  const tasks: { number: number; task: NewTask }[] = [];
  for (const { number, made } of fresh) {
    const { of, work } = made;
    if (of.becomes === 'task') tasks.push({ number, task: taskOf(scope, bringIn, made) });
    if (of.becomes !== 'schedule' && of.becomes !== 'template') continue;
    const template = await templateFor(scope, bringIn, work, shared, changeIds, here);
    if (template.isNew) put(number, { newTemplateId: template.id });
    const isOwn = shared.made.has(template.id);
    if (of.becomes === 'schedule')
      schedules.push({ number, input: inOwnWords({ ...of.input, templateId: template.id }, work, isOwn) });
  }
  return { schedules, tasks };
}

function taskOf(scope: Scope, bringIn: BringIn, { of, work }: MadeEntry): NewTask {
  if (of.becomes !== 'task') throw new Error('A task is made of an entry that becomes one.');
  const { on, dueOn, startTime, dueTime, assigneeId } = of;
  return {
    ...plainTask(scope, {
      ...{ title: work.name, on, dueOn, startTime, dueTime, assigneeId, clientId: null, assetId: null },
      estimateMinutes: work.minutes ?? usualMinutesOf(bringIn),
    }),
    ...{ instructions: work.instructions, links: work.links, priority: work.priority, offeredTo: of.offeredTo },
  };
}

/** What was looked at is not what is there any more. */
const isChanged = () =>
  changedMeanwhile('Somebody has changed some of what these are about meanwhile. Nothing is written; look once more.');

async function writesOf(scope: Scope, changed: readonly Going[]): Promise<ScheduleWrite[]> {
  const ofSchedules = changed.filter(({ made }) => made.of.becomes === 'schedule');
  const locked = await lockedSchedules(
    scope,
    ofSchedules.map(({ read }) => read.targetId ?? ''),
  );
  return ofSchedules.flatMap(({ read, made: { of } }) => {
    const before = locked.get(read.targetId ?? '');
    if (of.becomes !== 'schedule') return [];
    if (!before || before.version !== of.version) throw isChanged();
    const { recurrence, timing, exceptions, revisions, assignment } = of.input;
    // Words of its own that it has stay.
    const [first] = before.revisions;
    const own = first?.from === before.recurrence.start ? first.own : undefined;
    const all = own
      ? [{ from: recurrence.start, recurrence, timing, own }, ...revisions.map((one) => ({ ...one, own }))]
      : revisions;
    return [{ before, set: versioned({ recurrence, timing, exceptions, revisions: all, assignment }) }];
  });
}

/** Brings tasks up to date that an entry made before. */
async function changeTasksOf(
  scope: Scope,
  changed: readonly Going[],
  put: (number: number, more: WrittenEntry) => void,
): Promise<string[]> {
  const ofTasks = changed.filter(({ made }) => made.of.becomes === 'task');
  const ids = ofTasks.map(({ read }) => read.targetId ?? '');
  const tasks = new Map((await lockedTasks(scope, ids)).map((one) => [one.id, one]));
  const all = ofTasks.flatMap(({ number, read, made: { of, work } }) => {
    const task = tasks.get(read.targetId ?? '');
    if (of.becomes !== 'task') return [];
    if (!task || task.version !== of.version) throw isChanged();
    put(number, { taskId: task.id });
    const { on: workOn, dueOn, startTime, dueTime } = of;
    const days = { workOn, startsOn: workOn, dueOn, appearsOn: seenFrom(task, workOn) };
    return [{ task, changes: { title: work.name, ...days, startTime, dueTime } }];
  });
  await saveTasks(scope, all);
  return scope.recordEach(
    all.map(({ task, changes }) => ({
      subject: 'task',
      subjectId: task.id,
      action: 'edited',
      fields: fieldChanges(task, changes),
    })),
  );
}

/** What all of it would do: days off to the schedules that they reach, and the schedules that are new or change. */
export async function impactOfEntries(tx: Scope, bringIn: BringIn): Promise<Impact> {
  const days = await daysOffOf(tx, bringIn);
  const added = await writeDaysOff(tx, days);
  const scope = added.after;
  const writes: ScheduleWrite[] = [];
  const inputs: ScheduleInput[] = [];
  let [tasks, moved] = [0, 0];
  const shared = noneShared();
  const here = await templatesHere(scope);
  for await (const { fresh, changed } of going(scope, bringIn)) {
    writes.push(...(await writesOf(scope, changed)));
    const made = await prepared(scope, bringIn, fresh, { here, shared, changeIds: [], put: () => undefined });
    inputs.push(...made.schedules.map(({ input }) => input));
    tasks += made.tasks.length;
    moved += changed.filter(({ made: { of } }) => of.becomes === 'task').length;
  }
  const touched = [...new Set([...added.reached.map(({ id }) => id), ...writes.map(({ before }) => before.id)])];
  const year = await plannedYear(added.before, await scheduleRows(added.before, { ids: touched }));
  if (writes.length > 0) await saveRows(scope, writes);
  const ids = [...touched, ...(await insertSchedules(scope, inputs.map(newSchedule)))];
  const told = await impactOf(scope, await scheduleRows(scope, { ids }), year, UNSEEN_ONLY);
  return {
    ...told,
    figures: { ...told.figures, added: told.figures.added + tasks, changed: told.figures.changed + moved },
  };
}
