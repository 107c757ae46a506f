import { rm } from 'node:fs/promises';
import { bringInEndpoints, MOST_BRING_BYTES } from '../../contract/index.ts';
import type { FileStore } from '../files/stored/index.ts';
import { receiver } from '../platform/http/receiver.ts';
import type { Routes } from '../platform/http/route.ts';
import { invalid } from '../platform/refusal.ts';
import { mustBeAllowed } from './allowed.ts';
import { readCalendar } from './calendar/index.ts';
import { BringIn } from './entity.ts';
import { sendLeft } from './left-file.ts';
import { clientsForPlan } from './plans-meant.ts';
import { readFile } from './read-file.ts';
import {
  bringItIn,
  discard,
  impactOfBringIn,
  listBringIns,
  oneBringIn,
  rowsOf,
  settle,
  startBringIn,
  startCalendar,
} from './service.ts';

export function bringInRoutes(routes: Routes, { files }: { readonly files: FileStore }): Routes {
  return routes
    .upload(
      bringInEndpoints.upload,
      'clients',
      receiver(files.incoming, MOST_BRING_BYTES),
      async ({ scope, body, request }) => {
        const { file } = request;
        if (!file) throw invalid([{ path: 'file', message: 'There is no file in this: choose one.' }]);
        mustBeAllowed(scope, body.kind);
        const { originalname: name, path } = file;
        const id =
          body.kind === 'calendar'
            ? await startCalendar(scope, name, await readCalendar(path))
            : await startBringIn(scope, body.kind, name, await readFile(path));
        return { id };
      },
      async ({ file }) => {
        if (file) await rm(file.path, { force: true });
      },
    )
    .add(bringInEndpoints.list, 'clients', async ({ scope }) => ({ bringIns: await listBringIns(scope) }))
    .add(bringInEndpoints.one, 'clients', async ({ scope, params }) => ({
      bringIn: await oneBringIn(scope, params.bringInId),
    }))
    .add(bringInEndpoints.rows, 'clients', async ({ scope, params, query }) => {
      const bringIn = await scope.one(BringIn, params.bringInId, 'file');
      mustBeAllowed(scope, bringIn.kind);
      return { rows: await rowsOf(scope, bringIn, query.which, query.after) };
    })
    .add(bringInEndpoints.forPlan, 'clients', async ({ scope, params, query }) => {
      const bringIn = await scope.one(BringIn, params.bringInId, 'file');
      mustBeAllowed(scope, bringIn.kind);
      return clientsForPlan(scope, bringIn, query.plan);
    })
    .add(bringInEndpoints.settle, 'clients', async ({ scope, params, body }) => {
      await settle(scope, params.bringInId, body);
      return { bringIn: await oneBringIn(scope, params.bringInId) };
    })
    .add(bringInEndpoints.impact, 'clients', ({ scope, params, body }) =>
      impactOfBringIn(scope, params.bringInId, body.version),
    )
    .add(bringInEndpoints.bringIn, 'clients', async ({ scope, params, body }) => {
      await bringItIn(scope, params.bringInId, body);
      return { bringIn: await oneBringIn(scope, params.bringInId) };
    })
    .add(bringInEndpoints.discard, 'clients', async ({ scope, params }) => ({
      discarded: await discard(scope, params.bringInId),
    }))
    .serve('/bring-ins/:bringInId/left', 'clients', ({ scope, params }, response) =>
      sendLeft(scope, params['bringInId'] ?? '', response),
    );
}
