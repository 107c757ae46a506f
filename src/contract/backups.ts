import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id } from './fields.ts';
import { backupPaths } from './paths-later.ts';

export const BACKUP_TIMES = ['never', 'day', 'week'] as const;
export type BackupTimes = (typeof BACKUP_TIMES)[number];
/** Of those that are written by plan: how many are kept at the most. */
export const MOST_BACKUPS = 60;
/** Those that somebody asked for are dropped by hand; so many at the most lie here. */
export const MOST_BY_HAND = 10;

const planSchema = z.object({
  every: z.enum(BACKUP_TIMES),
  /** The last so many. */
  keep: z.number().int('Whole numbers.').min(1, 'One at least.').max(MOST_BACKUPS, `${MOST_BACKUPS} at most.`),
});
export type BackupPlanInput = z.infer<typeof planSchema>;

const backupSchema = z.object({
  id,
  state: z.enum(['asked', 'done', 'failed']),
  askedAt: civilMoment,
  /** Null for one by plan. */
  by: z.string().nullable(),
  name: z.string(),
  /** So far, while it is written. */
  rows: z.number().int(),
  files: z.number().int(),
  /** Of the archive; null while it is written. */
  bytes: z.number().int().nullable(),
  /** Files whose bytes are gone. */
  missing: z.array(z.string()),
  trouble: z.string().nullable(),
});
export type Backup = z.infer<typeof backupSchema>;

const backupsSchema = z.object({
  plan: planSchema,
  backups: z.array(backupSchema),
  /** The folder of the server they lie in. */
  folder: z.string(),
});
export type Backups = z.infer<typeof backupsSchema>;

export const backupEndpoints = {
  list: endpoint(backupPaths.list, { answer: backupsSchema }),
  /** Written by the queue; the list tells how far it is. */
  make: endpoint(backupPaths.make, { answer: backupsSchema }),
  plan: endpoint(backupPaths.plan, { body: planSchema, answer: backupsSchema }),
  drop: endpoint(backupPaths.drop, { answer: backupsSchema }),
  /** All that is kept of one person, as an archive: for themselves, and for a manager. */
  ofPerson: endpoint(backupPaths.ofPerson, { answer: z.string() }),
};
