import { createHash, randomBytes } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdtemp, readFile, rm, truncate, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { gunzipSync, gzipSync } from 'node:zlib';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { dataSource } from '../data-source.ts';
import { restoreInto } from '../restore-into.ts';
import { type TestServer, testServer } from '../testing/test-server.ts';
import { BackupProblem, checkBackup, restoreBackup, writeBackup } from './index.ts';
import { eachEntry, textOf } from './reading.ts';

let server: TestServer;
let folder: string;
let workspaceId: string;
beforeAll(async () => {
  server = await testServer();
  folder = await mkdtemp(join(tmpdir(), 'jolly-backup-'));
  workspaceId = (await server.scope()).workspace.id;
});
afterAll(async () => {
  await server.stop();
  await rm(folder, { recursive: true, force: true });
});

async function withClient<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

const backup = async (name: string, url = server.databaseUrl, files = server.filesFolder): Promise<string> => {
  const path = join(folder, name);
  await withClient(url, (client) =>
    writeBackup(client, { workspaceId, pathOf: (stored) => join(files, stored) }, createWriteStream(path)),
  );
  return path;
};

/** A database of our tables and nothing in them, gone again at the end. */
async function withEmpty<T>(work: (url: string, files: string) => Promise<T>): Promise<T> {
  const admin = await dataSource(inject('databaseUrl')).initialize();
  const name = `r_${randomBytes(6).toString('hex')}`;
  await admin.query(`create database ${name}`);
  const url = new URL(inject('databaseUrl'));
  url.pathname = `/${name}`;
  const files = await mkdtemp(join(tmpdir(), 'jolly-restored-'));
  try {
    const source = await dataSource(url.toString()).initialize();
    await source.runMigrations({ transaction: 'each' });
    await source.destroy();
    return await work(url.toString(), files);
  } finally {
    // Connections that are being closed are let go first: cut off, they would tell of it as an error of nobody's.
    await expect
      .poll(async () => (await admin.query('select 1 from pg_stat_activity where datname = $1', [name])).length, {
        timeout: 10_000,
      })
      .toBe(0);
    await admin.query(`drop database ${name} with (force)`);
    await admin.destroy();
    await rm(files, { recursive: true, force: true });
  }
}

const restore = (path: string, url: string, files: string) =>
  withClient(url, (client) => restoreBackup(path, { client, filesFolder: files }));
const sum = async (path: string) =>
  createHash('sha256')
    .update(await readFile(path))
    .digest('hex');

