import type { Lists, ListsInput } from '../../contract/index.ts';
import { plural } from '../../core/index.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { UNFINISHED } from '../tasks/stored/index.ts';

/** Names that became others, the old ones by their lists. */
type Renamed = Readonly<Record<'roles' | 'teams' | 'tickets', Readonly<Record<string, string>>>>;

/** Lists that everybody chooses from, each name with how often it is used. */
export async function listsOf(scope: Scope): Promise<Lists> {
  const { version, roles, teams, tickets, skipReasons, clientFields, assetFields, outcomes } = scope.workspace;
  const [ofRoles, ofTeams, held, asked, ofClients, ofAssets] = await scope.atOnce(
    () =>
      counts(
        scope,
        `select role as name, count(*)::int as count from person, jsonb_array_elements_text(roles) role where workspace_id = $1 group by 1`,
      ),
    () =>
      counts(
        scope,
        `select team as name, count(*)::int as count from person where workspace_id = $1 and team is not null group by 1`,
      ),
    () =>
      counts(
        scope,
        `select ticket->>'name' as name, count(*)::int as count from person, jsonb_array_elements(tickets) ticket where workspace_id = $1 group by 1`,
      ),
    () =>
      counts(
        scope,
        `select ticket as name, count(distinct id)::int as count from template, jsonb_array_elements_text(${ASKED}) ticket
         where workspace_id = $1 group by 1`,
      ),
    () =>
      counts(
        scope,
        `select key as name, count(*)::int as count from client, jsonb_object_keys(fields) key where workspace_id = $1 group by 1`,
      ),
    () =>
      counts(
        scope,
        `select key as name, count(*)::int as count from asset, jsonb_object_keys(fields) key where workspace_id = $1 group by 1`,
      ),
  );
  return {
    version,
    roles: roles.map((name) => ({ name, count: ofRoles.get(name) ?? 0 })),
    teams: teams.map((name) => ({ name, count: ofTeams.get(name) ?? 0 })),
    tickets: tickets.map((name) => ({ name, count: held.get(name) ?? 0, asked: asked.get(name) ?? 0 })),
    skipReasons,
    outcomes: [...outcomes],
    clientFields: clientFields.map((field) => ({ ...field, count: ofClients.get(field.key) ?? 0 })),
    assetFields: assetFields.map((field) => ({ ...field, count: ofAssets.get(field.key) ?? 0 })),
  };
}

async function counts(scope: Scope, query: string): Promise<ReadonlyMap<string, number>> {
  return new Map((await scope.sql<{ name: string; count: number }>(query)).map(({ name, count }) => [name, count]));
}

/** Changes the lists; a name that becomes another does so with everybody who has it. */
export function changeLists(
  scope: Scope,
  { version, ...input }: ListsInput,
): Promise<{ lists: Lists; changeId: string | null }> {
  return scope.transaction(async (tx) => {
    const before = await tx.lockedWorkspace();
    if (before.version !== version)
      throw changedMeanwhile(
        'Someone else changed the settings since you opened them. Yours are still on the screen, not saved; “Put back” shows theirs.',
      );
    const found = await listsOf(tx.after(before));
    const renamed = {
      roles: renamedOf(input.roles),
      teams: renamedOf(input.teams),
      tickets: renamedOf(input.tickets),
    };
    const problems = [
      ...gone('roles', found.roles, input.roles, (count) => `${plural(count, 'person has', 'people have')} that role`),
      ...gone('teams', found.teams, input.teams, (count) => `${plural(count, 'person is', 'people are')} in that team`),
      ...gone('tickets', found.tickets, input.tickets, (count) => `${plural(count, 'person holds', 'people hold')} it`),
      ...asking(found.tickets, input.tickets),
      ...(await ruling(tx, 'role', found.roles, input.roles)),
      ...(await ruling(tx, 'team', found.teams, input.teams)),
      ...(await signing(tx, input.roles)),
    ];
    if (problems.length > 0) throw invalid(problems);
    const set = {
      roles: input.roles.map(({ name }) => name),
      teams: input.teams.map(({ name }) => name),
      tickets: input.tickets.map(({ name }) => name),
      skipReasons: [...new Set(input.skipReasons)],
      clientFields: keyed(input.clientFields, before.clientFields),
      assetFields: keyed(input.assetFields, before.assetFields),
      outcomes: keyed(input.outcomes, before.outcomes),
    };
    const fields = fieldChanges(before, set);
    if (Object.keys(fields).length === 0) return { lists: found, changeId: null };
    await rename(tx, renamed);
    const after = { ...before, ...set, version: before.version + 1 };
    await tx.saveWorkspace({ ...set, version: after.version });
    const changeId = await tx.record('workspace', before.id, 'changed', {
      ...fields,
      ...(isNone(renamed) ? {} : { renamed: { from: null, to: renamed } }),
    });
    await tx.tell('workspace', 'clients', 'templates', 'calls');
    return { lists: await listsOf(tx.after(after)), changeId };
  });
}

