import { randomBytes } from 'node:crypto';
import { chmod, mkdir, opendir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { fileTypeFromFile } from 'file-type';
import { Pictures } from './pictures.ts';

/** Kinds of files that are taken, as their bytes tell. */
const PICTURES = new Set(['image/jpeg', 'image/png', 'image/gif', 'image/webp']);
const PDF = 'application/pdf';

export interface Bytes {
  /** Random name of the bytes in the folder. */
  readonly stored: string;
  readonly mediaType: string;
  readonly isPicture: boolean;
  readonly bytes: number;
}

/** The folder that holds the bytes of all files, under names that say nothing. */
export class FileStore {
  private readonly pictures = new Pictures();

  private constructor(readonly folder: string) {}

  static async at(folder: string): Promise<FileStore> {
    await mkdir(join(folder, 'incoming'), { recursive: true });
    // Proof and papers are nobody else's on this machine.
    await chmod(folder, 0o700);
    return new FileStore(folder);
  }

  /** Where bytes are put while they arrive. */
  get incoming(): string {
    return join(this.folder, 'incoming');
  }

  /**
   * Takes over a file that has arrived; a picture is written anew, without what says where and by whom it was taken.
   * @returns null when its bytes are no picture and no PDF, whatever its name says
   */
  async keep(path: string): Promise<Bytes | 'too large' | null> {
    const mediaType = (await fileTypeFromFile(path))?.mime ?? '';
    const isPicture = PICTURES.has(mediaType);
    if (!isPicture && mediaType !== PDF) return null;
    const stored = randomBytes(20).toString('hex');
    const whole = this.pathOf(stored);
    if (isPicture) {
      const made = await this.pictures.make(path, whole, this.pathOf(smallOf(stored)));
      if (made !== 'made') {
        await this.letGo(stored);
        return made === 'too large' ? made : null;
      }
      await rm(path, { force: true });
    } else await rename(path, whole);
    await chmod(whole, 0o600);
    return { stored, mediaType, isPicture, bytes: (await stat(whole)).size };
  }

  async close(): Promise<void> {
    this.pictures.close();
  }

  pathOf(stored: string): string {
    return join(this.folder, stored);
  }

  /** Names of bytes that came before a moment, some at a time; a small picture goes with the one it was made from. */
  async *olderThan(before: Date, atOnce: number): AsyncGenerator<string[]> {
    let found: string[] = [];
    for await (const entry of await opendir(this.folder)) {
      if (!entry.isFile() || !(await isOlder(this.pathOf(entry.name), before))) continue;
      const stored = entry.name.replace(/\.small$/, '');
      if (!found.includes(stored)) found.push(stored);
      if (found.length < atOnce) continue;
      yield found;
      found = [];
    }
    if (found.length > 0) yield found;
  }

  /** Removes bytes, and the small picture of them. */
  async letGo(stored: string): Promise<void> {
    await rm(this.pathOf(stored), { force: true });
    await rm(this.pathOf(smallOf(stored)), { force: true });
  }

  /** Removes what arrived before a moment and was never taken over. */
  async sweepIncoming(before: Date): Promise<number> {
    let gone = 0;
    for await (const { name } of await opendir(this.incoming)) {
      const path = join(this.incoming, name);
      if (!(await isOlder(path, before))) continue;
      await rm(path, { force: true });
      gone++;
    }
    return gone;
  }
}

/** False for what has gone meanwhile. */
async function isOlder(path: string, before: Date): Promise<boolean> {
  try {
    return (await stat(path)).mtime < before;
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return false;
    throw error;
  }
}

export function smallOf(stored: string): string {
  return `${stored}.small`;
}
