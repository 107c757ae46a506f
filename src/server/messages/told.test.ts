import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { BellLine, Chased } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { gapsToTell } from '../availability/index.ts';
import { poolsToTell } from '../calls/index.ts';
import { noticesToTell } from '../notices/index.ts';
import { noticesReminded } from '../notices/visits.ts';
import { TEST_NOW } from '../testing/clock.ts';
import { type Crew, crewOf } from '../testing/crew.ts';
import { plainInput, weekly } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo, newTemplate, startedTasks } from '../testing/work.ts';
import { hear, tellNoted } from './index.ts';

let server: TestServer;
let crew: Crew;
let ines: Agent;
let nadia: Agent;
let template: string;
beforeAll(async () => {
  server = await testServer();
  crew = await crewOf(server);
  ({ ines } = crew);
  nadia = await server.browser('Nadia Orme');
  template = await newTemplate(ines, { name: 'Hose reels', titlePattern: 'Hose reels' });
});
afterAll(() => server.stop());

/** As if nobody had been told of anything, up to now. */
beforeEach(async () => {
  server.clock.set(TEST_NOW);
  await tellNoted(await server.scope());
  await server.source.query(
    `delete from message; delete from message_count; delete from message_wish; delete from told_once; delete from mail; delete from told_to;
     delete from leave; delete from untold`,
  );
});
afterEach(() => server.clock.set(TEST_NOW));

async function at<T>(moment: string, work: () => Promise<T>): Promise<T> {
  server.clock.set(moment);
  return work();
}
const told = async () => hear(await server.scope(), server.address);
const bell = async (by: Agent): Promise<{ unread: number; lines: BellLine[]; isMore: boolean }> =>
  (await by.get('/api/bell').expect(200)).body;
const said = async (by: Agent) =>
  (await bell(by)).lines.map(({ kind, side, title, text }) => `${kind} ${side}: ${title} | ${text}`);
const mails = (): Promise<{ to: string; subject: string; text: string }[]> =>
  server.source.query(`select to_name as "to", subject, text from mail where kind = 'message' order by id`);
const started = (assignee: string | null, on = '2026-11-26') =>
  startedTasks(ines, template, assignee, [{ step: '', on }]).then(([id]) => id ?? '');