describe('a backup', () => {
  it('restores to the same state: once more it gives the same bytes, and the same rows in every table', async () => {
    const first = await backup('first.tar.gz');
    expect(await sum(await backup('again.tar.gz'))).toBe(await sum(first));
    const { head, entries } = await checkBackup(first);
    expect(head).toMatchObject({ format: 'jolly-rota-backup', version: 1, workspace: { name: 'Tern Quay' } });
    expect(entries).toBeGreaterThan(20);
    await withEmpty(async (url, files) => {
      const restored = await restore(first, url, files);
      expect(restored.rows).toBeGreaterThan(5_000);
      expect(restored.files).toBeGreaterThan(0);
      expect(await sum(await backup('second.tar.gz', url, files))).toBe(await sum(first));
      // And it goes on: numbers that count up, what is watched, keys between tables.
      await withClient(url, async (client) => {
        const { rows } = await client.query(
          `select (select count(*)::int from pg_trigger where tgenabled = 'D') as off,
             (select count(*)::int from pg_constraint where condeferrable) as deferrable`,
        );
        expect(rows[0]).toEqual({ off: 0, deferrable: 0 });
        await client.query(
          `update task set assignee_id = null where id = (select id from task where state = 'open' and assignee_id is not null limit 1)`,
        );
        expect((await client.query('select 1 from untold')).rows.length).toBeGreaterThan(0);
      });
      await expect(restore(first, url, files)).rejects.toThrow('Tern Quay is here already');
    });
  });

  it('is one moment: what is changed while it is written is not in it by half', async () => {
    const before = await backup('before.tar.gz');
    const path = join(folder, 'meanwhile.tar.gz');
    await withClient(server.databaseUrl, (client) =>
      writeBackup(
        client,
        {
          workspaceId,
          pathOf: (stored) => join(server.filesFolder, stored),
          onRows: async () => {
            await server.source.query('update workspace set name = name where id = $1', [workspaceId]);
            await server.source.query(
              `update task set note = note || '.' where (workspace_id, id) in (
                 select workspace_id, id from task where workspace_id = $1 and state = 'open' order by id limit 100)`,
              [workspaceId],
            );
          },
        },
        createWriteStream(path),
      ),
    );
    expect(await sum(path)).toBe(await sum(before));
  });

  it('goes beside another workspace, whose people sign in by one account in both', async () => {
    const first = await backup('third.tar.gz');
    await withEmpty(async (url, files) => {
      await withClient(url, async (client) => {
        const { rows } = await client.query<{ email: string }>('select 1');
        expect(rows).toHaveLength(1);
        const [account] = (await server.source.query(
          `select a.* from account a join person p on p.account_id = a.id where p.name = 'Ines Calloway'`,
        )) as { id: string; email: string; password_hash: string }[];
        await client.query('insert into account values (gen_random_uuid(), upper($1), $2)', [
          account?.email,
          account?.password_hash,
        ]);
      });
      const { knownAccounts } = await restore(first, url, files);
      expect(knownAccounts).toBe(1);
      await withClient(url, async (client) => {
        const { rows } = await client.query(
          `select a.email from account a join person p on p.account_id = a.id where p.name = 'Ines Calloway'`,
        );
        expect(rows).toEqual([{ email: 'INES@TERNQUAY.EXAMPLE' }]);
      });
    });
  });

  it('that can’t be written to its end says so, and gives its connection back as it was', async () => {
    await withClient(server.databaseUrl, async (client) => {
      let taken = 0;
      const full = new Writable({
        write(chunk: Buffer, _encoding, done) {
          taken += chunk.length;
          done(taken > 200_000 ? new Error('no space left') : null);
        },
      });
      const pathOf = (stored: string) => join(server.filesFolder, stored);
      await expect(writeBackup(client, { workspaceId, pathOf }, full)).rejects.toThrow('no space left');
      // In no transaction any more: the next has one of its own.
      await client.query('begin; create temporary table kept (n integer) on commit preserve rows; commit');
      expect((await client.query('select * from kept')).rows).toEqual([]);
    });
  });

  it('is refused before anything is written where it is broken, cut, changed, newer or none of ours', async () => {
    const whole = await backup('whole.tar.gz');
    const bytes = await readFile(whole);
    const spoilt = async (name: string, content: Buffer) => {
      const path = join(folder, name);
      await writeFile(path, content);
      return path;
    };
    const tar = gunzipSync(bytes);
    const changed = Buffer.from(tar);
    const at = changed.indexOf('Ines Calloway');
    changed.write('Ines Callowey', at);
    const newer = Buffer.from(tar);
    newer.write('"version":9', newer.indexOf('"version":1'));
    const cut = await spoilt('cut.tar.gz', bytes);
    await truncate(cut, Math.floor(bytes.length / 2));
    // Cut between two entries, and packed anew: a whole archive of half a workspace.
    const atEntry = tar.indexOf('tables/', Math.floor(tar.length / 2));
    const half = gzipSync(Buffer.concat([tar.subarray(0, atEntry - (atEntry % 512)), Buffer.alloc(1024)]));
    const flipped = Buffer.from(bytes);
    flipped.writeUInt8(flipped.readUInt8(Math.floor(bytes.length / 3)) ^ 0xff, Math.floor(bytes.length / 3));
    const cases: [string, RegExp][] = [
      [await spoilt('text.tar.gz', Buffer.from('hello')), /broken, or ends in the middle/],
      [cut, /broken, or ends in the middle/],
      [await spoilt('half.tar.gz', half), /not whole/],
      [await spoilt('flipped.tar.gz', flipped), /broken|not as it was written/],
      [await spoilt('changed.tar.gz', gzipSync(changed)), /person.*is not as it was written/],
      [await spoilt('newer.tar.gz', gzipSync(newer)), /newer version/],
      [join(folder, 'nowhere.tar.gz'), /can’t be read/],
    ];
    await withEmpty(async (url, files) => {
      for (const [path, why] of cases) {
        const error = await restore(path, url, files).catch((refusal: unknown) => refusal);
        expect([path, error instanceof BackupProblem, String(error)]).toEqual([path, true, expect.stringMatching(why)]);
      }
      await withClient(url, async (client) => {
        expect((await client.query('select 1 from workspace')).rows).toEqual([]);
      });
    });
  });

  it('of the version before comes into an empty database and is brought up to date; a newer one is refused', {
    timeout: 120_000,
  }, async () => {
    const old = await testServer();
    const { databaseUrl, filesFolder } = old;
    await old.source.query(
      `update mail set state = 'waiting', sent_at = null where id in (select id from mail order by id limit 2)`,
    );
    await old.source.query(`delete from mail where state = 'refused'`);
    await old.source.undoLastMigration();
    await old.source.undoLastMigration();
    const path = await backup('old.tar.gz', databaseUrl, filesFolder);
    const count = async (url: string) =>
      withClient(url, async (client) => (await client.query('select count(*)::int as n from task')).rows[0].n);
    const tasks = await count(databaseUrl);
    // As it was, for the tests that every server ends by.
    await old.source.runMigrations();
    await old.stop();
    await withEmpty(async (url, files) => {
      const { head } = await restoreInto(path, url, files);
      expect(await count(url)).toBe(tasks);
      const now = (await checkBackup(await backup('now.tar.gz', url, files))).head.schema;
      expect(now).not.toBe(head.schema);
      await expect(restoreInto(path, url, files)).rejects.toThrow('Tern Quay is here already');
    });
    // A copy to try things with sends nothing that the workspace itself is about to send.
    await withEmpty(async (url, files) => {
      const waiting = () =>
        withClient(
          url,
          async (client) =>
            (await client.query(`select state, count(*)::int as n from mail where state <> 'sent' group by 1`)).rows,
        );
      const { waitingMails } = await restoreInto(path, url, files, { withoutMails: true });
      expect(waitingMails).toBeGreaterThan(0);
      expect(await waiting()).toEqual([{ state: 'refused', n: waitingMails }]);
    });
    const tar = gunzipSync(await readFile(path));
    const { schema } = (await checkBackup(path)).head;
    tar.write(`${schema.slice(0, -4)}9999`, tar.indexOf(schema));
    await writeFile(join(folder, 'future.tar.gz'), gzipSync(tar));
    await withEmpty(async (url, files) => {
      await expect(restoreInto(join(folder, 'future.tar.gz'), url, files)).rejects.toThrow(
        /not as it was written|newer version/,
      );
    });
  });
});

