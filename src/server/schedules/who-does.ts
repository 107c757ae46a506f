import {
  type Assigner,
  assigner,
  type CivilDay,
  type DatesBetween,
  datesBetweenOf,
  dayOfIso,
  isoOfDay,
  Loads,
  minutesOfHolder,
  type OfParts,
  type People,
  partAssigner,
  peopleHere,
  type Settled,
  setAsksForLoad,
  ticketsOfHolder,
  type WeekOfWork,
  type Why,
  type WorkingCalendar,
} from '../../core/index.ts';
import { colleagues, weeksOfWork } from '../people/index.ts';
import type { Scope } from '../platform/scope.ts';
import { partsOf, plannedSchedule, type ScheduleRow } from './schedule-row.ts';

/** What the tasks of schedules are worked out with. */
export interface Making {
  readonly calendar: WorkingCalendar;
  /** Names by id, for the titles. */
  readonly people: ReadonlyMap<string, string>;
  /** Everybody who may be given work. */
  readonly here: People;
  /** Who has the sets of a schedule, and those of its tasks that say so themselves. */
  readonly whose: (row: ScheduleRow) => Assigner;
  readonly ofParts: (row: ScheduleRow) => OfParts;
}

/** Whether it takes what everybody has to do to tell who does the tasks of a schedule. */
export const rowAsksForLoad = (row: ScheduleRow): boolean => setAsksForLoad(row.assignment, partsOf(row));

/** Dates that are over for longer are nobody's to settle. */
const SETTLED_DAYS = 62;

/**
 * All that it takes to make or foresee the tasks of some schedules.
 * @param settles whether what the load decides is decided for good: then each adds to what the next one finds
 */
export async function makingFor(
  scope: Scope,
  rows: readonly ScheduleRow[],
  { settles = false }: { readonly settles?: boolean } = {},
): Promise<Making> {
  const byLoad = rows.filter(rowAsksForLoad).map(({ id }) => id);
  const [calendar, people, here, weeks, before] = await scope.atOnce(
    () => scope.calendar(),
    () => scope.peopleNames(),
    async () => peopleHere(await colleagues(scope)),
    async () => (byLoad.length === 0 ? [] : weeksOfWork(scope)),
    async () => (byLoad.length === 0 ? NOTHING_BEFORE : givenBefore(scope, byLoad)),
  );
  const loads = () => loadsOf(here, calendar, weeks);
  const shared = loads();
  // Of one schedule what is given away counts for its sets and their steps alike; of all, where it is settled.
  const ofEach = new Map<string, Loads>();
  const ofRow = (row: ScheduleRow) => {
    if (settles || !rowAsksForLoad(row)) return shared;
    const own = ofEach.get(row.id) ?? loads();
    ofEach.set(row.id, own);
    return own;
  };
  return {
    ...{ calendar, people, here },
    ofParts: (row) =>
      partAssigner({
        ...{ calendar, people: here, usualPersonId: row.usualPersonId, loads: ofRow(row) },
        settled: (nominal, step) => before.get(row.id)?.ofSteps.get(`${nominal} ${step}`),
      }),
    whose: (row) => {
      const { assignment, usualPersonId } = row;
      const of = before.get(row.id);
      return assigner(assignment, {
        ...{ calendar, people: here, usualPersonId },
        datesBetween: lazily(() => datesBetweenOf(plannedSchedule(scope, row), calendar, assignment)),
        estimateMinutes: minutesOfHolder(partsOf(row)),
        tickets: ticketsOfHolder(partsOf(row)),
        loads: ofRow(row),
        ...(of ? { settled: of.settled, lastHad: of.lastHad } : {}),
      });
    },
  };
}

function loadsOf(here: People, calendar: WorkingCalendar, weeks: readonly WeekOfWork[]): Loads {
  return new Loads(here.workers, (day) => calendar.holidayName(day) !== undefined, weeks);
}

/** The rule of a schedule is read only where somebody asks for its dates. */
function lazily(of: () => DatesBetween): DatesBetween {
  let known: DatesBetween | null = null;
  return (after, upTo) => {
    known ??= of();
    return known(after, upTo);
  };
}

interface GivenBefore {
  readonly settled: Map<CivilDay, Settled>;
  /** Of other tasks of the sets, by nominal day and step. */
  readonly ofSteps: Map<string, Settled>;
  readonly lastHad: Map<string, CivilDay>;
}

const NOTHING_BEFORE: ReadonlyMap<string, GivenBefore> = new Map();

/** Who has the dates of schedules that are made already, and when each had one last. */
async function givenBefore(scope: Scope, scheduleIds: readonly string[]): Promise<ReadonlyMap<string, GivenBefore>> {
  const rows = await scope.sql<{
    readonly scheduleId: string;
    readonly nominal: string;
    readonly step: string;
    readonly on: string;
    readonly personId: string;
    readonly why: Why | null;
  }>(
    `select schedule_id as "scheduleId", nominal_date as nominal, step_key as step, work_on as "on", assignee_id as "personId", why from task
     where workspace_id = $1 and schedule_id = any($2::uuid[]) and head = '' and assignee_id is not null
       and nominal_date >= $3::date order by nominal_date`,
    [scheduleIds, isoOfDay(scope.now.day - SETTLED_DAYS)],
  );
  const found = new Map<string, GivenBefore>();
  for (const { scheduleId, nominal, step, on, personId, why } of rows) {
    let of = found.get(scheduleId);
    if (!of) {
      of = { settled: new Map(), ofSteps: new Map(), lastHad: new Map() };
      found.set(scheduleId, of);
    }
    if (step !== '') {
      of.ofSteps.set(`${dayOfIso(nominal)} ${step}`, { personId, why });
      continue;
    }
    of.settled.set(dayOfIso(nominal), { personId, why });
    // What lies ahead is found again in its turn.
    if (dayOfIso(on) < scope.now.day) of.lastHad.set(personId, dayOfIso(on));
  }
  return found;
}
