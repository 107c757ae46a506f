import type { Earlier, StoredFile as FileAnswer, Task as TaskAnswer } from '../../contract/index.ts';
import {
  callNames,
  dayOfIso,
  followsRule,
  isEnded,
  isoOfDay,
  isToDo,
  nextDated,
  ownOf,
  type PlannedSchedule,
  revisionOn,
  sayWhyOf,
  writePhrase,
} from '../../core/index.ts';
import { filesOfTasks, filesOfTemplate } from '../files/stored/index.ts';
import { columnsOf, type Named, namedColumns } from '../platform/db/columns.ts';
import { Person } from '../platform/identity/person.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { makingFor, readableSchedule, type ScheduleRow, scheduleRows } from '../schedules/index.ts';
import { Template } from '../templates/stored/index.ts';
import {
  lackedBy,
  may,
  mayAddTo,
  mayAsk,
  mayChooseNext,
  mayClaim,
  mayGiveBack,
  mayNudge,
  maySign,
  mayWork,
} from './permission.ts';
import {
  lookOfRow,
  ofSet,
  type SentBack,
  seriesUpTo,
  TASK_COLUMNS,
  TASK_JOINS,
  type Task,
  TaskRecord,
  type TaskRow,
  type Tick,
  taskLine,
  ticketsOfTasks,
  WorkContent,
} from './stored/index.ts';

/** What a task tells beside its line. */
const FULL_FIELDS = [
  'heldAt',
  'heldBy',
  'nudgedBy',
  'head',
  'edited',
  'why',
  'sentBack',
  'signedAt',
  'signedBy',
  'templateVersion',
] as const;
const FULL_SAID = ['instructions', 'brief', 'links'] as const;

const OF_TEMPLATE = {
  templateName: 'name',
  templateNow: 'version',
  templateChangedAt: 'changedAt',
  templateArchivedAt: 'archivedAt',
} as const satisfies Record<string, keyof Template>;
type Around = Named<Template, typeof OF_TEMPLATE>;

type FullRow = TaskRow &
  Pick<Task, (typeof FULL_FIELDS)[number] | (typeof FULL_SAID)[number]> & {
    [Name in keyof Around]: Around[Name] | null;
  };

/** A task with all there is to know when doing it. */
export async function oneTask(scope: Scope, id: string): Promise<TaskAnswer> {
  const [[row], people] = await scope.atOnce(
    () =>
      scope.sql<FullRow>(
        `select ${TASK_COLUMNS}, ${columnsOf(TaskRecord, 't', FULL_FIELDS)}, ${columnsOf(WorkContent, 'said', FULL_SAID)},
           ${namedColumns(Template, 'template', OF_TEMPLATE)}
         from ${TASK_JOINS}
         left join template on template.workspace_id = t.workspace_id and template.id = t.template_id
         where t.workspace_id = $1 and t.id = $2`,
        [id],
      ),
    () => scope.peopleNames(),
  );
  if (!row) throw notFound('task');
  const nameOf = (personId: string | null) => (personId === null ? null : (people.get(personId) ?? null));
  const [ticketsOf, files, templateFiles, set, finishedBy, series] = await scope.atOnce(
    () => ticketsOfTasks(scope, [id]),
    () => filesOfTasks(scope, [id]),
    async () => (row.templateId === null ? [] : await filesOfTemplate(scope, row.templateId)),
    () => setOf(scope, row, nameOf),
    async () => (row.state === 'done' || row.state === 'toCheck' ? await finishingChange(scope, id) : null),
    () => seriesOf(scope, row, nameOf),
  );
  const tickets = ticketsOf.get(id) ?? [];
  const holder =
    row.assigneeId === null || tickets.length === 0 ? null : await scope.one(Person, row.assigneeId, 'person');
  const given = ({ at, by, contact }: Tick) => ({ at: scope.moment(new Date(at)), by: contact ?? nameOf(by) });
  const line = taskLine(scope, row);
  const sentBack: SentBack | undefined = row.sentBack.at(-1);
  return {
    ...line,
    hold: line.hold && row.heldAt && { ...line.hold, at: scope.moment(row.heldAt), by: nameOf(row.heldBy) },
    nudged: row.nudgedAt === null ? null : { at: scope.moment(row.nudgedAt), by: nameOf(row.nudgedBy) },
    instructions: row.instructions,
    brief: row.brief,
    links: row.links,
    files: files.get(id) ?? [],
    templateFiles,
    demands: row.demands,
    steps: row.checkLines.map((line) => {
      const tick = ownOf(row.ticks, line.key);
      return {
        ...line,
        tickedAt: tick ? given(tick).at : null,
        tickedBy: tick ? given(tick).by : null,
      };
    }),
    numbered: row.numbered,
    finishWithLast: row.finishWithLast,
    workType: row.workType,
    signOff: row.signOff,
    answers: Object.fromEntries(
      Object.entries(row.answers).map(([key, { value, remark, ...tick }]) => [
        key,
        { value: typeof value === 'object' ? [...value] : value, remark, ...given(tick) },
      ]),
    ),
    assetTag: row.assetTag,
    note: row.note,
    notePinned: row.notePinned,
    doneBy: row.doneByContact ?? nameOf(row.doneBy),
    signed: row.signedAt === null ? null : { at: scope.moment(row.signedAt), by: nameOf(row.signedBy) },
    sentBack: sentBack ? { ...given(sentBack), reason: sentBack.reason } : null,
    template: templateOf(scope, row),
    set,
    whyWho: whyOf(scope, row, people),
    tickets,
    lackedTicket: lackedBy(holder, tickets, row)?.ticket ?? null,
    mayWork: mayWork(scope, row),
    mayAddTo: mayAddTo(scope, row),
    mayClaim: mayClaim(scope, row) && lackedBy(scope.person, tickets, row) === null,
    mayGiveBack: mayGiveBack(scope, row),
    mayPlan: may(scope, 'move', row),
    maySign: maySign(scope, row),
    mayAsk: mayAsk(scope, row),
    mayHold: mayWork(scope, row) && isToDo(row.state),
    mayNudge: mayNudge(scope, row),
    mayChooseNext: mayChooseNext(scope, row),
    finishedBy,
    ...series,
  };
}

