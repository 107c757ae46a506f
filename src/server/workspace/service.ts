import type { DataSource } from 'typeorm';
import type { OwnWaysSet, Welcome, Workspace as WorkspaceAnswer } from '../../contract/index.ts';
import { ACCESS_LEVELS, civilDay, isoOfDay, mayAll, plural, termsOn, yearMonthDay } from '../../core/index.ts';
import { CallQuota } from '../calls/stored/index.ts';
import type { Clock } from '../platform/clock.ts';
import { isDiskKnownFull } from '../platform/disk.ts';
import { Person, type StoredWays } from '../platform/identity/person.ts';
import { Holiday, Workspace } from '../platform/identity/workspace.ts';
import { invalid } from '../platform/refusal.ts';
import { Scope } from '../platform/scope.ts';
import { lateCount, UNFINISHED } from '../tasks/stored/index.ts';

const DISK_FULL =
  'The disk of the server is full: what is there can be read, but nothing new is kept. Tell whoever runs the server.';

export async function describeWorkspace(scope: Scope): Promise<WorkspaceAnswer> {
  const { workspace } = scope;
  const people = await scope.find(Person);
  return {
    id: workspace.id,
    name: workspace.name,
    zone: workspace.zone,
    ...describeClock(scope),
    horizonDays: workspace.horizonDays,
    makeTime: workspace.makeTime,
    yearStarts: workspace.yearStarts,
    phraseHabits: workspace.phraseHabits,
    seasons: workspace.seasons,
    ways: workspace.ways,
    myWays: describeOwnWays(scope.person?.ways ?? {}),
    calendar: await describeCalendar(scope),
    categories: workspace.categories,
    workTypes: workspace.workTypes,
    visits: workspace.visits,
    asking: workspace.asking,
    outcomes: [...workspace.outcomes],
    rings: await ringsToday(scope),
    clientFields: workspace.clientFields,
    assetFields: workspace.assetFields,
    weekMinutes: workspace.weekMinutes,
    skipReasons: workspace.skipReasons,
    roles: workspace.roles,
    teams: workspace.teams,
    tickets: workspace.tickets,
    people: people.map(describePerson).sort((a, b) => a.name.localeCompare(b.name)),
  };
}

/** Whether whoever asks rings by a quota today: by name, or by a role of theirs. */
async function ringsToday(scope: Scope): Promise<boolean> {
  const { person } = scope;
  if (person === null) return false;
  const quotas = await scope.find(CallQuota);
  return quotas.some((quota) => {
    const group = termsOn(quota, scope.now.day)?.group;
    return group?.of === 'role' ? person.roles.includes(group.role) : (group?.ids.includes(person.id) ?? false);
  });
}

/** A person's own ways, each named: null where it is as the workspace has it. */
export function describeOwnWays({ weekStarts, dateOrder, clock, startsAt }: StoredWays): OwnWaysSet {
  return {
    weekStarts: weekStarts ?? null,
    dateOrder: dateOrder ?? null,
    clock: clock ?? null,
    startsAt: startsAt ?? null,
  };
}

/** What time it is here, and what keeps the server from working as it should. */
export function describeClock(scope: Scope): Pick<WorkspaceAnswer, 'now' | 'clockStands' | 'trouble'> {
  return {
    now: scope.moment(scope.instant),
    clockStands: scope.clock.stands,
    trouble: scope.mayAll('settings') && isDiskKnownFull() ? DISK_FULL : null,
  };
}

