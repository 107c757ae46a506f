import type { TemplateUses } from '../../contract/index.ts';
import { plural } from '../../core/index.ts';
import { Refusal } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { phrasesOf, readableSchedule, type ScheduleRow, scheduleRows } from '../schedules/index.ts';
import { IS_TOUCHED, UNFINISHED } from '../tasks/stored/index.ts';
import { Template } from './stored/index.ts';

/** What would be in the way of deleting it, and what archiving it would do. */
export async function usesOfTemplate(scope: Scope, id: string): Promise<TemplateUses> {
  await scope.one(Template, id, 'template');
  const [{ rows, count }, [made], [unfinished]] = await scope.atOnce(
    () => firstSchedulesOf(scope, id),
    () =>
      scope.sql<{ tasks: number }>(
        `select count(*)::int as tasks from (
         select from task where workspace_id = $1 and template_id = $2 limit ${TASKS_COUNTED + 1}) counted`,
        [id],
      ),
    () =>
      scope.sql<{ unseen: number; open: number }>(
        `select count(*) filter (where schedule_id is not null and state = 'open' and appears_on > $3::date and set_on >= $3::date and not ${IS_TOUCHED}) as unseen,
         count(*) as open
       from task where workspace_id = $1 and template_id = $2 and state in ${UNFINISHED}`,
        [id, scope.today],
      ),
  );
  const { unseen = 0, open = 0 } = unfinished ?? {};
  const tasks = made?.tasks ?? 0;
  return {
    schedules: rows.map((row) => ({
      id: row.id,
      name: [row.templateName, row.assetName ?? row.clientName].filter(Boolean).join(' · '),
      phrase: phrasesOf(scope, readableSchedule(scope, row)).phrase,
    })),
    count,
    tasks: Math.min(tasks, TASKS_COUNTED),
    hasMoreTasks: tasks > TASKS_COUNTED,
    unseen,
    open: open - unseen,
  };
}

/** Nobody decides otherwise for more than so many; counting hundreds of thousands takes a while. */
const TASKS_COUNTED = 10_000;

async function firstSchedulesOf(scope: Scope, id: string): Promise<{ rows: ScheduleRow[]; count: number }> {
  const first = await scope.sql<{ id: string; count: number }>(
    `select id, count(*) over ()::int as count from schedule
     where workspace_id = $1 and template_id = $2 and deleted_at is null order by id limit ${NAMED_USES}`,
    [id],
  );
  return { rows: await scheduleRows(scope, { ids: first.map((one) => one.id) }), count: first[0]?.count ?? 0 };
}

/** Schedules named of those that use a template. */
const NAMED_USES = 8;

/** Deletes a template that nothing uses. */
export function removeTemplate(scope: Scope, id: string): Promise<{ changeId: string }> {
  return scope.transaction(async (tx) => {
    const template = await tx.locked(Template, id, 'template');
    const { schedules, count, tasks, hasMoreTasks } = await usesOfTemplate(tx, id);
    const [{ deleted = 0 } = {}] = await tx.sql<{ deleted: number }>(
      'select count(*) as deleted from schedule where workspace_id = $1 and template_id = $2 and deleted_at is not null',
      [id],
    );
    const [{ plans = 0 } = {}] = await tx.sql<{ plans: number }>(
      `select count(*)::int as plans from service_plan where workspace_id = $1 and items @> jsonb_build_array(jsonb_build_object('templateId', $2::text))`,
      [id],
    );
    if (count > 0 || tasks > 0 || deleted > 0 || plans > 0) {
      const named = schedules.map(({ name, phrase }) => `${name} (${phrase})`);
      const more = count - named.length;
      const used = [
        count > 0
          ? `${plural(count, 'schedule')}: ${[...named, ...(more > 0 ? [`${more} more`] : [])].join('; ')}`
          : '',
        tasks > 0 ? `${hasMoreTasks ? 'more than ' : ''}${plural(tasks, 'task')}` : '',
        deleted > 0 ? plural(deleted, 'deleted schedule') : '',
        plans > 0 ? plural(plans, 'service plan') : '',
      ].filter(Boolean);
      throw new Refusal(
        'in-use',
        `“${template.name}” is in use by ${used.join(', and by ')}. Archive it instead: nothing of its record is lost.`,
      );
    }
    // Its files belong to nothing for a while, so that they are there when it is brought back.
    const files = await tx.sql<{ id: string; demandKey: string | null }>(
      'select id, demand_key as "demandKey" from file where workspace_id = $1 and template_id = $2 and removed_at is null',
      [id],
    );
    await tx.sql('update file set template_id = null where workspace_id = $1 and template_id = $2', [id]);
    await tx.sql('delete from template where workspace_id = $1 and id = $2', [id]);
    const changeId = await tx.record('template', id, 'removed', { row: { from: { ...template, files }, to: null } });
    await tx.tell('templates');
    return { changeId };
  });
}

export type RemovedTemplate = Template & { files: { id: string; demandKey: string | null }[] };

/** Puts back a template that was deleted, with its files. */
export async function bringBack(
  scope: Scope,
  { files, workspaceId: _, ...template }: RemovedTemplate,
): Promise<string> {
  await scope.insert(Template, {
    ...template,
    archivedAt: template.archivedAt && new Date(template.archivedAt),
    changedAt: new Date(template.changedAt),
  });
  for (const { id, demandKey } of files)
    await scope.sql('update file set template_id = $3, demand_key = $4 where workspace_id = $1 and id = $2', [
      id,
      template.id,
      demandKey,
    ]);
  await scope.tell('templates');
  return `“${template.name}” is back.`;
}
