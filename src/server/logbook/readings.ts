import type { z } from 'zod';
import { type LogFilter, type logbookEndpoints, MOST_READ_TASKS, MOST_SERIES } from '../../contract/index.ts';
import { type Reading, readingSeries } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { contentsById, nameOf, type TaskRecord } from '../tasks/stored/index.ts';
import { entriesOf } from './asked.ts';
import { readingsOf } from './entries.ts';

type Answer = z.output<(typeof logbookEndpoints)['readings']['answer']>;

/** Whether what a task says asks for a figure anywhere. */
const ASKS_FOR_NUMBERS = `t.content_id in (
  select id from work_content where workspace_id = $1
    and (demands @? '$[*] ? (@.kind == "number")' or check_lines @? '$[*].demands[*] ? (@.kind == "number")'))`;

interface Row extends Pick<TaskRecord, 'answers' | 'contentId' | 'title'> {
  readonly id: string;
  readonly on: string;
  /** What makes a series of it, besides what is read. */
  readonly of: string;
  readonly template: string | null;
  readonly at: string | null;
}

/** The figures of each step over the time that is looked at: of one template at one asset, or for one client, where it has one. */
export async function readingsOverTime(scope: Scope, filter: LogFilter): Promise<Answer> {
  const asked = await entriesOf(scope, filter);
  asked.and(`t.answers <> '{}' and ${ASKS_FOR_NUMBERS}`);
  const found = await scope.sql<Row>(
    `select t.id, t.due_on as "on", t.title, t.answers, t.content_id as "contentId", ${nameOf('template', 't.template_id')} as template,
       coalesce(t.template_id, t.id) || ' ' || coalesce(t.asset_id, t.client_id, t.schedule_id, t.id) as of,
       coalesce(${nameOf('asset', 't.asset_id')}, ${nameOf('client', 't.client_id')}) as at
     from task t where ${asked.where} order by t.due_on desc, t.id limit ${MOST_READ_TASKS + 1}`,
    asked.params,
  );
  const read = found.slice(0, MOST_READ_TASKS);
  const contents = await contentsById(
    scope,
    read.map(({ contentId }) => contentId),
  );
  const about = new Map<string, { readonly template: string; readonly at: string }>();
  const readings = read.flatMap(({ id, on, of, title, template, at, answers, contentId }) => {
    const content = contents.get(contentId);
    if (!content) return [];
    return readingsOf({ ...content, answers }).map(({ key, reading }): Reading => {
      const series = `${of} ${key}`;
      about.set(series, { template: template ?? title, at: at ?? '' });
      return { ...reading, series, taskId: id, on };
    });
  });
  const all = readingSeries(readings);
  return {
    series: all.slice(0, MOST_SERIES).map(({ readings: ofSeries, ...one }) => ({
      ...one,
      ...(about.get(one.series) ?? { template: '', at: '' }),
      readings: ofSeries.map(({ taskId, on, value, least, most }) => ({ taskId, on, value, least, most })),
    })),
    count: all.length,
    since: found.length > MOST_READ_TASKS ? (read.at(-1)?.on ?? null) : null,
  };
}
