import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as contract from '../contract/index.ts';
import { givenTo, type Right, reachOf } from '../core/index.ts';
import { plainInput, scheduleNamed } from './testing/schedules.ts';
import { type Agent, type TestServer, testServer } from './testing/test-server.ts';
import { newTemplate } from './testing/work.ts';

type Ids = Readonly<Record<string, string>>;

let server: TestServer;
let ids: Ids;
/** Of another workspace: signed in once, as so many sign-ins from one address would be too many. */
let ada: Agent;
beforeAll(async () => {
  server = await testServer();
  ids = await idsOf(server);
  ada = await server.browser('Ada Winn');
});
afterAll(() => server.stop());

/** An id of Tern Quay for each name of a parameter. */
async function idsOf(of: TestServer): Promise<Ids> {
  const ines = await of.browser('Ines Calloway');
  const templateId = await newTemplate(ines, { name: 'Round' });
  const [found] = await of.source.query<Record<string, string>[]>(
    `select (select id from task where state = 'open' limit 1) as "taskId", (select id from run limit 1) as "runId",
       (select id from change limit 1) as "changeId", (select id from file limit 1) as "fileId",
       (select id from mail limit 1) as "mailId", (select id from asset where client_id is not null limit 1) as "assetId",
       (select id from client limit 1) as "clientId", (select id from leave where state = 'asked' limit 1) as "leaveId",
       (select id from turn_swap where state = 'asked' limit 1) as "swapId",
       (select id from task_view limit 1) as "viewId", (select id from notice_letter limit 1) as "letterId",
       (select id from mail_part limit 1) as "partId",
       (select id from service_plan limit 1) as "planId", (select id from on_plan limit 1) as "onPlanId",
       (select id from answer limit 1) as "answerId",
       (select id from call_quota limit 1) as "quotaId", (select id from call limit 1) as "callId"`,
  );
  const schedule = await scheduleNamed(ines, 'Fire points', 'Long Quay');
  const person = await of.person('Nadia Orme');
  const list = Buffer.from('client\nPiran Lusk');
  const { body: file } = await ines
    .post('/api/bring-ins')
    .field('kind', 'clients')
    .attach('file', list, 'a.csv')
    .expect(200);
  const { body: pushed } = await ines
    .post('/api/push')
    .send({ endpoint: 'https://push.example/1', keys: { p256dh: 'A'.repeat(87), auth: 'A'.repeat(22) }, name: 'phone' })
    .expect(200);
  const [{ id: deviceId }] = pushed.devices;
  const { body: calendar } = await ines.post('/api/calendars').send({ kind: 'person', id: person.id }).expect(200);
  const calendarId = calendar.calendar.id;
  const { body: made } = await ines.post('/api/tokens').send({ name: 'A', scope: 'read', endsOn: null }).expect(200);
  const tokenId = made.tokens[0].id;
  const hook = { name: 'A', url: 'https://hooks.example/a', events: ['task.made'], isOn: true };
  const { body: hooks } = await ines.post('/api/webhooks').send(hook).expect(200);
  const webhookId = hooks.webhooks[0].id;
  await of.source.query(
    `insert into webhook_delivery (workspace_id, id, webhook_id, event, task_id, task, at, state, tries, try_at)
     select workspace_id, gen_random_uuid(), id, 'task.made', gen_random_uuid(), '{}', now(), 'sent', 1, now() from webhook where id = $1`,
    [webhookId],
  );
  const [delivery] = await of.source.query<{ id: string }[]>('select id from webhook_delivery where webhook_id = $1', [
    webhookId,
  ]);
  const deliveryId = delivery?.id ?? '';
  const { body: backup } = await ines.post('/api/backups').send({}).expect(200);
  const backupId = backup.backups[0].id;
  return {
    ...found,
    deviceId,
    backupId,
    tokenId,
    webhookId,
    deliveryId,
    calendarId,
    templateId,
    scheduleId: schedule.id,
    personId: person.id,
    bringInId: file.id,
  };
}

const endpoints: contract.Endpoint[] = Object.entries(contract)
  .filter(([name]) => name.endsWith('Endpoints'))
  .flatMap(([, group]) => Object.values(group as object));
