import { createTransport } from 'nodemailer';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BellLine, HistoryEntry, MailedAnswer } from '../../contract/index.ts';
import { answerAddress } from '../../core/index.ts';
import { tellNoted } from '../messages/index.ts';
import { post } from '../post/index.ts';
import { type StandIn, startMailServer } from '../standins/index.ts';
import { type Crew, crewOf } from '../testing/crew.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate, startedTasks } from '../testing/work.ts';
import { Inbox } from './index.ts';

const MAILBOX = 'answers@rota.example';
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR4nGNgYGD4DwABBAEAX+XDSwAAAABJRU5ErkJggg==',
  'base64',
);

let server: TestServer;
let crew: Crew;
let ines: Agent;
let maud: Agent;
let standIn: StandIn;
let inbox: Inbox;
let template: string;
let client: { id: string; name: string; email: string };
beforeAll(async () => {
  server = await testServer();
  crew = await crewOf(server);
  ({ ines } = crew);
  await server.source.query('delete from answer');
  maud = await server.browser('Maud Ferrier');
  template = await newTemplate(ines, { name: 'Hose reels', titlePattern: 'Hose reels' });
  [client = client] = await server.source.query(
    `select c.id, c.name, k.email from client c join contact k on k.client_id = c.id where k.email <> '' and c.archived_at is null
     and (select count(*) from contact o where lower(o.email) = lower(k.email)) = 1 order by c.name, k.email limit 1`,
  );
  inbox = new Inbox(server.source, server.clock, silent, MAILBOX, 'rota@ternquay.example');
  standIn = await startMailServer({ source: server.source, log: silent, inbox, port: 0, isStandIn: false });
});
afterAll(async () => {
  await standIn.stop();
  await server.stop();
});

/** A mail to the client's contact about a task that Kit has, written by Maud. */
async function mailed(reason: string): Promise<{ id: string; key: string; taskId: string }> {
  const [taskId = ''] = await startedTasks(ines, template, crew.id('Kit'), [{ step: '', on: '2026-11-26' }]);
  await server.source.query('update task set client_id = $2 where id = $1', [taskId, client.id]);
  const id = await (await server.scope()).transaction((tx) =>
    post(tx, {
      ...{ reason, kind: 'notice', to: { name: 'Orla Sturt', email: client.email }, isPrivate: false },
      letter: {
        subject: 'Our visit',
        from: 'Tern Quay',
        greeting: 'Dear Orla,',
        paragraphs: ['x'],
        deed: null,
        after: [],
      },
      about: { clientId: client.id, taskId },
    }),
  );
  await server.source.query(`update mail set author_id = $2, state = 'sent' where id = $1`, [
    id,
    (await server.source.query(`select id from person where name = 'Maud Ferrier'`))[0].id,
  ]);
  const [{ key }] = await server.source.query('select answer_key as key from mail where id = $1', [id]);
  await tellNoted(await server.scope());
  await server.source.query('delete from message');
  return { id: id ?? '', key, taskId };
}

const send = (mail: object) => {
  const transport = createTransport({ url: standIn.url });
  return transport
    .sendMail({ from: `Orla Sturt <${client.email}>`, subject: 'Re: Our visit', ...mail })
    .finally(() => transport.close());
};
const refusal = (mail: object) =>
  send(mail).then(
    () => 'taken',
    (error: { responseCode?: number }) => error.responseCode,
  );
const ofTask = async (taskId: string, by = ines): Promise<MailedAnswer[]> =>
  (await by.get(`/api/tasks/${taskId}/answers`).expect(200)).body.answers;
const tray = async (which: string): Promise<MailedAnswer[]> =>
  (await ines.get('/api/answers').query({ tray: which }).expect(200)).body.answers;
const said = async (by: Agent) =>
  ((await by.get('/api/bell').expect(200)).body.lines as BellLine[]).map(
    ({ kind, side, title, text, path }) => `${kind} ${side}: ${title} | ${text} | ${path}`,
  );
const told = async () => tellNoted(await server.scope());

