import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { extract } from 'tar-stream';
import { FORMAT_VERSION, HEAD, type Head, headSchema, SUMS } from './format.ts';

/** What is wrong with a backup, in words for whoever brings it. */
export class BackupProblem extends Error {
  override readonly name = 'BackupProblem';
}

/** An entry and its bytes as they come. */
export interface Entry {
  readonly name: string;
  readonly size: number;
  readonly chunks: AsyncIterable<Buffer>;
}

/** Entries of rows hold some megabytes; more is none of ours. */
const MOST_TEXT_BYTES = 256 * 1024 * 1024;

/**
 * Reads an archive entry by entry. @param take must read an entry to its end
 * @throws BackupProblem where it is none, or ends in the middle
 */
export async function eachEntry(path: string, take: (entry: Entry) => Promise<void>): Promise<void> {
  const entries = extract();
  const reading = pipeline(createReadStream(path), createGunzip(), entries);
  // Told below, once what was read so far is done with.
  reading.catch(() => undefined);
  try {
    for await (const entry of entries) {
      await take({ name: entry.header.name, size: entry.header.size ?? 0, chunks: entry });
      entry.resume();
    }
    await reading;
  } catch (error) {
    if (error instanceof BackupProblem) throw error;
    const code = error instanceof Error && 'code' in error ? String(error.code) : '';
    if (code === 'ENOENT' || code === 'EACCES' || code === 'EISDIR')
      throw new BackupProblem(`${path} can’t be read (${code}).`);
    if (/^Z_|^ERR_/.test(code) || /tar|unexpected end|header|premature/i.test(String(error)))
      throw new BackupProblem('It is broken, or ends in the middle: copy it anew from where it was written.');
    throw error;
  }
}

export async function textOf({ name, size, chunks }: Entry): Promise<string> {
  if (size > MOST_TEXT_BYTES) throw new BackupProblem(`“${name}” in it is longer than anything that is written here.`);
  const parts: Buffer[] = [];
  for await (const chunk of chunks) parts.push(chunk);
  return Buffer.concat(parts).toString('utf8');
}

/**
 * Reads all of a backup and holds each entry against the sum that was written of it; nothing is kept.
 * @throws BackupProblem where it is none of ours, newer than this version, broken or not whole
 */
export async function checkBackup(path: string): Promise<{ readonly head: Head; readonly entries: number }> {
  let head: Head | null = null;
  let sums: string | null = null;
  const found: string[] = [];
  await eachEntry(path, async (entry) => {
    if (sums !== null) throw new BackupProblem(`Something stands behind its end: “${entry.name}”.`);
    if (head === null) {
      if (entry.name !== HEAD) throw new BackupProblem('That is no backup of Jolly Rota.');
      const text = await textOf(entry);
      head = headOf(text);
      found.push(`${sumOf(text)}  ${HEAD}\n`);
    } else if (entry.name === SUMS) sums = await textOf(entry);
    else {
      const hash = createHash('sha256');
      for await (const chunk of entry.chunks) hash.update(chunk);
      found.push(`${hash.digest('hex')}  ${entry.name}\n`);
    }
  });
  const [first, end] = [head as Head | null, sums as string | null];
  if (first === null) throw new BackupProblem('That is no backup of Jolly Rota.');
  if (end === null)
    throw new BackupProblem('It is not whole: its end is missing. Copy it anew from where it was written.');
  const written = end.split(/(?<=\n)/).filter(Boolean);
  for (const [i, line] of found.entries())
    if (line !== written[i]) throw new BackupProblem(`“${line.slice(66).trim()}” in it is not as it was written.`);
  if (found.length !== written.length) throw new BackupProblem('It is not whole: entries of it are missing.');
  return { head: first, entries: found.length };
}

const sumOf = (text: string): string => createHash('sha256').update(text).digest('hex');

function headOf(text: string): Head {
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    throw new BackupProblem('That is no backup of Jolly Rota.');
  }
  const read = headSchema.safeParse(said);
  if (!read.success) throw new BackupProblem(read.error.issues[0]?.message ?? 'That is no backup of Jolly Rota.');
  if (read.data.version > FORMAT_VERSION)
    throw new BackupProblem(
      `It was written by a newer version of Jolly Rota (format ${read.data.version}, this one reads ${FORMAT_VERSION}).`,
    );
  return read.data;
}
