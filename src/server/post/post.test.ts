import { createServer } from 'node:net';
import { SMTPServer } from 'smtp-server';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Agent, TestServer } from '../testing/test-server.ts';
import { silent, testServer } from '../testing/test-server.ts';
import { htmlOf, type Letter, textOf } from './letter.ts';
import { post } from './outbox.ts';
import { Postman } from './sending.ts';

const LETTER: Letter = {
  ...{ subject: 'A <test>', from: 'Tern Quay', greeting: 'Dear Kit,', paragraphs: ['fish & chips'] },
  ...{ deed: { words: 'Look', url: 'http://127.0.0.1/x#token' }, after: ['Once.'] },
};

describe('a letter', () => {
  it('says the same as text and as HTML, in which nothing typed is markup', () => {
    expect(textOf(LETTER)).toBe(
      'Dear Kit,\n\nfish & chips\n\nLook:\nhttp://127.0.0.1/x#token\n\nOnce.\n\n-- \nTern Quay\n',
    );
    const html = htmlOf(LETTER);
    expect(html).toContain('<title>A &lt;test&gt;</title>');
    expect(html).toContain('fish &amp; chips');
    expect(html).toContain('href="http://127.0.0.1/x#token"');
  });
});

describe('the outbox', () => {
  let server: TestServer;
  let ines: Agent;
  beforeAll(async () => {
    server = await testServer({ worker: true });
    ines = await server.browser('Ines Calloway');
  });
  afterAll(() => server.stop());

  const send = async (reason: string, email: string, isPrivate = false) =>
    (await server.scope()).transaction((tx) =>
      post(tx, { reason, kind: 'address', to: { name: 'Kit', email }, letter: LETTER, isPrivate }),
    );
  const mailOf = async (reason: string) =>
    (await server.source.query('select id, state, tries, trouble, text from mail where reason = $1', [reason]))[0];
  const isOver = (reason: string, state: string) =>
    expect.poll(async () => (await mailOf(reason))?.state, { timeout: 10_000 }).toBe(state);

  it('leaves through SMTP once for a reason, however often that is told, and is read in the Post tray', async () => {
    await send('one', 'kit@saltmarsh.example');
    await send('one', 'kit@saltmarsh.example');
    await isOver('one', 'sent');
    const { id } = await mailOf('one');
    const { body } = await ines.get(`/api/post/${id}`).expect(200);
    expect(body).toMatchObject({ subject: 'A <test>', state: 'sent', toEmail: 'kit@saltmarsh.example' });
    expect(body.raw).toContain(`Message-ID: <${id}@jolly-rota.local>`);
    const { body: list } = await ines.get('/api/post?q=kit@salt').expect(200);
    expect(list).toMatchObject({ isStandIn: true, mails: [{ id }], isMore: false });
    await (await server.browser('Maud Ferrier')).get('/api/post').expect(403);
    await (await server.browser('Ada Winn')).get(`/api/post/${id}`).expect(404);
    expect((await ines.post(`/api/post/${id}/again`).send({}).expect(409)).body.detail).toContain('not sent twice');
  });

  it('does not leave when what it tells of does not stand', async () => {
    const scope = await server.scope();
    await scope.rehearse((tx) =>
      post(tx, {
        reason: 'never',
        kind: 'address',
        to: { name: 'Kit', email: 'k@x.example' },
        letter: LETTER,
        isPrivate: false,
      }),
    );
    expect(await mailOf('never')).toBeUndefined();
  });

  it('is given up where it is refused, tried again where the server is busy, and both can be tried by hand', async () => {
    await send('refused', 'nobody@refuses.example');
    await send('busy', 'somebody@busy.example');
    await isOver('refused', 'refused');
    await expect.poll(async () => (await mailOf('busy'))?.trouble, { timeout: 10_000 }).toContain('mailbox busy');
    expect((await mailOf('refused')).trouble).toContain('no such address here');
    expect(await mailOf('busy')).toMatchObject({ state: 'waiting', tries: 1 });
    const { body: list } = await ines.get('/api/post?state=waiting').expect(200);
    expect(list.mails[0]).toMatchObject({ tries: 1, triedAgainIn: 1 });
    const { id } = await mailOf('refused');
    await ines.post(`/api/post/${id}/again`).send({ email: 'kit@saltmarsh.example' }).expect(200);
    await isOver('refused', 'sent');
  });

  it('that holds a link stays with its address', async () => {
    await send('private', 'nobody@refuses.example', true);
    await isOver('private', 'refused');
    const { id } = await mailOf('private');
    const { body } = await ines.post(`/api/post/${id}/again`).send({ email: 'kit@saltmarsh.example' }).expect(422);
    expect(body.detail).toContain('a link for its own address');
  });
});