describe('what is done with a task', () => {
  it('reaches whoever it is given to, taken from and answered for, in words, once; and nobody of what they did themselves', async () => {
    const id = await started(crew.id('Nadia'));
    await told();
    expect(await said(nadia)).toEqual(['new mine: Hose reels | yours now, due Thu 26 Nov, from Ines Calloway']);
    expect(await said(ines)).toEqual([]);
    await doTo(ines, id, { kind: 'give', personId: crew.id('Kit') });
    await told();
    await told();
    expect((await said(nadia)).at(0)).toBe('hands mine: Hose reels | Kit Sorrell has it now, changed by Ines Calloway');
    const kit = await server.browser('Kit Sorrell');
    expect(await said(kit)).toEqual(['hands mine: Hose reels | yours now, due Thu 26 Nov, from Ines Calloway']);
    const [line] = (await bell(kit)).lines;
    expect(line?.path).toBe(`/tasks/task/${id}?due=any`);
    // It is the manager's own deed that is told of; whoever else plans hears of it where they chose to.
    expect(await said(ines)).toEqual([]);
    await kit.post(`/api/tasks/${id}/start`).send({}).expect(200);
    await kit.post(`/api/tasks/${id}/finish`).send({}).expect(200);
    await ines
      .put('/api/messages/kinds')
      .send({ side: 'gave', kind: 'finished', wish: { here: true, mail: false, phone: false } })
      .expect(200);
    await told();
    expect(await said(ines)).toEqual(['finished gave: Hose reels | finished by Kit Sorrell']);
  });

  it('that comes to nothing before it is told is nothing; of many it is one line', async () => {
    const id = await started(crew.id('Nadia'));
    await told();
    const { changeId } = await doTo(ines, id, { kind: 'give', personId: crew.id('Kit') });
    await crew.undo(changeId);
    const ids: string[] = [];
    for (const day of ['27', '30', '28']) ids.push(await started(crew.id('Nadia'), `2026-11-${day}`));
    await told();
    expect(await said(nadia)).toEqual([
      'new mine: 3 tasks are yours from Fri 27 Nov | Hose reels',
      'new mine: Hose reels | yours now, due Thu 26 Nov, from Ines Calloway',
    ]);
    expect((await bell(nadia)).lines[0]).toMatchObject({ times: 3, path: `/tasks?person=${crew.id('Nadia')}&due=any` });
    // What is taken out is told too, though it is gone.
    await doTo(ines, ids[0], { kind: 'delete' });
    await told();
    expect((await said(nadia))[0]).toBe('hands mine: Hose reels | taken out by Ines Calloway');
    expect((await bell(nadia)).unread).toBe(3);
  });

  it('reaches whoever gave it, though they answer for nothing else', async () => {
    const [id = ''] = await startedTasks(nadia, template, crew.id('Kit'), [{ step: '', on: '2026-11-24' }]);
    await told();
    // Due by the end of the day: late to whoever has it an hour later, to whoever gave it after four.
    await at('2026-11-25T04:00', told);
    expect(await said(nadia)).toContain('late gave: Hose reels | late: due Tue 24 Nov, Kit Sorrell');
    const kit = await server.browser('Kit Sorrell');
    expect((await said(kit)).some((line) => line.startsWith('late mine: '))).toBe(true);
    await kit.post(`/api/tasks/${id}/start`).send({}).expect(200);
    await kit.post(`/api/tasks/${id}/finish`).send({}).expect(200);
    await told();
    expect((await said(nadia))[0]).toBe('finished gave: Hose reels | finished by Kit Sorrell');
  });

  it('is noted in its own transaction: what is only looked at is told to nobody', async () => {
    const id = await started(crew.id('Nadia'));
    await told();
    await doTo(ines, id, { kind: 'give', personId: crew.id('Kit') }, 200, '/impact');
    expect(await server.source.query('select 1 from untold')).toEqual([]);
    await told();
    expect(await said(nadia)).toHaveLength(1);
  });

  it('of three that tell at once it is told by one', async () => {
    await started(crew.id('Nadia'));
    await started(crew.id('Nadia'), '2026-11-27');
    await Promise.all([told(), told(), told()]);
    const [line] = (await bell(nadia)).lines;
    expect((await bell(nadia)).lines).toHaveLength(1);
    expect(line?.times).toBe(2);
  });
});

