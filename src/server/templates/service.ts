import type { Impact, Reach, Template as TemplateAnswer, TemplateInput, TemplateLine } from '../../contract/index.ts';
import type { UnnamedGroup } from '../../core/index.ts';
import { type FileSource, filesOfTemplate, setTemplateFiles } from '../files/stored/index.ts';
import type { Action } from '../platform/changes/actions.ts';
import { type Change, fieldsBefore } from '../platform/changes/entity.ts';
import { columnsOf } from '../platform/db/columns.ts';
import { joinLists } from '../platform/identity/lists.ts';
import { Person } from '../platform/identity/person.ts';
import { oncePer } from '../platform/latest.ts';
import { changedMeanwhile, invalid, notFound, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import {
  impactOf,
  isGroupHere,
  type KeptPlan,
  keptPlans,
  nextDateOf,
  plannedYear,
  scheduleRows,
  syncAll,
  UNSEEN_ONLY,
} from '../schedules/index.ts';
import { butFor, putBackTasks, type Task, watched } from '../tasks/stored/index.ts';
import { bringBack, type RemovedTemplate } from './removal.ts';
import { Favourite, picturesIn, sanitiseInstructions, Template, withPictures } from './stored/index.ts';

const PAGE = 200;

export async function listTemplates(scope: Scope, after: readonly [string, string] | undefined) {
  const rows = await lineRows(scope, { after, limit: PAGE + 1 });
  const page = rows.slice(0, PAGE);
  const last = page.at(-1);
  return {
    templates: await lines(scope, page),
    more: rows.length > PAGE && last ? JSON.stringify([last.name.toLowerCase(), last.id]) : null,
  };
}

const LINE_FIELDS = [
  'id',
  'version',
  'name',
  'summary',
  'titlePattern',
  'category',
  'dot',
  'workType',
  'priority',
  'assignment',
  'archivedAt',
  'changedAt',
] as const satisfies readonly (keyof Template)[];

type LineRow = Omit<TemplateLine, 'nextOn' | 'archivedOn' | 'changedOn'> & Pick<Template, 'archivedAt' | 'changedAt'>;

function lineRows(
  scope: Scope,
  { id, after, limit }: { id?: string; after?: readonly [string, string] | undefined; limit?: number },
): Promise<LineRow[]> {
  return scope.sql<LineRow>(
    `select ${columnsOf(Template, 't', LINE_FIELDS)}, 1 + own.tasks as makes, jsonb_array_length(t.steps) - own.tasks as "checkLines",
       t.estimate_minutes + own.minutes as minutes,
       (select count(*) from schedule s where s.workspace_id = t.workspace_id and s.template_id = t.id and s.deleted_at is null) as "scheduleCount",
       (select max(k.work_on) from task k where k.workspace_id = t.workspace_id and k.template_id = t.id and k.work_on <= $6::date) as "lastOn",
       exists (select 1 from favourite f where f.workspace_id = t.workspace_id and f.template_id = t.id and f.person_id = $7) as "isFavourite",
       p.name as "changedBy"
     from template t
     left join person p on p.workspace_id = t.workspace_id and p.id = t.changed_by
     cross join lateral (
       select count(*)::int as tasks, coalesce(sum((step->>'estimateMinutes')::int), 0)::int as minutes
       from jsonb_array_elements(t.steps) step where step->>'kind' = 'task'
     ) own
     where t.workspace_id = $1 and ($2::uuid is null or t.id = $2)
       and ($3::text is null or (lower(t.name), t.id) > ($3, $4::uuid))
     order by lower(t.name), t.id limit $5`,
    [id ?? null, after?.[0] ?? null, after?.[1] ?? null, limit ?? null, scope.today, scope.person?.id ?? null],
  );
}

async function lines(scope: Scope, rows: readonly LineRow[]): Promise<TemplateLine[]> {
  const [only] = rows;
  // Within a change nothing is asked that others share: it is of one template then.
  const next =
    only && scope.isWithinTransaction
      ? new Map([[only.id, await nextDateOf(scope, only.id)]])
      : nextDates(await keptPlans(scope));
  return rows.map(({ archivedAt, changedAt, ...row }) => ({
    ...row,
    nextOn: next.get(row.id) ?? null,
    archivedOn: archivedAt === null ? null : scope.moment(archivedAt).slice(0, 10),
    changedOn: scope.moment(changedAt).slice(0, 10),
  }));
}

/** The next date within a year of any schedule of each template. */
const nextDates = oncePer((plans: ReadonlyMap<string, KeptPlan>) => {
  const next = new Map<string, string>();
  for (const { templateId, next: date } of plans.values()) {
    const known = next.get(templateId);
    if (date !== null && (known === undefined || date < known)) next.set(templateId, date);
  }
  return next;
});

export async function oneTemplate(scope: Scope, id: string): Promise<TemplateAnswer> {
  const [line] = await lines(scope, await lineRows(scope, { id }));
  if (!line) throw notFound('template');
  const template = await scope.one(Template, id, 'template');
  const files = await filesOfTemplate(scope, id);
  return {
    ...line,
    instructions: template.instructions,
    links: template.links,
    signOff: template.signOff,
    finishWithLast: template.finishWithLast,
    numbered: template.numbered,
    estimateMinutes: template.estimateMinutes,
    demands: template.demands,
    tickets: template.tickets,
    escalation: template.escalation,
    steps: [...template.steps],
    files,
    fileIds: files.map((file) => file.id),
  };
}

export interface SavedTemplate {
  readonly template: TemplateAnswer;
  readonly changeId: string | null;
}

export function createTemplate(scope: Scope, input: TemplateInput, source: FileSource): Promise<SavedTemplate> {
  return scope.transaction(async (tx) => {
    await checkInput(tx, input);
    const id = tx.newId();
    const { fileIds, ...content } = input;
    const instructions = sanitiseInstructions(content.instructions);
    const row = { ...content, instructions };
    await tx.insert(Template, {
      id,
      version: 1,
      ...row,
      archivedAt: null,
      changedAt: tx.instant,
      changedBy: tx.person?.id ?? null,
    });
    const given = { listed: fileIds, inText: picturesIn(instructions) };
    const copies = await setTemplateFiles(tx, id, given, source);
    if (copies.size > 0) await tx.save(Template, id, { instructions: withPictures(instructions, copies) });
    await keepTickets(tx, row);
    await tx.record('template', id, 'created', fieldChanges({}, row));
    await tx.tell('templates');
    return { template: await oneTemplate(tx, id), changeId: null };
  });
}

/** Changes what later tasks will say; tasks that somebody has seen or touched keep their text. */
export function changeTemplate(
  scope: Scope,
  id: string,
  { version, fileIds, reach, ...input }: TemplateInput & { version: number; reach: Reach },
): Promise<SavedTemplate> {
  return scope.transaction(async (tx) => {
    const before = await changeable(tx, id, version, { fileIds, ...input });
    const instructions = sanitiseInstructions(input.instructions);
    const given = { listed: fileIds, inText: picturesIn(instructions) };
    const copies = await setTemplateFiles(tx, id, given, null);
    await keepTickets(tx, input);
    return saveTemplate(tx, before, { ...input, instructions: withPictures(instructions, copies) }, 'changed', reach);
  });
}

async function changeable(scope: Scope, id: string, version: number, input: TemplateInput): Promise<Template> {
  const before = await scope.locked(Template, id, 'template');
  if (before.version !== version) {
    throw changedMeanwhile(
      'Someone else changed this template since you opened it. Yours is still on the screen, not saved; “Put back” shows theirs.',
    );
  }
  await checkInput(scope, input);
  return before;
}

/** What saving a template would do to the tasks of its schedules: the change is made, looked at, and taken back. */
export function impactOfTemplate(
  scope: Scope,
  id: string,
  { version, fileIds, reach, ...input }: TemplateInput & { version: number; reach: Reach },
): Promise<Impact> {
  return scope.rehearse(async (tx) => {
    await changeable(tx, id, version, { fileIds, ...input });
    const rows = () => scheduleRows(tx, { templateIds: [id] });
    const year = await plannedYear(tx, await rows());
    const instructions = sanitiseInstructions(input.instructions);
    await tx.save(Template, id, { ...input, instructions, version: version + 1 });
    return impactOf(tx, await rows(), year, reach);
  });
}

/** Writes a change, and brings the tasks of its schedules up to it as far as nobody has seen or touched them. */
export async function saveTemplate(
  scope: Scope,
  before: Template,
  changes: Partial<Template>,
  action: Action<'template'>,
  reach: Reach = UNSEEN_ONLY,
): Promise<SavedTemplate> {
  const fields = fieldChanges(before, changes);
  const { id } = before;
  let changeId: string | null = null;
  if (Object.keys(fields).length > 0) {
    await writeTemplate(scope, before, changes);
    const rows = await scheduleRows(scope, { templateIds: [id] });
    const { watchId } = await watched(scope, () => syncAll(scope, rows, reach));
    changeId = await scope.record('template', id, action, fields, watchId);
  }
  await scope.tell('templates', 'schedules', 'tasks');
  return { template: await oneTemplate(scope, id), changeId };
}

async function writeTemplate(scope: Scope, before: Template, changes: Partial<Template>): Promise<void> {
  await scope.save(Template, before.id, {
    ...changes,
    version: before.version + 1,
    changedAt: scope.instant,
    changedBy: scope.person?.id ?? null,
  });
}

export function archiveTemplate(scope: Scope, id: string, archived: boolean): Promise<SavedTemplate> {
  return scope.transaction(async (tx) => {
    const before = await tx.locked(Template, id, 'template');
    if ((before.archivedAt !== null) === archived)
      throw notNow(archived ? 'It is archived already.' : 'It is in use already.');
    return saveTemplate(
      tx,
      before,
      { archivedAt: archived ? tx.instant : null },
      archived ? 'archived' : 'brought back',
    );
  });
}

/** Puts a template back to what a change found, and exactly the tasks that the change touched. */
export async function undoTemplateChange(
  scope: Scope,
  { subjectId: id, action, fields, watchId }: Pick<Change, 'subjectId' | 'action' | 'fields' | 'watchId'>,
): Promise<{ said: string; kept: readonly Task[] }> {
  if (action === 'removed') return { said: await bringBack(scope, fields['row']?.from as RemovedTemplate), kept: [] };
  if (action === 'created') throw notNow('A new template is deleted on its own page, as long as nothing uses it.');
  const template = await scope.locked(Template, id, 'template');
  const before = fieldsBefore(template, fields);
  await writeTemplate(scope, template, before);
  await scope.record('template', id, 'undone', fieldChanges(template, before));
  const kept = watchId === null ? [] : await putBackTasks(scope, [{ watchId, scheduleId: null }]);
  await syncAll(scope, await scheduleRows(scope, { templateIds: [id] }), UNSEEN_ONLY);
  await scope.tell('templates', 'schedules', 'tasks');
  return { said: `“${template.name}” is as it was before${butFor(kept)}`, kept };
}

export function setFavourite(scope: Scope, templateId: string, favourite: boolean): Promise<{ favourite: boolean }> {
  return scope.transaction(async (tx) => {
    await tx.one(Template, templateId, 'template');
    const personId = tx.person?.id ?? null;
    if (personId === null) throw notFound('person');
    const [there] = await tx.find(Favourite, { templateId, personId });
    if (favourite && !there) await tx.insert(Favourite, { templateId, personId });
    if (!favourite)
      await tx.sql('delete from favourite where workspace_id = $1 and template_id = $2 and person_id = $3', [
        templateId,
        personId,
      ]);
    return { favourite };
  });
}

/** Tickets that are asked for the first time join the list of the workspace. */
function keepTickets(scope: Scope, { tickets, steps }: Pick<TemplateInput, 'tickets' | 'steps'>): Promise<void> {
  const ofSteps = steps.flatMap((step) => (step.kind === 'task' ? (step.tickets ?? []) : []));
  return joinLists(scope, { tickets: [...tickets, ...ofSteps] });
}

/** What the schema can't see: that all it names is of this workspace. */
async function checkInput(scope: Scope, input: TemplateInput): Promise<void> {
  const { categories, workTypes } = scope.workspace;
  const names = categories.map(({ name }) => name);
  const errors: { path: string; message: string }[] = [];
  if (input.category !== null && !names.includes(input.category))
    errors.push({
      path: 'category',
      message: `“${input.category}” is not a category here: there are ${names.join(', ') || 'none yet'}.`,
    });
  if (input.workType !== null && !workTypes.includes(input.workType))
    errors.push({
      path: 'workType',
      message: `“${input.workType}” is not a type of work here: there are ${workTypes.join(', ') || 'none yet'}.`,
    });
  const people = new Map((await scope.find(Person)).map((person) => [person.id, person]));
  const checkPerson = (path: string, id: string | null) => {
    if (id !== null && !people.has(id)) errors.push({ path, message: 'There is no such person here.' });
  };
  const checkSignOff = (path: string, signOff: TemplateInput['signOff']) => {
    if (signOff?.by === 'person') checkPerson(path, signOff.personId);
    if (signOff?.by === 'role' && ![...people.values()].some(({ roles }) => roles.includes(signOff.role)))
      errors.push({ path, message: `Nobody here is ${signOff.role}, so nobody could sign.` });
  };
  const { assignment } = input;
  if (assignment.kind === 'person') checkPerson('assignment', assignment.personId);
  if (assignment.kind === 'usualPerson') checkPerson('assignment', assignment.otherwiseId);
  const checkGroup = (path: string, of: object & { readonly group?: UnnamedGroup }) => {
    if (of.group && !isGroupHere(scope, of.group))
      errors.push({ path, message: 'There is no such role or team here.' });
  };
  checkGroup('assignment', assignment);
  checkSignOff('signOff', input.signOff);
  for (const [i, step] of input.steps.entries()) {
    if (step.kind !== 'task') continue;
    if (step.assignee.by === 'person') checkPerson(`steps.${i}.assignee`, step.assignee.personId);
    checkGroup(`steps.${i}.assignee`, step.assignee);
    checkSignOff(`steps.${i}.signOff`, step.signOff);
  }
  if (errors.length > 0) throw invalid(errors);
}
