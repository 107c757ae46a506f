import type { Scope } from '../../platform/scope.ts';
import type { BringIn, BringInRow } from '../entity.ts';
import { tasksOut } from '../finished-or-not.ts';
import { writtenRows } from '../out.ts';
import { schedulesOut } from '../schedule-lines.ts';
import type { Sum } from '../sum.ts';
import { templatesOut } from '../template-lines.ts';
import type { MadeEntry } from './made.ts';
import type { WrittenEntry } from './written.ts';

export async function entriesOut(scope: Scope, bringIn: BringIn, sum: Sum): Promise<void> {
  for await (const rows of writtenRows(scope, bringIn)) {
    const of = (row: BringInRow) => row.before as WrittenEntry;
    // Days off were put back by then.
    sum.out += rows.filter((row) => of(row).daysOff !== undefined).length;
    await schedulesOut(
      scope,
      rows.filter((row) => of(row).newScheduleId ?? of(row).scheduleId),
      sum,
    );
    await tasksOut(
      scope,
      rows.filter((row) => of(row).newTaskId !== undefined),
      sum,
    );
    sum.back += rows.filter((row) => of(row).taskId !== undefined).length;
    // A template goes with its schedule; by itself it counts as what its entry became.
    const isAlone = ({ newScheduleId, newTemplateId }: WrittenEntry) =>
      newTemplateId !== undefined && newScheduleId === undefined;
    await templatesOut(
      scope,
      rows.filter((row) => isAlone(of(row))).map((row) => ({ ...of(row), title: row.read.title })),
      sum,
    );
    await templatesOut(
      scope,
      rows.filter((row) => !isAlone(of(row))).map((row) => ({ ...of(row), title: row.read.title })),
      { ...sum, out: 0 },
    );
    await scope.sql(
      `update calendar_origin o set hash = was.hash from jsonb_to_recordset($2::jsonb) as was (uid text, hash text)
       where o.workspace_id = $1 and o.uid = was.uid`,
      [
        JSON.stringify(
          rows.flatMap((row) => {
            const { hashBefore } = of(row);
            return hashBefore === undefined ? [] : [{ uid: (row.read.made as MadeEntry).uid, hash: hashBefore }];
          }),
        ),
      ],
    );
  }
}
