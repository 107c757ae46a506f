/** A whole workspace as one archive, written and restored (see `format.ts`). */
export { BackupPlan, BackupRecord } from './entity.ts';
export { askForBackup, carryOutBackup, isBackupDue } from './keeping.ts';
export { BackupProblem, checkBackup } from './reading.ts';
export { type Restored, restoreBackup } from './restoring.ts';
export { backupRoutes } from './routes.ts';
export { writeBackup } from './writing.ts';
