import {
  MOST_VISIT_WEEKS,
  VISIT_WEEKS,
  VISITS_A_PAGE,
  type VisitFilter,
  type VisitLine,
  type VisitWeek,
} from '../../contract/index.ts';
import {
  type CivilDay,
  DAYS_A_WEEK,
  type DayCount,
  dayOfIso,
  isoOfDay,
  latestDays,
  mondayOf,
  type NoticeState,
  termsOf,
  tryDayOfIso,
  USUAL_REMIND,
  type WorkingCalendar,
} from '../../core/index.ts';
import { readCursor } from '../platform/http/cursor.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { type ForeseenTask, firstDate, foreseenFrom, keptLines } from '../schedules/index.ts';
import { nameOf, TO_DO } from '../tasks/stored/index.ts';
import { announcedTypes, NEWEST_COLUMNS, NEWEST_NOTICE, type NewestNotice, standingOf } from './standing.ts';

interface VisitRow extends NewestNotice {
  readonly taskId: string;
  readonly scheduleId: string | null;
  readonly version: number;
  readonly title: string;
  readonly on: string;
  readonly startTime: string | null;
  readonly estimateMinutes: number;
  readonly dueTime: string | null;
  readonly workType: string;
  readonly clientId: string;
  readonly clientName: string;
  readonly assetId: string | null;
  readonly assetName: string | null;
  readonly place: string | null;
  readonly who: string | null;
  readonly batchId: string | null;
  readonly reason: string | null;
}

/** So many notices are counted in a reminder at most; the list has them all. */
const MOST_REMINDED = 1_000;

/** Whether a notice is still to go, as `isToSend` of the core tells it of a standing. */
const IS_TO_SEND = `(n.id is null or (n.way is not null and (n.sent_on is null or n.visit_on <> t.work_on or m.state = 'refused')))`;

/** A question to visits that are not over: tasks `t` for a client, the main ones, of a type that is announced. */
class VisitQuestion {
  readonly params: unknown[] = [];
  readonly conditions: string[];

  constructor(scope: Scope, calendar: WorkingCalendar, { workType, person, client, toSend, sendWithin }: VisitFilter) {
    this.conditions = [
      `t.workspace_id = $1 and t.client_id is not null and t.state in ${TO_DO} and t.step_key = ''`,
      `c.work_type = any(${this.with(announcedTypes(scope, workType))}::text[])`,
      `t.work_on < ${this.with(isoOfDay(endOf(scope)))}::date`,
    ];
    if (person !== undefined) this.conditions.push(`t.assignee_id = ${this.with(person)}::uuid`);
    if (toSend !== undefined) this.conditions.push(IS_TO_SEND);
    if (sendWithin !== undefined) this.conditions.push(this.soonToSend(scope, calendar, sendWithin));
    if (client !== undefined) this.conditions.push(`t.client_id = ${this.with(client)}::uuid`);
  }

  with(value: unknown): string {
    this.params.push(value);
    return `$${this.params.length + 1}`;
  }

  /** By its type, a visit lies on a day whose notice has to go so soon, by the way that leaves most time. */
  private soonToSend(scope: Scope, calendar: WorkingCalendar, withinDays: number): string {
    const days = lastDaysToSendWithin(scope, calendar, withinDays);
    if (days.length === 0) return 'false';
    return `(${days.map(({ type, on }) => `(c.work_type = ${this.with(type)} and t.work_on <= ${this.with(isoOfDay(on))}::date)`).join(' or ')})`;
  }

  get from(): string {
    return `from task t join work_content c on c.workspace_id = t.workspace_id and c.id = t.content_id ${NEWEST_NOTICE}
      where ${this.conditions.join(' and ')}`;
  }
}

/** How many weeks are told: more where a notice has to go earlier than plans are kept for. */
function weeksTold({ workspace }: Scope): number {
  const longest = Math.max(0, ...workspace.visits.terms.map(({ period }) => calendarDays(period)));
  const onItsWay = Math.max(0, ...workspace.visits.ways.map((way) => calendarDays(way.onItsWay)));
  return Math.min(MOST_VISIT_WEEKS, Math.max(VISIT_WEEKS, Math.ceil((longest + onItsWay) / DAYS_A_WEEK) + 2));
}

