import type { StoredFile } from '../../../contract/index.ts';
import { agoSeconds, ProblemError } from '../../kit/api.ts';
import { newKey } from '../../kit/new-key.ts';
import { sendForm } from '../../kit/send-form.ts';

/** Where a file is for. */
export interface UploadTarget {
  readonly taskId?: string | undefined;
  readonly demand?: string | undefined;
  /** How long ago it was taken, in milliseconds, where it had to wait. */
  readonly agoMs?: number | undefined;
}

export interface Uploaded {
  readonly file: StoredFile;
  readonly changeId: string | null;
}

/** The most that is worth sending; the server says the same. */
const TRIES = 4;
const PAUSE_MS = 800;

/**
 * Sends a file, with how far it is. Where the connection breaks it is sent again under the same key, so that it never
 * arrives twice.
 * @throws ProblemError when it is refused, or the connection stays away
 */
export async function upload(
  file: File,
  target: UploadTarget,
  onProgress: (share: number) => void,
  key: string = newKey(),
): Promise<Uploaded> {
  for (let tried = 1; ; tried++) {
    try {
      return await send(file, target, key, onProgress);
    } catch (error) {
      const isBroken = error instanceof ProblemError && (error.problem.status === 0 || error.problem.status >= 502);
      if (!isBroken || tried === TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS * tried));
    }
  }
}

function send(
  file: File,
  { taskId, demand, agoMs = 0 }: UploadTarget,
  key: string,
  onProgress: (share: number) => void,
): Promise<Uploaded> {
  const form = new FormData();
  form.set('key', key);
  if (taskId) form.set('taskId', taskId);
  if (demand) form.set('demand', demand);
  form.set('ago', String(agoSeconds(agoMs)));
  // Last, so that the server knows where it is for before it reads it.
  form.set('file', file);
  return sendForm<Uploaded>('/files', form, onProgress);
}

/** "340 kB", "2.1 MB" */
export function sayBytes(bytes: number): string {
  return bytes < 1024 * 1024 ? `${Math.max(1, Math.round(bytes / 1024))} kB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}

export const addressOfFile = (id: string) => `/api/files/${id}`;
export const addressOfSmall = (id: string) => `/api/files/${id}/small`;