describe('by mail', () => {
  /** How many Nadia Orme has had by a moment. */
  const toNadia = async (moment: string) => {
    await at(moment, told);
    return (await mails()).filter(({ to }) => to === 'Nadia Orme').length;
  };

  it('it goes once it is gathered, all of a person’s in one; not within quiet hours, nor on days off', async () => {
    await told();
    const id = await started(crew.id('Kit'));
    await doTo(ines, id, { kind: 'give', personId: crew.id('Nadia') });
    // Given by somebody at first: what is new does not go by mail unless it is chosen.
    await nadia
      .put('/api/messages/kinds')
      .send({ side: 'mine', kind: 'new', wish: { here: false, mail: true, phone: false } })
      .expect(200);
    await started(crew.id('Nadia'), '2026-11-27');
    expect(await toNadia(TEST_NOW)).toBe(0);
    expect(await toNadia('2026-11-24T10:42')).toBe(1);
    expect(await toNadia('2026-11-24T10:50')).toBe(1);
    const [mail] = await mails();
    expect(mail).toMatchObject({ to: 'Nadia Orme', subject: 'New work: 2 tasks are yours from Thu 26 Nov' });
    expect(mail?.text).toContain('Open: http');
    // Wished for by mail alone: the bell does not ring.
    expect(await said(nadia)).toEqual([]);
    // At night it waits for the morning, gathered; a Saturday waits for Monday.
    server.clock.set('2026-11-24T22:00');
    await started(crew.id('Nadia'), '2026-11-30');
    await told();
    expect(await toNadia('2026-11-25T06:59')).toBe(1);
    expect(await toNadia('2026-11-25T07:00')).toBe(2);
    server.clock.set('2026-11-28T12:00');
    await started(crew.id('Nadia'), '2026-12-02');
    await told();
    const working = (await crew.ines.get('/api/team').expect(200)).body.members.find(
      ({ name }: { name: string }) => name === 'Nadia Orme',
    );
    expect(working.weeks[0][5]).toBe(0);
    expect(await toNadia('2026-11-29T12:00')).toBe(2);
    expect(await toNadia('2026-11-30T07:00')).toBe(3);
  });

  it('whoever is named hears by mail as they wish it', async () => {
    const id = await started(crew.id('Kit'));
    await ines
      .post(`/api/tasks/${id}/comments`)
      .send({ key: crypto.randomUUID(), text: '@Nadia Orme can you help?', named: [crew.id('Nadia')] })
      .expect(200);
    expect(await said(nadia)).toEqual(['named mine: Hose reels | Ines Calloway named you: @Nadia Orme can you help?']);
    await told();
    expect(await at('2026-11-24T10:42', told)).toBeGreaterThan(0);
    expect((await mails()).filter(({ to }) => to === 'Nadia Orme')).toHaveLength(1);
    await nadia
      .put('/api/messages/kinds')
      .send({ side: 'mine', kind: 'named', wish: { here: false, mail: false, phone: false } })
      .expect(422);
    await nadia
      .put('/api/messages/kinds')
      .send({ side: 'gave', kind: 'run', wish: { here: true, mail: false, phone: false } })
      .expect(422);
  });
});

