import { CALENDAR_DAYS, type CalendarOf, MOST_ENTRIES } from '../../contract/index.ts';
import { dayOfIso, isoOfDay, sayDate, sayDuration, sayTime, type TaskState } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { type ForeseenTask, foreseenFrom, foreseenOf, type KeptLine, keptLines } from '../schedules/index.ts';
import { KeptView, questionOf, type TaskQuestion } from '../task-list/index.ts';
import type { CalendarEntry } from './calendar-file.ts';

/** What a calendar is of: the tasks of it, and the schedules that foresee more of them. */
interface Asked {
  readonly question: TaskQuestion;
  readonly foreseen: (scope: Scope) => Promise<readonly ForeseenTask[]>;
  /** Whose dates that were taken out are told; null where they are not known to be of it. */
  readonly isOf: ((line: KeptLine) => boolean) | null;
}

const ofSchedules = (question: TaskQuestion, isOf: (line: KeptLine) => boolean): Asked => ({
  question,
  isOf,
  foreseen: (scope) => foreseenOf(scope, scope.now.day, scope.now.day + CALENDAR_DAYS.ahead, isOf),
});

async function askedOf(scope: Scope, { kind, id }: CalendarOf): Promise<Asked> {
  switch (kind) {
    case 'person':
      return {
        question: await questionOf(scope, { person: id }),
        isOf: null,
        foreseen: () => foreseenFrom(scope, ({ assigneeId }) => assigneeId === id),
      };
    case 'client':
      return ofSchedules(await questionOf(scope, { client: id }), ({ row }) => row.clientId === id);
    case 'asset':
      return ofSchedules(await questionOf(scope, { asset: id }), ({ row }) => row.assetId === id);
    case 'schedule':
      return ofSchedules(await questionOf(scope, { schedule: id }), ({ row }) => row.id === id);
    case 'view': {
      const { filter } = await scope.one(KeptView, id, 'view');
      return { question: await questionOf(scope, filter), isOf: null, foreseen: async () => [] };
    }
  }
}

interface Row {
  readonly id: string;
  readonly state: TaskState;
  readonly title: string;
  readonly startsOn: string;
  readonly dueOn: string;
  readonly startTime: string | null;
  readonly dueTime: string | null;
  readonly zone: string | null;
  readonly estimateMinutes: number;
  readonly scheduleId: string | null;
  readonly nominalDate: string | null;
  readonly stepKey: string;
  readonly head: string;
  readonly heldUntil: string | null;
  readonly heldReason: string | null;
  readonly doneAt: Date | null;
  readonly madeAt: Date;
  readonly changedAt: Date | null;
  readonly client: string | null;
  readonly asset: string | null;
  readonly place: string | null;
  readonly who: string | null;
  readonly category: string | null;
}

/** When a schedule was changed last. */
interface Changed {
  readonly id: string;
  readonly at: Date;
}

/** What a calendar says: what is made and what is foreseen, in the order of its days. @param origin under which pages are opened */
export async function entriesOf(
  scope: Scope,
  of: CalendarOf,
  origin: string | null,
): Promise<{ readonly entries: CalendarEntry[]; readonly says: string }> {
  const { question, foreseen, isOf } = await askedOf(scope, of);
  const made = await madeTasks(scope, question);
  const ahead = await foreseen(scope);
  const lines = isOf === null ? [] : [...(await keptLines(scope)).values()].filter(isOf);
  const changed = await changedOf(scope, [
    ...new Set([...made, ...ahead].flatMap(({ scheduleId }) => scheduleId ?? [])),
    ...lines.map(({ row }) => row.id),
  ]);
  const names = await scope.peopleNames();
  const entries = [
    ...made.map((row) => madeEntry(scope, row, changed, origin)),
    ...ahead.map((task) => foreseenEntry(scope, task, names, changed, origin)),
    ...(await takenOut(scope, lines, changed, new Set([...made, ...ahead].map(uidOf)))),
  ];
  const inOrder = entries.sort((a, b) => (a.dueOn < b.dueOn ? -1 : a.dueOn > b.dueOn ? 1 : a.uid < b.uid ? -1 : 1));
  const isCut = inOrder.length > MOST_ENTRIES || made.length >= MOST_ENTRIES;
  return {
    entries: inOrder.slice(0, MOST_ENTRIES),
    says: isCut ? `There are more: these are the ${MOST_ENTRIES} that are due first.` : '',
  };
}

