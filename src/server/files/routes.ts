import { rm } from 'node:fs/promises';
import type { Response } from 'express';
import { fileEndpoints, MAX_FILE_BYTES } from '../../contract/index.ts';
import { receiver } from '../platform/http/receiver.ts';
import type { Routes } from '../platform/http/route.ts';
import { invalid, Refusal } from '../platform/refusal.ts';
import { addFile, keepFile, readableFile, removeFile } from './service.ts';
import { type FileStore, type StoredFile, smallOf } from './stored/index.ts';

export function fileRoutes(routes: Routes, { files }: { readonly files: FileStore }): Routes {
  return routes
    .upload(
      fileEndpoints.upload,
      'work',
      receiver(files.incoming, MAX_FILE_BYTES),
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
    .serve('/files/:fileId', 'read', async ({ scope, params }, response) => {
      sendFile(response, files, await readableFile(scope, params.fileId ?? ''), 'whole');
    })
    .serve('/files/:fileId/small', 'read', async ({ scope, params }, response) => {
      sendFile(response, files, await readableFile(scope, params.fileId ?? ''), 'small');
    });
}

/** Bytes of others are shown or saved, never run: no page of ours, no script, no guessing of what they are. */
export function sendFile(response: Response, store: FileStore, file: StoredFile, size: 'whole' | 'small'): void {
  const isSmall = size === 'small';
  if (isSmall && !file.isPicture)
    throw new Refusal('not-found', 'This file is no picture, so there is no small one of it.');
  response.set({
    'Content-Type': isSmall ? 'image/webp' : file.mediaType,
    'Content-Security-Policy': "default-src 'none'; sandbox",
    'X-Content-Type-Options': 'nosniff',
    'Content-Disposition': `${file.isPicture ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'Cache-Control': 'private, max-age=86400',
  });
  response.sendFile(isSmall ? smallOf(file.stored) : file.stored, { root: store.folder, cacheControl: false });
}