describe('what comes with the time', () => {
  /** Work of each working day for Nadia, due at noon, and nothing else that is open. */
  const scheduled = async (reminders: object[]) => {
    const input = plainInput(template);
    const { body } = await ines
      .post('/api/schedules')
      .send({
        ...{ ...input, assignment: givenTo(crew.id('Nadia')), timing: { ...input.timing, reminders } },
        recurrence: { ...weekly(1), rules: [{ kind: 'weeks', every: 1, on: [1, 2, 3, 4, 5] }] },
      })
      .expect(200);
    const { schedule } = body;
    await server.source.query(
      `update task set state = 'done', done_at = now() where state in ('open', 'underWay') and schedule_id <> $1`,
      [schedule.id],
    );
    await tellNoted(await server.scope());
    await server.source.query('delete from message; delete from mail; delete from message_count');
    return schedule;
  };

  it('reminds as the schedule plans it, follows a move, and tells what is late once', async () => {
    const schedule = await scheduled([{ offset: { amount: -1, unit: 'workingDay' }, time: '15:00' }]);
    await told();
    const tasks = await crew.tasks(schedule.id);
    const [first, second] = tasks.filter(({ on }) => on > '2026-11-24');
    // Tomorrow's moves to Friday: it is reminded of on Thursday, and not today.
    await doTo(ines, first?.id, { kind: 'moveTo', on: '2026-11-27' });
    await tellNoted(await server.scope());
    await server.source.query('delete from message');
    await at('2026-11-24T15:00', told);
    expect((await said(nadia)).filter((line) => line.startsWith('reminder'))).toEqual([]);
    await at('2026-11-25T15:00', told);
    expect((await said(nadia)).filter((line) => line.startsWith('reminder'))).toHaveLength(1);
    expect((await bell(nadia)).lines.find(({ kind }) => kind === 'reminder')?.path).toContain(second?.id);
    await at('2026-11-26T14:59', told);
    await at('2026-11-26T15:00', told);
    await at('2026-11-26T15:01', told);
    const reminded = (await bell(nadia)).lines.filter(({ kind }) => kind === 'reminder');
    expect(reminded.map(({ times }) => times)).toEqual([2, 1]);
    // Of tasks due at noon it is told an hour later that they are late, to whoever has them and to whoever answers for it.
    const late = (await bell(ines)).lines.filter(({ kind }) => kind === 'late');
    expect(late.length).toBeGreaterThan(0);
    expect((await said(nadia)).some((line) => /^late mine: Hose reels \| late: due /.test(line))).toBe(true);
  });

  it('goes on to those who answer for it, and to a deputy, after the hours that the workspace says', async () => {
    const { body: settings } = await ines.get('/api/settings').expect(200);
    await ines
      .put('/api/settings')
      .send({ ...settings, escalation: { own: null, answering: 2, deputy: 5 } })
      .expect(200);
    await crew.changed('Nadia', { deputyId: crew.id('Kit') });
    const kit = await server.browser('Kit Sorrell');
    await scheduled([]);
    await at('2026-11-25T13:59', told);
    await server.source.query('delete from message');
    const late = async (by: Agent) => (await said(by)).filter((line) => line.startsWith('late'));
    await at('2026-11-25T14:00', told);
    expect(await late(nadia)).toEqual([]);
    expect(await late(ines)).toEqual(['late gave: Hose reels | late: due Wed 25 Nov, Nadia Orme']);
    expect(await late(kit)).toEqual([]);
    await at('2026-11-25T17:00', told);
    expect(await late(ines)).toHaveLength(1);
    expect(await late(kit)).toEqual(['late gave: Hose reels | late: due Wed 25 Nov, Nadia Orme']);
    await crew.allThere();
    const { body: now } = await ines.get('/api/settings').expect(200);
    await ines
      .put('/api/settings')
      .send({ ...now, escalation: settings.escalation })
      .expect(200);
    await ines
      .put('/api/settings')
      .send({ ...now, escalation: { ...settings.escalation, own: 0 } })
      .expect(422);
  });

  it('goes on after the hours that its template says, where that says so itself', async () => {
    const of = (await ines.get(`/api/templates/${template}`).expect(200)).body;
    const save = (escalation: object | null) =>
      ines
        .put(`/api/templates/${template}`)
        .send({ ...of, version: version++, escalation })
        .expect(200);
    let { version } = of;
    await save({ own: null, answering: 2, deputy: null });
    try {
      const id = await started(crew.id('Nadia'), '2026-11-24');
      await told();
      await server.source.query('delete from message');
      const ofIt = async (by: Agent) =>
        (await bell(by)).lines
          .filter(({ kind, path }) => kind === 'late' && path.includes(id))
          .map(({ side, text }) => `${side}: ${text}`);
      await at('2026-11-25T01:59', told);
      expect([await ofIt(nadia), await ofIt(ines)]).toEqual([[], []]);
      await at('2026-11-25T02:00', told);
      expect([await ofIt(nadia), await ofIt(ines)]).toEqual([[], ['gave: late: due Tue 24 Nov, Nadia Orme']]);
      await server.source.query('delete from task where id = $1', [id]);
    } finally {
      await save(null);
    }
  });

  it('is gathered after a week without a server, and never told twice', async () => {
    await scheduled([{ offset: { amount: 0, unit: 'day' }, time: '08:00' }]);
    await told();
    await at('2026-12-01T12:00', told);
    const lines = (await bell(nadia)).lines.filter(({ kind }) => kind === 'reminder' || kind === 'late');
    expect(lines.map(({ kind }) => kind).sort()).toEqual(['late', 'reminder']);
    expect(lines.every(({ times }) => times >= 4)).toBe(true);
    await server.source.query(`update told_to set at = '2026-11-24T10:40Z'`);
    await at('2026-12-01T12:00', told);
    expect((await bell(nadia)).lines.filter(({ kind }) => kind === 'reminder' || kind === 'late')).toHaveLength(2);
  });
});

