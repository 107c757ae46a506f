import type { BesideColumn, ListedTask } from '../../contract/index.ts';
import { revisionOn, writePhrase } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { readableSchedule, scheduleRows } from '../schedules/index.ts';
import { nameOf, seriesUpTo } from '../tasks/stored/index.ts';

type Beside = Pick<ListedTask, BesideColumn>;

interface Row {
  readonly id: string;
  readonly scheduleId: string | null;
  readonly nominalDate: string | null;
  readonly appears: string;
  readonly workType: string | null;
  readonly template: string | null;
  readonly site: string | null;
}

/** What of each the columns ask for: told in one reading of the tasks, and one of their schedules where those are asked. */
const SELECTED: Readonly<Record<'appears' | 'workType' | 'template' | 'site', string>> = {
  appears: 't.appears_on',
  workType: 'said.work_type',
  template: nameOf('template', 't.template_id'),
  site: `(select coalesce(site.name, case when of.is_site then of.name end) from asset of
     left join asset site on site.workspace_id = of.workspace_id and site.id = of.site_id
     where of.workspace_id = t.workspace_id and of.id = t.asset_id)`,
};

/** What lines tell besides what every line does, by the ids of their tasks. */
export async function besideOf(
  scope: Scope,
  ids: readonly string[],
  columns: readonly BesideColumn[],
): Promise<Map<string, Beside>> {
  if (columns.length === 0 || ids.length === 0) return new Map();
  const asks = (column: BesideColumn) => columns.includes(column);
  const rows = await scope.sql<Row>(
    `select t.id, t.schedule_id as "scheduleId", t.nominal_date as "nominalDate",
       ${Object.entries(SELECTED)
         .map(([name, of]) => `${asks(name as BesideColumn) ? of : 'null'} as "${name}"`)
         .join(', ')}
     from task t ${asks('workType') ? 'join work_content said on said.workspace_id = t.workspace_id and said.id = t.content_id' : ''}
     where t.workspace_id = $1 and t.id = any($2::uuid[])`,
    [ids],
  );
  const scheduleIds = [...new Set(rows.flatMap(({ scheduleId }) => scheduleId ?? []))];
  const inSeries = rows.flatMap(({ id, scheduleId, nominalDate }) =>
    scheduleId === null || nominalDate === null ? [] : [{ id, scheduleId, nominalDate }],
  );
  const past = asks('lastEight') ? await seriesUpTo(scope, inSeries) : new Map<string, never>();
  const phraseOf = asks('phrase') ? await phrasesOf(scope, scheduleIds) : () => null;
  return new Map(
    rows.map((row) => {
      const { id, scheduleId, nominalDate, appears, workType, template, site } = row;
      const own = scheduleId === null || nominalDate === null ? null : { scheduleId, nominalDate };
      const told: Readonly<Required<Beside>> = {
        ...{ appears, workType, template, site },
        phrase: own && phraseOf(own),
        lastEight: past.get(id) ?? [],
        made: scheduleId === null ? 'by hand' : 'by its schedule',
      };
      return [id, Object.fromEntries(columns.map((column) => [column, told[column]])) as Beside];
    }),
  );
}

/** The rule that a task followed on its date, in words. */
async function phrasesOf(scope: Scope, scheduleIds: readonly string[]) {
  const rows = scheduleIds.length === 0 ? [] : await scheduleRows(scope, { ids: scheduleIds });
  const schedules = new Map(rows.map((row) => [row.id, readableSchedule(scope, row)]));
  const { yearStarts } = scope.workspace;
  return ({ scheduleId, nominalDate }: { readonly scheduleId: string; readonly nominalDate: string }) => {
    const schedule = schedules.get(scheduleId);
    if (!schedule) return null;
    return writePhrase(revisionOn(schedule, nominalDate).recurrence, { start: 'unsaid', yearStarts });
  };
}
