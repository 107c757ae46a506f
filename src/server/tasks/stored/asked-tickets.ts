import type { Scope } from '../../platform/scope.ts';

/** The tickets that the work of a task under this alias asks for: those of its part of the template, as that is now. */
export const ticketsAskedBy = (task: string) => `coalesce((
  select case when ${task}.step_key = '' then asking.tickets else (
    select step->'tickets' from jsonb_array_elements(asking.steps) step where step->>'key' = ${task}.step_key) end
  from template asking where asking.workspace_id = ${task}.workspace_id and asking.id = ${task}.template_id), '[]')`;

/**
 * Whether somebody lacks a ticket that a task asks for on the day it is worked.
 * @param held names the parameter with the tickets that they hold, as JSON
 */
export const lacksTicket = (task: string, held: string) => `exists (
  select 1 from jsonb_array_elements_text(${ticketsAskedBy(task)}) asked where not exists (
    select 1 from jsonb_to_recordset(${held}::jsonb) as holds (name text, until date)
    where holds.name = asked and (holds.until is null or holds.until >= ${task}.work_on)))`;

/** The tickets that some tasks ask for, by their ids. */
export async function ticketsOfTasks(
  scope: Scope,
  ids: readonly string[],
): Promise<ReadonlyMap<string, readonly string[]>> {
  const rows = await scope.sql<{ id: string; tickets: readonly string[] }>(
    `select id, ${ticketsAskedBy('task')} as tickets from task where workspace_id = $1 and id = any($2::uuid[])`,
    [ids],
  );
  return new Map(rows.map(({ id, tickets }) => [id, tickets]));
}
