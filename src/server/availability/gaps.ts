import type { ShiftGap } from '../../contract/index.ts';
import {
  askedOn,
  type DayTimes,
  dayOfIso,
  type Group,
  groupBy,
  groupKey,
  isoOfDay,
  type People,
  sayGroup,
  type WorkingCalendar,
  windowOfTimes,
} from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { foreseenTasks, makingFor, partsOf, readableSchedule, scheduleRows, unsettled } from '../schedules/index.ts';
import { ticketsAskedBy } from '../tasks/stored/index.ts';
import { everybody } from './following.ts';

/** So far ahead it is said that nobody is on shift: time enough to change one. */
const SAID_DAYS = 56;
/** So many are told one by one. */
const MOST_TOLD = 100;

/** Work of one date that somebody on shift has to do. */
interface Waiting extends DayTimes<string> {
  readonly scheduleId: string | null;
  readonly work: string;
  readonly about: string | null;
  readonly offeredTo: Group;
  readonly tickets: readonly string[];
}

/** Work of the coming weeks for those on shift in a role, of whom nobody is while it is to be done; by what it is. */
export async function shiftGaps(scope: Scope): Promise<ShiftGap[]> {
  const [here, calendar, made, foreseen] = [
    await everybody(scope),
    await scope.calendar(),
    await madeFor(scope),
    await foreseenFor(scope),
  ];
  const open = await eachInTurn([...made, ...foreseen], (one) => (isCovered(one, here, calendar) ? [] : [one]));
  const groups = groupBy(open.flat(), ({ scheduleId, work, about, offeredTo }) =>
    [scheduleId, work, about, groupKey(offeredTo)].join('\n'),
  );
  return [...groups.values()]
    .map((all): ShiftGap => {
      const [{ scheduleId, work, about, offeredTo }] = all as [Waiting];
      const days = [...new Set(all.map(({ workOn }) => workOn))].sort();
      return { scheduleId, work, about, group: sayGroup(offeredTo, { people: [] }), days };
    })
    .sort((a, b) => (a.days[0] ?? '').localeCompare(b.days[0] ?? '') || a.work.localeCompare(b.work))
    .slice(0, MOST_TOLD);
}

function isCovered(one: Waiting, here: People, calendar: WorkingCalendar): boolean {
  const on = dayOfIso(one.workOn);
  return here.available(one.offeredTo, on, askedOn(on, calendar, one.tickets, windowOfTimes(one))).can.length > 0;
}

function madeFor(scope: Scope): Promise<Waiting[]> {
  const { day: today } = scope.now;
  return scope.sql<Waiting>(
    `select t.schedule_id as "scheduleId", coalesce(w.name, t.title) as work, coalesce(a.name, c.name) as about,
       t.offered_to as "offeredTo", t.work_on as "workOn", t.starts_on as "startsOn", t.due_on as "dueOn",
       t.start_time as "startTime", t.due_time as "dueTime", t.zone,
       ${ticketsAskedBy('t')} as tickets
     from task t left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
     left join client c on c.workspace_id = t.workspace_id and c.id = t.client_id
     left join template w on w.workspace_id = t.workspace_id and w.id = t.template_id and t.step_key = ''
     where t.workspace_id = $1 and t.assignee_id is null and t.state = 'open' and t.offered_to->'onShift' is not null
       and t.work_on between $2::date and $3::date`,
    [isoOfDay(today), isoOfDay(today + SAID_DAYS)],
  );
}

/** What schedules foresee of it; those that can't be planned foresee nothing. */
async function foreseenFor(scope: Scope): Promise<Waiting[]> {
  const ids = await scope.sql<{ id: string }>(
    `select s.id from schedule s join template w on w.workspace_id = s.workspace_id and w.id = s.template_id
     where s.workspace_id = $1 and s.deleted_at is null
       and (s.assignment->'group'->'onShift' is not null or w.steps @? '$[*].assignee.group.onShift')`,
  );
  if (ids.length === 0) return [];
  const rows = await scheduleRows(scope, { ids: ids.map(({ id }) => id) });
  const making = await makingFor(scope, rows);
  const { day: today } = scope.now;
  const tasks = await eachInTurn(rows, (row) => {
    const planned = row.problem === null ? readableSchedule(scope, row) : null;
    return planned ? foreseenTasks(scope, row, planned, making, today, today + SAID_DAYS) : [];
  });
  const rowOf = new Map(rows.map((row) => [row.id, row]));
  const asked = tasks.flat().filter(({ offeredTo }) => offeredTo?.of === 'role' && offeredTo.onShift);
  return (await unsettled(scope, asked)).flatMap((task): Waiting[] => {
    const { offeredTo, scheduleId, workOn, startsOn, dueOn, startTime, dueTime, zone } = task;
    const row = rowOf.get(scheduleId);
    if (offeredTo?.of !== 'role' || !row) return [];
    return [
      {
        ...{ scheduleId, offeredTo, about: task.assetName ?? task.clientName },
        ...{ workOn, startsOn, dueOn, startTime, dueTime, zone },
        work: task.stepKey === '' ? row.templateName : task.title,
        tickets: partsOf(row).find(({ key }) => key === task.stepKey)?.tickets ?? [],
      },
    ];
  });
}
