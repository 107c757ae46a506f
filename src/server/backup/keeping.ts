import { createWriteStream } from 'node:fs';
import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Response } from 'express';
import type pg from 'pg';
import { type BackupPlanInput, type Backups, MOST_BY_HAND } from '../../contract/index.ts';
import { dayOfIso } from '../../core/index.ts';
import type { FileStore } from '../files/stored/index.ts';
import { invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { BackupPlan, BackupRecord } from './entity.ts';
import { writeBackup } from './writing.ts';

/** By the clock of the workspace: when hardly anybody works, and what the day needs is made an hour later. */
const AT_MINUTES = 2 * 60;
const EVERY_DAYS = { day: 1, week: 7 } as const;
const USUAL_PLAN: BackupPlanInput = { every: 'never', keep: 7 };
const LONGEST_TROUBLE = 300;
/** One that has not ended by then ended with the process that wrote it: the queue begins it again sooner or later. */
const LONGEST_MS = 6 * 60 * 60_000;

const HALF_WAY = { state: 'failed', trouble: 'whoever wrote it ended half way' } as const;

const isBeingWritten = ({ instant }: Scope, { state, askedAt }: BackupRecord): boolean =>
  state === 'asked' && instant.getTime() - askedAt.getTime() < LONGEST_MS;

export async function listBackups(scope: Scope, folder: string): Promise<Backups> {
  const [plan] = await scope.find(BackupPlan);
  const rows = await scope.find(BackupRecord);
  const names = await scope.peopleNames();
  return {
    plan: plan ? { every: plan.every, keep: plan.keep } : USUAL_PLAN,
    folder,
    backups: rows
      .sort((a, b) => b.askedAt.getTime() - a.askedAt.getTime() || (a.id < b.id ? 1 : -1))
      .map((row) => (row.state === 'asked' && !isBeingWritten(scope, row) ? { ...row, ...HALF_WAY } : row))
      .map(({ id, state, askedAt, askedBy, name, rows: count, files, bytes, missing, trouble }) => ({
        ...{ id, state, name, rows: count, files, bytes, trouble, missing: [...missing] },
        askedAt: scope.moment(askedAt),
        by: askedBy === null ? null : (names.get(askedBy) ?? ''),
      })),
  };
}

/** Asked for by whoever is signed in, or by plan. */
export function askForBackup(scope: Scope): Promise<void> {
  return scope.transaction(async (tx) => {
    const { name } = tx.workspace;
    // Two at once wait for each other.
    await tx.sql('select 1 from workspace where id = $1 for update');
    const there = await tx.find(BackupRecord);
    if (there.some((one) => isBeingWritten(tx, one))) throw notNow('One is being written already.');
    if (tx.person !== null && there.filter(({ askedBy }) => askedBy !== null).length >= MOST_BY_HAND)
      throw notNow(`${MOST_BY_HAND} that were asked for lie here: drop one first.`);
    const id = tx.newId();
    const word = name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '-');
    await tx.insert(BackupRecord, {
      ...{ id, state: 'asked', askedAt: tx.instant, askedBy: tx.person?.id ?? null, rows: 0, files: 0, bytes: null },
      ...{ missing: [], trouble: null, name: `${word}-${tx.today}-${id.slice(-6)}.tar.gz` },
    });
    await tx.sql(
      `select graphile_worker.add_job('backup', json_build_object('workspaceId', $1::uuid, 'backupId', $2::uuid), max_attempts => 5)`,
      [id],
    );
    await tx.tell('backups');
  });
}

export function planBackups(scope: Scope, { every, keep }: BackupPlanInput): Promise<void> {
  return scope.transaction(async (tx) => {
    await tx.sql('delete from backup_plan where workspace_id = $1');
    if (every !== 'never')
      await tx.sql('insert into backup_plan (workspace_id, every, keep, said_by) values ($1, $2, $3, $4)', [
        ...[every, keep, tx.me.id],
      ]);
    await tx.tell('backups');
  });
}