/** Why it is whoever's it is: by its schedule, unless somebody has chosen otherwise since. */
function whyOf(scope: Scope, row: FullRow, names: ReadonlyMap<string, string>): string | null {
  const { assigneeId, offeredTo, why } = row;
  const isCovered = why !== null && why.by !== 'hand' && why.passedOver.length > 0;
  if (row.edited.includes('assigneeId') && !isCovered) return 'chosen by hand';
  if (offeredTo !== null && assigneeId !== null) return 'taken';
  if (why === null) return null;
  const people = [...names].map(([id, name]) => ({ id, name }));
  const called = callNames(people);
  return sayWhyOf(assigneeId, why, (id) => called.get(id) ?? 'somebody', scope.now.day);
}

function templateOf(scope: Scope, row: FullRow): TaskAnswer['template'] {
  if (row.templateId === null || row.templateName === null) return null;
  const isOlder = row.templateVersion !== null && row.templateNow !== null && row.templateVersion < row.templateNow;
  return {
    id: row.templateId,
    name: row.templateName,
    changedSince: isOlder ? scope.moment(row.templateChangedAt as Date).slice(0, 10) : null,
    isArchived: row.templateArchivedAt !== null,
  };
}

type NameOf = (personId: string | null) => string | null;

async function setOf(scope: Scope, row: FullRow, nameOf: NameOf): Promise<TaskAnswer['set']> {
  const set = await scope.find(TaskRecord, row.setSize > 1 ? ofSet(row) : { id: row.id });
  const order = (one: TaskRecord) => `${one.workOn} ${String(one.setIndex).padStart(6, '0')} ${one.id}`;
  return set
    .sort((a, b) => (order(a) < order(b) ? -1 : 1))
    .map((one) => {
      const { state, late, heldUp } = lookOfRow(scope, one);
      const { id: taskId, title, workOn: on, dueTime, estimateMinutes } = one;
      return { taskId, title, on, dueTime, state, late, heldUp, who: nameOf(one.assigneeId), estimateMinutes };
    });
}

/**
 * By which finishing it is undone, as long as nothing was done with it since: where the next one was given another day
 * with it, both together. By the time, not by the id alone: ids of several processes follow each other only nearly.
 */
async function finishingChange(scope: Scope, taskId: string): Promise<string | null> {
  const OF_TASK = `workspace_id = $1 and subject = 'task' and subject_id = $2 and undone_at is null`;
  const [last] = await scope.sql<{ id: string }>(
    `select coalesce(joined_id, id) as id from change c where ${OF_TASK} and action in ('finished', 'signed')
       and not exists (select 1 from change later where later.at > c.at and later.action <> 'pinned' and ${OF_TASK})
     order by at desc, action = 'signed' desc, c.id desc limit 1`,
    [taskId],
  );
  return last?.id ?? null;
}

const EARLIER_SHOWN = 12;

/** Tasks of the same series: of the same schedule, or of the same template for the same client and asset. */
const SAME_SERIES = `t.step_key = $3 and (case when $2::uuid is not null then t.schedule_id = $2
  else t.schedule_id is null and t.template_id = $4 and t.client_id is not distinct from $5 and t.asset_id is not distinct from $6 end)`;

