import { randomBytes } from 'node:crypto';
import { mkdir, opendir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { fileTypeFromFile } from 'file-type';
import sharp from 'sharp';

/** Kinds of files that are taken, as their bytes tell. */
const PICTURES = new Set(['image/jpeg', 'image/png', 'image/gif', 'image/webp']);
const PDF = 'application/pdf';

/** The longer side of a small picture, in pixels. */
const SMALL_SIDE = 480;
/** A picture that claims more than this is a trap: a few bytes that unpack to gigabytes. */
const MOST_PIXELS = 100_000_000;

export interface Bytes {
  /** Random name of the bytes in the folder. */
  readonly stored: string;
  readonly mediaType: string;
  readonly isPicture: boolean;
}

/** The folder that holds the bytes of all files, under names that say nothing. */
export class FileStore {
  private constructor(readonly folder: string) {}

  static async at(folder: string): Promise<FileStore> {
    await mkdir(join(folder, 'incoming'), { recursive: true });
    return new FileStore(folder);
  }

  /** Where bytes are put while they arrive. */
  get incoming(): string {
    return join(this.folder, 'incoming');
  }

  /** Takes over a file that has arrived. Null when its bytes are no picture and no PDF, whatever its name says. */
  async keep(path: string): Promise<Bytes | null> {
    const mediaType = (await fileTypeFromFile(path))?.mime ?? '';
    const isPicture = PICTURES.has(mediaType);
    if (!isPicture && mediaType !== PDF) return null;
    const stored = randomBytes(20).toString('hex');
    if (isPicture && !(await this.makeSmall(path, stored))) return null;
    await rename(path, this.pathOf(stored));
    return { stored, mediaType, isPicture };
  }

  /** @returns false where the picture can't be read */
  private async makeSmall(path: string, stored: string): Promise<boolean> {
    try {
      await sharp(path, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
        .rotate()
        .resize(SMALL_SIDE, SMALL_SIDE, { fit: 'inside', withoutEnlargement: true })
        .webp({ quality: 78 })
        .toFile(this.pathOf(smallOf(stored)));
      return true;
    } catch {
      // What sharp can't decode is no picture, whatever its first bytes say; the sender is told so.
      return false;
    }
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
