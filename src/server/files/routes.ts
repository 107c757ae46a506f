import { rm } from 'node:fs/promises';
import type { Request, Response } from 'express';
import multer, { MulterError } from 'multer';
import { fileEndpoints, MAX_FILE_BYTES } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { invalid, Refusal } from '../platform/refusal.ts';
import { addFile, keepFile, readableFile, removeFile } from './service.ts';
import { type FileStore, type StoredFile, smallOf } from './stored/index.ts';

export function fileRoutes(routes: Routes, { files }: { readonly files: FileStore }): Routes {
  return routes
    .upload(
      fileEndpoints.upload,
      receiver(files),
      async ({ scope, body, request }) => {
        const { file } = request;
        if (!file) throw invalid([{ path: 'file', message: 'There is no file in this: choose one.' }]);
        return addFile(scope, files, body, { path: file.path, name: file.originalname, bytes: file.size });
      },
      // Gone already where it was kept.
      async ({ file }) => {
        if (file) await rm(file.path, { force: true });
      },
    )
    .add(fileEndpoints.keep, 'work', ({ scope, params, body }) => keepFile(scope, params.fileId, body.kept))
    .add(fileEndpoints.remove, 'work', ({ scope, params }) => removeFile(scope, params.fileId))
    .serve('/files/:fileId', async ({ scope, params }, response) => {
      const file = await readableFile(scope, params.fileId ?? '');
      send(response, files, file, file.stored, file.mediaType);
    })
    .serve('/files/:fileId/small', async ({ scope, params }, response) => {
      const file = await readableFile(scope, params.fileId ?? '');
      if (!file.isPicture) throw new Refusal('not-found', 'This file is no picture, so there is no small one of it.');
      send(response, files, file, smallOf(file.stored), 'image/webp');
    });
}

/** Bytes of others are shown or saved, never run: no page of ours, no script, no guessing of what they are. */
function send(response: Response, store: FileStore, file: StoredFile, stored: string, mediaType: string): void {
  response.set({
    'Content-Type': mediaType,
    'Content-Security-Policy': "default-src 'none'; sandbox",
    'X-Content-Type-Options': 'nosniff',
    'Content-Disposition': `${file.isPicture ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'Cache-Control': 'private, max-age=86400',
  });
  response.sendFile(stored, { root: store.folder, cacheControl: false });
}

/** Lets a file in, up to the limit. */
function receiver(store: FileStore): (request: Request, response: Response) => Promise<void> {
  const upload = multer({
    dest: store.incoming,
    limits: { fileSize: MAX_FILE_BYTES, files: 1, fields: 8, fieldSize: 1000, parts: 10, headerPairs: 20 },
    defParamCharset: 'utf8',
  }).single('file');
  return (request, response) =>
    new Promise((resolve, reject) => {
      upload(request, response, (error: unknown) => (error ? reject(refusalOf(error)) : resolve()));
    });
}

/** Bodies that break off or are no form at all come as other errors than those that go over a limit. */
function refusalOf(error: unknown): unknown {
  if (error instanceof MulterError && error.code === 'LIMIT_FILE_SIZE') {
    const message = `This file is larger than ${MAX_FILE_BYTES / 1024 / 1024} MB. Nothing was kept; send a smaller one.`;
    return new Refusal('too-large', message, { errors: [{ path: 'file', message }] });
  }
  // What the system says of the disk keeps its code; all else is about what was sent.
  if (error instanceof Error && 'code' in error && 'syscall' in error) return error;
  const why = error instanceof Error ? error.message : String(error);
  return new Refusal('not-read', `The file could not be read (${why}). Send it again.`);
}