describe('what is asked and what goes wrong', () => {
  it('reaches whoever decides, and whoever asked', async () => {
    await nadia
      .post(`/api/people/${crew.id('Nadia')}/leave`)
      .send(crew.leaveOf('2026-12-10'))
      .expect(200);
    await told();
    expect(await said(ines)).toEqual([
      'asked gave: Nadia Orme asks for Thu 10 Dec off | See what it would change before you decide',
    ]);
    expect(await said(nadia)).toEqual([]);
  });

  it('tells of a mail that is refused here alone', async () => {
    await server.source.query(
      `insert into mail (workspace_id, id, reason, kind, to_name, to_email, subject, text, html, is_private, state, created_at, tries, try_at, answer_key)
       select id, gen_random_uuid(), 'test', 'notice', 'Nell', 'nell@nowhere.example', 'Visit', '', '', false, 'waiting', now(), 0, now() + interval '1 hour', gen_random_uuid()::text
       from workspace where name = 'Tern Quay'`,
    );
    await server.source.query(`update mail set state = 'refused', trouble = '550 no such box' where reason = 'test'`);
    await told();
    expect(await said(ines)).toEqual([
      'mail gave: The mail to Nell was refused | Visit, nell@nowhere.example: 550 no such box',
    ]);
    await told();
    expect(await at('2026-11-24T10:50', told)).toBe(0);
    // On the page of the client whose contact it is as well, until one arrives.
    const [contact] = await server.source.query<{ clientId: string; email: string }[]>(
      `select client_id as "clientId", email from contact where email <> '' order by id limit 1`,
    );
    await server.source.query(`update mail set to_email = upper($1) where reason = 'test'`, [contact?.email]);
    const client = async () => (await ines.get(`/api/clients/${contact?.clientId}`).expect(200)).body;
    expect((await client()).refused).toMatchObject([
      { email: contact?.email.toLowerCase(), times: 1, trouble: '550 no such box' },
    ]);
    await server.source.query(
      `insert into mail (workspace_id, id, reason, kind, to_name, to_email, subject, text, html, is_private, state, created_at, tries, try_at, answer_key)
       select workspace_id, 'ffffffff-0000-7000-8000-000000000001', 'later', kind, to_name, to_email, subject, text, html, false, 'sent', now(), 1, now(), gen_random_uuid()::text
       from mail where reason = 'test'`,
    );
    expect((await client()).refused).toEqual([]);
  });
});

