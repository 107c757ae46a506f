import { pino } from 'pino';
import type { DataSource } from 'typeorm';
import {
  type AssignmentRule,
  type CivilDay,
  dayOfIso,
  givenTo,
  isoOfDay,
  mondayOf,
  NO_VISITS,
  plainWeek,
  type Recurrence,
  type TurnLength,
  USUAL_ASKING,
  USUAL_ESCALATION,
  USUAL_OUTCOMES,
  USUAL_WAYS,
  yearMonthDay,
} from '../src/core/index.ts';
import { Asset, Client } from '../src/server/clients/index.ts';
import { type FileStore, IN_TEXT, StoredFile } from '../src/server/files/stored/index.ts';
import { hashPassword, sendInvitation } from '../src/server/people/index.ts';
import type { Action } from '../src/server/platform/changes/actions.ts';
import { Change } from '../src/server/platform/changes/entity.ts';
import type { Clock } from '../src/server/platform/clock.ts';
import { uuidv7 } from '../src/server/platform/db/uuid.ts';
import { Person } from '../src/server/platform/identity/person.ts';
import { Holiday, Workspace } from '../src/server/platform/identity/workspace.ts';
import { Scope } from '../src/server/platform/scope.ts';
import { runMaking } from '../src/server/runs/index.ts';
import { Schedule } from '../src/server/schedules/index.ts';
import { englandAndWales } from '../src/server/settings/index.ts';
import { Favourite, Template } from '../src/server/templates/stored/index.ts';
import { berthHolders } from './berth-holders.ts';
import { makeByHand } from './by-hand.ts';
import { addCalls } from './calls.ts';
import { ASSET_FIELDS, addRecords, CLIENT_FIELDS } from './client-records.ts';
import { addClientTasks } from './client-tasks.ts';
import { holdUp } from './held-up.ts';
import { playHistory } from './history.ts';
import { addMailedAnswers } from './mailed-answers.ts';
import { addMessages } from './messages.ts';
import { addNotices } from './notices.ts';
import { OTHERS, PEOPLE, ROLES, TEAMS, TICKETS } from './people.ts';
import { type DemoFile, type DemoFiles, demoFiles } from './pictures.ts';
import { addPlans } from './plans.ts';
import { SeededRandom } from './random.ts';
import { DEFAULT_TIMING, type DemoSchedule, OWN_ASSETS, SCHEDULES } from './schedules.ts';
import { addClockings, addLeave, addPeople, addSwaps, daysBefore } from './seed-people.ts';
import { templateContent } from './template-content.ts';
import { ASKING, CATEGORIES, type DemoTemplate, TEMPLATES, type TemplateKey, VISITS, WORK_TYPES } from './templates.ts';
import { addViews } from './views.ts';

/** Everyone in the demo signs in with this. */
export const DEMO_PASSWORD = 'ternquay';
const HISTORY_DAYS = 183;

/** Fills the Tern Quay workspace when the database has none. The same for every start on the same day. */
export async function seedWhenEmpty(
  source: DataSource,
  files: FileStore,
  clock: Clock,
  options: {
    readonly withEmptyWorkspace: boolean;
    /** Where the link of the invitation that waits leads. */
    readonly origin: string;
  },
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
      await insertWorkspace(manager, makeId(clock.now()), 'Tern Quay', 'marina and boatyard, three quays', {
        categories: [...CATEGORIES],
        workTypes: [...WORK_TYPES],
        visits: VISITS,
        asking: ASKING,
        outcomes: USUAL_OUTCOMES,
        clientFields: [...CLIENT_FIELDS],
        skipReasons: ['too much wind', 'vessel away', 'nobody aboard', 'done with other work'],
        assetFields: [...ASSET_FIELDS],
        roles: [...ROLES],
        teams: [...TEAMS],
        tickets: [...TICKETS],
      }),
    );
    await seedTernQuay(ternQuay, manager, await demoFiles(files), passwordHash, options.origin);
    if (options.withEmptyWorkspace) {
      const empty = fill(
        await insertWorkspace(manager, makeId(clock.now()), 'Heron Yard', 'a yard that has only just begun', {
          categories: [],
          workTypes: [],
          visits: NO_VISITS,
          asking: USUAL_ASKING,
          outcomes: USUAL_OUTCOMES,
          clientFields: [],
          skipReasons: [],
          assetFields: [],
          roles: ['owner'],
          teams: [],
          tickets: [],
        }),
      );
      await addPeople(
        empty,
        manager,
        [
          {
            ...{ key: 'ada', name: 'Ada Winn', roles: ['owner'], team: null, access: 'manager', ext: 201 },
            weeks: [plainWeek(420, [1, 2, 3, 4, 5])],
          },
        ],
        passwordHash,
      );
    }
  });
}

type Manager = DataSource['manager'];

