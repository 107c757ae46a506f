import type { Request, Response } from 'express';
import multer, { MulterError } from 'multer';
import { Refusal } from '../refusal.ts';

/** Lets the bytes of a file in (multipart/form-data, under `file`), up to a limit, into a folder. */
export function receiver(folder: string, mostBytes: number): (request: Request, response: Response) => Promise<void> {
  const upload = multer({
    dest: folder,
    limits: { fileSize: mostBytes, files: 1, fields: 8, fieldSize: 1000, parts: 10, headerPairs: 20 },
    defParamCharset: 'utf8',
  }).single('file');
  return (request, response) =>
    new Promise((resolve, reject) => {
      // Whoever was cut off while it waited for its turn says nothing any more: nobody would hear of an end.
      if (request.destroyed) return reject(refusalOf(new Error('it broke off'), mostBytes));
      upload(request, response, (error: unknown) => (error ? reject(refusalOf(error, mostBytes)) : resolve()));
    });
}

/** Bodies that break off or are no form at all come as other errors than those that go over a limit. */
function refusalOf(error: unknown, mostBytes: number): unknown {
  if (error instanceof MulterError && error.code === 'LIMIT_FILE_SIZE') {
    const message = `This file is larger than ${mostBytes / 1024 / 1024} MB. Nothing was kept; send a smaller one.`;
    return new Refusal('too-large', message, { errors: [{ path: 'file', message }] });
  }
  // What the system says of the disk keeps its code; all else is about what was sent.
  if (error instanceof Error && 'code' in error && 'syscall' in error) return error;
  const why = error instanceof Error ? error.message : String(error);
  return new Refusal('not-read', `The file could not be read (${why}). Send it again.`);
}
