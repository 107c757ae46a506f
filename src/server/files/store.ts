import { randomBytes } from 'node:crypto';
import { mkdir, readdir, rename, rm } from 'node:fs/promises';
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

  /** Removes bytes that no row of the database names any more. */
  async sweep(isNamed: (stored: string) => boolean): Promise<number> {
    const names = (await readdir(this.folder, { withFileTypes: true })).filter((entry) => entry.isFile());
    const gone = names.map(({ name }) => name).filter((name) => !isNamed(name.replace(/\.small$/, '')));
    await Promise.all(gone.map((name) => rm(this.pathOf(name), { force: true })));
    return gone.length;
  }
}

export function smallOf(stored: string): string {
  return `${stored}.small`;
}