describe('an answer by mail', () => {
  it('stands with its task and its client, once however often it is handed in, and its author and whoever has it hear of it', async () => {
    const { key, taskId, id } = await mailed('one');
    const mail = {
      ...{ to: answerAddress(MAILBOX, key), messageId: '<one@sturt.example>' },
      text: 'Thursday suits me better.\n\nOn Tue, 24 Nov 2026, Tern Quay wrote:\n> Dear Orla,',
    };
    await send(mail);
    await send(mail);
    const [answer, ...rest] = await ofTask(taskId);
    expect(rest).toEqual([]);
    expect(answer).toMatchObject({
      ...{ own: 'Thursday suits me better.', from: { name: 'Orla Sturt', email: client.email }, mailId: id },
      ...{ client: { id: client.id }, task: { id: taskId }, kind: 'person' },
    });
    expect(answer?.text).toContain('> Dear Orla');
    const { answers } = (await ines.get(`/api/clients/${client.id}/answers`).expect(200)).body;
    expect(answers).toMatchObject([{ id: answer?.id }]);
    await told();
    const kit = await server.browser('Kit Sorrell');
    const line = 'Hose reels | Orla Sturt answered: Thursday suits me better.';
    expect(await said(kit)).toEqual([`answer mine: ${line} | /tasks/task/${taskId}?due=any`]);
    expect(await said(maud)).toEqual([`answer gave: ${line} | /tasks/task/${taskId}?due=any`]);
    expect((await said(ines)).filter((one) => one.startsWith('answer'))).toEqual([]);
    const { entries } = (await ines.get(`/api/tasks/${taskId}/history`).expect(200)).body as {
      entries: HistoryEntry[];
    };
    expect(entries.map(({ by, said: words }) => `${by}: ${words}`)).toContain('Orla Sturt: answered by mail');
  });

  it('finds its mail by what it says it answers, where its address has lost the key', async () => {
    const { id, taskId } = await mailed('two');
    await send({ to: MAILBOX, inReplyTo: `<${id}@jolly-rota.local>`, text: 'Fine.' });
    expect((await ofTask(taskId)).map(({ own }) => own)).toEqual(['Fine.']);
  });

  it('of a machine is kept apart and told to nobody; a loop and a list are', async () => {
    const { key, taskId } = await mailed('three');
    const to = answerAddress(MAILBOX, key);
    await send({ to, text: 'I am away', headers: { 'Auto-Submitted': 'auto-replied' } });
    await send({ to, text: 'Newsletter', headers: { 'List-Id': '<boats.example>' } });
    await send({ to, text: 'Out', envelope: { from: '', to } });
    // A mail of our own, and one that goes in a circle.
    await send({ to, from: 'rota@ternquay.example', text: 'We again' });
    const circle = Array.from({ length: 101 }, (_, i) => ({ key: 'Received', value: `from a by b; ${i}` }));
    expect(await refusal({ to, text: 'Round', headers: circle })).toBe(554);
    expect(await ofTask(taskId)).toEqual([]);
    expect((await tray('automatic')).map(({ own }) => own).sort()).toEqual(['I am away', 'Newsletter', 'Out']);
    await told();
    expect(await said(maud)).toEqual([]);
  });

  it('that nobody knows the mail of waits in the Post tray for somebody to say whose it is, or is put away', async () => {
    await send({ to: MAILBOX, text: 'When do you come?' });
    const [answer, ...rest] = await tray('toPlace');
    expect(rest).toEqual([]);
    expect(answer).toMatchObject({ client: null, guesses: [{ id: client.id, name: client.name }] });
    await told();
    expect((await said(ines)).at(0)).toBe(
      'answer gave: Re: Our visit | Orla Sturt answered: When do you come? | /post',
    );
    await maud.get('/api/answers').query({ tray: 'toPlace' }).expect(403);
    const { taskId } = await mailed('four');
    const [other] = await server.source.query('select id from client where id <> $1 limit 1', [client.id]);
    const place = (of: object) => ines.post(`/api/answers/${answer?.id}/place`).send(of);
    expect((await place({ clientId: other.id, taskId }).expect(422)).body.errors[0].path).toBe('taskId');
    await place({ clientId: client.id, taskId }).expect(200);
    expect((await ofTask(taskId)).map(({ own }) => own)).toEqual(['When do you come?']);
    expect(await tray('toPlace')).toEqual([]);
    await send({ to: MAILBOX, text: 'Buy boats', messageId: '<spam@x.example>' });
    const [spam] = await tray('toPlace');
    await ines.post(`/api/answers/${spam?.id}/put-away`).send({ away: true }).expect(200);
    expect(await tray('toPlace')).toEqual([]);
    await ines.post(`/api/answers/${spam?.id}/put-away`).send({ away: false }).expect(200);
    expect(await tray('toPlace')).toHaveLength(1);
    await ines.post(`/api/answers/${spam?.id}/put-away`).send({ away: true }).expect(200);
  });

  it('is refused where it is for nobody: another address, a key that is none, somebody unknown where there are several workspaces', async () => {
    expect(await refusal({ to: 'somebody@else.example', text: 'x' })).toBe(550);
    expect(await refusal({ to: answerAddress(MAILBOX, '0'.repeat(32)), text: 'x' })).toBe(550);
    expect(await refusal({ to: MAILBOX, from: 'nobody@nowhere.example', text: 'x' })).toBe(550);
    expect(await tray('toPlace')).toEqual([]);
  });

  it('brings files that nothing is made of until somebody takes them, under the rules for files', async () => {
    const { key, taskId } = await mailed('five');
    await send({
      to: answerAddress(MAILBOX, key),
      text: 'See the photo',
      attachments: [
        { filename: '../../boom.png', content: PNG },
        { filename: 'photo.jpg', content: Buffer.from('<script>alert(1)</script>') },
      ],
    });
    const [answer] = await ofTask(taskId);
    expect(answer?.parts).toMatchObject([{ name: '../../boom.png', state: 'here' }, { state: 'here' }]);
    const take = (at: number) => ines.post(`/api/answers/parts/${answer?.parts[at]?.id}/take`).send({});
    const { body } = await take(0).expect(200);
    expect(body.answer.parts[0].state).toBe('taken');
    await take(0).expect(409);
    // Undone, it is with the answer as before, and can be taken again.
    await crew.undo(body.changeId);
    expect((await ofTask(taskId))[0]?.parts[0]?.state).toBe('here');
    await take(0).expect(200);
    expect((await take(1).expect(422)).body.errors[0].message).toMatch(/is not a picture/);
    const files = await server.source.query('select name from file where task_id = $1 and removed_at is null', [
      taskId,
    ]);
    expect(files).toEqual([{ name: 'boom.png' }]);
    await (await server.browser('Ada Winn')).get(`/api/tasks/${taskId}/answers`).expect(404);
  });

  it('that is a report says that a mail did not arrive after all', async () => {
    const { id, key } = await mailed('six');
    const report = (action: string) =>
      [
        `From: MAILER-DAEMON@mx.example`,
        `To: ${answerAddress(MAILBOX, key)}`,
        `Message-ID: <${action}@mx.example>`,
        'MIME-Version: 1.0',
        'Content-Type: multipart/report; report-type=delivery-status; boundary="b"',
        '',
        '--b\r\nContent-Type: text/plain\r\n\r\nIt did not arrive.',
        `--b\r\nContent-Type: message/delivery-status\r\n\r\nReporting-MTA: dns; mx.example\r\n\r\nFinal-Recipient: rfc822; x@y.example\r\nAction: ${action}\r\nStatus: 5.1.1\r\nDiagnostic-Code: smtp; 550 5.1.1 no such box`,
        '--b--\r\n',
      ].join('\r\n');
    const to = answerAddress(MAILBOX, key);
    const stateOf = async () => (await server.source.query('select state, trouble from mail where id = $1', [id]))[0];
    await inbox.receive(Buffer.from(report('delayed')), { from: '', to: [to] });
    expect(await stateOf()).toMatchObject({ state: 'sent' });
    await inbox.receive(Buffer.from(report('failed')), { from: '', to: [to] });
    expect(await stateOf()).toEqual({ state: 'refused', trouble: '550 5.1.1 no such box' });
    await told();
    // Who wrote it hears of it too, and is led to the client.
    expect((await said(maud)).at(0)).toBe(
      `mail mine: The mail to Orla Sturt was refused | Our visit, ${client.email}: 550 5.1.1 no such box | /clients/${client.id}`,
    );
    expect((await said(ines)).at(0)).toContain(`/post/${id}`);
  });

  it('of one mail comes a hundred times at most', async () => {
    const { key, id } = await mailed('seven');
    await server.source.query(
      `insert into answer (workspace_id, id, mail_id, kind, from_name, from_email, subject, text, message_id, at)
       select workspace_id, gen_random_uuid(), id, 'automatic', '', '', '', '', n::text, now() from mail, generate_series(1, 100) n where mail.id = $1`,
      [id],
    );
    expect(await refusal({ to: answerAddress(MAILBOX, key), text: 'again' })).toBe(552);
  });
});

