/** A whole workspace as one archive, written and restored (see `format.ts`). */
export { BackupProblem, checkBackup } from './reading.ts';
export { type Restored, restoreBackup } from './restoring.ts';
export { restoreInto } from './restoring-into.ts';
export { writeBackup } from './writing.ts';