describe('what others say and do', () => {
  it('is told by whom it concerns: a comment, once where they are named in it', async () => {
    const id = await started(crew.id('Nadia'));
    await told();
    const say = (by: Agent, text: string, named: string[] = []) =>
      by.post(`/api/tasks/${id}/comments`).send({ key: randomUUID(), text, named }).expect(200);
    await say(ines, 'The hinge is worn');
    await say(ines, '@Nadia Orme look at it', [crew.id('Nadia')]);
    await say(nadia, 'It is ordered');
    await told();
    expect((await said(nadia)).slice(0, 2).sort()).toEqual([
      'comment mine: Hose reels | Ines Calloway: The hinge is worn',
      'named mine: Hose reels | Ines Calloway named you: @Nadia Orme look at it',
    ]);
    expect(await said(nadia)).toHaveLength(3);
    // Whoever gave it would hear of it where they chose to: those who plan do not, as it begins.
    expect(await said(ines)).toEqual([]);
  });

  it('is offered to anyone of a role: those who are there on its day hear of it', async () => {
    const id = await started(crew.id('Nadia'));
    await told();
    await server.source.query(
      `update task set assignee_id = null, offered_to = '{"of": "people", "ids": ["${crew.id('Kit')}", "${crew.id('Nadia')}"]}' where id = $1`,
      [id],
    );
    await told();
    const kit = await server.browser('Kit Sorrell');
    expect(await said(kit)).toEqual(['new mine: Hose reels | anyone of you may take it, due Thu 26 Nov']);
  });

  it('is what a client opens, and does not do in time', async () => {
    const [link] = await server.source
      .query<{ id: string; name: string; client: string }[]>(
        `update client_link l set opened_at = null, task_id = null from client c where c.id = l.client_id and l.id = (select id from client_link order by id limit 1)
       returning l.id, l.name, c.name as client`,
      )
      .then(([rows]) => rows as unknown as { id: string; name: string; client: string }[]);
    await server.source.query('update client_link set opened_at = now() where id = $1', [link?.id]);
    await told();
    const who = link?.name === link?.client ? link?.client : `${link?.name} of ${link?.client}`;
    expect(await said(ines)).toEqual([`client gave: ${link?.client} | ${who} opened what is asked of them`]);
    const id = await started(null, '2026-11-25');
    await server.source.query(`update task set offered_to = '{"of": "client"}' where id = $1`, [id]);
    await server.source.query(`update task set due_on = '2026-12-20' where id <> $1 and due_on = '2026-11-25'`, [id]);
    await told();
    await server.source.query('delete from message');
    await at('2026-11-26T04:00', told);
    expect((await said(ines)).filter((line) => !/^(late|nobody|soon)/.test(line))).toEqual([
      'client gave: Hose reels | late: due Wed 25 Nov, the client has it',
    ]);
  });

  it('is a list of calls that is ready, and one that came out short', async () => {
    const [quota] = await server.source.query<{ id: string; name: string }[]>(
      'select id, name from call_quota limit 1',
    );
    const wyn = crew.id('Kit');
    const make = (wanted: number, on: string) =>
      server.source.query<{ id: string }[]>(
        `insert into call_list (workspace_id, id, quota_id, person_id, list_on, wanted, made_at)
         select workspace_id, $1, id, $2, $3, $4, now() from call_quota where id = $5 returning id`,
        [randomUUID(), wyn, on, wanted, quota?.id],
      );
    const [list] = await make(4, '2027-02-01');
    await server.source.query(
      `update call set list_id = $1, state = 'open' where id in (select id from call order by id limit 3)`,
      [list?.id],
    );
    await told();
    const kit = await server.browser('Kit Sorrell');
    expect(await said(kit)).toEqual([
      `calls mine: ${quota?.name}: 3 calls today | 4 were asked for, the pool has no more`,
    ]);
    expect(await said(ines)).toEqual([
      `pool gave: ${quota?.name}: the pool runs dry | there are too few to ring from Mon 1 Feb 2027`,
    ]);
  });

  it('is a file that somebody else brought in', async () => {
    const by = crew.id('Nadia');
    await (await server.scope()).transaction(async (tx) => {
      await tx.sql(`select set_config('jolly.by', $2, true) where $1::uuid is not null`, [by]);
      await tx.sql(
        `insert into bring_in (workspace_id, id, kind, state, file_name, encoding, separator, row_count, columns, shape, asked, is_remembered, by_id, created_at, version)
         values ($1, $2, 'clients', 'open', 'berths.csv', 'utf-8', ',', 40, '[]', '', '{}', false, $3, now(), 1)`,
        [randomUUID(), by],
      );
      await tx.sql(`update bring_in set state = 'done' where workspace_id = $1 and file_name = 'berths.csv'`);
    });
    await told();
    expect(await said(ines)).toEqual(['import gave: Nadia Orme brought in clients | berths.csv, 40 lines']);
  });

  it('is what is to be thought of in the morning: notices to send, nobody on shift, a pool that runs dry', async () => {
    // Tests above have finished all there was.
    await server.source.query(
      `update task set state = 'open', done_at = null where state = 'done' and work_on > '2026-11-24'`,
    );
    const scope = await server.scope();
    await at('2026-11-24T07:00', async () => hear(await server.scope(), server.address));
    await at('2026-11-24T08:01', async () =>
      hear(await server.scope(), server.address, [noticesToTell, gapsToTell, poolsToTell]),
    );
    const lines = (await bell(ines)).lines;
    const notice = lines.find(({ kind }) => kind === 'notice');
    expect(notice?.title).toMatch(/^\d+ notices? to send, (first )?by /);
    const reminded = await noticesReminded(scope);
    expect(notice?.times).toBe(reminded.length);
    expect(reminded.length).toBeGreaterThan(0);
    for (const { standing } of reminded) expect(standing.remindOn && standing.remindOn <= '2026-11-24').toBe(true);
    // Nobody hears of it twice on a day, nor on a day off.
    await at('2026-11-24T09:00', async () => hear(await server.scope(), server.address, [noticesToTell]));
    await at('2026-11-27T09:00', async () => hear(await server.scope(), server.address, [noticesToTell]));
    await at('2026-11-28T09:00', async () => hear(await server.scope(), server.address, [noticesToTell]));
    const days = (await bell(ines)).lines.filter(({ kind }) => kind === 'notice').map((line) => line.at.slice(0, 10));
    expect(new Set(days).size).toBe(days.length);
    expect(days).not.toContain('2026-11-28');
  });
});