describe('an address that wants no more mails', () => {
  it('is asked on a page, or says so in one click of its mail program; that is kept, told and honoured, and taken back by hand', async () => {
    const { key, taskId } = await mailed('eight');
    const nobody = await server.browser();
    const page = (method: 'get' | 'post', shown = key) => nobody[method]('/api/no-mails').set({ 'link-token': shown });
    expect((await page('get').expect(200)).body).toEqual({ from: 'Tern Quay', email: client.email, isStopped: false });
    await page('get', 'nothing').expect(409);
    // As a mail program sends it: a form, from no page, without a cookie.
    const oneClick = (of: string) =>
      fetch(`${server.address}/api/no-mails/${of}`, {
        ...{ method: 'POST', body: 'List-Unsubscribe=One-Click' },
        headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
      });
    expect((await oneClick('0'.repeat(32))).status).toBe(409);
    const done = await oneClick(key);
    expect([done.status, await done.text()]).toEqual([200, `Tern Quay sends no more mails to ${client.email}.`]);
    expect((await oneClick(key)).status).toBe(200);
    expect((await page('get').expect(200)).body.isStopped).toBe(true);
    const opened = await fetch(`${server.address}/api/no-mails/${key}`, { redirect: 'manual' });
    expect([opened.status, opened.headers.get('location')]).toEqual([303, `/no-mails#${key}`]);
    await told();
    expect((await said(ines)).at(0)).toBe(
      `client gave: Orla Sturt wants no more mails | none goes to ${client.email} any more: ring, or write on paper | /clients/${client.id}`,
    );
    const seen = async () => (await ines.get(`/api/clients/${client.id}`).expect(200)).body.stopped;
    expect(await seen()).toMatchObject([{ email: client.email.toLowerCase() }]);
    const asked = async () => (await ines.get(`/api/tasks/${taskId}/asked`).expect(200)).body.contacts;
    expect((await asked()).map(({ email }: { email: string }) => email)).not.toContain(client.email);
    // Whatever is posted to a contact: nothing goes there.
    const posted = await (await server.scope()).transaction((tx) =>
      post(tx, {
        ...{ reason: 'copy', kind: 'task', to: { name: 'Orla', email: client.email }, isPrivate: false },
        letter: { subject: 'x', from: 'x', greeting: 'x', paragraphs: [], deed: null, after: [] },
        about: { clientId: client.id, taskId: null },
      }),
    );
    expect(posted).toBeNull();
    await (await server.browser('Kit Sorrell')).post('/api/mails-again').send({ email: client.email }).expect(403);
    await ines.post('/api/mails-again').send({ email: client.email.toUpperCase() }).expect(200);
    await ines.post('/api/mails-again').send({ email: client.email }).expect(404);
    expect(await seen()).toEqual([]);
    expect((await asked()).map(({ email }: { email: string }) => email)).toContain(client.email);
  });
});