const named = endpoints.map((one): [string, contract.Endpoint] => [`${one.method} ${one.path}`, one]);
/** These are asked by whoever shows a link, signed in or not. */
const BY_LINK = /^\/(link|no-mails)(\/|$)/;
/** These as well, by programs that show its key in the address. */
const BY_KEY = /^\/calendar\.ics$/;
const isByLink = ({ path }: contract.Endpoint) => BY_LINK.test(path);
/** Whoever is signed out may ask these. */
const OPEN = /^\/(session(\/demo)?|setup|setup\/.*|welcome|invitations\/.*|password\/.*|account\/address\/confirm)$/;
const isOpen = ({ path }: contract.Endpoint) => OPEN.test(path) || BY_LINK.test(path) || BY_KEY.test(path);
const addressOf = ({ path }: contract.Endpoint, of: Ids = ids) =>
  `/api${path.replace(/:(\w+)/g, (_, name: string) => of[name] ?? '')}`;
const ask = (by: Agent, one: contract.Endpoint, body: object = {}, of: Ids = ids) => {
  const verb = { GET: by.get, POST: by.post, PUT: by.put, DELETE: by.delete }[one.method];
  const request = verb.call(by, addressOf(one, of));
  return one.method === 'GET' ? request : request.send(body);
};

describe('every route', () => {
  it('is there to be tried, with an id for each parameter', () => {
    expect(named.length).toBeGreaterThan(50);
    for (const [, one] of named) expect(addressOf(one)).not.toMatch(/\/(\/|$)|undefined/);
  });

  it.each(named.filter(([, one]) => !isOpen(one)))('%s asks for who it is', async (_, one) => {
    await ask(await server.browser(), one).expect(401);
  });

  it.each(named.filter(([, one]) => isByLink(one)))('%s asks for a link, whoever is signed in', async (_, one) => {
    const { status, body } = await ask(ada, one);
    expect([status, body.detail]).toEqual([409, expect.stringContaining(' is not known here')]);
  });

  it('asks for a key where a program asks for a calendar, whoever is signed in', async () => {
    for (const search of ['', '?key=', '?key=guessed', '?key=a&key=b'])
      await ada.get(`/api/calendar.ics${search}`).expect(404);
  });

  it.each(named.filter(([, one]) => one.path.includes(':') && !isByLink(one)))(
    '%s shows and changes nothing of another workspace',
    async (_, one) => {
      const { status } = await ask(ada, one);
      // What is sent is looked at first: then the fault is told, and nothing of what is there.
      expect([404, 422]).toContain(status);
    },
  );

  it.each(named.filter(([, { method }]) => method !== 'GET'))(
    '%s refuses in words what makes no sense',
    async (_, one) => {
      // Of those, some end the session: they have one of their own.
      const by = /^\/(account|session)/.test(one.path) ? await server.browser('Ada Winn') : ada;
      for (const body of fc.sample(fc.object({ maxDepth: 2, withNullPrototype: false }), { numRuns: 4, seed: 7 })) {
        const { status, headers } = await ask(by, one, body);
        if (status >= 400)
          expect([status < 500, headers['content-type']]).toEqual([true, expect.stringContaining('problem+json')]);
      }
    },
  );
});

/** Values that stand where something sensible is expected. */
const NASTY = [null, -1, 1.5, 1e12, '', ' ', 'x'.repeat(3000), '0001-01-01', '9999-12-31', '24:00', [], {}, true];

/** The same value over and over, each time with one part of it replaced. */
function* spoilt(value: unknown): Generator<unknown> {
  yield* NASTY;
  if (value === null || typeof value !== 'object') return;
  for (const [key, member] of Object.entries(value))
    for (const other of spoilt(member)) {
      if (Array.isArray(value)) yield value.map((one, i) => (String(i) === key ? other : one));
      else yield { ...value, [key]: other };
    }
}

