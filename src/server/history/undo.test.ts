import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  type Impact,
  type Schedule,
  type Template,
  taskEditSchema,
  templateInputSchema,
} from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { oneSchedule } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { checkLine, ownTask } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
const scheduleIds: string[] = [];
let templateId = '';
let people: string[] = [];

/** A template with a step before and one after, its schedules of several kinds, and a stretch filled far ahead. */
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  people = (
    await server.source.query<{ id: string }[]>(
      'select p.id from person p join workspace w on w.id = p.workspace_id where w.name = $1 order by p.id limit 3',
      ['Tern Quay'],
    )
  ).map(({ id }) => id);
  const template = {
    name: 'Undone',
    titlePattern: 'Undone {number}, {month}',
    category: null,
    instructions: '<p>As it is</p>',
    estimateMinutes: 30,
    steps: [checkLine('a'), ownTask('before', -4), ownTask('after', 2)],
  };
  templateId = (await ines.post('/api/templates').send({ template, like: null }).expect(200)).body.template.id;
  const rules = [
    { kind: 'weeks', every: 1, on: [3] },
    { kind: 'months', every: 1, months: [], on: [{ kind: 'date', day: 31 }], missing: 'last' },
    { kind: 'workingDays', every: 3 },
  ];
  for (const [i, rule] of rules.entries()) {
    const { body } = await ines
      .post('/api/schedules')
      .send({
        templateId,
        clientId: null,
        assetId: null,
        assignment: givenTo(people[i] ?? null),
        recurrence: { start: '2026-11-24', rules: [rule], end: { kind: 'never' }, dayOff: 'preceding' },
        timing: {
          appears: { amount: -2, unit: 'workingDay' },
          starts: { amount: 0, unit: 'day' },
          due: { amount: 1, unit: 'workingDay' },
          startTime: null,
          dueTime: '12:00',
        },
        pauses: [],
        exceptions: [],
        revisions: [],
      })
      .expect(200);
    scheduleIds.push(body.schedule.id);
  }
  const { body } = await ines.post('/api/runs').send({ from: '2027-01-01', to: '2027-02-15', scheduleIds }).expect(200);
  const { carryOutFill } = await import('../runs/fill.ts');
  await carryOutFill(await server.scope(), body.run?.id ?? body.id);
}, 60_000);
afterAll(() => server.stop());

/** All that the changes may touch, but for the counters of versions and what says who changed a template last. */
async function state(): Promise<unknown> {
  const tasks = await server.source.query(
    `select to_jsonb(t) - 'version' - 'template_version' as row from task t where template_id = $1 order by id`,
    [templateId],
  );
  const schedules = await server.source.query(
    `select to_jsonb(s) - 'version' - 'settled_to' as row from schedule s where template_id = $1 order by id`,
    [templateId],
  );
  const templates = await server.source.query(
    `select to_jsonb(t) - 'version' - 'changed_at' - 'changed_by' as row from template t where id = $1`,
    [templateId],
  );
  const deleted = await server.source.query(
    `select d.schedule_id, d.nominal_date, d.step_key from deleted_task d join schedule s on s.id = d.schedule_id where s.template_id = $1 order by 1, 2, 3`,
    [templateId],
  );
  return { tasks, schedules, templates, deleted };
}

const RULES = [
  { kind: 'days', every: 1, except: [6, 7] },
  { kind: 'weeks', every: 1, on: [5] },
  { kind: 'weeks', every: 2, on: [1, 4] },
  { kind: 'months', every: 1, months: [], on: [{ kind: 'workingDay', nth: -1 }], missing: 'last' },
  { kind: 'dates', dates: ['2026-11-25', '2026-12-24', '2027-01-20'] },
] as const;

const reach = fc.record({ open: fc.boolean(), also: fc.constant([] as string[]) });
const which = fc.subarray([0, 1, 2], { minLength: 1 });
const scheduleSet = fc.oneof(
  fc.constantFrom(...RULES).map((rule) => ({ recurrence: { rule } })),
  fc.nat(2).map((i) => ({ assignee: i })),
  fc.constantFrom('2026-11-24', '2026-12-03').map((from) => ({ pauses: [{ from, to: null }] })),
  fc.constantFrom('2026-11-25', '2026-12-02', '2026-12-09').map((date) => ({ exceptions: [{ kind: 'skip', date }] })),
  fc.constant({ isDeleted: true }),
);
const change = fc.oneof(
  fc.record({ kind: fc.constant('schedules' as const), which, set: scheduleSet, reach }),
  fc.record({
    kind: fc.constant('template' as const),
    reach,
    set: fc.oneof(
      fc.constant({ steps: [checkLine('a'), checkLine('b'), ownTask('after', -30)] }),
      fc.constant({ steps: [] }),
      fc.constant({
        steps: [checkLine('a'), ownTask('before', -4, { estimateMinutes: 99 }), ownTask('after', 2), ownTask('new', 0)],
      }),
      fc.constant({ signOff: { by: 'manager' } }),
      fc.constant({ titlePattern: 'Otherwise {week}' }),
      fc.constant({ estimateMinutes: 45, instructions: '<p>Otherwise</p>', priority: 'high' }),
    ),
  }),
  fc.record({
    kind: fc.constant('task' as const),
    pick: fc.nat(30),
    reach: fc.constantFrom('one', 'later', 'open'),
    set: fc.constantFrom({ title: 'By hand' }, { estimateMinutes: 11 }, { dueTime: '09:30' }, { priority: 'urgent' }),
  }),
  fc.record({
    kind: fc.constant('tasks' as const),
    picks: fc.uniqueArray(fc.nat(30), { minLength: 1, maxLength: 4 }),
    deed: fc.constantFrom(
      { kind: 'skip', reason: 'Closed.' },
      { kind: 'delete' },
      { kind: 'move', by: { amount: 3, unit: 'day' } },
    ),
  }),
);
type Change = typeof change extends fc.Arbitrary<infer T> ? T : never;