async function seriesOf(scope: Scope, task: FullRow, nameOf: NameOf): Promise<Pick<TaskAnswer, 'schedule' | 'series'>> {
  const before = [task.scheduleId, task.stepKey, task.templateId, task.clientId, task.assetId, task.workOn, task.id];
  const { id, scheduleId, nominalDate: nominal } = task;
  const [[totals], earlier, [row], eights] = await scope.atOnce(
    () =>
      scope.sql<{ count: number; since: string | null }>(
        `select count(*) as count, min(work_on) as since from task t
         where t.workspace_id = $1 and ${SAME_SERIES} and t.work_on < $7::date and t.id <> $8`,
        before,
      ),
    () => earlierOf(scope, before, nameOf),
    async () => (scheduleId === null ? [] : await scheduleRows(scope, { ids: [scheduleId] })),
    async () =>
      scheduleId === null || nominal === null
        ? null
        : await seriesUpTo(scope, [{ id, scheduleId, nominalDate: nominal }]),
  );
  const series = { lastEight: [], count: totals?.count ?? 0, since: totals?.since ?? null, earlier, next: null };
  if (!row || nominal === null) return { schedule: null, series };
  const schedule = readableSchedule(scope, row);
  if (!schedule) return { schedule: null, series };
  const next = await nextInSeries(scope, row, schedule, nameOf, task);
  return {
    schedule: {
      id: row.id,
      phrase: writePhrase(revisionOn(schedule, nominal).recurrence, {
        start: 'unsaid',
        yearStarts: scope.workspace.yearStarts,
      }),
      nominalOn: nominal,
    },
    series: { ...series, lastEight: eights?.get(id) ?? [], next },
  };
}

const EARLIER_FIELDS = [
  'id',
  'note',
  'notePinned',
  'answers',
  'workOn',
  'doneBy',
  'doneByContact',
  'assigneeId',
] as const;

/** Earlier ones that have something to tell: the newest few, and all that was pinned or is kept. */
async function earlierOf(scope: Scope, before: readonly unknown[], nameOf: NameOf): Promise<Earlier[]> {
  const rows = await scope.sql<Pick<TaskRecord, (typeof EARLIER_FIELDS)[number]> & { fileCount: number }>(
    `with past as (
       select ${columnsOf(TaskRecord, 't', EARLIER_FIELDS)}, f.n as "fileCount", f.kept
       from task t left join lateral (
         select count(*) as n, coalesce(bool_or(is_kept), false) as kept from file
         where workspace_id = t.workspace_id and task_id = t.id and removed_at is null
       ) f on true
       where t.workspace_id = $1 and ${SAME_SERIES} and t.work_on < $7::date and t.id <> $8
         and (t.note <> '' or t.answers <> '{}' or f.n > 0)
     )
     (select * from past order by "workOn" desc limit ${EARLIER_SHOWN})
     union select * from past where "notePinned" or kept
     order by "workOn" desc`,
    before,
  );
  const files = await filesOfTasks(
    scope,
    rows.filter(({ fileCount }) => fileCount > 0).map(({ id }) => id),
  );
  return rows.map((row) => ({
    taskId: row.id,
    on: row.workOn,
    by: row.doneByContact ?? nameOf(row.doneBy ?? row.assigneeId),
    note: row.note,
    isPinned: row.notePinned,
    files: files.get(row.id) ?? ([] as FileAnswer[]),
    readings: Object.fromEntries(
      Object.entries(row.answers).flatMap(([key, { value }]) => (typeof value === 'number' ? [[key, value]] : [])),
    ),
  }));
}

async function nextInSeries(
  scope: Scope,
  row: ScheduleRow,
  schedule: PlannedSchedule,
  nameOf: NameOf,
  task: Pick<FullRow, 'nominalDate' | 'stepKey' | 'head' | 'state'>,
): Promise<TaskAnswer['series']['next']> {
  const nominal = dayOfIso(task.nominalDate as string);
  const [made] = await scope.sql<{ id: string; on: string; who: string | null; isForClient: boolean }>(
    `select id, work_on as "on", assignee_id as who, (assignee_id is null and coalesce(offered_to->>'of' = 'client', false)) as "isForClient" from task where workspace_id = $1 and schedule_id = $2 and step_key = '' and head = $4
       and nominal_date > $3::date order by nominal_date limit 1`,
    [row.id, isoOfDay(nominal), task.head],
  );
  if (made)
    return {
      on: made.on,
      taskId: made.id,
      who: made.isForClient ? 'the client' : nameOf(made.who),
      isIfDoneToday: false,
    };
  const ifDone = task.stepKey === '' && !isEnded(task.state) ? asIfDone(scope, schedule, task.nominalDate) : null;
  const from = Math.max(nominal + 1, scope.now.day);
  const next = nextDated(
    ifDone ?? schedule,
    await scope.calendar(),
    from,
    (occurrence) => occurrence.nominal > nominal,
  );
  if (next === null) return null;
  const { whose } = await makingFor(scope, [row]);
  const given = whose(row)(next);
  const who = given.kind === 'client' ? 'the client' : given.kind === 'one' ? nameOf(given.personId) : null;
  return { on: isoOfDay(next.on), taskId: null, who, isIfDoneToday: ifDone !== null };
}

/** A schedule whose next date waits for this one, as it would be if this one were done today; null for any other. */
function asIfDone(scope: Scope, schedule: PlannedSchedule, nominal: string | null): PlannedSchedule | null {
  const { last } = schedule;
  if (!last || last.nominal !== nominal) return null;
  if (followsRule(revisionOn(schedule, scope.today).recurrence) === null) return null;
  const { today } = scope;
  const { reached } = last;
  return {
    ...schedule,
    last: {
      ...last,
      reached: {
        done: reached.done ?? today,
        underWay: reached.underWay ?? today,
        toCheck: reached.toCheck ?? today,
      },
    },
  };
}
