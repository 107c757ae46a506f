import { backupEndpoints } from '../../contract/index.ts';
import type { FileStore } from '../files/stored/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { Person } from '../platform/identity/person.ts';
import { forbidden } from '../platform/refusal.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { askForBackup, dropBackup, listBackups, planBackups, sendBackup } from './keeping.ts';
import { writeOfPerson } from './of-person.ts';

/** Backups as managers see them: they hold everything, so nobody else gets at one. */
export function backupRoutes(
  routes: Routes,
  { backups, pool, files }: ServerParts & { readonly files: FileStore },
): Routes {
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
    .sendTo(backupEndpoints.ofPerson, 'account', async ({ scope, params: { personId } }, response) => {
      // Of oneself, or of anybody for whoever looks after people.
      if (personId !== scope.me.id && !scope.mayAll('people'))
        throw forbidden('Only a manager can take out what is kept of others.');
      const { name } = await scope.one(Person, personId, 'person');
      const client = await pool.connect();
      try {
        response.set({
          'Content-Type': 'application/gzip',
          'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(`${name} ${scope.today}.tar.gz`)}`,
          'Cache-Control': 'no-store',
        });
        const pathOf = (stored: string) => files.pathOf(stored);
        await writeOfPerson(client, { workspaceId: scope.workspace.id, personId, pathOf }, response);
      } finally {
        client.release();
      }
    })
    .serve('/backups/:backupId/file', 'settings', ({ scope, params }, response) =>
      sendBackup(scope, params['backupId'] ?? '', backups, response),
    );
}
