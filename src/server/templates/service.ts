import type { Template as TemplateAnswer, TemplateInput } from '../../contract/index.ts';
import { dayOfIso, isDated, isoOfDay, planDays } from '../../core/index.ts';
import { conflict, invalid, notFound } from '../http/refusal.ts';
import { planProblem } from '../schedules/making.ts';
import { plannedSchedule, scheduleRows } from '../schedules/schedule-row.ts';
import { fieldChanges, type Scope } from '../scope.ts';
import { Template } from './entity.ts';

const PAGE = 500;

export async function listTemplates(scope: Scope, after: readonly [string, string] | undefined) {
  const rows = await templateRows(scope, { after, limit: PAGE + 1 });
  const page = rows.slice(0, PAGE);
  const last = page.at(-1);
  return {
    templates: await answers(scope, page),
    more: rows.length > PAGE && last ? JSON.stringify([last.name.toLowerCase(), last.id]) : null,
  };
}

export async function oneTemplate(scope: Scope, id: string): Promise<TemplateAnswer> {
  const [answer] = await answers(scope, await templateRows(scope, { id }));
  if (!answer) throw notFound('template');
  return answer;
}

type TemplateRow = Omit<Template, 'workspaceId'> & { changedByName: string | null };

function templateRows(
  scope: Scope,
  { id, after, limit }: { id?: string; after?: readonly [string, string] | undefined; limit?: number },
): Promise<TemplateRow[]> {
  return scope.sql<TemplateRow>(
    `select t.id, t.version, t.name, t.title_pattern as "titlePattern", t.category, t.instructions, t.check_lines as "checkLines",
       t.estimate_minutes as "estimateMinutes", t.changed_at as "changedAt", p.name as "changedByName"
     from template t left join person p on p.workspace_id = t.workspace_id and p.id = t.changed_by
     where t.workspace_id = $1 and ($2::uuid is null or t.id = $2)
       and ($3::text is null or (lower(t.name), t.id) > ($3, $4::uuid))
     order by lower(t.name), t.id limit $5`,
    [id ?? null, after?.[0] ?? null, after?.[1] ?? null, limit ?? null],
  );
}

async function answers(scope: Scope, rows: readonly TemplateRow[]): Promise<TemplateAnswer[]> {
  const use = await templateUse(scope, rows.length === 1 ? rows[0]?.id : undefined);
  return rows.map((row) => ({
    id: row.id,
    version: row.version,
    name: row.name,
    titlePattern: row.titlePattern,
    category: row.category,
    instructions: row.instructions,
    checkLines: row.checkLines,
    estimateMinutes: row.estimateMinutes,
    scheduleCount: use.get(row.id)?.schedules ?? 0,
    nextOn: use.get(row.id)?.next ?? null,
    changedOn: scope.moment(row.changedAt).slice(0, 10),
    changedBy: row.changedByName,
  }));
}

/** How many schedules use each template, and the next date of any of them within a year. */
async function templateUse(scope: Scope, templateId: string | undefined) {
  const calendar = await scope.calendar();
  const today = scope.now.day;
  const use = new Map<string, { schedules: number; next: string | null }>();
  for (const row of await scheduleRows(scope, templateId ? { templateId } : {})) {
    const known = use.get(row.templateId) ?? { schedules: 0, next: null };
    const limit = known.next === null ? today + 365 : dayOfIso(known.next);
    let next = known.next;
    try {
      const first = planDays(plannedSchedule(scope, row), calendar, today, limit).find(isDated);
      if (first) next = isoOfDay(first.on);
    } catch (error) {
      // The schedule's own row says why it can't be planned.
      if (planProblem(error) === null) throw error;
    }
    use.set(row.templateId, { schedules: known.schedules + 1, next });
  }
  return use;
}

export function createTemplate(scope: Scope, input: TemplateInput): Promise<{ template: TemplateAnswer }> {
  return scope.transaction(async (tx) => {
    checkCategory(tx, input);
    const id = tx.newId();
    await tx.insert(Template, { id, version: 1, ...input, changedAt: tx.instant, changedBy: tx.person?.id ?? null });
    await tx.record('template', id, 'created', fieldChanges({}, input));
    await tx.tell('templates');
    return { template: await oneTemplate(tx, id) };
  });
}

/** Changes what later tasks will say; tasks made already keep their text. */
export function changeTemplate(
  scope: Scope,
  id: string,
  { version, ...input }: TemplateInput & { version: number },
): Promise<{ template: TemplateAnswer }> {
  return scope.transaction(async (tx) => {
    const before = await tx.locked(Template, id, 'template');
    if (before.version !== version) {
      throw conflict(
        'Someone else changed this template since you opened it. Yours is still on the screen, not saved; “Put back” shows theirs.',
      );
    }
    checkCategory(tx, input);
    await tx.save(Template, id, {
      ...input,
      version: version + 1,
      changedAt: tx.instant,
      changedBy: tx.person?.id ?? null,
    });
    await tx.record('template', id, 'changed', fieldChanges(before, input));
    await tx.tell('templates', 'schedules');
    return { template: await oneTemplate(tx, id) };
  });
}

function checkCategory(scope: Scope, { category }: TemplateInput): void {
  const names = scope.workspace.categories.map(({ name }) => name);
  if (category !== null && !names.includes(category)) {
    throw invalid([
      { path: 'category', message: `“${category}” is not a category here: there are ${names.join(', ')}.` },
    ]);
  }
}
