import type { z } from 'zod';
import { type LogFilter, type logbookEndpoints, MOST_READ_TASKS, MOST_SERIES } from '../../contract/index.ts';
import { type Reading, readingSeries } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { linesOf, type TaskRow } from '../tasks/stored/index.ts';
import { entriesOf } from './asked.ts';
import { readingsOf } from './entries.ts';

type Answer = z.output<(typeof logbookEndpoints)['readings']['answer']>;

/** Whether what a task says asks for a figure anywhere. */
const ASKS_FOR_NUMBERS = `t.content_id in (
  select id from work_content where workspace_id = $1
    and (demands @? '$[*] ? (@.kind == "number")' or check_lines @? '$[*].demands[*] ? (@.kind == "number")'))`;

/** The figures of each step over the time that is looked at: of one template at one asset, or for one client, where it has one. */
export async function readingsOverTime(scope: Scope, filter: LogFilter): Promise<Answer> {
  const asked = await entriesOf(scope, filter);
  asked.and(`t.answers <> '{}' and ${ASKS_FOR_NUMBERS}`);
  const found = await scope.sql<{ id: string; on: string }>(
    `select t.id, t.due_on as "on" from task t where ${asked.where} order by t.due_on desc, t.id limit ${MOST_READ_TASKS + 1}`,
    asked.params,
  );
  const read = found.slice(0, MOST_READ_TASKS);
  const rows = await scope.sql<TaskRow>(linesOf('select unnest($2::uuid[])'), [read.map(({ id }) => id)]);
  const templates = await scope.sql<{ id: string; name: string }>(
    'select id, name from template where workspace_id = $1 and id = any($2::uuid[])',
    [[...new Set(rows.flatMap(({ templateId }) => templateId ?? []))]],
  );
  const nameOf = new Map(templates.map(({ id, name }) => [id, name]));
  const about = new Map<string, { template: string; at: string }>();
  const readings = rows.flatMap((row) =>
    readingsOf(row).map(({ reading, key }): Reading => {
      const series = [row.templateId ?? row.id, row.assetId ?? row.clientId ?? row.scheduleId ?? '', key].join(' ');
      about.set(series, {
        template: nameOf.get(row.templateId ?? '') ?? row.title,
        at: row.assetName ?? row.clientName ?? '',
      });
      return { ...reading, series, taskId: row.id, on: row.dueOn };
    }),
  );
  const all = readingSeries(readings);
  return {
    series: all.slice(0, MOST_SERIES).map(({ readings: of, ...one }) => ({
      ...one,
      ...(about.get(one.series) ?? { template: '', at: '' }),
      readings: of.map(({ taskId, on, value, least, most }) => ({ taskId, on, value, least, most })),
    })),
    count: all.length,
    since: found.length > MOST_READ_TASKS ? (read.at(-1)?.on ?? null) : null,
  };
}