async function insertWorkspace(
  manager: Manager,
  id: string,
  name: string,
  tagline: string,
  lists: Pick<
    Workspace,
    | 'categories'
    | 'workTypes'
    | 'visits'
    | 'asking'
    | 'outcomes'
    | 'roles'
    | 'teams'
    | 'tickets'
    | 'clientFields'
    | 'assetFields'
    | 'skipReasons'
  >,
): Promise<Workspace> {
  const workspace = manager.create(Workspace, {
    id,
    name,
    tagline,
    zone: 'Europe/London',
    workingWeekdays: [1, 2, 3, 4, 5],
    weekMinutes: [450, 450, 450, 450, 450, 0, 0],
    ...lists,
    horizonDays: 30,
    makeTime: '04:00',
    madeOn: null,
    askedOn: null,
    isDemo: true,
    version: 1,
    escalation: USUAL_ESCALATION,
    hearing: {},
    yearStarts: 1,
    phraseHabits: {},
    seasons: [{ name: 'winter', spans: [{ from: '11-15', to: '03-14' }] }],
    ways: USUAL_WAYS,
    swapsNeedNod: true,
    doneStaysDays: 1,
    keepYears: null,
    keepSince: null,
  });
  await manager.insert(Workspace, workspace);
  return workspace;
}

async function seedTernQuay(
  scope: Scope,
  manager: Manager,
  files: DemoFiles,
  passwordHash: string,
  origin: string,
): Promise<void> {
  const { year } = yearMonthDay(scope.now.day);
  for (const holiday of englandAndWales(year - 2, year + 5)) await scope.insert(Holiday, holiday);
  const people = await addPeople(scope, manager, PEOPLE, passwordHash);
  const others = await addPeople(scope, manager, OTHERS, passwordHash);
  await addLeave(scope, people);
  await addClockings(scope, people);
  for (const { key, signsIn } of OTHERS)
    if (signsIn === 'invited') {
      const [person] = await scope.find(Person, { id: others.get(key) as string });
      const [ines] = await scope.find(Person, { id: people.get('ines') as string });
      if (person && ines) await sendInvitation(new Scope(manager, scope.workspace, ines, scope.clock), person, origin);
    }
  const assets = await addAssets(scope);
  const templates = await addTemplates(scope, people);
  for (const schedule of SCHEDULES) await addSchedule(scope, schedule, { people, assets, templates });
  await illustrate(scope, templates, files);
  await makeByHand(scope, { people, assets, templates });
  // The past is made by the same run that makes the future, then played.
  await runMaking(scope, 'startup', pino({ level: 'silent' }));
  await addSwaps(scope, people);
  await addViews(scope, people);
  const notes = new Map<string, readonly string[]>(
    TEMPLATES.map((template: DemoTemplate) => [template.name, template.notes ?? []]),
  );
  const signers = new Map<string, string>();
  for (const { key, roles } of [...PEOPLE].reverse())
    for (const role of roles) signers.set(role, people.get(key) as string);
  await playHistory({ scope, randomFor: (seed) => new SeededRandom(seed), notesOf: notes, signers, files });
  await holdUp({ scope, people });
  await addRecords(scope, people);
  const actingAs = (person: Person | null, daysAgo: number) =>
    new Scope(
      manager,
      scope.workspace,
      person,
      { now: () => scope.clock.now() - daysAgo * 86_400_000, stands: true },
      () => scope.newId(),
    );
  await addNotices(scope, people, actingAs);
  await addPlans(scope, { people, templates }, actingAs);
  await addClientTasks(scope, { people, templates, assets, files, origin }, actingAs);
  await addCalls(scope, people, origin, actingAs);
  await addMailedAnswers(scope, actingAs);
  await addMessages(scope, origin, actingAs);
}

interface DemoAsset {
  readonly assetId: string;
  readonly clientId: string | null;
}

const BARE = { fields: {}, version: 1, archivedAt: null };
const BARE_CLIENT = { ...BARE, address: '', usualPersonId: null, notes: '' };
const BARE_ASSET = { ...BARE, isSite: false, siteId: null, servesFrom: null, servesUntil: null };

async function addAssets(scope: Scope): Promise<Map<string | number, DemoAsset>> {
  const assets = new Map<string | number, DemoAsset>();
  for (const [name, place, tag] of OWN_ASSETS) {
    const id = scope.newId();
    await scope.insert(Asset, { ...BARE_ASSET, id, clientId: null, name, place, tag });
    assets.set(name, { assetId: id, clientId: null });
  }
  for (const [i, { name, vessel, berth }] of berthHolders().entries()) {
    const clientId = scope.newId();
    const assetId = scope.newId();
    await scope.insert(Client, { ...BARE_CLIENT, id: clientId, name });
    await scope.insert(Asset, {
      ...BARE_ASSET,
      id: assetId,
      clientId,
      name: vessel,
      place: `berth ${berth}`,
      tag: null,
    });
    assets.set(i, { assetId, clientId });
  }
  return assets;
}