/** At least as many days as that comes to: of working days there are two days off a week, and holidays. */
const calendarDays = ({ days, unit }: DayCount): number => (unit === 'day' ? days : days * 2);

/** The first day after those that are told. */
const endOf = (scope: Scope): CivilDay => mondayOf(scope.now.day) + weeksTold(scope) * DAYS_A_WEEK;

/** The last day of a visit of each type whose notice has to go within so many days, or had to. */
function lastDaysToSendWithin(
  scope: Scope,
  calendar: WorkingCalendar,
  withinDays: number,
): { readonly type: string; readonly on: CivilDay }[] {
  const until = scope.now.day + withinDays;
  return announcedTypes(scope).flatMap((type) => {
    const rules = termsOf(scope.workspace.visits, type);
    if (rules === null) return [];
    const sendBy = (day: CivilDay) => latestDays(day, rules, calendar)[0]?.on ?? day;
    // A later visit leaves as much time or more: the first that leaves too much ends the search.
    let on = until;
    for (const end = endOf(scope); on < end && sendBy(on) <= until; ) on++;
    return [{ type, on: on - 1 }];
  });
}

/** Visits of whose notice those who plan are reminded by now while it is still to go, the first by their days. */
export async function noticesReminded(scope: Scope): Promise<VisitLine[]> {
  const calendar = await scope.calendar();
  const reminds = scope.workspace.visits.terms.map(({ remind = USUAL_REMIND }) => remind);
  // As many calendar days as so many working days may come to, and more: each is then held against its own reminder.
  const sendWithin = calendarDays({ days: Math.max(0, ...reminds), unit: 'workingDay' }) + DAYS_A_WEEK;
  const rows = await rowsAfter(scope, calendar, { toSend: 'yes', sendWithin }, null, MOST_REMINDED);
  return rows
    .map((row) => lineOfRow(scope, row, calendar))
    .filter(({ standing: { remindOn } }) => remindOn !== null && remindOn <= scope.today);
}

/** Visits that are not over, late ones and foreseen ones too, by their day; a page from where the one before ended. */
export async function listVisits(
  scope: Scope,
  { after, ...filter }: VisitFilter & { readonly after?: string | undefined },
): Promise<{ lines: VisitLine[]; more: string | null }> {
  const place = placeOf(after);
  const calendar = await scope.calendar();
  const rows = await rowsAfter(scope, calendar, filter, place);
  const isMore = rows.length > VISITS_A_PAGE;
  const made = rows.slice(0, VISITS_A_PAGE).map((row) => lineOfRow(scope, row, calendar));
  // Of what is foreseen only what lies among these: the rest comes with the pages that follow.
  const last = isMore ? made.at(-1) : undefined;
  const isHere = (key: Key) =>
    (place === null || compareKeys(key, place) > 0) && (last === undefined || compareKeys(key, keyOf(last)) <= 0);
  const foreseen = await foreseenVisits(scope, filter, calendar, isHere);
  const lines = [...made, ...foreseen].sort((a, b) => compareKeys(keyOf(a), keyOf(b)));
  const page = lines.slice(0, VISITS_A_PAGE);
  const end = page.at(-1);
  return {
    lines: await withNext(scope, page, calendar),
    more: end && (isMore || lines.length > page.length) ? JSON.stringify(keyOf(end)) : null,
  };
}

/** Where a page begins: after a day and an id. @throws Refusal for what is none */
function placeOf(after: string | undefined): readonly [string, string] | null {
  const place = readCursor(after) ?? null;
  if (place !== null && tryDayOfIso(place[0].slice(0, ISO_LENGTH)) === null)
    throw invalid([{ path: 'after', message: 'This is not a place in the list.' }]);
  return place;
}

/** By what a visit stands in the list. */
type Key = readonly [string, string];
const keyOf = ({
  on,
  startTime,
  taskId,
  scheduleId,
}: Pick<VisitLine, 'on' | 'startTime' | 'taskId' | 'scheduleId'>): Key => [
  `${on}${startTime ?? ''}`,
  taskId ?? scheduleId ?? '',
];
const compareKeys = (a: Key, b: Key): number =>
  a[0] === b[0] ? (a[1] < b[1] ? -1 : a[1] > b[1] ? 1 : 0) : a[0] < b[0] ? -1 : 1;