/** Whether one is to be written by plan by now. */
export async function isBackupDue(scope: Scope): Promise<boolean> {
  if (scope.now.minutes < AT_MINUTES) return false;
  const [plan] = await scope.find(BackupPlan);
  if (!plan) return false;
  // One that somebody asked for is being written: the next minute looks again.
  if ((await scope.find(BackupRecord, { state: 'asked' })).some((one) => isBeingWritten(scope, one))) return false;
  const [last] = await scope.sql<{ at: Date }>(
    'select max(asked_at) as at from backup where workspace_id = $1 and asked_by is null having max(asked_at) is not null',
  );
  return last === undefined || dayOfIso(scope.moment(last.at).slice(0, 10)) <= scope.now.day - EVERY_DAYS[plan.every];
}

interface Place {
  readonly pool: pg.Pool;
  readonly files: FileStore;
  readonly folder: string;
}

/** Writes a backup that was asked for. @throws what went wrong, which is noted as well */
export async function carryOutBackup(scope: Scope, backupId: string, { pool, files, folder }: Place): Promise<void> {
  const [asked] = await scope.find(BackupRecord, { id: backupId });
  if (!asked || asked.state === 'done') return;
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const path = join(folder, asked.name);
  const half = `${path}.part`;
  const client = await pool.connect();
  try {
    const pathOf = (stored: string) => files.pathOf(stored);
    const onRows = async (rows: number) => {
      await scope.save(BackupRecord, backupId, { rows });
      await scope.tell('backups');
    };
    const {
      rows,
      files: count,
      missing,
    } = await writeBackup(
      client,
      { workspaceId: scope.workspace.id, pathOf, onRows },
      createWriteStream(half, { mode: 0o600 }),
    );
    const { size: bytes } = await stat(half);
    await rename(half, path);
    await scope.save(BackupRecord, backupId, { state: 'done', rows, files: count, bytes, missing, trouble: null });
  } catch (error) {
    const trouble = (error instanceof Error ? error.message : String(error)).slice(0, LONGEST_TROUBLE);
    await scope.save(BackupRecord, backupId, { state: 'failed', trouble });
    throw error;
  } finally {
    client.release();
    await rm(half, { force: true });
    await scope.tell('backups');
  }
  await letGoOlder(scope, folder);
}

/** Of those by plan as many are kept as it says, and none that came to nothing before. */
async function letGoOlder(scope: Scope, folder: string): Promise<void> {
  const [plan] = await scope.find(BackupPlan);
  const byPlan = (await scope.find(BackupRecord))
    .filter((one) => one.askedBy === null && !isBeingWritten(scope, one))
    .sort((a, b) => b.askedAt.getTime() - a.askedAt.getTime());
  const done = byPlan.filter(({ state }) => state === 'done').slice(0, plan?.keep ?? USUAL_PLAN.keep);
  for (const one of byPlan) if (!done.includes(one)) await dropBackup(scope, one.id, folder);
}

export async function dropBackup(scope: Scope, id: string, folder: string): Promise<void> {
  const backup = await scope.one(BackupRecord, id, 'backup');
  if (isBeingWritten(scope, backup)) throw notNow('It is being written: wait for its end.');
  const { name } = backup;
  for (const file of [name, `${name}.part`]) await rm(join(folder, file), { force: true });
  await scope.sql('delete from backup where workspace_id = $1 and id = $2', [id]);
  await scope.tell('backups');
}

/** Sends the archive as it lies there. */
export async function sendBackup(scope: Scope, id: string, folder: string, response: Response): Promise<void> {
  const { name, state } = await scope.one(BackupRecord, id, 'backup');
  if (state !== 'done') throw notNow('It is not written yet.');
  await stat(join(folder, name)).catch(() => {
    throw invalid([{ path: 'backupId', message: `${name} is not in the folder of backups any more.` }]);
  });
  response.set({
    'Content-Type': 'application/gzip',
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    'Cache-Control': 'no-store',
  });
  response.sendFile(name, { root: folder, cacheControl: false, dotfiles: 'allow' });
}
