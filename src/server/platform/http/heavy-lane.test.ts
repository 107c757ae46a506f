import { createServer, type Server } from 'node:http';
import express from 'express';
import supertest from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { silent } from '../../testing/test-server.ts';
import { HeavyLane, LANE_HEADER } from './heavy-lane.ts';
import { problems } from './problems.ts';

/** A lane that answers what it is asked with, is slow, breaks off, or is not there; and a front before it. */
let lane: Server;
let front: Server;
let ended = 0;
const part: { port: number | null } = { port: null };
const portOf = (server: Server) => (server.address() as { port: number }).port;
beforeAll(async () => {
  lane = createServer((request, response) => {
    if (request.url === '/slow') return;
    if (request.url === '/breaks') {
      response.writeHead(200, { 'Content-Length': '100' });
      response.write('half');
      setTimeout(() => response.destroy(), 20);
      return;
    }
    const chunks: Buffer[] = [];
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      response.writeHead(201, { 'Content-Type': 'application/json', 'X-Odd': 'yes' });
      response.end(JSON.stringify({ key: request.headers[LANE_HEADER], body: Buffer.concat(chunks).toString() }));
    });
  }).listen(0, '127.0.0.1');
  await new Promise((resolve) => lane.once('listening', resolve));
  part.port = portOf(lane);
  const app = express();
  const heavy = new HeavyLane(part, 'secret');
  app.use(async (request, response) => {
    await heavy.forward(request, response);
    ended++;
  });
  app.use(problems(silent));
  front = createServer(app).listen(0, '127.0.0.1');
  await new Promise((resolve) => front.once('listening', resolve));
});
afterAll(() => {
  lane.closeAllConnections();
  lane.close();
  front.closeAllConnections();
  front.close();
});
const ask = () => supertest(`http://127.0.0.1:${portOf(front)}`);
const until = async (count: number) => {
  for (let i = 0; i < 200 && ended < count; i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(ended).toBe(count);
};

describe('the heavy lane', () => {
  it('is asked with what came, and its answer is passed back; nobody else’s key gets through', async () => {
    const before = ended;
    const { status, body, headers } = await ask().post('/x?y=1').set(LANE_HEADER, 'guessed').send({ a: 1 });
    expect([status, body, headers['x-odd']]).toEqual([201, { key: 'secret', body: '{"a":1}' }, 'yes']);
    await until(before + 1);
  });

  it('is not waited for by whoever has left', async () => {
    const before = ended;
    const gone = new AbortController();
    const asked = fetch(`http://127.0.0.1:${portOf(front)}/slow`, { signal: gone.signal });
    setTimeout(() => gone.abort(), 50);
    await expect(asked).rejects.toThrow();
    await until(before + 1);
  });

  it('that breaks off in its answer ends it, and the turn with it', async () => {
    const before = ended;
    await expect(ask().get('/breaks')).rejects.toThrow();
    await until(before + 1);
  });

  it('that is not there is said in words, with when to try again', async () => {
    const { port } = part;
    for (const away of [null, 1]) {
      part.port = away;
      const { status, body, headers } = await ask().get('/x');
      expect([status, headers['retry-after']]).toEqual([503, '2']);
      expect(body.detail).toContain('being started again');
    }
    part.port = port;
  });
});