/** Makes a change through the API; gives the id it is undone by, or null where it was refused or changed nothing. */
async function make(one: Change): Promise<string | null> {
  const answer = await sent(one);
  // All tasks may be gone or finished by then: there is none of that id.
  expect([200, 404, 409, 422]).toContain(answer.status);
  return answer.status === 200 ? answer.body.changeId : null;
}

async function sent(one: Change) {
  if (one.kind === 'schedules') {
    const schedules: Schedule[] = [];
    for (const i of one.which) schedules.push(await oneSchedule(ines, scheduleIds[i] ?? ''));
    return ines.post('/api/schedules/changes').send({
      reach: one.reach,
      changes: schedules.map((schedule) => ({
        id: schedule.id,
        version: schedule.version,
        set: setOf(schedule, one.set),
      })),
    });
  }
  if (one.kind === 'template') {
    const template: Template = (await ines.get(`/api/templates/${templateId}`).expect(200)).body;
    const input = templateInputSchema.parse(template);
    return ines
      .put(`/api/templates/${templateId}`)
      .send({ ...input, ...one.set, version: template.version, reach: one.reach });
  }
  const tasks = await server.source.query<{ id: string; version: number }[]>(
    `select id, version from task where template_id = $1 and state = 'open' order by set_on, set_index, id`,
    [templateId],
  );
  const pick = (i: number) => tasks[i % tasks.length];
  if (one.kind === 'tasks') {
    const chosen = [...new Set(one.picks.flatMap((i) => pick(i) ?? []))];
    return ines.post('/api/tasks/changes').send({ tasks: chosen, deed: one.deed });
  }
  const { body: task } = await ines.get(`/api/tasks/${pick(one.pick)?.id}`);
  const edit = taskEditSchema.safeParse({ ...task, workOn: task.on, assigneeId: task.assignee?.id ?? null });
  return ines.put(`/api/tasks/${task.id}`).send({ ...edit.data, ...one.set, version: task.version, reach: one.reach });
}

function setOf(schedule: Schedule, set: object) {
  if ('recurrence' in set)
    return {
      recurrence: { ...schedule.recurrence, rules: [(set as { recurrence: { rule: unknown } }).recurrence.rule] },
    };
  if ('assignee' in set) return { assignment: givenTo(people[(set as { assignee: number }).assignee] ?? null) };
  return set;
}

const undo = (changeId: string) => ines.post(`/api/changes/${changeId}/undo`);

describe('after a change and its undo', () => {
  it('all is as it was before, whatever the change, and the look before the undo said so', async () => {
    await fc.assert(
      fc.asyncProperty(change, async (one) => {
        const before = await state();
        const changeId = await make(one);
        if (changeId === null) return;
        const look: Impact = (await ines.post(`/api/changes/${changeId}/undo/impact`).expect(200)).body;
        const { keptByHand, keptBegun, keptShowing, keptLacking, added, changed, removed } = look.figures;
        expect(keptByHand + keptBegun + keptShowing + keptLacking).toBe(0);
        const changedState = await state();
        await undo(changeId).expect(200);
        expect(await state()).toEqual(before);
        if (
          JSON.stringify((changedState as { tasks: unknown }).tasks) !==
          JSON.stringify((before as { tasks: unknown }).tasks)
        )
          expect(added + changed + removed).toBeGreaterThan(0);
      }),
      { numRuns: 40, endOnFailure: true },
    );
  }, 120_000);

  it('several on top of each other go back one by one, the last first', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(change, { minLength: 2, maxLength: 4 }), async (changes) => {
        const made: { readonly before: unknown; readonly changeId: string }[] = [];
        for (const one of changes) {
          const before = await state();
          const changeId = await make(one);
          if (changeId !== null) made.push({ before, changeId });
        }
        for (const { before, changeId } of made.reverse()) {
          await undo(changeId).expect(200);
          expect(await state()).toEqual(before);
        }
      }),
      { numRuns: 12, endOnFailure: true },
    );
  }, 120_000);

  it('what somebody has changed since stays, and both the look and the answer say so', async () => {
    const set = { recurrence: { rule: RULES[0] } };
    const changeId = await make({ kind: 'schedules', which: [0], set, reach: { open: false, also: [] } });
    const [made] = await server.source.query<{ id: string; version: number }[]>(
      `select t.id, t.version from task t join watched_task w on w.task_id = t.id and w.before is null
       join change c on c.watch_id = w.watch_id where c.id = $1 and t.step_key = '' order by t.set_on limit 1`,
      [changeId],
    );
    await ines
      .post('/api/tasks/changes')
      .send({ tasks: [made], deed: { kind: 'skip', reason: 'Seen to.' } })
      .expect(200);
    const look: Impact = (await ines.post(`/api/changes/${changeId}/undo/impact`).expect(200)).body;
    expect(look.figures.keptByHand).toBe(1);
    expect(look.items.filter(({ kind }) => kind === 'kept').map(({ taskId, because }) => [taskId, because])).toEqual([
      [made?.id, 'changed since'],
    ]);
    const { body } = await undo(changeId ?? '').expect(200);
    expect(body.said).toBe(
      'The schedule is as it was before, but for 1 task that somebody has changed since: it stays as it is.',
    );
    const [stays] = await server.source.query('select state from task where id = $1', [made?.id]);
    expect(stays).toEqual({ state: 'skipped' });
  });
});
