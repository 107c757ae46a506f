import { pino } from 'pino';
import type { DataSource } from 'typeorm';
import { isoOfDay, type Recurrence, yearMonthDay } from '../src/core/index.ts';
import { Asset, Client } from '../src/server/clients/entity.ts';
import type { Clock } from '../src/server/clock.ts';
import { uuidv7 } from '../src/server/db/uuid.ts';
import { Account, Person } from '../src/server/people/entity.ts';
import { hashPassword } from '../src/server/people/password.ts';
import { Schedule } from '../src/server/schedules/entity.ts';
import { runMaking } from '../src/server/schedules/making.ts';
import { Scope } from '../src/server/scope.ts';
import { Template } from '../src/server/templates/entity.ts';
import { Holiday, Workspace } from '../src/server/workspace/entity.ts';
import { englandAndWales } from '../src/server/workspace/public-holidays.ts';
import { berthHolders } from './berth-holders.ts';
import { playHistory } from './history.ts';
import { type DemoPerson, PEOPLE } from './people.ts';
import { SeededRandom } from './random.ts';
import { DEFAULT_TIMING, type DemoSchedule, OWN_ASSETS, SCHEDULES } from './schedules.ts';
import { CATEGORIES, type DemoTemplate, TEMPLATES } from './templates.ts';

/** Everyone in the demo signs in with this. */
export const DEMO_PASSWORD = 'ternquay';
const HISTORY_DAYS = 183;

/** Fills the Tern Quay workspace when the database has none. The same for every start on the same day. */
export async function seedWhenEmpty(
  source: DataSource,
  clock: Clock,
  options: { readonly withEmptyWorkspace: boolean },
): Promise<void> {
  if ((await source.getRepository(Workspace).count()) > 0) return;
  await source.transaction(async (manager) => {
    const random = new SeededRandom('ids');
    // Each id a millisecond after the one before, so that they sort in the order they were made.
    let made = 0;
    const makeId = (ms: number) => uuidv7(ms - HISTORY_DAYS * 86_400_000 + made++, random.bytes(10));
    const passwordHash = await hashPassword(DEMO_PASSWORD);
    const fill = (workspace: Workspace) => new Scope(manager, workspace, null, clock, makeId);
    const ternQuay = fill(
      await insertWorkspace(manager, makeId(clock.now()), 'Tern Quay', 'marina and boatyard, three quays'),
    );
    await seedTernQuay(ternQuay, manager, passwordHash);
    if (options.withEmptyWorkspace) {
      const empty = fill(
        await insertWorkspace(manager, makeId(clock.now()), 'Heron Yard', 'a yard that has only just begun'),
      );
      await addPeople(
        empty,
        manager,
        [{ key: 'ada', name: 'Ada Winn', role: 'owner', isManager: true, capacityMinutes: 420 }],
        passwordHash,
      );
    }
  });
}

type Manager = DataSource['manager'];

async function insertWorkspace(manager: Manager, id: string, name: string, tagline: string): Promise<Workspace> {
  const workspace = manager.create(Workspace, {
    id,
    name,
    tagline,
    zone: 'Europe/London',
    workingWeekdays: [1, 2, 3, 4, 5],
    categories: [...CATEGORIES],
    horizonDays: 30,
    makeTime: '04:00',
    madeOn: null,
    isDemo: true,
  });
  await manager.insert(Workspace, workspace);
  return workspace;
}

async function seedTernQuay(scope: Scope, manager: Manager, passwordHash: string): Promise<void> {
  const { year } = yearMonthDay(scope.now.day);
  for (const holiday of englandAndWales(year - 2, year + 5)) await scope.insert(Holiday, holiday);
  const people = await addPeople(scope, manager, PEOPLE, passwordHash);
  const assets = await addAssets(scope);
  const templates = await addTemplates(scope, people.get('ines') ?? null);
  for (const schedule of SCHEDULES) await addSchedule(scope, schedule, { people, assets, templates });
  // The past is made by the same run that makes the future, then played.
  await runMaking(scope, 'startup', pino({ level: 'silent' }));
  const notes = new Map<string, readonly string[]>(
    TEMPLATES.map((template: DemoTemplate) => [template.name, template.notes ?? []]),
  );
  await playHistory(scope, (seed) => new SeededRandom(seed), notes);
}

