import type { MessageKind, MessageSide, MessageWords } from '../../core/index.ts';
import { tellBells } from '../bell/index.ts';
import type { Scope } from '../platform/scope.ts';
import type { Office } from './office.ts';

/** Something that somebody is to hear of. */
export interface Told extends MessageWords {
  readonly personId: string;
  readonly side: MessageSide;
  readonly kind: MessageKind;
  /** Of how many things it tells. */
  readonly times: number;
  /** The task, or the first of several. */
  readonly taskId: string | null;
  /** Where it leads, where not to that. */
  readonly path: string | null;
  readonly byId: string | null;
  /** Never by mail, as where it is a mail that does not arrive. */
  readonly isHereAlone?: boolean;
}

/** Puts what some people are to hear where they wish to hear it, and counts it whether they do or not. */
export async function tell(scope: Scope, office: Office, all: readonly Told[]): Promise<void> {
  if (all.length === 0) return;
  await countTold(scope, all);
  const lines = all.flatMap((told) => {
    const wish = office.wishOf(told.personId, told.side, told.kind);
    const byMail = wish?.mail === true && !told.isHereAlone;
    const onPhone = wish?.phone === true && !told.isHereAlone;
    if (wish === null || (!wish.here && !byMail && !onPhone)) return [];
    const { personId, side, kind, taskId, path, title, text, times, byId } = told;
    return [
      {
        ...{ id: scope.newId(), person_id: personId, side, kind, task_id: taskId, path, title, text, more: times - 1 },
        ...{ by: byId, here: wish.here, mail: byMail ? 'undecided' : 'no' },
        push: onPhone ? 'undecided' : 'no',
      },
    ];
  });
  // A task may be gone by now: what is told of it stays.
  await scope.sql(
    `insert into message (workspace_id, id, person_id, side, kind, task_id, path, title, text, more, at, by, here, mail, push)
     select $1, line.id, person_id, side, kind, task.id, path, line.title, text, more, $2, by, here, mail, push
     from jsonb_to_recordset($3::jsonb) as line (id uuid, person_id uuid, side text, kind text, task_id uuid, path text, title text,
       text text, more int, by uuid, here boolean, mail text, push text)
     left join task on task.workspace_id = $1 and task.id = line.task_id`,
    [scope.instant, JSON.stringify(lines)],
  );
  await tellBells(
    scope,
    lines.flatMap(({ here, person_id }) => (here ? [person_id] : [])),
  );
}

/** Counts what there was to hear, whether it was told or not. */
export async function countTold(scope: Scope, all: readonly Told[]): Promise<void> {
  await scope.sql(
    `insert into message_count (workspace_id, person_id, on_day, side, kind, times)
     select $1, person_id, $2::date, side, kind, sum(times) from jsonb_to_recordset($3::jsonb) as told (person_id uuid, side text, kind text, times int)
     group by person_id, side, kind order by person_id, side, kind
     on conflict (workspace_id, person_id, on_day, side, kind) do update set times = message_count.times + excluded.times`,
    [
      scope.today,
      JSON.stringify(all.map(({ personId, side, kind, times }) => ({ person_id: personId, side, kind, times }))),
    ],
  );
}
