import { createHash, timingSafeEqual } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import type { Setup } from '../../contract/index.ts';
import {
  type CivilDay,
  isoOfDay,
  NO_VISITS,
  USUAL_ASKING,
  USUAL_ESCALATION,
  USUAL_OUTCOMES,
} from '../../core/index.ts';
import { hashPassword } from '../people/index.ts';
import { type Clock, civilNow } from '../platform/clock.ts';
import { Account, Person } from '../platform/identity/person.ts';
import { Holiday, Workspace } from '../platform/identity/workspace.ts';
import { forbidden, invalid } from '../platform/refusal.ts';
import { Scope } from '../platform/scope.ts';
import { checkWeek, publicHolidaysFrom } from '../settings/index.ts';
import { waysIn } from './ways-in.ts';

/** Two who begin at once: the second finds a workspace there. */
const SETUP_LOCK = 7_402_612;

interface State {
  readonly isOpen: boolean;
  readonly needsKey: boolean;
}

/**
 * Beside the demo anybody may begin a workspace of their own, as anybody may step into it. Elsewhere the set-up key does, and
 * only while there is no workspace at all: nobody gets into one that is there by this way.
 */
async function stateOf(manager: EntityManager, setupKey: string | null): Promise<State> {
  const [found] = await manager.query<{ any: boolean; demo: boolean }[]>(
    'select count(*) > 0 as any, coalesce(bool_or(is_demo), false) as demo from workspace',
  );
  if (found?.demo) return { isOpen: true, needsKey: false };
  return { isOpen: !found?.any && setupKey !== null, needsKey: true };
}

/** For the date alone: of a workspace that is none yet no zone is known. */
export function todayIn(clock: Clock): CivilDay {
  return civilNow(clock, 'UTC').day;
}

export async function setupState(source: DataSource, clock: Clock, setupKey: string | null) {
  return { ...(await stateOf(source.manager, setupKey)), today: isoOfDay(todayIn(clock)) };
}

const CLOSED = 'There is a workspace here already: ask one of its managers for an invitation.';

export async function requireOpen(source: DataSource, setupKey: string | null): Promise<void> {
  if (!(await stateOf(source.manager, setupKey)).isOpen) throw forbidden(CLOSED);
}

export function beginWorkspace(
  source: DataSource,
  clock: Clock,
  setupKey: string | null,
  input: Setup,
): Promise<Person> {
  return source.transaction(async (manager) => {
    await manager.query('select pg_advisory_xact_lock($1)', [SETUP_LOCK]);
    const { isOpen, needsKey } = await stateOf(manager, setupKey);
    if (!isOpen) throw forbidden(CLOSED);
    if (needsKey && !isSameKey(input.key, setupKey ?? ''))
      throw invalid([{ path: 'key', message: 'That is not the set-up key: it stands where the server was started.' }]);
    checkWeek(input);
    const workspace = workspaceOf(input);
    const scope = new Scope(manager, workspace, null, clock);
    workspace.id = scope.newId();
    await manager.insert(Workspace, workspace);
    if (input.country !== '')
      for (const holiday of publicHolidaysFrom(input.country, input.region, scope.now.day))
        await scope.insert(Holiday, holiday);
    return firstManager(scope, manager, input.person);
  });
}

/** Of one length, whatever was typed: how much of it is right takes no other time to tell. */
function isSameKey(given: string, wanted: string): boolean {
  const digest = (text: string) => createHash('sha256').update(text).digest();
  return timingSafeEqual(digest(given), digest(wanted));
}

function workspaceOf({ name, zone, workingWeekdays, weekMinutes, country }: Setup): Workspace {
  return {
    id: '',
    name,
    tagline: '',
    zone,
    workingWeekdays: [...workingWeekdays].sort((a, b) => a - b),
    weekMinutes,
    categories: [],
    workTypes: [],
    clientFields: [],
    assetFields: [],
    skipReasons: [],
    roles: [],
    teams: [],
    tickets: [],
    horizonDays: 30,
    makeTime: '04:00',
    madeOn: null,
    isDemo: false,
    version: 1,
    yearStarts: 1,
    phraseHabits: {},
    seasons: [],
    ways: waysIn(country),
    doneStaysDays: 1,
    swapsNeedNod: false,
    visits: NO_VISITS,
    asking: USUAL_ASKING,
    escalation: USUAL_ESCALATION,
    hearing: {},
    outcomes: USUAL_OUTCOMES,
    askedOn: null,
    keepYears: null,
    keepSince: null,
  };
}

async function firstManager(scope: Scope, manager: EntityManager, { name, email, password }: Setup['person']) {
  const [known] = await manager.query<unknown[]>('select 1 from account where lower(email) = lower($1)', [email]);
  // Whoever types it may not be who it belongs to.
  if (known) throw invalid([{ path: 'person.email', message: 'Choose another address: this one can’t be used here.' }]);
  const account = { id: scope.newId(), email, passwordHash: await hashPassword(password) };
  await manager.insert(Account, account);
  return scope.insert(Person, {
    id: scope.newId(),
    accountId: account.id,
    name,
    roles: [],
    team: null,
    deputyId: null,
    tickets: [],
    telephone: '',
    worksFrom: null,
    worksUntil: null,
    ways: {},
    version: 1,
    email,
    access: 'manager',
    weeks: [[...scope.workspace.weekMinutes]],
    weeksFrom: scope.today,
    shifts: [],
    shiftChanges: [],
  });
}
