import { createHash } from 'node:crypto';
import { rmSync, statfsSync } from 'node:fs';
import { freemem } from 'node:os';
import { join } from 'node:path';

const MEMORY = '/dev/shm';
/** `statfs` of a file system that is kept in memory. */
const TMPFS = 0x01021994;
/** What a database of tests comes to at most, its log included. */
const ROOM = 4 * 2 ** 30;

/**
 * Where a database lies that goes with this process: in memory where there is room, else in `wanted`. A copy of the demo's
 * takes 60 ms in memory, 300 and more on the disk of a small machine, and each API test has one. Empty at first, and gone
 * with the process, however that ends but by a kill: then with the next that asks for the same.
 */
export function memoryFolder(wanted) {
  const folder = hasRoom()
    ? join(MEMORY, `jolly-rota-${createHash('sha256').update(wanted).digest('hex').slice(0, 12)}`)
    : wanted;
  const remove = () => rmSync(folder, { recursive: true, force: true });
  remove();
  process.once('exit', remove);
  return folder;
}

function hasRoom() {
  try {
    const { type, bavail, bsize } = statfsSync(MEMORY);
    return type === TMPFS && bavail * bsize > ROOM && freemem() > 2 * ROOM;
  } catch {
    // A machine without it.
    return false;
  }
}
