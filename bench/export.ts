import { createServer, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Writable } from 'node:stream';
import type { Response } from 'express';
import pg from 'pg';
import { writeBackup } from '../src/server/backup/index.ts';
import { tasksOut } from '../src/server/lists-out/tasks.ts';
import { sendRows } from '../src/server/platform/http/rows-out.ts';
import { largeDatabase, largeScope } from './lists-database.ts';
import { longStep } from './measure.ts';

/**
 * npm run bench export: all tasks of a database of a million as CSV and as JSON over HTTP, beside the bare rows by a cursor; then the
 * whole workspace as a backup. Of each the most memory that was in use, looked at all the while.
 */

const large = await largeDatabase();
try {
  await measure();
} finally {
  await large.close();
}

async function measure(): Promise<void> {
  const scope = await largeScope(large.source);
  const { id: workspaceId } = scope.workspace;
  const bare = await withMemory('bare rows of tasks by a cursor', async () => {
    const client = new pg.Client({ connectionString: large.url });
    await client.connect();
    await client.query('begin');
    await client.query(
      `declare bare no scroll cursor for select t.* from task t where workspace_id = '${workspaceId}' order by due_on, id`,
    );
    let rows = 0;
    for (;;) {
      const page = await client.query('fetch 1000 from bare');
      rows += page.rows.length;
      if (page.rows.length < 1000) break;
    }
    await client.end();
    return `${rows} rows`;
  });
  for (const form of ['csv', 'json'] as const) {
    const { seconds } = await withMemory(`tasks as ${form} over HTTP`, async () => {
      const server = createServer((_request, response) => {
        void sendRows(asExpress(response), 'tasks', tasksOut(scope, {}), form);
      });
      await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
      const answer = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}`);
      let [bytes, lines] = [0, 0];
      for await (const chunk of answer.body ?? []) {
        bytes += chunk.length;
        for (const byte of chunk) if (byte === 10) lines++;
      }
      server.close();
      return `${(bytes / 1e6).toFixed(0)} MB, ${lines} lines`;
    });
    console.log(`  ${(seconds / bare.seconds).toFixed(2)} times the bare rows`);
  }
  const backup = await withMemory('the workspace as a backup', async () => {
    const client = new pg.Client({ connectionString: large.url });
    await client.connect();
    let bytes = 0;
    const counted = new Writable({
      write(chunk: Buffer, _encoding, done) {
        bytes += chunk.length;
        done();
      },
    });
    const { rows } = await writeBackup(client, { workspaceId, pathOf: (stored) => `/nowhere/${stored}` }, counted);
    await client.end();
    return `${rows} rows, ${(bytes / 1e6).toFixed(0)} MB packed`;
  });
  console.log(`  ${(backup.seconds / bare.seconds).toFixed(2)} times the bare rows of tasks alone`);
}

/** As much of a response of Express as sending rows needs. */
function asExpress(response: ServerResponse): Response {
  const set = (headers: Readonly<Record<string, string>>) => {
    for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
  };
  return Object.assign(response, { set }) as unknown as Response;
}

/** How long something takes, and how much more memory than before was in use at the most, by a look four times a second. */
async function withMemory(what: string, work: () => Promise<string>) {
  (globalThis as { gc?: () => void }).gc?.();
  const before = process.memoryUsage().rss;
  let most = before;
  const looking = setInterval(() => {
    most = Math.max(most, process.memoryUsage().rss);
  }, 250);
  const done = await longStep(what, work, (said) => said);
  clearInterval(looking);
  console.log(`  ${((most - before) / 1e6).toFixed(0)} MB more than before at the most`);
  return done;
}
