import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Asked, HistoryEntry, LinkedTask, OpenedLink, Task } from '../../contract/index.ts';
import { TEST_NOW } from '../testing/clock.ts';
import { mailTo, tokenIn } from '../testing/mails.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo, newTemplate } from '../testing/work.ts';
import { askOwed } from './asking.ts';

const QUENTIN = 'quentin@brindle.example';
const SECOND = { ...{ name: 'Maren Brindle', role: 'keeps a key', telephone: '' }, prefers: null };
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

let server: TestServer;
let ines: Agent;
/** Somebody's browser who is not signed in. */
let out: Agent;
let clientId: string;
let templateId: string;
beforeAll(async () => {
  server = await testServer({ worker: true });
  ines = await server.browser('Ines Calloway');
  out = await server.browser();
  clientId = await newClient('Quentin Brindle', [
    { ...SECOND, name: 'Quentin Brindle', role: 'owner', email: QUENTIN },
  ]);
  templateId = await newTemplate(ines, {
    name: 'Certificate',
    titlePattern: 'Certificate of {client}',
    demands: [
      { key: 'paper', label: 'The certificate', kind: 'file' },
      { key: 'until', label: 'Last day it covers', kind: 'date' },
    ],
    signOff: { by: 'role', role: 'office' },
    assignment: { v: 1, kind: 'client' },
  });
});
afterAll(() => server.stop());
beforeEach(() => server.source.query('delete from mail where kind in ($1, $2)', ['task', 'code']));

async function newClient(name: string, contacts: readonly object[]): Promise<string> {
  const client = {
    name,
    address: '',
    usualPersonId: null,
    notes: '',
    fields: {},
    contacts: contacts.map((one) => ({ id: crypto.randomUUID(), ...one })),
  };
  return (await ines.post('/api/clients').send(client).expect(200)).body.client.id;
}

/** A certificate of a client that was started by hand, due on a day. */
async function certificate(of = clientId, on = '2026-12-01'): Promise<string> {
  const parts = [{ step: '', on, startTime: null, dueTime: null, assigneeId: null }];
  const start = { on, clientId: of, assetId: null, assigneeId: null, special: '', parts };
  const { body } = await ines.post(`/api/templates/${templateId}/start`).send(start).expect(200);
  return body.tasks[0].id;
}

const askedOf = async (id: string): Promise<Asked> => (await ines.get(`/api/tasks/${id}/asked`).expect(200)).body;
const taskOf = async (id: string): Promise<Task> => (await ines.get(`/api/tasks/${id}`).expect(200)).body;
async function ask(id: string, rest: object = {}, status = 200): Promise<string> {
  const { contacts } = await askedOf(id);
  const body = { contactId: contacts[0]?.id, opens: 'one', needsCode: false, ...rest };
  await ines.post(`/api/tasks/${id}/asked`).send(body).expect(status);
  return status === 200 ? tokenIn((await mailTo(server, QUENTIN, id)).text) : '';
}

type Verb = 'get' | 'post' | 'put' | 'delete';
const by = (token: string, verb: Verb, path: string, body: object = {}, pass = '') => {
  const asked = out[verb](`/api/link${path}`).set('link-token', token).set('link-pass', pass);
  return verb === 'get' ? asked : asked.send(body);
};
const open = async (token: string): Promise<Extract<OpenedLink, { kind: 'open' }>> =>
  (await by(token, 'post', '').expect(200)).body;
const upload = (token: string, id: string, key = crypto.randomUUID()) =>
  out
    .post(`/api/link/tasks/${id}/files`)
    .set('link-token', token)
    .field({ key, demand: 'paper' })
    .attach('file', PNG, 'certificate.png');
const answer = (token: string, id: string) =>
  by(token, 'put', `/tasks/${id}/answers`, { demand: 'until', value: '2027-12-04' });
async function sendAll(token: string, id: string): Promise<LinkedTask> {
  await upload(token, id).expect(200);
  await answer(token, id).expect(200);
  return (await by(token, 'post', `/tasks/${id}/finish`).expect(200)).body.task;
}
/** As the queue does when it is called. */
const askAll = async () => askOwed(await server.scope(), server.address);

