import { LONGEST_AGO_SECONDS } from '../../../contract/index.ts';
import { earliestId } from '../../platform/db/uuid.ts';
import { Refusal } from '../../platform/refusal.ts';
import type { Scope } from '../../platform/scope.ts';

/** What may be kept: of a workspace in all, of one person in a day, and with one task. */
const MOST_BYTES_OF_WORKSPACE = 20 * 1024 ** 3;
const MOST_FILES_A_DAY = 500;
const MOST_BYTES_A_DAY = 2 * 1024 ** 3;
const MOST_FILES_OF_TASK = 100;
const DAY_MS = 24 * 60 * 60 * 1000;

/** @throws Refusal where one more file would be too much */
export async function refuseBeyondQuota(scope: Scope, taskId: string | null, bytes: number): Promise<void> {
  const [of] = await scope.sql<{ all: number; files: number; bytes: number; task: number }>(
    `select coalesce((select bytes from file_total where workspace_id = $1), 0) as all,
       count(*) as files, coalesce(sum(bytes), 0) as bytes,
       (select count(*) from file where workspace_id = $1 and task_id = $4 and removed_at is null) as task
     from file where workspace_id = $1 and uploaded_by = $2 and uploaded_at > $3 and id > $5::uuid`,
    [
      scope.person?.id ?? null,
      // What a device had kept is of when it was taken; what counts is when it came, which the id tells.
      new Date(scope.instant.getTime() - DAY_MS - LONGEST_AGO_SECONDS * 1000),
      taskId,
      earliestId(scope.instant.getTime() - DAY_MS),
    ],
  );
  const refuse = (detail: string) => {
    throw new Refusal('full', `${detail} Nothing was kept of this file.`);
  };
  if (!of) return;
  if (Number(of.all) + bytes > MOST_BYTES_OF_WORKSPACE)
    refuse('This workspace keeps 20 GB of files already, which is all it may.');
  if (of.files >= MOST_FILES_A_DAY || Number(of.bytes) + bytes > MOST_BYTES_A_DAY)
    refuse(`You have added ${MOST_FILES_A_DAY} files or 2 GB in a day, which is all one person may: go on tomorrow.`);
  if (of.task >= MOST_FILES_OF_TASK)
    refuse(`${MOST_FILES_OF_TASK} files are with this task already, which is all it may have.`);
}