async function addPeople(
  scope: Scope,
  manager: Manager,
  people: readonly DemoPerson[],
  passwordHash: string,
): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  for (const person of people) {
    const accountId = scope.newId();
    const id = scope.newId();
    await manager.insert(Account, {
      id: accountId,
      email: `${person.key}@${scope.workspace.name.toLowerCase().replace(' ', '')}.example`,
      passwordHash,
    });
    await scope.insert(Person, {
      id,
      accountId,
      name: person.name,
      role: person.role,
      isManager: person.isManager ?? false,
      capacityMinutes: person.capacityMinutes,
    });
    ids.set(person.key, id);
  }
  return ids;
}

interface DemoAsset {
  readonly assetId: string;
  readonly clientId: string | null;
}

async function addAssets(scope: Scope): Promise<Map<string | number, DemoAsset>> {
  const assets = new Map<string | number, DemoAsset>();
  for (const [name, place] of OWN_ASSETS) {
    const id = scope.newId();
    await scope.insert(Asset, { id, clientId: null, name, place });
    assets.set(name, { assetId: id, clientId: null });
  }
  for (const [i, { name, vessel, berth }] of berthHolders().entries()) {
    const clientId = scope.newId();
    const assetId = scope.newId();
    await scope.insert(Client, { id: clientId, name });
    await scope.insert(Asset, { id: assetId, clientId, name: vessel, place: `berth ${berth}` });
    assets.set(i, { assetId, clientId });
  }
  return assets;
}

async function addTemplates(scope: Scope, by: string | null): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  const random = new SeededRandom('template changes');
  for (const template of TEMPLATES) {
    const id = scope.newId();
    await scope.insert(Template, {
      id,
      version: 1,
      name: template.name,
      titlePattern: template.title,
      category: template.category,
      instructions: template.instructions,
      checkLines: template.steps.map((text, i) => ({ key: `line-${i + 1}`, text })),
      estimateMinutes: template.minutes,
      changedAt: new Date(scope.clock.now() - random.whole(3, 400) * 86_400_000),
      changedBy: by,
    });
    ids.set(template.key, id);
  }
  return ids;
}

async function addSchedule(
  scope: Scope,
  schedule: DemoSchedule,
  ids: {
    readonly people: ReadonlyMap<string, string>;
    readonly assets: ReadonlyMap<string | number, DemoAsset>;
    readonly templates: ReadonlyMap<string, string>;
  },
): Promise<void> {
  const asset = schedule.asset === undefined ? null : (ids.assets.get(schedule.asset) ?? null);
  const recurrence: Recurrence = {
    start: schedule.start ?? '2025-02-03',
    rules: schedule.rules,
    end: schedule.end ?? { kind: 'never' },
    dayOff: schedule.dayOff ?? 'none',
  };
  const { pausedDaysAgo } = schedule;
  await scope.insert(Schedule, {
    id: scope.newId(),
    version: 1,
    templateId: ids.templates.get(schedule.template) as string,
    clientId: asset?.clientId ?? null,
    assetId: asset?.assetId ?? null,
    assigneeId: schedule.who === null ? null : (ids.people.get(schedule.who) ?? null),
    recurrence: { v: 1, ...recurrence },
    timing: { v: 1, ...DEFAULT_TIMING, ...schedule.timing },
    pauses: pausedDaysAgo === undefined ? [] : [{ from: isoOfDay(scope.now.day - pausedDaysAgo), to: null }],
    exceptions: [],
    revisions: [],
    settledTo: isoOfDay(scope.now.day - HISTORY_DAYS),
    problem: null,
    createdAt: new Date(scope.clock.now() - HISTORY_DAYS * 86_400_000),
  });
}
