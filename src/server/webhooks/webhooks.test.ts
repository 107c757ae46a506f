import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Webhook, WebhookDelivery, WebhookEvent } from '../../contract/index.ts';
import { type Crew, crewOf } from '../testing/crew.ts';
import { type TestServer, testServer } from '../testing/test-server.ts';
import { doTo, newTemplate, startedTasks } from '../testing/work.ts';
import { deliverWebhooks, noteLate } from './index.ts';
import { signatureOf } from './sending.ts';

interface Came {
  readonly headers: IncomingMessage['headers'];
  readonly body: string;
}

/** A program that is told, which answers as it is said. */
class Receiver {
  readonly came: Came[] = [];
  /** What it answers next, one after the other; 200 after that. */
  answers: (number | 'nothing' | { readonly to: string })[] = [];

  private constructor(private readonly server: Server) {}

  static async start(): Promise<Receiver> {
    const server = createServer();
    const receiver = new Receiver(server);
    server.on('request', (request, response) => {
      const parts: Buffer[] = [];
      request.on('data', (part: Buffer) => parts.push(part));
      request.on('end', () => {
        receiver.came.push({ headers: request.headers, body: Buffer.concat(parts).toString() });
        const answer = receiver.answers.shift() ?? 200;
        if (answer === 'nothing') response.destroy();
        else if (typeof answer === 'object') response.writeHead(302, { Location: answer.to }).end();
        else response.writeHead(answer).end();
      });
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    return receiver;
  }

  get url(): string {
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}/rota`;
  }

  stop = () => new Promise((resolve) => this.server.close(resolve));
}

let server: TestServer;
let crew: Crew;
let template: string;
let receiver: Receiver;
beforeAll(async () => {
  server = await testServer({ tellsInside: true });
  crew = await crewOf(server);
  template = await newTemplate(crew.ines, { name: 'Hose reels', titlePattern: 'Hose reels' });
  receiver = await Receiver.start();
});
afterAll(async () => {
  await receiver.stop();
  await server.stop();
});
beforeEach(async () => {
  await server.source.query('delete from webhook');
  receiver.came.length = 0;
  receiver.answers = [];
});

const add = async (events: readonly WebhookEvent[], more: object = {}): Promise<Webhook> => {
  const input = { name: 'Wall screen', url: receiver.url, events, isOn: true, ...more };
  const { body } = await crew.ines.post('/api/webhooks').send(input).expect(200);
  return body.webhooks[0];
};
const started = async (on = '2026-11-26') =>
  (await startedTasks(crew.ines, template, crew.id('Kit'), [{ step: '', on }]))[0] ?? '';
/** As if so many minutes had gone by for whatever waits. */
const later = (minutes: number) =>
  server.source.query(
    `update webhook_delivery set try_at = try_at - make_interval(mins => $1) where state = 'waiting'`,
    [minutes],
  );
const send = () => deliverWebhooks(server.source, true);
const log = async ({ id }: Pick<Webhook, 'id'>): Promise<WebhookDelivery[]> =>
  (await crew.ines.get(`/api/webhooks/${id}/deliveries`).expect(200)).body.deliveries;

describe('a program that is told', () => {
  it('hears of what is made, begun and finished, signed, each once; not of what it did not ask for, nor of what is taken back', async () => {
    const hook = await add(['task.made', 'task.started', 'task.finished']);
    const id = await started();
    await crew.ines.post(`/api/tasks/${id}/start`).send({}).expect(200);
    await crew.ines.post(`/api/tasks/${id}/finish`).send({}).expect(200);
    // Looked at, and so done and taken back within one transaction.
    await doTo(crew.ines, await started(), { kind: 'give', personId: crew.id('Nadia') }, 200, '/impact');
    expect(await send()).toBe(4);
    expect(await send()).toBe(0);
    const told = receiver.came.map(({ body }) => JSON.parse(body));
    expect(told.map(({ type, data }) => [type, data.task.id === id]).slice(0, 3)).toEqual([
      ['task.made', true],
      ['task.started', true],
      ['task.finished', true],
    ]);
    expect(told[2].data.task).toMatchObject({ title: 'Hose reels', state: 'done', dueOn: '2026-11-26' });
    for (const { headers, body } of receiver.came) {
      const at = Number(headers['webhook-timestamp']);
      expect(Math.abs(at - Date.now() / 1000)).toBeLessThan(60);
      expect(headers['webhook-signature']).toBe(signatureOf(hook.secret, String(headers['webhook-id']), at, body));
    }
    expect(new Set(receiver.came.map(({ headers }) => headers['webhook-id'])).size).toBe(4);
    expect((await log(hook)).map(({ event, state, said }) => [event, state, said]).at(-1)).toEqual([
      'task.made',
      'sent',
      'answered 200',
    ]);
  });

  it('hears of late work once, as soon as it is late by the clock of its zone', async () => {
    await add(['task.late']);
    const id = await started('2026-11-24');
    await noteLate(await server.scope());
    const before = receiver.came.length;
    expect((await send()) >= 0).toBe(true);
    receiver.came.length = before;
    server.clock.set('2026-11-25T00:01');
    for (let i = 0; i < 2; i++) await noteLate(await server.scope());
    await send();
    const ids = receiver.came.map(({ body }) => JSON.parse(body).data.task.id);
    expect(ids.filter((one) => one === id)).toHaveLength(1);
    expect(new Set(ids).size).toBe(ids.length);
    server.clock.set('2026-11-24T10:40');
  });

  it('is told again what it did not take, under the same id, and given up after three days; then once more by hand', async () => {
    const hook = await add(['task.made']);
    receiver.answers = [500, 'nothing', { to: `${receiver.url}/elsewhere` }, 200];
    await started();
    for (const minutes of [0, 1, 5, 30]) {
      await later(minutes);
      await send();
    }
    expect(new Set(receiver.came.map(({ headers }) => headers['webhook-id'])).size).toBe(1);
    // No redirect was followed.
    expect(receiver.came).toHaveLength(4);
    expect(await log(hook)).toMatchObject([{ state: 'sent', tries: 4, said: 'answered 200' }]);
    receiver.answers = Array.from({ length: 20 }, () => 410);
    await started();
    for (let i = 0; i < 12; i++) {
      await later(2_000);
      await send();
    }
    const [lost] = await log(hook);
    expect(lost).toMatchObject({ state: 'failed', tries: 9, said: 'answered 410' });
    expect((await crew.ines.get('/api/webhooks').expect(200)).body.webhooks[0]).toMatchObject({
      failed: 1,
      waiting: 0,
    });
    receiver.answers = [];
    await crew.ines.post(`/api/webhook-deliveries/${lost?.id}/again`).send({}).expect(200);
    await send();
    expect((await log(hook))[0]).toMatchObject({ id: lost?.id, state: 'sent' });
  });

  it('is none inside our own network, unless whoever runs the server says so; of two that send at once each has its own', async () => {
    await add(['task.made']);
    await started();
    expect(await deliverWebhooks(server.source, false)).toBe(0);
    expect(receiver.came).toEqual([]);
    const [{ said }] = await server.source.query('select said from webhook_delivery');
    expect(said).toBe('127.0.0.1 is no address outside');
    await later(1);
    for (let i = 0; i < 30; i++) await started();
    const taken = await Promise.all([send(), send(), send()]);
    expect(taken.reduce((sum, count) => sum + count, 0)).toBe(31);
    expect(new Set(receiver.came.map(({ headers }) => headers['webhook-id'])).size).toBe(31);
  });

  it('is named by a manager alone, paused and dropped with all it was told; what makes no sense is refused', async () => {
    const hook = await add(['task.made']);
    for (const wrong of [
      { url: 'ftp://x.example' },
      { url: 'https://a:b@x.example' },
      { events: [] },
      { events: ['task.made', 'task.made'] },
      { name: ' ' },
    ])
      await crew.ines
        .post('/api/webhooks')
        .send({ name: 'A', url: receiver.url, events: ['task.made'], isOn: true, ...wrong })
        .expect(422);
    const nadia = await server.browser('Nadia Orme');
    await nadia.get('/api/webhooks').expect(403);
    const plain = await testServer();
    const other = await plain.browser('Ines Calloway');
    for (const url of ['http://127.0.0.1:80/x', 'http://[::1]/x', 'https://10.0.0.7/x', 'http://0x7f.1/x'])
      await other
        .post('/api/webhooks')
        .send({ name: 'A', url, events: ['task.made'], isOn: true })
        .expect(422);
    await other
      .post('/api/webhooks')
      .send({ name: 'A', url: 'https://1.1.1.1/x', events: ['task.made'], isOn: true })
      .expect(200);
    await plain.stop();
    const { secret: _, id, madeAt: __, waiting: ___, failed: ____, ...input } = hook;
    // What waits is held while it is paused, and nothing new is noted; who has not seen that changes nothing.
    await started();
    await crew.ines
      .put(`/api/webhooks/${id}`)
      .send({ ...input, isOn: false })
      .expect(200);
    await crew.ines
      .put(`/api/webhooks/${id}`)
      .send({ ...input, name: 'B' })
      .expect(409);
    await started();
    expect([await send(), receiver.came.length, (await log(hook)).length]).toEqual([0, 0, 1]);
    await crew.ines
      .put(`/api/webhooks/${id}`)
      .send({ ...input, version: 2 })
      .expect(200);
    expect(await send()).toBe(1);
    await crew.ines.delete(`/api/webhooks/${id}`).expect(200);
    await crew.ines.get(`/api/webhooks/${id}/deliveries`).expect(404);
  });
});