/** Day and time as `keyOf` has them, in the order of their signs. */
const WHEN = `(t.work_on::text || coalesce(t.start_time, '')) collate "C"`;
const ISO_LENGTH = 10;

function rowsAfter(
  scope: Scope,
  calendar: WorkingCalendar,
  filter: VisitFilter,
  place: readonly [string, string] | null,
  most = VISITS_A_PAGE + 1,
): Promise<VisitRow[]> {
  const asked = new VisitQuestion(scope, calendar, filter);
  if (place !== null)
    asked.conditions.push(
      `t.work_on >= ${asked.with(place[0].slice(0, ISO_LENGTH))}::date
       and (${WHEN}, t.id) > (${asked.with(place[0])}::text collate "C", ${asked.with(place[1])}::uuid)`,
    );
  return scope.sql<VisitRow>(
    `select t.id as "taskId", t.schedule_id as "scheduleId", t.version, t.title, t.work_on as "on", t.start_time as "startTime",
       t.due_time as "dueTime", t.estimate_minutes as "estimateMinutes", c.work_type as "workType", t.client_id as "clientId", ${nameOf('client', 't.client_id')} as "clientName",
       t.asset_id as "assetId", ${nameOf('asset', 't.asset_id')} as "assetName", ${nameOf('asset', 't.asset_id', 'place')} as place, ${nameOf('person', 't.assignee_id')} as who,
       n.batch_id as "batchId", n.reason, ${NEWEST_COLUMNS}
     ${asked.from} order by t.work_on, ${WHEN}, t.id limit ${most}`,
    asked.params,
  );
}

function lineOfRow(scope: Scope, row: VisitRow, calendar: WorkingCalendar): VisitLine {
  const standing = standingOf(scope, { on: dayOfIso(row.on), workType: row.workType }, row, calendar);
  if (standing === null) throw new Error('A visit has no terms.');
  const { taskId, scheduleId, version, title, on, startTime, dueTime, workType, who, estimateMinutes } = row;
  return {
    ...{ taskId, scheduleId, version, title, on, startTime, dueTime, workType, who, estimateMinutes, standing },
    next: null,
    client: { id: row.clientId, name: row.clientName },
    asset: row.assetId === null ? null : { id: row.assetId, name: row.assetName ?? '', place: row.place ?? '' },
    notice:
      row.noticeId === null || row.visitOn === null || row.batchId === null
        ? null
        : {
            ...{ id: row.noticeId, batchId: row.batchId, way: row.way, sentOn: row.sentOn },
            ...{ visitOn: row.visitOn, reason: row.reason ?? '' },
          },
  };
}

/** Visits that plans foresee and nobody has made yet. What is foreseen has no notice: of those to send there is none. */
async function foreseenVisits(
  scope: Scope,
  filter: VisitFilter,
  calendar: WorkingCalendar,
  isHere: (key: Key) => boolean,
): Promise<VisitLine[]> {
  const names = await scope.peopleNames();
  const keyOfTask = ({ task }: { readonly task: ForeseenTask }) => keyOf({ ...task, on: task.workOn, taskId: null });
  // No more than a page, and whether there is more, however many are foreseen.
  const visits = (await wantedOf(scope, filter))
    .filter((one) => isHere(keyOfTask(one)))
    .sort((a, b) => compareKeys(keyOfTask(a), keyOfTask(b)))
    .slice(0, VISITS_A_PAGE + 1);
  const places = await placesOf(
    scope,
    visits.map(({ task }) => task),
  );
  return visits.flatMap(({ task, workType }): VisitLine[] => {
    const standing = standingOf(scope, { on: dayOfIso(task.workOn), workType }, null, calendar);
    if (standing === null) return [];
    return [
      {
        ...{ taskId: null, scheduleId: task.scheduleId, version: 0, title: task.title, on: task.workOn },
        ...{ startTime: task.startTime, dueTime: task.dueTime, workType, standing, next: null, notice: null },
        client: { id: task.clientId ?? '', name: task.clientName ?? '' },
        asset:
          task.assetId === null
            ? null
            : { id: task.assetId, name: task.assetName ?? '', place: places.get(task.assetId) ?? '' },
        who: names.get(task.assigneeId ?? '') ?? null,
        estimateMinutes: task.estimateMinutes,
      },
    ];
  });
}