describe('a chase', () => {
  it('tells who has not done work, since when they have it, and how often they were told', async () => {
    const one = await started(crew.id('Nadia'), '2026-11-25');
    const two = await started(crew.id('Kit'), '2026-11-27');
    const done = await started(crew.id('Kit'), '2026-11-27');
    await server.source.query(`update task set state = 'done', done_at = now() where id = $1`, [done]);
    const chase = async (tasks: string[], by = ines) =>
      (await by.post('/api/messages/chase').send({ tasks }).expect(200)).body.people as Chased['people'];
    const short = async () =>
      (await chase([one, two, done])).map(({ name, tasks }) => [name, tasks.map(({ told, toldAt }) => [told, toldAt])]);
    expect(await short()).toEqual([
      ['Kit Sorrell', [[0, null]]],
      ['Nadia Orme', [[0, null]]],
    ]);
    // Late by the clock, then nudged: both have told of it.
    await at('2026-11-25T20:00', told);
    await at('2026-11-26T02:00', told);
    await at('2026-11-26T09:00', () =>
      ines
        .post('/api/tasks/nudges')
        .send({ tasks: [one] })
        .expect(200),
    );
    expect(await at('2026-11-26T09:01', short)).toEqual([
      ['Kit Sorrell', [[0, null]]],
      ['Nadia Orme', [[2, '2026-11-26T09:00']]],
    ]);
    await doTo(ines, one, { kind: 'give', personId: crew.id('Kit') });
    const [kit] = await chase([one, two]);
    expect([kit?.name, kit?.tasks.map(({ id }) => id)]).toEqual(['Kit Sorrell', [one, two]]);
    await nadia
      .post('/api/messages/chase')
      .send({ tasks: [one] })
      .expect(403);
  });

  it('begins at a schedule as well, of what it has made and is due by today', async () => {
    const [due] = await server.source.query<{ scheduleId: string; tasks: string[] }[]>(
      `select t.schedule_id as "scheduleId", array_agg(t.id order by t.due_on, t.id) as tasks from task t
       where t.schedule_id is not null and t.state in ('open', 'underWay') and t.due_on <= '2026-11-24' and t.held_until is null
         and t.assignee_id is not null and t.workspace_id = $1 group by 1 order by count(*) desc, 1 limit 1`,
      [(await server.person('Ines Calloway')).workspaceId],
    );
    const of = (by: Agent) => by.get(`/api/messages/chase/${due?.scheduleId}`);
    const { body } = await at('2026-11-24T11:00', () => of(ines).expect(200));
    const people: Chased['people'] = body.people;
    expect(new Set(people.flatMap(({ tasks }) => tasks.map(({ id }) => id)))).toEqual(new Set(due?.tasks));
    await of(nadia).expect(403);
    await (await server.browser('Ada Winn')).get(`/api/messages/chase/${due?.scheduleId}`).expect(404);
  });
});