/** A mail server outside, and the Message-IDs that it has taken. */
function mailServer() {
  const received: string[] = [];
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onData(stream, _session, done) {
      let raw = '';
      stream.on('data', (chunk: Buffer) => {
        raw += chunk.toString();
      });
      stream.on('end', () => {
        received.push(/^message-id: (\S+)/im.exec(raw)?.[1] ?? '');
        done();
      });
    },
  });
  return { smtp, received };
}

describe('a postman', () => {
  it('that falls between handing over and noting it hands the same mail over again, known by its Message-ID; two of them share', async () => {
    const server = await testServer();
    const { smtp, received } = mailServer();
    await new Promise<void>((resolve) => smtp.listen(0, '127.0.0.1', resolve));
    const address = smtp.server.address() as { port: number };
    const outside = {
      url: `smtp://127.0.0.1:${address.port}`,
      from: 'rota@saltmarsh.example',
      isStandIn: false,
      inbound: null,
      origin: '',
    };
    try {
      await server.source.query('delete from mail');
      const scope = await server.scope();
      for (let i = 0; i < 20; i++)
        await post(scope, {
          ...{ reason: `${i}`, kind: 'password' as const, letter: LETTER, isPrivate: true },
          to: { name: 'Kit', email: 'kit@saltmarsh.example' },
        });
      const postmen = [1, 2].map(() => new Postman(server.source, outside, silent));
      const now = () => new Date(server.clock.now());
      const sent = await Promise.all(postmen.map((postman) => postman.send(now)));
      expect(sent.reduce((sum, n) => sum + n, 0)).toBe(20);
      expect(new Set(received).size).toBe(20);
      // As one that fell: handed over, not noted, and its hold run out.
      await server.source.query(`update mail set state = 'waiting', try_at = now() where reason = '7'`);
      await postmen[0]?.send(now);
      expect(received).toHaveLength(21);
      expect(new Set(received).size).toBe(20);
      // What let somebody in is not kept once it has left for outside.
      const kept = await server.source.query<{ text: string; html: string }[]>('select distinct text, html from mail');
      expect(kept).toEqual([{ text: 'What it said is not kept: it held a link for one person alone.', html: '' }]);
      for (const postman of postmen) postman.close();
    } finally {
      await new Promise<void>((resolve) => smtp.close(resolve));
      await server.stop();
    }
  });

  it('whose server is dead for a day loses nothing, and hands each over once when it is back', async () => {
    const server = await testServer();
    const port = await new Promise<number>((resolve) => {
      const probe = createServer().listen(0, '127.0.0.1', () => {
        const { port: free } = probe.address() as { port: number };
        probe.close(() => resolve(free));
      });
    });
    const postman = new Postman(
      server.source,
      { url: `smtp://127.0.0.1:${port}`, from: 'rota@saltmarsh.example', isStandIn: false, inbound: null, origin: '' },
      silent,
    );
    const { smtp, received } = mailServer();
    try {
      await server.source.query('delete from mail');
      const scope = await server.scope();
      for (let i = 0; i < 3; i++)
        await post(scope, {
          ...{ reason: `${i}`, kind: 'address' as const, letter: LETTER, isPrivate: false },
          to: { name: 'Kit', email: 'kit@saltmarsh.example' },
        });
      const now = () => new Date(server.clock.now());
      let minutes = 0;
      for (; minutes < 24 * 60; ) {
        expect(await postman.send(now)).toBe(0);
        const [row] = await server.source.query<{ gap: number; states: string[] }[]>(
          `select max(extract(epoch from try_at - clock_timestamp()) / 60)::float8 as gap, array_agg(distinct state) as states from mail`,
        );
        expect(row?.states).toEqual(['waiting']);
        minutes += Math.ceil(row?.gap ?? Number.NaN);
        await server.source.query('update mail set try_at = clock_timestamp()');
      }
      await new Promise<void>((resolve) => smtp.listen(port, '127.0.0.1', resolve));
      expect(await postman.send(now)).toBe(3);
      expect(await postman.send(now)).toBe(0);
      expect(new Set(received).size).toBe(3);
      expect(received).toHaveLength(3);
    } finally {
      postman.close();
      await new Promise<void>((resolve) => smtp.close(resolve));
      await server.stop();
    }
  });
});