/** Tasks that are due from some weeks ago on; of many the first. */
function madeTasks(scope: Scope, question: TaskQuestion): Promise<Row[]> {
  const asked = question.copy();
  asked.and(`t.due_on >= ${asked.with(isoOfDay(scope.now.day - CALENDAR_DAYS.past))}::date`);
  return scope.sql<Row>(
    `select t.id, t.state, t.title, t.starts_on as "startsOn", t.due_on as "dueOn", t.start_time as "startTime",
       t.due_time as "dueTime", t.zone, t.estimate_minutes as "estimateMinutes", t.schedule_id as "scheduleId",
       t.nominal_date as "nominalDate", t.step_key as "stepKey", t.head, t.held_until as "heldUntil", t.held_reason as "heldReason",
       t.done_at as "doneAt", t.made_at as "madeAt", c.name as client, a.name as asset, a.place,
       coalesce(p.name, t.done_by_contact) as who, x.category,
       (select max(greatest(at, undone_at)) from change h where h.workspace_id = t.workspace_id and h.subject = 'task' and h.subject_id = t.id) as "changedAt"
     from task t
     left join template x on x.workspace_id = t.workspace_id and x.id = t.template_id
     left join client c on c.workspace_id = t.workspace_id and c.id = t.client_id
     left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
     left join person p on p.workspace_id = t.workspace_id and p.id = t.assignee_id
     where ${asked.where} order by t.due_on, t.id limit ${MOST_ENTRIES}`,
    asked.params,
  );
}

async function changedOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, Changed>> {
  if (ids.length === 0) return new Map();
  const rows = await scope.sql<Changed>(
    `select s.id, coalesce((select max(greatest(at, undone_at)) from change h where h.workspace_id = s.workspace_id and h.subject = 'schedule'
       and h.subject_id = s.id), s.created_at) as at from schedule s where s.workspace_id = $1 and s.id = any($2::uuid[])`,
    [ids],
  );
  return new Map(rows.map((row) => [row.id, row]));
}

interface Dated {
  readonly id?: string;
  readonly scheduleId: string | null;
  readonly nominalDate: string | null;
  readonly stepKey: string;
  readonly head: string;
}

/** By schedule and date, so that it stays the same when what was foreseen is made; of what was captured by its own id. */
function uidOf({ id, scheduleId, nominalDate, stepKey, head }: Dated): string {
  const key = scheduleId === null ? [id] : [scheduleId, nominalDate, stepKey, head].filter(Boolean);
  return `${key.join('-')}@jolly-rota.local`;
}

const pathOf = (origin: string | null, path: string): string | null => (origin === null ? null : `${origin}${path}`);

function madeEntry(
  scope: Scope,
  row: Row,
  changed: ReadonlyMap<string, Changed>,
  origin: string | null,
): CalendarEntry {
  const { state, title, heldUntil, heldReason } = row;
  const isOut = state === 'skipped' || state === 'lapsed';
  const became = isOut ? state : state === 'done' || state === 'toCheck' ? 'done' : null;
  return {
    ...timesOf(scope, row),
    uid: uidOf(row),
    changedAt: latest(row.madeAt, row.changedAt, changed.get(row.scheduleId ?? '')?.at),
    title: became === null ? title : `${title} (${became})`,
    status: isOut ? 'cancelled' : 'stands',
    location: [row.asset, row.place].filter(Boolean).join(', '),
    category: row.category,
    says: [
      ...aboutOf(scope, row),
      ...(heldReason === null || heldUntil === null
        ? []
        : [`Held up until ${sayDate(dayOfIso(heldUntil), scope.workspace.ways)}: ${heldReason}`]),
    ],
    url: pathOf(origin, `/tasks/task/${row.id}?due=any`),
  };
}

