import { rm } from 'node:fs/promises';
import { byLinkEndpoints, clientLinkEndpoints, type LinkedTask, MAX_FILE_BYTES } from '../../contract/index.ts';
import { addFile, readableFile, removeFile, sendFile } from '../files/index.ts';
import type { FileStore } from '../files/stored/index.ts';
import { linkOrigin } from '../platform/http/addresses.ts';
import { receiver } from '../platform/http/receiver.ts';
import type { Routes } from '../platform/http/route.ts';
import { invalid } from '../platform/refusal.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { answerDemand, finishTask, tickLine, writeNote } from '../tasks/index.ts';
import { askedOf, askNow, withdrawLinks } from './asked.ts';
import { byLink, byLinkAlone, enterCode, openLink, sendCode } from './links.ts';
import { afterUpload, doByLink, linkedTask, mustSeeFile, mustTakeMore, ownFileOf, takeBack } from './page.ts';

/** What the office asks of clients. */
export function clientLinkRoutes(routes: Routes): Routes {
  return routes
    .add(clientLinkEndpoints.asked, 'read', ({ scope, params }) => askedOf(scope, params.taskId))
    .add(clientLinkEndpoints.ask, 'give', ({ scope, params, body, request }) =>
      askNow(scope, params.taskId, body, linkOrigin(request)),
    )
    .add(clientLinkEndpoints.withdraw, 'give', ({ scope, params }) => withdrawLinks(scope, params.taskId));
}

const told = async (task: Promise<LinkedTask>) => ({ task: await task });

/** What a client's contact does by a link: each is checked against what the link opens, then done as by anybody. */
export function byLinkRoutes(routes: Routes, { clock, files }: ServerParts & { readonly files: FileStore }): Routes {
  const link = byLink(clock);
  const alone = byLinkAlone(clock);
  return routes
    .add(byLinkEndpoints.open, alone, ({ scope, request }) => openLink(scope, request))
    .add(byLinkEndpoints.sendCode, alone, ({ scope }) => sendCode(scope))
    .add(byLinkEndpoints.enterCode, alone, ({ scope, body }) => enterCode(scope, body.code))
    .add(byLinkEndpoints.task, link, ({ scope, params }) => linkedTask(scope, params.taskId))
    .add(byLinkEndpoints.answer, link, ({ scope, params: { taskId }, body }) =>
      told(doByLink(scope, taskId, (tx) => answerDemand(tx, taskId, body))),
    )
    .add(byLinkEndpoints.tick, link, ({ scope, params: { taskId }, body }) =>
      told(doByLink(scope, taskId, (tx) => tickLine(tx, taskId, body.key, body.ticked))),
    )
    .add(byLinkEndpoints.note, link, ({ scope, params: { taskId }, body }) =>
      told(doByLink(scope, taskId, (tx) => writeNote(tx, taskId, body.note, body.was))),
    )
    .add(byLinkEndpoints.finish, link, ({ scope, params: { taskId } }) =>
      told(doByLink(scope, taskId, (tx) => finishTask(tx, taskId))),
    )
    .add(byLinkEndpoints.takeBack, link, ({ scope, params }) => told(takeBack(scope, params.taskId)))
    .upload(
      byLinkEndpoints.upload,
      link,
      receiver(files.incoming, MAX_FILE_BYTES),
      async ({ scope, params, body, request }) => {
        const { file } = request;
        if (!file) throw invalid([{ path: 'file', message: 'There is no file in this: choose one.' }]);
        await mustTakeMore(scope, params.taskId);
        const upload = { ...body, taskId: params.taskId, ago: 0 };
        await addFile(scope, files, upload, { path: file.path, name: file.originalname, bytes: file.size });
        return told(afterUpload(scope, params.taskId));
      },
      async ({ file }) => {
        if (file) await rm(file.path, { force: true });
      },
    )
    .add(byLinkEndpoints.removeFile, link, async ({ scope, params: { fileId } }) => {
      const taskId = await ownFileOf(scope, fileId);
      return told(doByLink(scope, taskId, (tx) => removeFile(tx, fileId)));
    })
    .serve('/link/files/:fileId', link, async ({ scope, params }, response) => {
      await mustSeeFile(scope, params.fileId ?? '');
      sendFile(response, files, await readableFile(scope, params.fileId ?? ''), 'whole');
    })
    .serve('/link/files/:fileId/small', link, async ({ scope, params }, response) => {
      await mustSeeFile(scope, params.fileId ?? '');
      sendFile(response, files, await readableFile(scope, params.fileId ?? ''), 'small');
    });
}