describe('a task for a client', () => {
  it('is asked for by mail, opened, begun, sent, sent back with why, sent again and signed off, and its history says by whom', async () => {
    const id = await certificate();
    expect(await taskOf(id)).toMatchObject({ offeredTo: 'Quentin Brindle (client)', assignee: null, mayClaim: false });
    await expect.poll(async () => (await askedOf(id)).asks.length, { timeout: 10_000 }).toBe(1);
    const mail = await mailTo(server, QUENTIN);
    expect(mail.subject).toBe('Certificate of Quentin Brindle, by Tue 1 Dec');
    expect(mail.text).toContain('What is asked:\n\n• The certificate\n\n• Last day it covers');
    expect(mail.text).toContain('It works until 8 Dec 2026.');
    const token = tokenIn(mail.text);
    expect(mail.text).toContain(`http://127.0.0.1:0/for-you#${token}`);

    expect(await open(token)).toMatchObject({
      workspace: 'Tern Quay',
      contact: 'Quentin Brindle',
      worksUntil: '2026-12-08',
    });
    expect((await askedOf(id)).asks[0]).toMatchObject({
      kind: 'asked',
      by: null,
      works: true,
      openedAt: '2026-11-24T10:40',
    });
    const { task } = (await upload(token, id).expect(200)).body as { task: LinkedTask };
    expect(task).toMatchObject({ state: 'underWay', files: [{ name: 'certificate.png', by: null }] });
    expect((await by(token, 'post', `/tasks/${id}/finish`).expect(422)).body.detail).toContain('Last day it covers');
    await answer(token, id).expect(200);
    expect((await by(token, 'post', `/tasks/${id}/finish`).expect(200)).body.task).toMatchObject({
      ...{ state: 'toCheck', looksAtIt: 'Somebody' },
    });
    const copy = await mailTo(server, QUENTIN);
    expect(copy.text).toContain('The certificate: certificate.png');
    expect(copy.text).toContain('Last day it covers: 4 Dec 2027');

    // Changed once more, before anybody has looked at it.
    expect((await upload(token, id).expect(409)).body.detail).toContain('Change something');
    await by(token, 'post', `/tasks/${id}/take-back`).expect(200);
    await by(token, 'post', `/tasks/${id}/finish`).expect(200);
    await ines.post(`/api/tasks/${id}/send-back`).send({ reason: 'The last page is missing.' }).expect(200);
    await expect.poll(async () => (await askedOf(id)).asks[0]?.kind, { timeout: 10_000 }).toBe('sentBack');
    const again = await mailTo(server, QUENTIN);
    expect(again.text).toContain('“The last page is missing.”');
    const second = tokenIn(again.text);
    expect((await by(second, 'get', `/tasks/${id}`).expect(200)).body).toMatchObject({
      ...{ state: 'underWay', sentBack: { reason: 'The last page is missing.' } },
      answers: { until: { value: '2027-12-04', by: null } },
    });
    await by(second, 'post', `/tasks/${id}/finish`).expect(200);
    await ines.post(`/api/tasks/${id}/sign`).send({}).expect(200);
    expect((await by(second, 'post', `/tasks/${id}/take-back`).expect(409)).body.detail).toContain('looked at it');

    expect(await taskOf(id)).toMatchObject({ doneBy: 'Quentin Brindle', signed: { by: 'Ines Calloway' } });
    const { entries } = (await ines.get(`/api/tasks/${id}/history`).expect(200)).body as { entries: HistoryEntry[] };
    const told = entries.map((entry) => `${entry.by}: ${entry.said}`);
    expect(told).toContain('Quentin Brindle: answered');
    expect(told.filter((line) => line.startsWith('Quentin Brindle: finished'))).toHaveLength(3);
    expect(told).toContain('null: asked the client by mail');
    const on = { from: '2026-12-01', to: '2026-12-01', on: '2026-12-01' };
    const { body: log } = await ines.get('/api/logbook/day').query(on).expect(200);
    expect(JSON.stringify(log)).toContain('"by":"Quentin Brindle"');
  });

  it('is nobody else’s to claim or work on, and leaves those without anybody alone', async () => {
    const before = (await ines.get('/api/overview').expect(200)).body;
    const id = await certificate();
    const nadia = await server.browser('Nadia Orme');
    expect((await nadia.post(`/api/tasks/${id}/claim`).expect(403)).body.detail).toContain('for others');
    expect((await nadia.post(`/api/tasks/${id}/start`).expect(403)).body.detail).toBe('This is for the client to do.');
    const after = (await ines.get('/api/overview').expect(200)).body;
    expect(after.nobodys ?? after.unassigned).toEqual(before.nobodys ?? before.unassigned);
    const listed = async (offered: string) =>
      JSON.stringify((await ines.get('/api/task-list').query({ offered, are: 'unfinished' })).body).includes(id);
    expect([await listed('client'), await listed('yes'), await listed('no')]).toEqual([true, false, false]);
    // Somebody who takes it over for them ends the link with that.
    const token = await ask(id);
    const kit = (await server.person('Kit Sorrell')).id;
    await doTo(ines, id, { kind: 'give', personId: kit });
    expect((await askedOf(id)).asks[0]?.works).toBe(false);
    await by(token, 'get', `/tasks/${id}`).expect(404);
    await answer(token, id).expect(404);
  });

  it('is reminded of before and after it is due, each once, on the day and from the time that are set', async () => {
    const other = 'reminded@brindle.example';
    const id = await certificate(await newClient('Reminded', [{ ...SECOND, email: other }]), '2026-12-04');
    await askAll();
    const kinds = async () => (await askedOf(id)).asks.map(({ kind }) => kind);
    const at = async (moment: string) => {
      server.clock.set(moment);
      await askAll();
      return kinds();
    };
    try {
      expect(await at('2026-11-30T10:00')).toEqual(['asked']);
      expect(await at('2026-12-01T07:00')).toEqual(['asked']);
      expect(await at('2026-12-01T09:00')).toEqual(['before', 'asked']);
      expect(await at('2026-12-02T09:00')).toEqual(['before', 'asked']);
      expect((await mailTo(server, other)).subject).toBe('Reminder: Certificate of Reminded, by Fri 4 Dec');
      expect(await at('2026-12-06T09:00')).toEqual(['after', 'before', 'asked']);
      expect((await mailTo(server, other)).subject).toBe('Still missing: Certificate of Reminded');
      expect(await at('2026-12-20T09:00')).toEqual(['after', 'before', 'asked']);
      // The link of the first mail has run out, that of the last too.
      const [mail] = await server.source.query<{ text: string }[]>(
        'select text from mail where to_email = $1 order by id desc',
        [other],
      );
      expect((await by(tokenIn(mail?.text ?? ''), 'post', '').expect(409)).body.detail).toContain('has run out');
    } finally {
      server.clock.set(TEST_NOW);
    }
  });

  it('of a client without a mail address says so, and is asked for once there is one', async () => {
    const bare = await newClient('Unreached', [{ ...SECOND, email: '' }]);
    const id = await certificate(bare);
    expect((await taskOf(id)).offeredTo).toBe('Maren Brindle (client, no mail address)');
    await askAll();
    expect((await askedOf(id)).asks).toEqual([]);
    const client = (await ines.get(`/api/clients/${bare}`).expect(200)).body;
    const { name, address, usualPersonId, notes, fields, version, contacts } = client;
    const reached = contacts.map((one: object) => ({ ...one, email: 'maren@brindle.example' }));
    await ines
      .put(`/api/clients/${bare}`)
      .send({ name, address, usualPersonId, notes, fields, version, contacts: reached })
      .expect(200);
    await askAll();
    expect((await askedOf(id)).asks).toMatchObject([{ to: 'Maren Brindle', email: 'maren@brindle.example' }]);
  });

  it('that was somebody’s becomes the client’s by asking, undone as any other change; a schedule for a client names one', async () => {
    const kit = (await server.person('Kit Sorrell')).id;
    const capture = { title: 'Send a photo of the mooring', on: '2026-11-30', dueOn: '2026-11-30', startTime: null };
    const { body } = await ines
      .post('/api/tasks')
      .send({ ...capture, dueTime: null, assigneeId: kit, clientId, assetId: null, estimateMinutes: 5 })
      .expect(200);
    const id = body.tasks[0].id;
    const { contacts } = await askedOf(id);
    const asked = await ines
      .post(`/api/tasks/${id}/asked`)
      .send({ contactId: contacts[0]?.id, opens: 'one', needsCode: false })
      .expect(200);
    expect(await taskOf(id)).toMatchObject({ assignee: null, offeredTo: 'Quentin Brindle (client)' });
    await ines.post(`/api/changes/${asked.body.changeId}/undo`).send({}).expect(200);
    expect(await taskOf(id)).toMatchObject({ assignee: { name: 'Kit Sorrell' }, offeredTo: null });
    // What the client would have seen later is seen from now on: that is undone too.
    const later = await certificate();
    await server.source.query(`update task set appears_on = '2026-11-28' where id = $1`, [later]);
    const soon = await ines
      .post(`/api/tasks/${later}/asked`)
      .send({ contactId: contacts[0]?.id, opens: 'one', needsCode: false })
      .expect(200);
    const appearsOn = async () =>
      (await server.source.query('select appears_on::text as on from task where id = $1', [later]))[0].on;
    expect(await appearsOn()).toBe('2026-11-24');
    await ines.post(`/api/changes/${soon.body.changeId}/undo`).send({}).expect(200);
    expect(await appearsOn()).toBe('2026-11-28');
    const nadia = await server.browser('Nadia Orme');
    await nadia
      .post(`/api/tasks/${id}/asked`)
      .send({ contactId: contacts[0]?.id, opens: 'one', needsCode: false })
      .expect(403);
  });
});