describe('a body with one part of it spoilt', () => {
  /** Of its own, so that the limit of requests a minute is not reached. */
  let own: TestServer;
  beforeAll(async () => {
    own = await testServer();
  });
  afterAll(() => own.stop());

  it('is taken or refused, and never makes the server fall over', async () => {
    const by = await own.browser('Ines Calloway');
    const kit = (await own.person('Kit Sorrell')).id;
    const round = await newTemplate(by, { name: 'Round' });
    const [task] = await own.source.query<{ id: string; version: number }[]>(
      `select id, version from task where state = 'open' and work_on > '2026-12-01' order by id limit 1`,
    );
    const line = { title: 'Rinse the hoist', on: '2026-11-24', dueOn: '2026-11-24', startTime: '09:00', dueTime: null };
    const bodies: [string, object][] = [
      ['/schedules', plainInput(round, { assignment: givenTo(kit) })],
      ['/fills/rehearsal', { from: '2027-01-01', to: '2027-01-31', scheduleIds: [] }],
      ['/tasks', { ...line, assigneeId: kit, clientId: null, assetId: null, estimateMinutes: 30 }],
      [`/people/${kit}/leave/impact`, { from: '2026-12-01', to: '2026-12-04', half: null, note: '' }],
      [
        '/letters',
        {
          name: 'A',
          workType: null,
          language: 'en-GB',
          subject: '{date}',
          body: [{ kind: 'bullet', runs: [{ text: 'x' }] }],
        },
      ],
      ['/notices/look', { tasks: [task?.id], language: 'en-GB', issuedOn: '2026-11-24', reason: 'x' }],
      ['/tasks/changes/impact', { tasks: [task], deed: { kind: 'move', by: { amount: 2, unit: 'workingDay' } } }],
    ];
    const answers: { readonly path: string; readonly body: unknown; readonly status: number }[] = [];
    for (const [path, whole] of bodies)
      for (const body of spoilt(whole))
        if (body !== null && typeof body === 'object')
          answers.push({ path, body, status: (await by.post(`/api${path}`).send(body)).status });
    expect(answers.length).toBeGreaterThan(500);
    expect(answers.filter(({ status }) => status >= 500 || status === 429)).toEqual([]);
  }, 60_000);
});