/** What is foreseen and asked for, with its type. */
async function wantedOf(scope: Scope, { workType, person, client, toSend, sendWithin }: VisitFilter) {
  if (toSend !== undefined || sendWithin !== undefined) return [];
  const types = await scope.sql<{ id: string; workType: string }>(
    `select id, work_type as "workType" from template where workspace_id = $1 and work_type = any($2::text[])`,
    [announcedTypes(scope, workType)],
  );
  const typeOf = new Map(types.map((of) => [of.id, of.workType]));
  const end = isoOfDay(endOf(scope));
  const tasks = await foreseenFrom(
    scope,
    (task) =>
      task.clientId !== null &&
      task.stepKey === '' &&
      task.workOn < end &&
      typeOf.has(task.templateId) &&
      (person === undefined || task.assigneeId === person) &&
      (client === undefined || task.clientId === client),
  );
  return tasks.map((task) => ({ task, workType: typeOf.get(task.templateId) ?? '' }));
}

async function placesOf(scope: Scope, tasks: readonly ForeseenTask[]): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(tasks.flatMap(({ assetId }) => assetId ?? []))];
  const rows = await scope.sql<{ id: string; place: string }>(
    'select id, place from asset where workspace_id = $1 and id = any($2::uuid[])',
    [ids],
  );
  return new Map(rows.map(({ id, place }) => [id, place]));
}

/** With the date of its schedule that follows each; of a series that waits for its last one it is not known yet. */
async function withNext(scope: Scope, lines: readonly VisitLine[], calendar: WorkingCalendar): Promise<VisitLine[]> {
  const kept = await keptLines(scope);
  return eachInTurn(lines, (line) => {
    const own = line.scheduleId === null ? undefined : kept.get(line.scheduleId);
    if (!own?.planned || own.problem !== null || own.row.last !== null) return line;
    return { ...line, next: firstDate(own.planned, calendar, dayOfIso(line.on) + 1) };
  });
}

interface WeekRow extends NewestNotice {
  readonly on: string;
  readonly workType: string;
  readonly count: number;
}

/** How many visits there are in each week from this one on, by how far their notices are; late ones stand in the first. */
export async function weeksOfVisits(scope: Scope, filter: VisitFilter): Promise<{ weeks: VisitWeek[] }> {
  const calendar = await scope.calendar();
  const asked = new VisitQuestion(scope, calendar, filter);
  const first = mondayOf(scope.now.day);
  const weeks = Array.from({ length: weeksTold(scope) }, (_, at) => ({
    monday: isoOfDay(first + at * DAYS_A_WEEK),
    ...{ made: 0, foreseen: 0, states: {} as Partial<Record<NoticeState, number>> },
  }));
  const weekOf = (on: CivilDay) => weeks[Math.max(0, Math.floor((on - first) / DAYS_A_WEEK))];
  // By what the state is told from, of which there are few: the rule itself is the core's.
  const rows = await scope.sql<WeekRow>(
    `select t.work_on as "on", c.work_type as "workType", n.way, n.visit_on as "visitOn", n.sent_on as "sentOn",
       m.state as "mailState", case when n.id is not null then 'some' end as "noticeId", count(*)::int as count
     ${asked.from} group by 1, 2, 3, 4, 5, 6, 7`,
    asked.params,
  );
  for (const row of rows) {
    const week = weekOf(dayOfIso(row.on));
    const told = standingOf(scope, { on: dayOfIso(row.on), workType: row.workType }, row, calendar);
    if (!week || !told) continue;
    week.made += row.count;
    week.states[told.state] = (week.states[told.state] ?? 0) + row.count;
  }
  for (const { task } of await wantedOf(scope, filter)) {
    const week = weekOf(dayOfIso(task.workOn));
    if (week) week.foreseen += 1;
  }
  return { weeks };
}