describe('a link', () => {
  it('is kept as a digest, and opens nothing that is guessed, cut short, of another task, of another client or of the office', async () => {
    const [id, other] = [await certificate(), await certificate()];
    const stranger = await certificate(await newClient('Stranger', [{ ...SECOND, email: 'stranger@x.example' }]));
    const token = await ask(id);
    const [row] = await server.source.query<{ digest: string }[]>(
      'select digest from client_link order by id desc limit 1',
    );
    expect(row?.digest).toMatch(/^[0-9a-f]{64}$/);
    const everything = await server.source.query<{ told: string }[]>(
      'select l::text as told from client_link l union all select a::text from client_ask a union all select c::text from change c',
    );
    expect(everything.some(({ told }) => told.includes(token))).toBe(false);
    for (const wrong of ['', token.slice(0, -1), `${token}A`, row?.digest ?? '', 'x'.repeat(4000)])
      await by(wrong, 'post', '').expect(409);
    for (const hidden of [other, stranger, crypto.randomUUID()]) {
      await by(token, 'get', `/tasks/${hidden}`).expect(404);
      await answer(token, hidden).expect(404);
      await by(token, 'post', `/tasks/${hidden}/finish`).expect(404);
      await upload(token, hidden).expect(404);
    }
    // Nor anything of the office: a link is no session.
    await out.get(`/api/tasks/${id}`).set('link-token', token).expect(401);
    await out.get('/api/clients').set('link-token', token).expect(401);
    const { headers } = await by(token, 'post', '').expect(200);
    expect(headers).toMatchObject({ 'x-robots-tag': 'noindex, nofollow', 'referrer-policy': 'no-referrer' });
    const told = JSON.stringify([await open(token), (await by(token, 'get', `/tasks/${id}`)).body]);
    for (const { name } of await server.source.query<{ name: string }[]>('select name from person'))
      expect(told).not.toContain(name);
  });

  it('shows its own files and those of the template, to be taken out only where they came by it', async () => {
    const [id, other] = [await certificate(), await certificate()];
    const token = await ask(id);
    const key = crypto.randomUUID();
    const { task } = (await upload(token, id, key).expect(200)).body as { task: LinkedTask };
    // Sent again after it broke off, it is one, and says by its key that it is here.
    expect((await upload(token, id, key).expect(200)).body.task.files).toMatchObject([{ key }]);
    const fileId = task.files[0]?.id ?? '';
    await by(token, 'get', `/files/${fileId}`).expect(200).expect('content-type', 'image/png');
    await by(token, 'get', `/files/${fileId}/small`).expect(200);
    const elsewhere = await ask(other);
    await by(elsewhere, 'get', `/files/${fileId}`).expect(404);
    await by(elsewhere, 'delete', `/files/${fileId}`).expect(404);
    await upload(elsewhere, other, key).expect(404);
    const { body } = await ines
      .post('/api/files')
      .field({ key: crypto.randomUUID(), taskId: id, demand: 'paper' })
      .attach('file', PNG, 'ours.png')
      .expect(200);
    await by(token, 'get', `/files/${body.file.id}`).expect(200);
    await by(token, 'delete', `/files/${body.file.id}`).expect(404);
    const without = (await by(token, 'delete', `/files/${fileId}`).expect(200)).body as { task: LinkedTask };
    expect(without.task.files).toMatchObject([{ id: body.file.id, key: null }]);
    // An answer that was overtaken on its way is known by it.
    expect(without.task.version).toBeGreaterThan(task.version);
    const nothing = out
      .post(`/api/link/tasks/${id}/files`)
      .set('link-token', token)
      .field({ key: crypto.randomUUID(), demand: 'paper' });
    await nothing.attach('file', Buffer.from('<script>'), 'page.html').expect(422);
  });

  it('to all that is open shows what came since, and not what others have', async () => {
    const all = await newClient('Many things', [{ ...SECOND, email: 'many@x.example' }]);
    const first = await certificate(all, '2026-12-04');
    const { contacts } = await askedOf(first);
    await ines
      .post(`/api/tasks/${first}/asked`)
      .send({ contactId: contacts[0]?.id, opens: 'all', needsCode: false })
      .expect(200);
    const token = tokenIn((await mailTo(server, 'many@x.example')).text);
    const later = await certificate(all, '2026-11-30');
    expect((await open(token)).tasks.map(({ id }) => id)).toEqual([later, first]);
    await sendAll(token, later);
    expect((await open(token)).tasks.map(({ id, state }) => [id, state])).toEqual([
      [first, 'open'],
      [later, 'toCheck'],
    ]);
  });

  it('to all that is open is withdrawn also where its contact is another client’s by now', async () => {
    const of = await newClient('Gone over', [{ ...SECOND, email: 'over@x.example' }]);
    const first = await certificate(of);
    const { contacts } = await askedOf(first);
    await ines
      .post(`/api/tasks/${first}/asked`)
      .send({ contactId: contacts[0]?.id, opens: 'all', needsCode: false })
      .expect(200);
    const token = tokenIn((await mailTo(server, 'over@x.example')).text);
    const other = await newClient('Took over', []);
    await server.source.query('update contact set client_id = $1 where id = $2', [other, contacts[0]?.id]);
    const theirs = await certificate(other);
    expect((await open(token)).tasks.map(({ id }) => id)).toEqual([theirs]);
    await ines.delete(`/api/tasks/${theirs}/asked`).send({}).expect(200);
    await by(token, 'post', '').expect(409);
  });

  it('is withdrawn and renewed, and gone with its contact or their address', async () => {
    const of = await newClient('Renewed', [{ ...SECOND, email: 'renewed@x.example' }]);
    const id = await certificate(of);
    const askedAgain = async () => {
      const { contacts } = await askedOf(id);
      await ines
        .post(`/api/tasks/${id}/asked`)
        .send({ contactId: contacts[0]?.id, opens: 'one', needsCode: false })
        .expect(200);
      return tokenIn((await mailTo(server, 'renewed@x.example')).text);
    };
    const token = await askedAgain();
    await open(token);
    expect((await ines.delete(`/api/tasks/${id}/asked`).send({}).expect(200)).body.asks[0]).toMatchObject({
      works: false,
    });
    expect((await by(token, 'post', '').expect(409)).body.detail).toContain('was withdrawn');
    expect((await ines.delete(`/api/tasks/${id}/asked`).send({}).expect(409)).body.detail).toContain('No link');
    const renewed = await askedAgain();
    expect(renewed).not.toBe(token);
    await open(renewed);
    await server.source.query(`update contact set email = 'elsewhere@x.example' where client_id = $1`, [of]);
    await by(renewed, 'post', '').expect(409);
  });

  it('with a code opens after the newest code that went to its address, for a while and a few tries', async () => {
    const id = await certificate();
    const token = await ask(id, { needsCode: true });
    const { body } = await by(token, 'post', '').expect(200);
    expect(body).toEqual({ kind: 'code', workspace: 'Tern Quay', to: 'q…@brindle.example', isSent: false });
    await by(token, 'get', `/tasks/${id}`).expect(403);
    await answer(token, id).expect(403);
    await by(token, 'post', '/code/enter', { code: '' }).expect(422);
    await by(token, 'post', '/code').expect(200);
    await by(token, 'post', '/code').expect(429);
    const code = /is (\d{6})\./.exec((await mailTo(server, QUENTIN)).text)?.[1] ?? '';
    const wrong = String((Number(code) + 1) % 1_000_000).padStart(6, '0');
    expect((await by(token, 'post', '/code/enter', { code: wrong }).expect(422)).body.detail).toContain('not the code');
    const { pass } = (
      await by(token, 'post', '/code/enter', { code: ` ${code.slice(0, 3)} ${code.slice(3)}` }).expect(200)
    ).body;
    expect((await by(token, 'post', '', {}, pass).expect(200)).body.kind).toBe('open');
    await by(token, 'get', `/tasks/${id}`, {}, pass).expect(200);
    await by(token, 'get', `/tasks/${id}`, {}, `${pass}x`).expect(403);
    await by(token, 'post', '/code/enter', { code }).expect(422);
    // Five wrong ones use a code up, the right one with them.
    server.clock.set('2026-11-24T10:42');
    await by(token, 'post', '/code').expect(200);
    const second = /is (\d{6})\./.exec((await mailTo(server, QUENTIN)).text)?.[1] ?? '';
    const other = String((Number(second) + 1) % 1_000_000).padStart(6, '0');
    for (let tries = 0; tries < 5; tries++) await by(token, 'post', '/code/enter', { code: other }).expect(422);
    expect((await by(token, 'post', '/code/enter', { code: second }).expect(422)).body.detail).toContain('too often');
    server.clock.set(TEST_NOW);
  });

  it('does not answer whoever tries too many', async () => {
    const tries = Array.from({ length: 130 }, (_, i) => by(`guess-${i}`, 'post', '').then(({ status }) => status));
    expect(new Set(await Promise.all(tries))).toEqual(new Set([409, 429]));
  });
});