function foreseenEntry(
  scope: Scope,
  task: ForeseenTask,
  names: ReadonlyMap<string, string>,
  changed: ReadonlyMap<string, Changed>,
  origin: string | null,
): CalendarEntry {
  const of = changed.get(task.scheduleId);
  return {
    ...timesOf(scope, task),
    uid: uidOf(task),
    changedAt: of?.at ?? scope.instant,
    title: task.title,
    status: 'foreseen',
    location: task.assetName ?? '',
    category: null,
    says: [
      ...aboutOf(scope, { ...task, client: task.clientName, who: names.get(task.assigneeId ?? '') ?? null }),
      'Foreseen: it is not made yet.',
    ],
    url: pathOf(origin, `/schedules/${task.scheduleId}`),
  };
}

interface TakenOut {
  readonly scheduleId: string;
  readonly nominalDate: string;
  readonly stepKey: string;
  readonly head: string;
  readonly at: Date | null;
}

const latest = (first: Date, ...others: readonly (Date | null | undefined)[]): Date =>
  others.reduce<Date>((last, other) => (other && other > last ? other : last), first);

/** Dates that were taken out of schedules by hand: skipped ahead, or deleted once made. */
async function takenOut(
  scope: Scope,
  lines: readonly KeptLine[],
  changed: ReadonlyMap<string, Changed>,
  told: ReadonlySet<string>,
): Promise<CalendarEntry[]> {
  const from = isoOfDay(scope.now.day - CALENDAR_DAYS.past);
  const deleted = await scope.sql<TakenOut>(
    `select schedule_id as "scheduleId", nominal_date as "nominalDate", step_key as "stepKey", head, deleted_at as at from deleted_task
     where workspace_id = $1 and schedule_id = any($2::uuid[]) and nominal_date >= $3 order by nominal_date limit ${MOST_ENTRIES}`,
    [lines.map(({ row }) => row.id), from],
  );
  const byId = new Map(lines.map((line) => [line.row.id, line]));
  const skipped = lines.flatMap(({ row: { id, exceptions } }) =>
    exceptions.flatMap((one): TakenOut[] =>
      one.kind === 'skip' && one.date >= from
        ? [{ scheduleId: id, nominalDate: one.date, stepKey: '', head: '', at: null }]
        : [],
    ),
  );
  const out = new Map([...skipped, ...deleted].map((dated) => [uidOf(dated), dated]));
  return [...out].flatMap(([uid, { scheduleId, nominalDate, at }]): CalendarEntry[] => {
    const [line, of] = [byId.get(scheduleId), changed.get(scheduleId)];
    if (line === undefined || of === undefined || told.has(uid)) return [];
    return [
      {
        ...{ uid, changedAt: latest(of.at, at), status: 'cancelled', title: `${line.row.templateName} (taken out)` },
        ...{ startsOn: nominalDate, dueOn: nominalDate, startTime: null, dueTime: null, zone: scope.workspace.zone },
        ...{ estimateMinutes: 1, location: '', category: null, says: [], url: null },
      },
    ];
  });
}

type Timed = Pick<Row, 'startsOn' | 'dueOn' | 'startTime' | 'dueTime' | 'zone' | 'estimateMinutes'>;

const timesOf = (scope: Scope, { startsOn, dueOn, startTime, dueTime, zone, estimateMinutes }: Timed) => ({
  // What is due before it starts is told by the day it is due.
  ...{ startsOn: startsOn > dueOn ? dueOn : startsOn, dueOn, startTime, dueTime, estimateMinutes },
  zone: zone ?? scope.workspace.zone,
});

function aboutOf(
  { workspace: { ways } }: Scope,
  { client, who, estimateMinutes, startTime, dueTime }: Timed & Pick<Row, 'client' | 'who'>,
): string[] {
  return [
    ...(client === null ? [] : [`For ${client}`]),
    ...(who === null ? [] : [`Who: ${who}`]),
    `About ${sayDuration(estimateMinutes)}`,
    ...(startTime === null && dueTime !== null ? [`Due by ${sayTime(dueTime, ways)}`] : []),
  ];
}