async function addTemplates(scope: Scope, people: ReadonlyMap<string, string>): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  const random = new SeededRandom('template changes');
  const idOf = (key: string) => people.get(key) as string;
  for (const template of TEMPLATES as readonly DemoTemplate[]) {
    const id = scope.newId();
    const daysAgo = random.whole(3, 400);
    await scope.insert(Template, {
      id,
      version: 1,
      ...templateContent(template, idOf),
      archivedAt: null,
      changedAt: daysBefore(scope, daysAgo),
      changedBy: idOf('ines'),
    });
    await tellChanges(scope, id, template, { by: idOf('ines'), daysAgo });
    if (template.favourite) await scope.insert(Favourite, { templateId: id, personId: idOf('ines') });
    ids.set(template.key, id);
  }
  return ids;
}

/** A picture in the instructions of the boarding check, and a form beside the certification of cranes. */
async function illustrate(
  scope: Scope,
  templates: ReadonlyMap<string, string>,
  { diagram, papers: [paper] }: DemoFiles,
): Promise<void> {
  const add = async (key: TemplateKey, file: DemoFile, demandKey: string | null, name: string) => {
    const id = scope.newId();
    const templateId = templates.get(key) as string;
    const owner = { taskId: null, templateId, demandKey };
    const state = {
      isKept: false,
      uploadedAt: daysBefore(scope, 60),
      uploadedBy: null,
      byContact: null,
      removedAt: null,
    };
    await scope.insert(StoredFile, { ...file, ...owner, ...state, id, name, uploadKey: scope.newId() });
    return { id, templateId };
  };
  const { id, templateId } = await add('boarding', diagram, IN_TEXT, diagram.name);
  const { instructions } = await scope.one(Template, templateId, 'template');
  const picture = `<img src="/api/files/${id}" alt="the test point, between valve and appliance" />`;
  await scope.save(Template, templateId, { instructions: instructions.replace('</ol>', `</ol>${picture}`) });
  if (paper) await add('craneCert', paper, null, 'form for the examiner.pdf');
}

/** When a template was written, and what was changed of it since. */
async function tellChanges(
  scope: Scope,
  subjectId: string,
  template: DemoTemplate,
  { by, daysAgo }: { readonly by: string; readonly daysAgo: number },
): Promise<void> {
  const record = (at: Date, action: Action<'template'>, fields: Change['fields']) =>
    scope.insert(Change, {
      id: scope.newId(),
      at,
      actorId: by,
      byContact: null,
      subject: 'template',
      subjectId,
      action,
      fields,
      joinedId: null,
      watchId: null,
      undoneAt: null,
    });
  if (!template.favourite) return void (await record(daysBefore(scope, daysAgo), 'created', {}));
  await record(daysBefore(scope, daysAgo + 240), 'created', {});
  await record(daysBefore(scope, daysAgo + 31), 'changed', { instructions: { from: '', to: template.instructions } });
  await record(daysBefore(scope, daysAgo), 'changed', { steps: { from: [], to: template.steps } });
}

/** Turns go on from the start of their schedule, so that the past has them too. */
function ruleOf(
  who: DemoSchedule['who'],
  people: ReadonlyMap<string, string>,
  start: string,
  today: CivilDay,
): AssignmentRule {
  if (who === null || typeof who === 'string') return givenTo(who === null ? null : (people.get(who) ?? null));
  if (who.kind === 'weekends') {
    const first = mondayOf(dayOfIso(start)) + 5;
    const weeks = Math.floor((today - first) / 7) + 1 + who.ahead;
    const list = Array.from({ length: weeks }, (_, i) => ({
      from: isoOfDay(first + 7 * i),
      to: isoOfDay(first + 7 * i + 1),
      personId: people.get(who.people[i % who.people.length] as string) as string,
    }));
    return { v: 1, kind: 'listed', list, goesOn: null, cover: 'next' };
  }
  if (who.kind !== 'inTurn') {
    const group = { of: 'role', role: who.role, ...(who.onShift ? { onShift: true as const } : {}) } as const;
    // At a briefing are those who work on its day.
    return who.kind === 'eachOf' ? { v: 1, kind: 'eachOf', group, daysOffToo: false } : { v: 1, kind: who.kind, group };
  }
  const length: TurnLength = who.per === 'week' ? { per: 'week', on: 1 } : { per: who.per };
  const order = who.people.flatMap((key) => people.get(key) ?? []);
  return {
    ...{ v: 1, kind: 'inTurn', cover: 'next' },
    turns: { length, rosters: [{ from: start, people: order }], swaps: [] },
  };
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
    onPlanId: null,
    planItem: null,
    assignment: ruleOf(schedule.who, ids.people, recurrence.start, scope.now.day),
    recurrence: { v: 1, ...recurrence },
    timing: { v: 1, ...DEFAULT_TIMING, ...schedule.timing },
    overlap: schedule.overlap ?? { kind: 'add' },
    pauses: pausedDaysAgo === undefined ? [] : [{ from: isoOfDay(scope.now.day - pausedDaysAgo), to: null }],
    exceptions: [],
    revisions: [],
    settledTo: isoOfDay(scope.now.day - HISTORY_DAYS),
    problem: null,
    createdAt: new Date(scope.clock.now() - HISTORY_DAYS * 86_400_000),
    deletedAt: null,
  });
}
