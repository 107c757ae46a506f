import { type AddressInfo, createServer, type Socket, connect as socketTo } from 'node:net';
import { afterEach, beforeEach, expect, inject, it } from 'vitest';
import { dataSource } from '../data-source.ts';
import { silent } from '../testing/test-server.ts';
import { Listener } from './listener.ts';

const RECONNECT_MS = 20;
const rest = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** What stands between a listener and the database, and may be away. */
async function between(databaseUrl: string) {
  const to = new URL(databaseUrl);
  const open = new Set<Socket>();
  const state = { isAway: false, tries: 0 };
  const server = createServer((socket) => {
    state.tries++;
    socket.on('error', () => undefined);
    if (state.isAway) return socket.destroy();
    const database = socketTo(Number(to.port), to.hostname);
    database.on('error', () => undefined);
    open.add(socket);
    socket.once('close', () => {
      open.delete(socket);
      database.destroy();
    });
    database.once('close', () => socket.destroy());
    socket.pipe(database).pipe(socket);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const url = new URL(databaseUrl);
  url.port = String((server.address() as AddressInfo).port);
  return {
    url: url.toString(),
    tries: () => state.tries,
    open: () => open.size,
    leave() {
      state.isAway = true;
      for (const socket of open) socket.destroy();
    },
    comeBack() {
      state.isAway = false;
    },
    stop: () => new Promise((resolve) => server.close(resolve)),
  };
}

let way: Awaited<ReturnType<typeof between>>;
let listener: Listener;
let heard: string[];
let gaps: number;
beforeEach(async () => {
  way = await between(inject('databaseUrl'));
  listener = new Listener(way.url, silent, RECONNECT_MS);
  [heard, gaps] = [[], 0];
  listener.on('listener_test', { onNews: (payload) => void heard.push(payload), onGap: () => gaps++ });
});
afterEach(async () => {
  await listener.close();
  await expect.poll(way.open).toBe(0);
  await way.stop();
});

it('goes on by one connection, however long the database was away, and says that it missed what was told', async () => {
  await listener.listen();
  way.leave();
  await expect.poll(way.tries).toBeGreaterThan(8);
  expect(listener.isListening).toBe(false);
  way.comeBack();
  await expect.poll(() => listener.isListening).toBe(true);
  // Whoever else would try has tried by then.
  await rest(10 * RECONNECT_MS);
  expect(way.open()).toBe(1);
  expect(gaps).toBe(1);
  const source = await dataSource(inject('databaseUrl')).initialize();
  await source.query(`select pg_notify('listener_test', 'once')`);
  await source.destroy();
  await expect.poll(() => heard).toEqual(['once']);
});

it('that is not reached at the start says so, and tries nothing more by itself', async () => {
  way.leave();
  await expect(listener.listen()).rejects.toThrow();
  await rest(5 * RECONNECT_MS);
  expect(way.tries()).toBe(1);
});
