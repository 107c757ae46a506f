import { backupEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { askForBackup, dropBackup, listBackups, planBackups, sendBackup } from './keeping.ts';

/** Backups as managers see them: they hold everything, so nobody else gets at one. */
export function backupRoutes(routes: Routes, { backups }: ServerParts): Routes {
  return routes
    .add(backupEndpoints.list, 'settings', ({ scope }) => listBackups(scope, backups))
    .add(backupEndpoints.make, 'settings', async ({ scope }) => {
      await askForBackup(scope);
      return listBackups(scope, backups);
    })
    .add(backupEndpoints.plan, 'settings', async ({ scope, body }) => {
      await planBackups(scope, body);
      return listBackups(scope, backups);
    })
    .add(backupEndpoints.drop, 'settings', async ({ scope, params }) => {
      await dropBackup(scope, params.backupId, backups);
      return listBackups(scope, backups);
    })
    .serve('/backups/:backupId/file', 'settings', ({ scope, params }, response) =>
      sendBackup(scope, params['backupId'] ?? '', backups, response),
    );
}
