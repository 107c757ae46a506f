import { execFileSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest';
import { ownAccount } from './account.mjs';
import { ownDatabase } from './database.mjs';
import { keepPostgres } from './kept-postgres.mjs';
import { startPostgres } from './postgres.mjs';

/** Every user may go through it, as through the folder that a person chooses. */
function openFolder() {
  const folder = mkdtempSync(join(tmpdir(), 'jolly-own-'));
  chmodSync(folder, 0o755);
  return folder;
}

async function ask(url, question) {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(question)).rows;
  } finally {
    await client.end();
  }
}

describe('the database of an installation', () => {
  const folder = openFolder();
  let postgres;
  beforeAll(async () => {
    postgres = await startPostgres({ folder, fast: true });
  });
  afterAll(async () => {
    await postgres.stop();
    rmSync(folder, { recursive: true, force: true });
  });

  it('belongs to a role that owns it and nothing else, and one of a former version is taken over', async () => {
    // As versions did before there was a role: tables of the superuser, in the database that comes with PostgreSQL.
    await ask(postgres.url, 'create table workspace (name text)');
    await ask(postgres.url, `insert into workspace values ('Tern Quay')`);
    await ask(
      postgres.url,
      "create type kind as enum ('a'); create function one() returns int language sql as 'select 1'",
    );
    const own = await ownDatabase(postgres);
    expect(await ask(own, 'select name from workspace')).toEqual([{ name: 'Tern Quay' }]);
    await ask(own, "alter table workspace add column zone text; alter type kind add value 'b'; drop function one()");
    expect(
      await ask(
        own,
        'select rolsuper, rolcreatedb, rolcreaterole, rolreplication from pg_roles where rolname = current_user',
      ),
    ).toEqual([{ rolsuper: false, rolcreatedb: false, rolcreaterole: false, rolreplication: false }]);
    for (const beyond of [
      'select * from pg_authid',
      `select pg_read_file('/etc/hostname')`,
      `copy workspace from program 'echo x'`,
      `copy workspace to '/tmp/jolly-own-copy'`,
      'create role another',
      'create database another',
    ])
      await expect(ask(own, beyond), beyond).rejects.toThrow(/permission denied|must be/);
    // Again, as every start does: the same address, and nothing lost.
    expect(await ownDatabase(postgres)).toBe(own);
    expect(await ask(own, 'select name from workspace')).toEqual([{ name: 'Tern Quay' }]);
  });
});

const BEGUN_AGAIN = [
  'The database ended by itself and is begun again. Nothing that was saved is lost.',
  'The database answers again.',
];

describe('a database that ends by itself', () => {
  it('is begun again on the same port with what was saved, a few times; then it is given up with a word', async () => {
    const folder = openFolder();
    const said = [];
    // However long a busy machine takes for it.
    const postgres = await keepPostgres({
      ...{ folder, isStopping: () => false, say: (line) => said.push(line) },
      withinMs: Number.POSITIVE_INFINITY,
    });
    onTestFinished(() => rmSync(folder, { recursive: true, force: true }));
    await ask(postgres.url, 'create table kept (n int); insert into kept values (41)');
    const kill = () => {
      const [pid = ''] = readFileSync(join(postgres.folder, 'cluster', 'postmaster.pid'), 'utf8').split('\n');
      process.kill(Number(pid), 'SIGKILL');
    };
    for (let times = 1; times <= 3; times++) {
      kill();
      // Killed while it is begun, it is tried again and not told once more: it has to have said that it is back.
      await expect
        .poll(() => said, { timeout: 60_000 })
        .toEqual(Array.from({ length: times }, () => BEGUN_AGAIN).flat());
      expect(await ask(postgres.url, 'select n from kept')).toEqual([{ n: 41 }]);
    }
    kill();
    await postgres.lost;
    expect(said).toHaveLength(3 * BEGUN_AGAIN.length);
  }, 300_000);
});

describe.runIf(process.getuid?.() === 0)('the server, started as root', () => {
  const place = () => {
    const folder = openFolder();
    onTestFinished(() => rmSync(folder, { recursive: true, force: true }));
    const files = join(folder, 'files');
    const code = join(folder, 'main.js');
    mkdirSync(files, { mode: 0o700 });
    writeFileSync(join(files, 'proof.jpg'), 'proof');
    writeFileSync(code, '', { mode: 0o644 });
    const said = [];
    return { files, code, said, account: () => ownAccount({ files, code: [code], say: (line) => said.push(line) }) };
  };
  const run = ([program, ...args], ...command) =>
    execFileSync(program, [...args, ...command], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] }).trim();

  it('runs under a user of its own, that has its files and not the machine', () => {
    const { files, account, said } = place();
    const prefix = account();
    expect(run(prefix, 'id', '-un')).toBe('jolly-rota');
    expect(run(prefix, 'cat', join(files, 'proof.jpg'))).toBe('proof');
    expect(() => run(prefix, 'cat', '/etc/shadow')).toThrow(/Permission denied/);
    expect(statSync(files).uid).not.toBe(0);
    expect(said).toEqual([]);
  });

  it('says so where that user can’t read the code, and gives the files back to root', () => {
    const { files, code, account, said } = place();
    chmodSync(code, 0o600);
    expect(account()).toEqual([]);
    expect(said).toEqual([expect.stringContaining(`can't read ${code}`)]);
    expect(statSync(files).uid).toBe(0);
  });
});