describe('the page of messages', () => {
  it('says where each hears of what, how often that was, and keeps what is chosen; quiet hours too', async () => {
    await started(crew.id('Nadia'));
    await told();
    const mine = async (by: Agent) => (await by.get('/api/messages').expect(200)).body;
    const own = await mine(nadia);
    expect(own.hears.find((one: { kind: string }) => one.kind === 'new')).toEqual({
      ...{
        side: 'mine',
        kind: 'new',
        times: 1,
        wish: { here: true, mail: false, phone: false },
        fixed: { here: false, mail: false, phone: false },
      },
    });
    expect(own.hears.some((one: { kind: string }) => one.kind === 'run')).toBe(false);
    expect((await mine(ines)).hears.some((one: { kind: string }) => one.kind === 'run')).toBe(true);
    const quiet = { from: '20:00', to: '06:00', offDays: false, through: null };
    await nadia.put('/api/messages/quiet').send(quiet).expect(200);
    expect((await mine(nadia)).quiet).toEqual(quiet);
    await nadia
      .put('/api/messages/quiet')
      .send({ ...quiet, from: '26:00' })
      .expect(422);
    // What a manager says holds for whoever chose nothing, and what is always told can't be turned off.
    const { body: settings } = await ines.get('/api/settings').expect(200);
    const others = { mine: { new: { here: 'off', mail: 'always' } } };
    const saved = await ines
      .put('/api/settings')
      .send({ ...settings, hearing: { others } })
      .expect(200);
    const ofNew = async () => (await mine(nadia)).hears.find((one: { kind: string }) => one.kind === 'new');
    expect(await ofNew()).toMatchObject({
      wish: { here: false, mail: true, phone: false },
      fixed: { here: false, mail: true, phone: false },
    });
    const choose = (wish: object) => nadia.put('/api/messages/kinds').send({ side: 'mine', kind: 'new', wish });
    await choose({ here: true, mail: false, phone: false }).expect(422);
    await choose({ here: true, mail: true, phone: false }).expect(200);
    await ines
      .put('/api/settings')
      .send({ ...settings, version: saved.body.settings.version, hearing: { others: { gave: { run: 1 } } } })
      .expect(422);
    await crew.undo(saved.body.changeId);
    expect((await ofNew()).fixed.mail).toBe(false);
    expect((await mine(nadia)).mailHours).toHaveLength(24);
  });
});

describe('a server that fails at something', () => {
  it('says so to those who plan, once it has failed again and again, with what to do', async () => {
    const own = await testServer({ worker: true });
    try {
      const by = await own.browser('Ines Calloway');
      const troubles = async () =>
        ((await by.get('/api/bell').expect(200)).body.lines as BellLine[]).filter(({ kind }) => kind === 'run');
      // A period of a run that there is none of: each of these jobs fails.
      const fail = () =>
        own.source.query(
          `select graphile_worker.add_job('fill', json_build_object('workspaceId', id, 'runId', gen_random_uuid()), max_attempts := 1)
           from workspace where name = 'Tern Quay'`,
        );
      const over = (count: number) =>
        expect
          .poll(
            async () =>
              (
                await own.source.query(
                  `select count(*)::int as n from graphile_worker.jobs where task_identifier = 'fill' and last_error is not null`,
                )
              )[0].n,
            { timeout: 15_000 },
          )
          .toBe(count);
      await fail();
      await fail();
      await over(2);
      expect(await troubles()).toEqual([]);
      await fail();
      await over(3);
      await expect.poll(async () => (await troubles()).length, { timeout: 10_000 }).toBe(1);
      const [line] = await troubles();
      expect([line?.title, line?.path]).toEqual(['A period can’t be filled', '/fill']);
      expect(line?.text).toMatch(/^it failed 3 times and is tried again by itself; try a shorter one/);
      await fail();
      await over(4);
      expect(await troubles()).toHaveLength(1);
    } finally {
      await own.stop();
    }
  });
});
