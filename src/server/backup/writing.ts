import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import type { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import type { ClientBase } from 'pg';
import { type Pack, pack } from 'tar-stream';
import { smallOf } from '../files/stored/index.ts';
import { FILES, FORMAT, FORMAT_VERSION, HEAD, type Head, MISSING, nameOfRows, SUMS } from './format.ts';
import { keptTables, schemaOf } from './tables.ts';

/** Rows that are asked for at a time, and the bytes from which on an entry of them is full. */
const ROWS = 200;
const FULL = 4 * 1024 * 1024;

export interface Written {
  readonly rows: number;
  readonly files: number;
  /** Files whose bytes are gone, by their names. */
  readonly missing: readonly string[];
}

interface Backed {
  readonly workspaceId: string;
  /** Where the bytes of a file are. */
  readonly pathOf: (stored: string) => string;
  /** How many rows were written so far. */
  readonly onRows?: (rows: number) => Promise<void>;
}

/**
 * Writes a workspace as an archive, all of it as it was in one moment. Memory holds a few hundred rows.
 * @param client of its own: what it reads is one transaction
 */
export const writeBackup = (client: ClientBase, backed: Backed, out: Writable): Promise<Written> =>
  packed(client, out, (entries) => writeAll(client, backed, entries));

/** An archive of what is read in one moment. */
export async function packed<T>(
  client: ClientBase,
  out: Writable,
  write: (entries: Entries) => Promise<T>,
): Promise<T> {
  const archive = pack();
  const writing = inOneMoment(client, () => write(new Entries(archive))).then(
    (written) => {
      archive.finalize();
      return written;
    },
    (error: unknown) => {
      archive.destroy(error instanceof Error ? error : new Error(String(error)));
      throw error;
    },
  );
  // Until both have ended: whoever gets the connection back must not find the question of somebody before.
  const [written, sent] = await Promise.allSettled([writing, pipeline(archive, createGzip(), out)]);
  if (sent.status === 'rejected') throw sent.reason;
  if (written.status === 'rejected') throw written.reason;
  return written.value;
}

async function inOneMoment<T>(client: ClientBase, work: () => Promise<T>): Promise<T> {
  await client.query('begin isolation level repeatable read read only');
  try {
    // Moments are written by UTC, whatever the database's own zone; a long question is none that hangs.
    await client.query(`set local timezone = 'UTC'; set local statement_timeout = 0`);
    return await work();
  } finally {
    await client.query('rollback');
  }
}

async function writeAll(
  client: ClientBase,
  { workspaceId, pathOf, onRows }: Backed,
  entries: Entries,
): Promise<Written> {
  const tables = await keptTables(client);
  const { rows: found } = await client.query<{ name: string }>('select name from workspace where id = $1', [
    workspaceId,
  ]);
  const [workspace] = found;
  if (!workspace) throw new Error('There is no such workspace.');
  const head: Head = {
    ...{ format: FORMAT, version: FORMAT_VERSION, schema: await schemaOf(client) },
    workspace: { id: workspaceId, name: workspace.name },
  };
  await entries.text(HEAD, `${JSON.stringify(head)}\n`);
  let rows = 0;
  for (const [place, { name, where, order }] of tables.entries()) {
    let part = 0;
    const asked = `select to_jsonb(t)::text as line from "${name}" t where ${where} order by ${order}`;
    for await (const { lines, count } of partsOf(client, asked, [workspaceId])) {
      await entries.text(nameOfRows(place, name, part++), lines);
      rows += count;
      await onRows?.(rows);
    }
  }
  const files = await writeFiles(client, { where: 'true', params: [workspaceId] }, pathOf, entries);
  await entries.end();
  return { rows, ...files };
}

/** What a question gives as lines, some megabytes of them at a time. */
export async function* partsOf(
  client: ClientBase,
  asked: string,
  params: readonly unknown[],
): AsyncGenerator<{ readonly lines: string; readonly count: number }> {
  await client.query(`declare rows no scroll cursor for ${asked}`, [...params]);
  let lines: string[] = [];
  let size = 0;
  for (;;) {
    const { rows } = await client.query<{ line: string }>(`fetch ${ROWS} from rows`);
    for (const { line } of rows) {
      lines.push(line);
      size += line.length;
    }
    const isLast = rows.length < ROWS;
    if (lines.length > 0 && (isLast || size >= FULL)) {
      yield { lines: `${lines.join('\n')}\n`, count: lines.length };
      [lines, size] = [[], 0];
    }
    if (isLast) break;
  }
  await client.query('close rows');
}

/** @param of which files of workspace $1, and what else is asked with */
export async function writeFiles(
  client: ClientBase,
  { where, params }: { readonly where: string; readonly params: readonly unknown[] },
  pathOf: (stored: string) => string,
  entries: Entries,
): Promise<Omit<Written, 'rows'>> {
  await client.query(
    `declare files no scroll cursor for select stored, min(name) as name, bool_or(is_picture) as "isPicture",
       bool_and(removed_at is not null) as "isRemoved" from file where workspace_id = $1 and ${where} group by stored order by stored collate "C"`,
    [...params],
  );
  const missing: string[] = [];
  let files = 0;
  for (;;) {
    const { rows } = await client.query<{ stored: string; name: string; isPicture: boolean; isRemoved: boolean }>(
      `fetch ${ROWS} from files`,
    );
    for (const { stored, name, isPicture, isRemoved } of rows) {
      const isThere = await entries.file(`${FILES}${stored}`, pathOf(stored));
      if (isThere) files++;
      // What was taken out by hand goes by itself one day.
      else if (!isRemoved) missing.push(name);
      if (isThere && isPicture) await entries.file(`${FILES}${smallOf(stored)}`, pathOf(smallOf(stored)));
    }
    if (rows.length < ROWS) break;
  }
  if (missing.length > 0) await entries.text(MISSING, missing.map((name) => `${JSON.stringify(name)}\n`).join(''));
  return { files, missing };
}

/** Entries of an archive that say nothing but what is in them, so that the same gives the same bytes. */
export class Entries {
  private readonly sums: string[] = [];

  constructor(private readonly archive: Pack) {}

  async text(name: string, text: string): Promise<void> {
    const bytes = Buffer.from(text);
    await this.written(name, bytes.length, async (entry, hash) => {
      hash.update(bytes);
      entry.end(bytes);
    });
  }

  /** @returns whether it is there */
  async file(name: string, path: string): Promise<boolean> {
    const size = await sizeOf(path);
    if (size === null) return false;
    await this.written(name, size, async (entry, hash) => {
      await pipeline(
        createReadStream(path),
        async function* (chunks: AsyncIterable<Buffer>) {
          for await (const chunk of chunks) {
            hash.update(chunk);
            yield chunk;
          }
        },
        entry,
      );
    });
    return true;
  }

  /** What was written, at the end. */
  async end(): Promise<void> {
    await this.text(SUMS, this.sums.join(''));
  }

  private written(
    name: string,
    size: number,
    write: (entry: Writable, hash: ReturnType<typeof createHash>) => Promise<void>,
  ): Promise<void> {
    const hash = createHash('sha256');
    return new Promise((resolve, reject) => {
      const header = { name, size, mode: 0o600, mtime: new Date(0), uid: 0, gid: 0 };
      const entry = this.archive.entry(header, (error) => {
        if (error) reject(error);
        else {
          this.sums.push(`${hash.digest('hex')}  ${name}\n`);
          resolve();
        }
      });
      write(entry, hash).catch(reject);
    });
  }
}

async function sizeOf(path: string): Promise<number | null> {
  try {
    return (await stat(path)).size;
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return null;
    throw error;
  }
}