/** What each endpoint takes, said once more: by whoever adds one, not by the route. */
const TAKES: Readonly<Record<string, Right>> = {
  'PUT /files/:fileId/kept': 'work',
  'POST /files': 'work',
  'DELETE /files/:fileId': 'work',
  'GET /settings/history': 'settings',
  'GET /templates/deleted': 'plan',
  'POST /changes/:changeId/undo': 'undo',
  'POST /changes/:changeId/undo/impact': 'undo',
  'POST /schedules/:scheduleId/runs': 'plan',
  'POST /runs': 'plan',
  'POST /fills/rehearsal': 'plan',
  'POST /fills': 'plan',
  'POST /runs/:runId/undo': 'plan',
  'POST /wallchart/marks': 'read',
  'POST /wallchart/changes': 'plan',
  'POST /wallchart/changes/impact': 'plan',
  'POST /wallchart/schedules': 'plan',
  'POST /wallchart/schedules/impact': 'plan',
  'POST /schedules/whole': 'read',
  'POST /schedules': 'plan',
  'PUT /schedules/:scheduleId': 'plan',
  'POST /schedules/:scheduleId/impact': 'plan',
  'POST /schedules/changes': 'plan',
  'POST /schedules/changes/impact': 'plan',
  'GET /retention/next': 'settings',
  'GET /retention/past': 'read',
  'GET /settings': 'settings',
  'PUT /settings': 'settings',
  'POST /settings/impact': 'settings',
  'GET /settings/lists': 'settings',
  'PUT /settings/lists': 'settings',
  'GET /settings/countries': 'settings',
  'GET /settings/public-holidays': 'settings',
  'POST /tasks/:taskId/start': 'work',
  'POST /tasks/:taskId/claim': 'claim',
  'POST /tasks/:taskId/give-back': 'work',
  'POST /tasks/:taskId/finish': 'work',
  'POST /tasks/:taskId/skip': 'work',
  'PUT /tasks/:taskId/ticks': 'work',
  'PUT /tasks/:taskId/note': 'work',
  'PUT /tasks/:taskId/pin': 'work',
  'PUT /tasks/:taskId/answers': 'work',
  'POST /tasks/:taskId/sign': 'sign',
  'POST /tasks/:taskId/send-back': 'sign',
  'POST /tasks/:taskId/hold-up': 'work',
  'POST /tasks/:taskId/go-on': 'work',
  'POST /tasks/nudges': 'nudge',
  'POST /messages/chase': 'nudge',
  'GET /messages/chase/:scheduleId': 'nudge',
  'POST /push': 'account',
  'DELETE /push/:deviceId': 'account',
  'GET /calendars': 'account',
  'GET /tokens': 'account',
  'POST /tokens': 'account',
  'DELETE /tokens/:tokenId': 'account',
  'GET /lists/clients': 'clients',
  'GET /lists/assets': 'clients',
  'GET /lists/people': 'people',
  'GET /lists/templates': 'plan',
  'GET /lists/schedules': 'plan',
  'GET /lists/tasks': 'read',
  'GET /webhooks': 'settings',
  'POST /webhooks': 'settings',
  'PUT /webhooks/:webhookId': 'settings',
  'DELETE /webhooks/:webhookId': 'settings',
  'GET /webhooks/:webhookId/deliveries': 'settings',
  'POST /webhook-deliveries/:deliveryId/again': 'settings',
  'GET /papers/day.pdf': 'read',
  'GET /papers/week.pdf': 'read',
  'GET /papers/client.pdf': 'read',
  'GET /papers/calls.pdf': 'read',
  'GET /people/:personId/everything': 'account',
  'GET /backups': 'settings',
  'POST /backups': 'settings',
  'PUT /backups/plan': 'settings',
  'DELETE /backups/:backupId': 'settings',
  'POST /calendars': 'account',
  'POST /calendars/:calendarId/renewal': 'account',
  'DELETE /calendars/:calendarId': 'account',
  'GET /calendars/file.ics': 'read',
  'GET /push': 'account',
  'POST /answers/:answerId/place': 'post',
  'POST /answers/:answerId/put-away': 'post',
  'POST /answers/parts/:partId/take': 'work',
  'POST /post/:mailId/answer': 'post',
  'POST /mails-again': 'clients',
  'POST /tasks/:taskId/comments': 'comment',
  'GET /bell': 'account',
  'POST /bell/read': 'account',
  'PUT /tasks/:taskId': 'edit',
  'POST /tasks/:taskId/edit-impact': 'edit',
  'POST /tasks/changes': 'work',
  'POST /tasks/changes/impact': 'work',
  'POST /tasks/:taskId/into-template': 'plan',
  'POST /tasks': 'begin',
  'POST /templates': 'plan',
  'PUT /templates/:templateId': 'plan',
  'POST /templates/:templateId/impact': 'plan',
  'PUT /templates/:templateId/archived': 'plan',
  'DELETE /templates/:templateId': 'plan',
  'PUT /templates/:templateId/favourite': 'account',
  'POST /templates/:templateId/start': 'begin',
  'GET /tasks/:taskId/as-template': 'plan',
  'POST /task-list/views': 'account',
  'PUT /task-list/views/:viewId': 'account',
  'DELETE /task-list/views/:viewId': 'account',
  'GET /account/sessions': 'account',
  'POST /account/sessions/end': 'account',
  'PUT /account/password': 'account',
  'PUT /account/ways': 'account',
  'PUT /workspace/lists': 'plan',
  'GET /account/workspaces': 'account',
  'POST /account/address': 'account',
  'POST /session/workspace': 'account',
  'POST /people': 'people',
  'PUT /people/:personId': 'people',
  'POST /people/:personId/invitation': 'people',
  'DELETE /people/:personId/invitation': 'people',
  'GET /people/:personId/held': 'people',
  'POST /people/:personId/hand-over': 'people',
  'POST /people/:personId/hand-over/impact': 'people',
  'GET /people/:personId/history': 'people',
  'POST /tasks/:taskId/swaps': 'swap',
  'PUT /swaps/:swapId/state': 'swap',
  'POST /people/:personId/impact': 'people',
  'GET /people/:personId/clock': 'clock',
  'POST /people/:personId/clock/on': 'clock',
  'POST /people/:personId/clock/off': 'clock',
  'POST /people/:personId/clock/take-back': 'clock',
  'POST /people/:personId/leave': 'leave',
  'POST /people/:personId/leave/impact': 'leave',
  'PUT /leave/:leaveId/state': 'people',
  'POST /leave/:leaveId/impact': 'people',
  'POST /leave/:leaveId/take-back': 'leave',
  'POST /workload/moves': 'give',
  'POST /clients': 'clients',
  'PUT /clients/:clientId': 'clients',
  'PUT /clients/:clientId/archived': 'clients',
  'POST /clients/:clientId/archived/impact': 'clients',
  'POST /clients/:clientId/merge': 'clients',
  'POST /clients/:clientId/merge/look': 'clients',
  'POST /assets': 'clients',
  'PUT /assets/:assetId': 'clients',
  'PUT /assets/:assetId/archived': 'clients',
  'POST /assets/:assetId/archived/impact': 'clients',
  'POST /bring-ins': 'clients',
  'GET /bring-ins': 'clients',
  'GET /lists/schedules.ics': 'plan',
  'GET /clients/:clientId/erasing': 'settings',
  'POST /clients/:clientId/erase': 'settings',
  'GET /people/:personId/erasing': 'people',
  'POST /people/:personId/erase': 'people',
  'GET /bring-ins/:bringInId': 'clients',
  'GET /bring-ins/:bringInId/rows': 'clients',
  'GET /bring-ins/:bringInId/for-plan': 'clients',
  'PUT /bring-ins/:bringInId': 'clients',
  'POST /bring-ins/:bringInId/impact': 'clients',
  'POST /bring-ins/:bringInId/bring-in': 'clients',
  'DELETE /bring-ins/:bringInId': 'clients',
  'GET /messages': 'account',
  'PUT /messages/summary': 'account',
  'PUT /messages/kinds': 'account',
  'PUT /messages/quiet': 'account',
  'POST /messages/summary/now': 'account',
  'GET /answers': 'post',
  'GET /tasks/:taskId/answers': 'read',
  'GET /clients/:clientId/answers': 'read',
  'GET /post': 'post',
  'GET /post/:mailId': 'post',
  'GET /mail-parts/:partId': 'post',
  'POST /post/:mailId/again': 'post',
  'GET /visits': 'read',
  'GET /visits/weeks': 'read',
  'GET /letters': 'read',
  'POST /letters': 'plan',
  'PUT /letters/:letterId': 'plan',
  'DELETE /letters/:letterId': 'plan',
  'POST /notices/look': 'plan',
  'POST /notices': 'plan',
  'POST /notices/sent': 'plan',
  'POST /notices/none': 'plan',
  'GET /notices': 'read',
  'GET /notices.pdf': 'read',
  'GET /plans': 'read',
  'GET /plans/:planId': 'read',
  'GET /plans/:planId/clients': 'read',
  'GET /clients/:clientId/plans': 'read',
  'POST /quotas': 'plan',
  'POST /quotas/look': 'plan',
  'POST /quotas/several': 'plan',
  'POST /quotas/several/look': 'plan',
  'PUT /quotas/:quotaId': 'plan',
  'POST /calls/:callId/rung': 'work',
  'POST /calls/:callId/later': 'work',
  'POST /calls/:callId/off': 'work',
  'POST /calls/:callId/swap': 'work',
  'POST /calls/more': 'work',
  'POST /calls/share-out': 'plan',
  'POST /calls/share-out/look': 'plan',
  'POST /plans': 'plan',
  'PUT /plans/:planId': 'plan',
  'POST /plans/:planId/impact': 'plan',
  'POST /plan-look': 'plan',
  'PUT /plans/:planId/archived': 'plan',
  'POST /plans/:planId/clients': 'plan',
  'POST /plans/:planId/clients/look': 'plan',
  'GET /on-plan/rolling': 'read',
  'POST /on-plan/roll': 'plan',
  'POST /on-plan/roll/impact': 'plan',
  'POST /plans/:planId/gathered': 'plan',
  'POST /on-plan/off': 'plan',
  'POST /on-plan/off/impact': 'plan',
  'POST /on-plan/:onPlanId/left-out': 'plan',
  'POST /on-plan/:onPlanId/left-out/impact': 'plan',
  'POST /plans/:planId/as-plan': 'plan',
  'POST /plans/:planId/as-plan/impact': 'plan',
  'GET /tasks/:taskId/asked': 'read',
  'POST /tasks/:taskId/asked': 'give',
  'DELETE /tasks/:taskId/asked': 'give',
};