/** Names go back to what they were with everybody who has them. */
export const renameBack = (scope: Scope, renamed: unknown): Promise<void> => {
  // Those written before there were tickets know of none.
  const { roles, teams, tickets = {} } = renamed as Omit<Renamed, 'tickets'> & Partial<Pick<Renamed, 'tickets'>>;
  const turned = (names: Readonly<Record<string, string>>) =>
    Object.fromEntries(Object.entries(names).map(([was, name]) => [name, was]));
  return rename(scope, { roles: turned(roles), teams: turned(teams), tickets: turned(tickets) });
};

type Named = ListsInput['roles'];

const renamedOf = (names: Named): Record<string, string> =>
  Object.fromEntries(names.flatMap(({ was, name }) => (was !== null && was !== name ? [[was, name]] : [])));

const isNone = (renamed: Renamed) => Object.values(renamed).every((names) => Object.keys(names).length === 0);

/** All tickets that a template asks for, its own and those of its steps. */
const ASKED = `template.tickets || jsonb_path_query_array(template.steps, '$[*].tickets[*]')`;

async function renameTickets(scope: Scope, tickets: Renamed['tickets']): Promise<void> {
  const params = [JSON.stringify(tickets), Object.keys(tickets)];
  const renamed = (names: string) =>
    `(select coalesce(jsonb_agg(coalesce($2::jsonb->>ticket, ticket) order by place), '[]')
      from jsonb_array_elements_text(${names}) with ordinality as of (ticket, place))`;
  await scope.sql(
    `update person set version = version + 1, tickets = (
       select jsonb_agg(held || jsonb_build_object('name', coalesce($2::jsonb->>(held->>'name'), held->>'name')) order by place)
       from jsonb_array_elements(tickets) with ordinality as of (held, place))
     where workspace_id = $1 and jsonb_path_query_array(tickets, '$[*].name') ?| $3::text[]`,
    params,
  );
  await scope.sql(
    `update template set version = version + 1, tickets = ${renamed('tickets')}, steps = (
       select coalesce(jsonb_agg(case when step ? 'tickets' then step || jsonb_build_object('tickets', ${renamed(`step->'tickets'`)}) else step end
         order by at), '[]') from jsonb_array_elements(steps) with ordinality as all_steps (step, at))
     where workspace_id = $1 and ${ASKED} ?| $3::text[]`,
    params,
  );
}

const shiftsRenamed = (shifts: string) =>
  `select coalesce(jsonb_agg(case when shift->>'role' is null then shift
     else shift || jsonb_build_object('role', coalesce($2::jsonb->>(shift->>'role'), shift->>'role')) end order by place), '[]')
   from jsonb_array_elements(${shifts}) with ordinality as of_shifts (shift, place)`;

async function rename(scope: Scope, { roles, teams, tickets }: Renamed): Promise<void> {
  if (Object.keys(tickets).length > 0) await renameTickets(scope, tickets);
  if (Object.keys(roles).length > 0) {
    // A shift that is worked as something names it too, within the roles of whoever has it.
    await scope.sql(
      `update person set shifts = (${shiftsRenamed('shifts')}), shift_changes = (
         select coalesce(jsonb_agg(change || jsonb_build_object('shifts', (${shiftsRenamed(`change->'shifts'`)})) order by at), '[]')
         from jsonb_array_elements(shift_changes) with ordinality as all_changes (change, at))
       where workspace_id = $1 and roles ?| $3::text[]`,
      [JSON.stringify(roles), Object.keys(roles)],
    );
    await scope.sql(
      `update person set version = version + 1, roles = (
         select jsonb_agg(coalesce($2::jsonb->>role, role) order by place) from jsonb_array_elements_text(roles) with ordinality as of (role, place))
       where workspace_id = $1 and roles ?| $3::text[]`,
      [JSON.stringify(roles), Object.keys(roles)],
    );
  }
  if (Object.keys(teams).length > 0)
    await scope.sql(
      `update person set version = version + 1, team = $2::jsonb->>team where workspace_id = $1 and team = any($3::text[])`,
      [JSON.stringify(teams), Object.keys(teams)],
    );
  for (const [of, names] of [
    ['role', roles],
    ['team', teams],
  ] as const) {
    if (Object.keys(names).length === 0) continue;
    const params = [JSON.stringify(names), Object.keys(names)];
    await scope.sql(
      `update schedule set version = version + 1, assignment = jsonb_set(assignment, '{group,${of}}', $2::jsonb->(assignment->'group'->>'${of}'))
       where workspace_id = $1 and assignment->'group'->>'${of}' = any($3::text[])`,
      params,
    );
    await scope.sql(
      `update template set version = version + 1, steps = (
         select coalesce(jsonb_agg(case when step->'assignee'->'group'->>'${of}' = any($3::text[])
           then jsonb_set(step, '{assignee,group,${of}}', $2::jsonb->(step->'assignee'->'group'->>'${of}')) else step end order by at), '[]')
         from jsonb_array_elements(steps) with ordinality as all_steps (step, at))
       where workspace_id = $1 and jsonb_path_query_array(steps, '$[*].assignee.group.${of}') ?| $3::text[]`,
      params,
    );
    await scope.sql(
      `update template set version = version + 1, assignment = jsonb_set(assignment, '{group,${of}}', $2::jsonb->(assignment->'group'->>'${of}'))
       where workspace_id = $1 and assignment->'group'->>'${of}' = any($3::text[])`,
      params,
    );
    await scope.sql(
      `update task set offered_to = jsonb_set(offered_to, '{${of}}', $2::jsonb->(offered_to->>'${of}'))
       where workspace_id = $1 and offered_to->>'${of}' = any($3::text[])`,
      params,
    );
  }
}

