import { type Member, MOST_PEOPLE, type PersonInput } from '../../contract/index.ts';
import {
  askedOn,
  type CivilDay,
  DAYS_A_WEEK,
  isoOfDay,
  minutesFor,
  peopleHere,
  weekdayOf,
  weeksOfShifts,
} from '../../core/index.ts';
import { joinLists } from '../platform/identity/lists.ts';
import { type Account, Person } from '../platform/identity/person.ts';
import { mustReceive } from '../platform/identity/receiver.ts';
import { changedMeanwhile, forbidden, invalid, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { colleagues } from './colleagues.ts';
import { type Open, openInvitations, sendInvitation } from './invitations.ts';

/** This week and the next. */
const WEEKS_SHOWN = 2;

export async function listMembers(scope: Scope): Promise<{ members: Member[]; weeks: string[] }> {
  const people = await scope.find(Person);
  const members = await described(scope, people);
  return { members: members.sort((a, b) => a.name.localeCompare(b.name)), weeks: weeksOf(scope).map(isoOfDay) };
}

export async function oneMember(scope: Scope, id: string): Promise<Member> {
  const [member] = await described(scope, [await scope.one(Person, id, 'person')]);
  return member as Member;
}

/** The Mondays of the weeks that are shown. */
function weeksOf({ now }: Scope): CivilDay[] {
  const monday = now.day - (weekdayOf(now.day) - 1);
  return Array.from({ length: WEEKS_SHOWN }, (_, i) => monday + i * DAYS_A_WEEK);
}

async function described(scope: Scope, people: readonly Person[]): Promise<Member[]> {
  const weeks = weeksOf(scope);
  const first = weeks[0] as CivilDay;
  const ids = people.map(({ id }) => id);
  const [loads, turns, open, accounts, calendar, here] = await scope.atOnce(
    () =>
      scope.sql<{ id: string; week: number; minutes: number }>(
        `select assignee_id as id, (due_on - $3::date) / ${DAYS_A_WEEK} as week, sum(estimate_minutes)::int as minutes
         from task where workspace_id = $1 and assignee_id = any($2::uuid[]) and due_on >= $3::date
           and due_on < $3::date + ${WEEKS_SHOWN * DAYS_A_WEEK} and state <> 'skipped' and state <> 'lapsed' group by 1, 2`,
        [ids, isoOfDay(first)],
      ),
    () =>
      scope.sql<{ id: string; on: string; work: string; place: number }>(
        `select distinct on (t.assignee_id) t.assignee_id as id, t.work_on as "on", coalesce(w.name, t.title) as work, (t.why->>'place')::int as place
         from task t left join template w on w.workspace_id = t.workspace_id and w.id = t.template_id
         where t.workspace_id = $1 and t.assignee_id = any($2::uuid[]) and t.state = 'open' and t.work_on >= $3::date
           and t.step_key = '' and t.why->>'by' = 'turn' and t.why->'passedOver' = '[]' order by t.assignee_id, t.work_on, t.id`,
        [ids, scope.today],
      ),
    () => openInvitations(scope, ids),
    () =>
      scope.sql<{ id: string; email: string }>(
        `select p.id, a.email from person p join account a on a.id = p.account_id
         where p.workspace_id = $1 and p.id = any($2::uuid[])`,
        [ids],
      ),
    () => scope.calendar(),
    async () => peopleHere(await colleagues(scope)),
  );
  const minutes = new Map(loads.map((load) => [`${load.id} ${load.week}`, load.minutes]));
  const turnOf = new Map(turns.map(({ id, ...turn }) => [id, turn]));
  const emails = new Map(accounts.map(({ id, email }) => [id, email]));
  return people.map((person) => ({
    ...fieldsOf(person),
    id: person.id,
    version: person.version,
    email: emails.get(person.id) ?? person.email,
    ...signingIn(scope, person, open.get(person.id)),
    nextTurn: turnOf.get(person.id) ?? null,
    loads: weeks.map((monday, week) => ({
      minutes: minutes.get(`${person.id} ${week}`) ?? 0,
      capacity: Array.from({ length: DAYS_A_WEEK }, (_, i) =>
        minutesFor(here.one(person.id), monday + i, askedOn(monday + i, calendar)),
      ).reduce((sum, one) => sum + one, 0),
    })),
  }));
}

/** What is written of a person, as it stands. */
function fieldsOf(person: Person): PersonInput {
  const { name, email, telephone, roles, team, access, weeksFrom, shifts, shiftChanges } = person;
  const { worksFrom, worksUntil, deputyId } = person;
  return {
    ...{ name, email, telephone, roles, team, access, weeksFrom, shifts, shiftChanges },
    ...{ worksFrom, worksUntil, deputyId },
    weeks: person.weeks.map((week) => [...week]),
    tickets: person.tickets.map((ticket) => ({ ...ticket })),
  };
}

function signingIn(
  scope: Scope,
  { accountId }: Person,
  open: Open | undefined,
): Pick<Member, 'signsIn' | 'invitedUntil'> {
  if (accountId !== null) return { signsIn: 'yes', invitedUntil: null };
  if (!open) return { signsIn: 'no', invitedUntil: null };
  return {
    signsIn: open.endsAt > scope.instant ? 'invited' : 'invitation ended',
    invitedUntil: scope.moment(open.endsAt),
  };
}

export interface Saved {
  readonly member: Member;
  readonly changeId: string | null;
}

/** @param origin where the link of an invitation leads; null where none is sent */
export function addMember(
  scope: Scope,
  { invite, ...input }: PersonInput & { invite: boolean },
  origin: string,
): Promise<Saved> {
  return scope.transaction(async (tx) => {
    const [there] = await tx.sql<{ count: number }>(
      'select count(*)::int as count from person where workspace_id = $1',
    );
    if ((there?.count ?? 0) >= MOST_PEOPLE)
      throw notNow(`A workspace has ${MOST_PEOPLE.toLocaleString('en-GB')} people at most, those who left included.`);
    const { id, changeId } = await insertMember(tx, input, 'added');
    if (invite) await sendInvitation(tx, await tx.one(Person, id, 'person'), origin);
    return { member: await oneMember(tx, id), changeId };
  });
}

/** Somebody new, within another change. */
export async function insertMember(
  scope: Scope,
  input: PersonInput,
  action: 'added' | 'brought in',
): Promise<{ readonly id: string; readonly changeId: string }> {
  await checkAddress(scope, input.email, null);
  await checkDeputy(scope, null, input.deputyId);
  const { id } = await scope.insert(Person, {
    id: scope.newId(),
    accountId: null,
    ways: {},
    version: 1,
    ...input,
    ...minutesOfShifts(input),
  });
  await keepNames(scope, input);
  const changeId = await scope.record('person', id, action, fieldChanges({}, input));
  await scope.tell('workspace');
  return { id, changeId };
}

export function changeMember(
  scope: Scope,
  id: string,
  { version, ...input }: PersonInput & { version: number },
): Promise<Saved> {
  return scope.transaction(async (tx) => {
    const before = await tx.locked(Person, id, 'person');
    if (before.version !== version)
      throw changedMeanwhile(
        'Someone else changed this person since you opened them. Yours is still on the screen, not saved; “Put back” shows theirs.',
      );
    const changeId = await writeMember(tx, before, input, 'changed');
    return { member: await oneMember(tx, id), changeId };
  });
}

/** Writes what differs; null where nothing does. */
export async function writeMember(
  scope: Scope,
  before: Person,
  set: Partial<Pick<Person, keyof PersonInput>>,
  action: 'changed' | 'undone',
): Promise<string | null> {
  if (set.deputyId !== undefined && set.deputyId !== before.deputyId) await checkDeputy(scope, before.id, set.deputyId);
  const own = await accountEmail(scope, before);
  // Of whoever signs in the address is their account's, which only they can change.
  if (own !== null && set.email !== undefined && set.email?.toLowerCase() !== own.toLowerCase())
    throw invalid([
      { path: 'email', message: `${before.name} signs in with that address: only ${before.name} can change it.` },
    ]);
  const { email, ...others } = { ...set, ...minutesOfShifts(set, before) };
  const changes = own === null && email !== undefined ? { ...others, email } : others;
  const fields = fieldChanges(before, changes);
  if (Object.keys(fields).length === 0) return null;
  if (own === null && email !== undefined && email !== before.email) {
    await checkAddress(scope, email, before.id);
    // A link that went to another address is not theirs.
    await scope.sql(
      'update invitation set withdrawn_at = $3 where workspace_id = $1 and person_id = $2 and used_at is null and withdrawn_at is null',
      [before.id, scope.instant],
    );
  }
  await scope.save(Person, before.id, { ...(changes as Partial<Person>), version: before.version + 1 });
  await keepNames(scope, { roles: set.roles ?? [], team: set.team ?? null, tickets: set.tickets ?? [] });
  await mustKeepManager(scope);
  const changeId = await scope.record('person', before.id, action, fields);
  await scope.tell('workspace', 'tasks');
  return changeId;
}

/** Where it is said when somebody works, the minutes of their weeks follow from that. */
function minutesOfShifts(
  { weeks, shifts }: Partial<Pick<Person, 'weeks' | 'shifts'>>,
  before?: Pick<Person, 'weeks' | 'shifts'>,
): Partial<Pick<Person, 'weeks'>> {
  const pattern = shifts ?? before?.shifts ?? [];
  if (pattern.length === 0 || (weeks === undefined && shifts === undefined)) return {};
  return { weeks: weeksOfShifts(pattern, (weeks ?? before?.weeks ?? []).length) };
}

/** Whoever takes over is somebody else, of this workspace, who is here. */
async function checkDeputy(scope: Scope, id: string | null, deputyId: string | null): Promise<void> {
  if (deputyId === id && id !== null)
    throw invalid([{ path: 'deputyId', message: 'Nobody takes over for themselves: choose somebody else.' }]);
  await mustReceive(scope, deputyId, { path: 'deputyId' });
}

async function accountEmail(scope: Scope, { id, accountId }: Person): Promise<string | null> {
  if (accountId === null) return null;
  const [row] = await scope.sql<Pick<Account, 'email'>>(
    'select a.email from person p join account a on a.id = p.account_id where p.workspace_id = $1 and p.id = $2',
    [id],
  );
  return row?.email ?? null;
}

async function checkAddress(scope: Scope, email: string | null, self: string | null): Promise<void> {
  if (email === null) return;
  const [there] = await scope.sql<{ name: string }>(
    `select p.name from person p left join account a on a.id = p.account_id
     where p.workspace_id = $1 and lower(coalesce(a.email, p.email)) = lower($2) and p.id is distinct from $3::uuid limit 1`,
    [email, self],
  );
  if (there) throw invalid([{ path: 'email', message: `${there.name} has that address already.` }]);
}

/** Roles, teams and tickets that are new join the lists of the workspace. */
function keepNames(
  scope: Scope,
  { roles, team, tickets }: Pick<PersonInput, 'roles' | 'team' | 'tickets'>,
): Promise<void> {
  return joinLists(scope, {
    roles,
    teams: team === null ? [] : [team],
    tickets: tickets.map(({ name }) => name),
  });
}

/** Somebody must be left who can do everything, and can sign in. */
async function mustKeepManager(scope: Scope): Promise<void> {
  const [left] = await scope.sql<{ count: number }>(
    `select count(*)::int as count from person
     where workspace_id = $1 and access = 'manager' and account_id is not null and (works_until is null or works_until >= $2::date)`,
    [scope.today],
  );
  if ((left?.count ?? 0) === 0)
    throw forbidden('That would leave nobody who does everything here: make somebody else a manager first.');
}