describe('access', () => {
  /** Of its own, so that the limit of requests a minute is not reached. */
  let own: TestServer;
  let its: Ids;
  beforeAll(async () => {
    own = await testServer();
    its = await idsOf(own);
  });
  afterAll(() => own.stop());
  const closed = named.filter(([, one]) => !isOpen(one));

  it('is said here of every endpoint that does more than tell', () => {
    const told = closed.filter(([name]) => !(name in TAKES)).map(([name]) => name);
    expect(told.filter((name) => !name.startsWith('GET '))).toEqual([]);
    expect(Object.keys(TAKES).filter((name) => !closed.some(([known]) => known === name))).toEqual([]);
  });

  it.each([
    ['viewer', 'Odile Marsh'],
    ['member', 'Nadia Orme'],
    ['planner', 'Maud Ferrier'],
    ['manager', 'Ines Calloway'],
  ] as const)('of a %s goes as far as the table says, on every endpoint', async (access, who) => {
    const by = await own.browser(who);
    const found: string[] = [];
    for (const [name, one] of closed) {
      const reach = reachOf(access, TAKES[name] ?? 'read');
      const { status } = await ask(by, one, {}, its);
      // Of what may be done to one's own the service decides, which has its own tests.
      if (reach === 'own' ? status === 401 : (status === 403) !== (reach === 'none'))
        found.push(`${name} answers ${status} where the reach is ${reach}`);
    }
    expect(found).toEqual([]);
  });
});
