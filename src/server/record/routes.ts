import { recordEndpoints } from '../../contract/index.ts';
import type { FileStore } from '../files/stored/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { sendRecord, sendTaskRecord } from './record.ts';

export function recordRoutes(routes: Routes, { files }: { readonly files: FileStore }): Routes {
  return routes
    .sendTo(recordEndpoints.period, 'read', ({ scope, query }, response) => sendRecord(scope, files, query, response))
    .sendTo(recordEndpoints.task, 'read', ({ scope, params }, response) =>
      sendTaskRecord(scope, files, params.taskId, response),
    );
}