/** Names that are in use can't leave. */
function gone(path: 'roles' | 'teams' | 'tickets', before: Lists['roles'], now: Named, say: (count: number) => string) {
  const stay = new Set(now.map(({ was }) => was));
  return before
    .filter(({ name, count }) => count > 0 && !stay.has(name))
    .map(({ name, count }) => ({
      path,
      message: `“${name}” can’t go: ${say(count)}. ${path === 'tickets' ? 'Take it from them first' : 'Give them another first'}.`,
    }));
}

/** A ticket that work asks for can't leave either. */
function asking(before: Lists['tickets'], now: Named) {
  const stay = new Set(now.map(({ was }) => was));
  return before
    .filter(({ name, count, asked }) => asked > 0 && count === 0 && !stay.has(name))
    .map(({ name, asked }) => ({
      path: 'tickets',
      message: `“${name}” can’t go: ${plural(asked, 'template asks', 'templates ask')} for it. Take it out there first.`,
    }));
}

/** A role or a team that a schedule or a step of a template gives its work to can't leave either. */
async function ruling(scope: Scope, of: 'role' | 'team', before: Lists['roles'], now: Named) {
  const stay = new Set(now.map(({ was }) => was));
  const rows = await scope.sql<{ group: string; name: string; by: string }>(
    `select distinct on (1) "group", name, by from (
       select s.assignment->'group'->>'${of}' as "group", t.name, 'schedule' as by from schedule s
         join template t on t.workspace_id = s.workspace_id and t.id = s.template_id
         where s.workspace_id = $1 and s.deleted_at is null
       union all
       select assignment->'group'->>'${of}', name, 'template' from template where workspace_id = $1
       union all
       select step->'assignee'->'group'->>'${of}', name, 'step' from template, jsonb_array_elements(steps) step
         where workspace_id = $1) gives
     where "group" is not null order by 1, 3, 2`,
  );
  return rows
    .filter(({ group }) => before.some(({ name, count }) => name === group && count === 0) && !stay.has(group))
    .map(({ group, name, by }) => ({
      path: `${of}s`,
      message: `“${group}” can’t go: ${by === 'template' ? '' : `a ${by} of `}“${name}” gives its work to it. Choose somebody else there first.`,
    }));
}

/** A role that signs work off keeps its name: tasks that are made already ask for it by that. */
async function signing(scope: Scope, roles: Named) {
  const stay = new Set(roles.flatMap(({ was, name }) => (was === name ? [name] : [])));
  const rows = await scope.sql<{ role: string; name: string }>(
    `select distinct on (role) role, name from (
       select sign_off->>'role' as role, name from template where workspace_id = $1
       union all select step->'signOff'->>'role', name from template, jsonb_array_elements(steps) step where workspace_id = $1
       union all select content.sign_off->>'role', task.title from task
         join work_content content on content.workspace_id = task.workspace_id and content.id = task.content_id
         where task.workspace_id = $1 and task.state in ${UNFINISHED} and content.sign_off->>'role' is not null) signs
     where role is not null order by role, name`,
  );
  return rows
    .filter(({ role }) => scope.workspace.roles.includes(role) && !stay.has(role))
    .map(({ role, name }) => ({
      path: 'roles',
      message: `“${role}” signs off “${name}”, so it keeps its name: choose another there first.`,
    }));
}

/** A thing keeps its key whatever it is called; one that is new gets one that none has had. */
export function keyed<Thing extends { readonly key: string; readonly name: string }>(
  fields: readonly Thing[],
  before: readonly Thing[],
): Thing[] {
  const taken = new Set([...before, ...fields].map(({ key }) => key));
  const known = new Set(before.map(({ key }) => key));
  return fields.map((field) => {
    if (known.has(field.key)) return field;
    const base =
      field.name
        .toLowerCase()
        .replace(/[^\p{L}\p{N}]+/gu, '-')
        .slice(0, 40) || 'field';
    let key = base;
    for (let n = 2; taken.has(key); n++) key = `${base}-${n}`;
    taken.add(key);
    return { ...field, key };
  });
}