/** Changes the lists that a workspace keeps. A name that templates carry can't leave. */
export function changeLists(
  scope: Scope,
  { categories, workTypes }: Pick<Workspace, 'categories' | 'workTypes'>,
): Promise<WorkspaceAnswer> {
  return scope.transaction(async (tx) => {
    const lists = [
      { path: 'categories', column: 'category', names: categories.map(({ name }) => name) },
      { path: 'workTypes', column: 'work_type', names: workTypes },
    ] as const;
    for (const { path, column, names } of lists) {
      if (new Set(names.map((name) => name.toLowerCase())).size < names.length)
        throw invalid([{ path, message: 'Two of them have the same name.' }]);
      const [used] = await tx.sql<{ name: string; count: number }>(
        `select ${column} as name, count(*) as count from template
         where workspace_id = $1 and ${column} is not null and not ${column} = any($2::text[]) group by 1 order by 2 desc limit 1`,
        [names],
      );
      if (used)
        throw invalid([
          { path, message: `“${used.name}” is in use by ${plural(used.count, 'template')}: give them another first.` },
        ]);
    }
    const announced = tx.workspace.visits.terms.find(({ type }) => !workTypes.includes(type));
    if (announced)
      throw invalid([
        {
          path: 'workTypes',
          message: `Visits of the type “${announced.type}” are announced, as the settings have it.`,
        },
      ]);
    await tx.sql('update workspace set categories = $2, work_types = $3 where id = $1', [
      JSON.stringify(categories),
      JSON.stringify(workTypes),
    ]);
    await tx.tell('templates');
    return { ...(await describeWorkspace(tx)), categories, workTypes };
  });
}

async function describeCalendar(scope: Scope): Promise<WorkspaceAnswer['calendar']> {
  const holidays = await scope.find(Holiday);
  return {
    workingWeekdays: scope.workspace.workingWeekdays,
    holidays: holidays.map(({ date, name }) => ({ date, name })).sort((a, b) => a.date.localeCompare(b.date)),
  };
}

export function describePerson(person: Person) {
  return {
    id: person.id,
    name: person.name,
    roles: person.roles,
    access: person.access,
    team: person.team,
    worksFrom: person.worksFrom,
    worksUntil: person.worksUntil,
  };
}

/** What may be known before anyone has signed in: the first workspace's name and calendar, and the demo's people. */
export async function welcome(source: DataSource, clock: Clock): Promise<Welcome | null> {
  const [workspace] = await source.getRepository(Workspace).find({ order: { id: 'ASC' }, take: 1 });
  if (!workspace) return null;
  const scope = Scope.on(source, workspace, null, clock);
  const { year } = yearMonthDay(scope.now.day);
  const calendar = await describeCalendar(scope);
  const near = [isoOfDay(civilDay(year - 1, 12, 1)), isoOfDay(civilDay(year + 1, 1, 31))] as const;
  return {
    name: workspace.name,
    tagline: workspace.tagline,
    now: scope.moment(scope.instant),
    calendar: { ...calendar, holidays: calendar.holidays.filter(({ date }) => date >= near[0] && date <= near[1]) },
    demoPeople: workspace.isDemo ? await demoPeople(source, clock) : null,
  };
}

/** Managers first, then one of each role, each with what waits for them. */
async function demoPeople(source: DataSource, clock: Clock): Promise<NonNullable<Welcome['demoPeople']>> {
  const shown: NonNullable<Welcome['demoPeople']> = [];
  for (const workspace of await source
    .getRepository(Workspace)
    .find({ where: { isDemo: true }, order: { id: 'ASC' } })) {
    const scope = Scope.on(source, workspace, null, clock);
    const people = (await scope.find(Person)).filter(({ accountId }) => accountId !== null);
    people.sort(
      (a, b) => ACCESS_LEVELS.indexOf(a.access) - ACCESS_LEVELS.indexOf(b.access) || a.id.localeCompare(b.id),
    );
    const roles = new Set<string>();
    for (const person of people) {
      const [leading = ''] = person.roles;
      if (roles.has(leading)) continue;
      roles.add(leading);
      shown.push({
        id: person.id,
        name: person.name,
        role: leading,
        saying: await saying(scope, person),
      });
    }
  }
  return shown;
}

async function saying(scope: Scope, person: Person): Promise<string> {
  const whose = mayAll(person.access, 'plan') ? undefined : person.id;
  const [due] = await scope.sql<{ today: number }>(
    `select count(*)::int as today from task
     where workspace_id = $1 and ($2::uuid is null or assignee_id = $2) and state in ${UNFINISHED} and due_on = $3::date`,
    [whose ?? null, scope.today],
  );
  const [today, late] = [due?.today ?? 0, await lateCount(scope, whose)];
  const parts = [today > 0 ? `${plural(today, 'task')} today` : '', late > 0 ? `${late} late` : ''].filter(Boolean);
  return parts.length > 0 ? parts.join(', ') : 'nothing waiting today';
}