describe('all that is kept of one person', () => {
  it('is every row that names them, without what opens something, and the files they sent; for themselves and a manager', async () => {
    const kit = await server.person('Kit Sorrell');
    const own = await server.browser('Kit Sorrell');
    await own.post('/api/calendars').send({ kind: 'person', id: kit.id }).expect(200);
    const { body: made } = await own
      .post('/api/tokens')
      .send({ name: 'board', scope: 'read', endsOn: null })
      .expect(200);
    const { body, headers } = await own.get(`/api/people/${kit.id}/everything`).responseType('blob').expect(200);
    expect(decodeURIComponent(headers['content-disposition'] ?? '')).toContain('Kit Sorrell 2026-11-24.tar.gz');
    const path = join(folder, 'kit.tar.gz');
    await writeFile(path, body as Buffer);
    const entries = new Map<string, string>();
    await eachEntry(path, async (entry) => {
      if (entry.name.startsWith('files/')) for await (const _ of entry.chunks);
      else entries.set(entry.name, await textOf(entry));
    });
    const of = (table: string) =>
      [...entries]
        .filter(([name]) => name.startsWith(`${table}/`))
        .flatMap(([, text]) =>
          text
            .split('\n')
            .filter(Boolean)
            .map((line) => JSON.parse(line)),
        );
    expect(of('person')).toMatchObject([{ name: 'Kit Sorrell' }]);
    expect(of('account')).toMatchObject([{ email: 'kit@ternquay.example' }]);
    const [{ count }] = await server.source.query(
      `select count(*)::int as count from task where assignee_id = $1 or done_by = $1 or signed_by = $1 or held_by = $1 or nudged_by = $1`,
      [kit.id],
    );
    expect(of('task').length).toBe(count);
    const all = [...entries.values()].join('\n');
    expect(entries.get('READ-ME.txt')).toContain('All that Tern Quay keeps of Kit Sorrell.');
    expect(all).not.toMatch(/argon2|"digest"|"answer_key"/);
    expect(all).not.toContain(made.token);
    // Of a colleague it is for a manager alone.
    const ines = await server.browser('Ines Calloway');
    await ines.get(`/api/people/${kit.id}/everything`).responseType('blob').expect(200);
    await (await server.browser('Nadia Orme')).get(`/api/people/${kit.id}/everything`).expect(403);
    await (await server.browser('Ada Winn')).get(`/api/people/${kit.id}/everything`).expect(404);
  });
});
