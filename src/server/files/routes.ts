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
      const file = await readableFile(scope, params.fileId ?? '');
      send(response, files, file, file.stored, file.mediaType);
    })
    .serve('/files/:fileId/small', 'read', async ({ scope, params }, response) => {
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
