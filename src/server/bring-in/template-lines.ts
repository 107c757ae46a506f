import { In } from 'typeorm';
import {
  defaultRuleSchema,
  type Impact,
  MAX_STEPS,
  stepSchema,
  type Template as TemplateAnswer,
  templateInputSchema,
} from '../../contract/index.ts';
import {
  type CellContext,
  type DefaultRule,
  type LineProblem,
  nameKey,
  plural,
  readRule,
  readStepLine,
  type StepLine,
  sayRule,
  textOfValue,
} from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { cellContext, impactOf, plannedYear, scheduleRows, UNSEEN_ONLY } from '../schedules/index.ts';
import { saveTemplate } from '../templates/index.ts';
import { instructionsOfWords, Template, wordsOfInstructions } from '../templates/stored/index.ts';
import { effectOf } from './effect.ts';
import type { BringIn } from './entity.ts';
import { inColumns } from './names-here.ts';
import { writtenRows } from './out.ts';
import { keepWritten, pagesOf } from './pages.ts';
import { type Line, type ReadRow, type Told, UNREAD } from './read-row.ts';
import type { Sum } from './sum.ts';
import { USUAL_MINUTES, usualMinutesOf } from './usual-minutes.ts';
import type { Look, Looking, Ways } from './ways.ts';

/** What a line says of its template, left out where it says nothing, and its step. */
interface MadeTemplate {
  readonly set: Partial<
    Pick<
      Template,
      | 'summary'
      | 'category'
      | 'workType'
      | 'titlePattern'
      | 'estimateMinutes'
      | 'priority'
      | 'assignment'
      | 'instructions'
    >
  >;
  readonly step: StepLine | null;
}

/** What was written of such a line: a new template, or the change of one that was there. */
interface WrittenTemplate {
  readonly newTemplateId?: string;
  readonly templateId?: string;
}

/** What the first line about a template came to: those after it go with it. */
interface First {
  readonly number: number;
  readonly fate: Told['fate'];
  readonly targetId: string | null;
  readonly said: MadeTemplate['set'];
  steps: number;
}

async function look(scope: Scope, { bringIn, columns, fields }: Looking): Promise<Look> {
  const context = await cellContext(scope);
  const seen = new Map<string, First>();
  return async (lines) => {
    const here = await templatesHere(scope, lines);
    return eachInTurn(lines, (line): Told => {
      const { number, values } = line;
      const title = textOfValue(values, 'name');
      const about = textOfValue(values, 'step') || textOfValue(values, 'summary');
      const key = nameKey(title);
      const first = seen.get(key);
      const left = (why: string, found: readonly LineProblem[] = []): Told => {
        if (!first && title !== '') seen.set(key, { number, fate: 'left', targetId: null, said: {}, steps: 0 });
        const problems = [...line.problems, ...inColumns(found, columns)];
        return { number, fate: 'left', read: { ...UNREAD, title, about, values, problems, why } };
      };
      if (line.problems.length > 0) return left('');
      if (first?.fate === 'left') return left(`It goes with line ${first.number}, which is left`);
      const read = setOf(scope, line, context);
      const step = readStepLine(values);
      if ('problems' in read || 'problem' in step)
        return left('', [...('problems' in read ? read.problems : []), ...('problem' in step ? [step.problem] : [])]);
      const made: MadeTemplate = { set: read.set, step: step.step };
      const wrong = made.step && stepSchema.safeParse(stepsOf([made.step], [])[0]).error?.issues[0];
      if (wrong) return left('', [{ key: 'step', message: wrong.message }]);
      if (first) {
        const other = Object.entries(read.set).find(
          ([name, value]) => JSON.stringify(first.said[name as keyof typeof first.said]) !== JSON.stringify(value),
        );
        if (other)
          return left(
            `It says another ${wordOf(other[0], fields)} than line ${first.number}, which is about the same template`,
          );
        if (made.step === null)
          return {
            number,
            fate: 'same',
            read: { ...UNREAD, title, about, values, why: `says no more than line ${first.number}` },
          };
        if (++first.steps > MAX_STEPS) return left(`A template may have ${MAX_STEPS} steps at most`);
        return {
          ...{ number, fate: first.fate },
          read: {
            ...{ ...UNREAD, title, about, values, made, targetId: first.targetId, joins: first.number },
            why: `goes with line ${first.number}`,
          },
        };
      }
      const of = here.get(key) ?? [];
      if (of.length > 1) return left(`There are ${plural(of.length, 'template')} called so here`);
      const [there] = of;
      const fate = there ? 'alike' : 'new';
      seen.set(key, { number, fate, targetId: there?.id ?? null, said: { ...read.set }, steps: 1 });
      if (there && isSaidBy(there.instructions, read.set.instructions)) delete read.set.instructions;
      const base = { ...UNREAD, title, about, values, made };
      if (!there)
        return {
          ...{ number, fate },
          read: {
            ...base,
            why: textOfValue(values, 'minutes') === '' ? `takes ${usualMinutesOf(bringIn)} min, as said for all` : '',
          },
        };
      return {
        ...{ number, fate },
        read: {
          ...{ ...base, targetId: there.id },
          why: made.step === null ? 'same name' : 'same name; its steps become those of the file',
          diffs: Object.entries(read.set).flatMap(([name, to]) => {
            const from = there[name as keyof MadeTemplate['set']];
            return JSON.stringify(from) === JSON.stringify(to)
              ? []
              : [{ name: wordOf(name, fields), from: sayValue(from, context), to: sayValue(to, context) }];
          }),
        },
      };
    });
  };
}

/** Whether instructions say no more than a text does: those that are here keep their looks then. */
const isSaidBy = (html: string, other: string | undefined): boolean =>
  other !== undefined && wordsOfInstructions(html) === wordsOfInstructions(other);

const FIELD_OF: Readonly<Record<keyof MadeTemplate['set'], string>> = {
  summary: 'summary',
  category: 'category',
  workType: 'workType',
  titlePattern: 'titlePattern',
  estimateMinutes: 'minutes',
  priority: 'priority',
  assignment: 'who',
  instructions: 'instructions',
};
const wordOf = (name: string, fields: Looking['fields']): string =>
  fields.get(FIELD_OF[name as keyof MadeTemplate['set']])?.name ?? name;

function sayValue(value: unknown, context: CellContext): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'object') return sayRule(value as DefaultRule, context);
  return String(value)
    .replace(/<[^>]*>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 80);
}

type Said = { -readonly [Key in keyof MadeTemplate['set']]: MadeTemplate['set'][Key] };

/** What a line says of its template; what is wrong with it, by the limits that a template has on its own page. */
function setOf(
  scope: Scope,
  { values }: Line,
  context: CellContext,
): { readonly set: Said } | { readonly problems: readonly LineProblem[] } {
  const said = (key: string) => textOfValue(values, key);
  const problems: LineProblem[] = [];
  const { categories, workTypes } = scope.workspace;
  const category = categories.find(({ name }) => name.toLowerCase() === said('category').toLowerCase())?.name;
  const workType = workTypes.find((type) => type.toLowerCase() === said('workType').toLowerCase());
  if (said('category') !== '' && category === undefined)
    problems.push({
      key: 'category',
      message: `“${said('category')}” is not a category here: there are ${categories.map(({ name }) => name).join(', ') || 'none yet'}`,
    });
  if (said('workType') !== '' && workType === undefined)
    problems.push({
      key: 'workType',
      message: `“${said('workType')}” is not a type of work here: there are ${workTypes.join(', ') || 'none yet'}`,
    });
  let assignment: DefaultRule | undefined;
  if (said('who') !== '') {
    const reading = readRule(said('who'), { v: 1, kind: 'nobody' }, { ...context, datesBetween: () => 0 });
    const rule = reading.kind === 'read' ? defaultRuleSchema.safeParse(reading.rule) : null;
    if (rule?.success) assignment = rule.data;
    else
      problems.push({
        key: 'who',
        message:
          reading.kind === 'unread'
            ? reading.message
            : 'Turns and people by name are of a schedule: of a template it is one person, a role, a team or nobody',
      });
  }
  if (problems.length > 0) return { problems };
  const set = {
    ...(said('summary') === '' ? {} : { summary: said('summary') }),
    ...(category === undefined ? {} : { category }),
    ...(workType === undefined ? {} : { workType }),
    ...(said('titlePattern') === '' ? {} : { titlePattern: said('titlePattern') }),
    ...(said('minutes') === '' ? {} : { estimateMinutes: Number(said('minutes')) }),
    ...(said('priority') === '' ? {} : { priority: said('priority') as Template['priority'] }),
    ...(assignment === undefined ? {} : { assignment }),
    ...(said('instructions') === '' ? {} : { instructions: instructionsOfWords(said('instructions')) }),
  };
  const checked = templateInputSchema.safeParse({ ...blank(said('name'), USUAL_MINUTES), ...set });
  if (checked.success) return { set };
  return {
    problems: checked.error.issues.slice(0, 1).map(({ path, message }) => ({
      key: FIELD_OF[String(path[0]) as keyof MadeTemplate['set']] ?? null,
      message,
    })),
  };
}

/** A template that says nothing but its name. */
export function blank(name: string, estimateMinutes: number) {
  return {
    ...{ name, summary: '', titlePattern: name, category: null, dot: null, instructions: '', links: [] },
    ...{ priority: 'normal', workType: null, signOff: null, finishWithLast: false, numbered: false, demands: [] },
    ...{ estimateMinutes, assignment: { v: 1, kind: 'nobody' }, tickets: [], escalation: null, steps: [] },
  } satisfies Partial<Omit<TemplateAnswer, 'assignment' | 'priority'>> & {
    assignment: DefaultRule;
    priority: Template['priority'];
  };
}

/** Templates in use that are called as lines say, by the plain name. */
async function templatesHere(scope: Scope, lines: readonly Line[]): Promise<ReadonlyMap<string, Template[]>> {
  const names = [...new Set(lines.map(({ values }) => textOfValue(values, 'name')).filter(Boolean))];
  const rows = await scope.sql<{ id: string }>(
    `select t.id from template t where t.workspace_id = $1 and t.archived_at is null
       and plain_words(t.name) in (select plain_words(name) from unnest($2::text[]) name)`,
    [names],
  );
  const found = await scope.find(Template, { id: In(rows.map(({ id }) => id)) });
  const byName = new Map<string, Template[]>();
  for (const template of found) {
    const key = nameKey(template.name);
    byName.set(key, [...(byName.get(key) ?? []), template]);
  }
  return byName;
}

/**
 * What can be told only of all lines: a template is brought in whole or not at all, as one of its steps would be missing else,
 * and one of which all lines together say nothing new is left as it is.
 */
async function finish(scope: Scope, bringIn: BringIn): Promise<void> {
  const gathered = await gather(scope, bringIn);
  const left = new Map<string, number>();
  for await (const rows of pagesOf(scope, bringIn, 'number, fate, read'))
    for (const { number, fate, read } of rows) if (fate === 'left') left.set(nameKey(read.title), number);
  const broken = [...gathered.values()].filter(({ row: { read } }) => left.has(nameKey(read.title)));
  await fateOfAll(
    scope,
    bringIn,
    broken.map(({ row: { number, read } }) => ({
      number,
      fate: 'left',
      why: `Line ${left.get(nameKey(read.title))}, which is about it too, is left`,
    })),
  );
  const going = [...gathered.values()].filter((one) => one.isUpdate && !broken.includes(one));
  for (let at = 0; at < going.length; at += AT_ONCE) {
    const some = going.slice(at, at + AT_ONCE);
    const ids = some.map(({ row: { read } }) => read.targetId ?? '');
    const there = new Map((await scope.find(Template, { id: In(ids) })).map((one) => [one.id, one]));
    const same = some.filter((one) => {
      const before = there.get(one.row.read.targetId ?? '');
      return before && Object.keys(fieldChanges(before, changesOf(one, before))).length === 0;
    });
    await fateOfAll(
      scope,
      bringIn,
      same.map(({ row: { number } }) => ({ number, fate: 'same', why: 'says nothing new' })),
    );
  }
}

/** The same for the first line of a template and those that go with it. */
const fateOfAll = (
  scope: Scope,
  { id }: BringIn,
  firsts: readonly { readonly number: number; readonly fate: Told['fate']; readonly why: string }[],
) =>
  scope.sql(
    `update bring_in_row r set fate = now.fate, read = r.read || jsonb_build_object('why', now.why, 'diffs', '[]'::jsonb)
     from jsonb_to_recordset($3::jsonb) as now (number integer, fate text, why text)
     where r.workspace_id = $1 and r.bring_in_id = $2 and r.fate in ('new', 'alike')
       and now.number in (r.number, (r.read->>'joins')::int)`,
    [id, JSON.stringify(firsts)],
  );

/** Templates that are held against those here at once. */
const AT_ONCE = 100;

interface Gathered {
  readonly row: { readonly number: number; readonly read: ReadRow };
  readonly isUpdate: boolean;
  readonly steps: StepLine[];
}

/** The templates of a file that are written, each with the steps of all lines about it. */
async function gather(scope: Scope, bringIn: BringIn): Promise<ReadonlyMap<number, Gathered>> {
  const gathered = new Map<number, Gathered>();
  for await (const rows of pagesOf(scope, bringIn, 'number, fate, choice, read'))
    for (const row of rows) {
      const { number, read } = row;
      const { step } = (read.made as MadeTemplate | undefined) ?? { step: null };
      if (read.joins !== null) {
        if (step) gathered.get(read.joins)?.steps.push(step);
        continue;
      }
      const effect = effectOf(bringIn.kind, row);
      if (effect === 'new' || effect === 'update')
        gathered.set(number, { row: { number, read }, isUpdate: effect === 'update', steps: step ? [step] : [] });
    }
  return gathered;
}

async function write(scope: Scope, bringIn: BringIn): Promise<readonly string[]> {
  const gathered = await gather(scope, bringIn);
  const changeIds: string[] = [];
  const written: { number: number; before: WrittenTemplate }[] = [];
  for (const one of gathered.values()) {
    const { number } = one.row;
    if (one.isUpdate) {
      const { id, changeId } = await update(scope, one);
      if (changeId !== null) changeIds.push(changeId);
      written.push({ number, before: { templateId: id } });
    } else {
      const { set } = one.row.read.made as MadeTemplate;
      const minutes = usualMinutesOf(bringIn);
      const row = { ...blank(one.row.read.title, minutes), ...set, steps: stepsOf(one.steps, []) };
      const made = await insertTemplate(scope, row);
      changeIds.push(made.changeId);
      written.push({ number, before: { newTemplateId: made.id } });
    }
  }
  await keepWritten(scope, bringIn, written);
  return changeIds;
}

/** A template that a file brings. */
export async function insertTemplate(
  scope: Scope,
  row: Omit<Template, 'workspaceId' | 'id' | 'version' | 'archivedAt' | 'changedAt' | 'changedBy'>,
): Promise<{ readonly id: string; readonly changeId: string }> {
  const id = scope.newId();
  await scope.insert(Template, {
    ...{ id, version: 1, ...row, archivedAt: null },
    ...{ changedAt: scope.instant, changedBy: scope.person?.id ?? null },
  });
  return { id, changeId: await scope.record('template', id, 'brought in', fieldChanges({}, row)) };
}

async function update(scope: Scope, one: Gathered): Promise<{ id: string; changeId: string | null }> {
  const before = await scope.locked(Template, one.row.read.targetId ?? '', 'template');
  const { changeId } = await saveTemplate(scope, before, changesOf(one, before), 'changed');
  return { id: before.id, changeId };
}

/** What the file says otherwise; steps of which it says none stay. */
const changesOf = ({ row: { read }, steps }: Gathered, before: Template): Partial<Template> => ({
  ...(read.made as MadeTemplate).set,
  ...(steps.length === 0 ? {} : { steps: stepsOf(steps, before.steps) }),
});

/** Steps of a template; one of the same words as before is the same one, with all else that it says. */
function stepsOf(lines: readonly StepLine[], before: Template['steps']): Template['steps'] {
  const left = [...before];
  const taken = new Set(before.map(({ key }) => key));
  return lines.map(({ text, note, own }, i) => {
    const kind = own === null ? 'check' : 'task';
    const at = left.findIndex(
      (step) => step.kind === kind && (step.kind === 'task' ? step.titlePattern : step.text) === text,
    );
    const [same] = at === -1 ? [] : left.splice(at, 1);
    let key = `step-${i + 1}`;
    for (let n = 2; taken.has(key); n++) key = `step-${i + 1}-${n}`;
    if (!same) taken.add(key);
    if (own === null) return { kind: 'check', key, demands: [], ...(same?.kind === 'check' ? same : {}), text, note };
    return {
      ...{ kind: 'task', key, startTime: null, dueTime: null, assignee: { by: 'set' }, demands: [], signOff: null },
      ...(same?.kind === 'task' ? same : {}),
      ...{ titlePattern: text, note, ...own },
    };
  });
}

/** Those that nobody has changed or used since go; changes of others are put back by then. */
async function takeOut(scope: Scope, bringIn: BringIn, sum: Sum): Promise<void> {
  for await (const rows of writtenRows(scope, bringIn)) {
    const written = rows.map(({ before, read }) => ({ ...(before as WrittenTemplate), title: read.title }));
    await templatesOut(scope, written, sum);
    sum.back += written.filter(({ templateId }) => templateId !== undefined).length;
  }
}

export async function templatesOut(
  scope: Scope,
  written: readonly { readonly newTemplateId?: string; readonly title: string }[],
  sum: Sum,
): Promise<void> {
  const ids = written.flatMap(({ newTemplateId }) => newTemplateId ?? []);
  const gone = await scope.sql<{ id: string }>(
    `delete from template t where workspace_id = $1 and id = any($2::uuid[]) and version = 1
       and not exists (select from schedule s where s.workspace_id = $1 and s.template_id = t.id)
       and not exists (select from task k where k.workspace_id = $1 and k.template_id = t.id)
       and not exists (select from file f where f.workspace_id = $1 and f.template_id = t.id)
       and not exists (select from service_plan p where p.workspace_id = $1
         and p.items @> jsonb_build_array(jsonb_build_object('templateId', t.id::text))) returning id`,
    [ids],
  );
  const out = new Set(gone.map(({ id }) => id));
  sum.out += out.size;
  for (const { newTemplateId, title } of written)
    if (newTemplateId !== undefined && !out.has(newTemplateId)) sum.stay.add(title);
}

/** What templates that are brought up to date do to the tasks of their schedules. */
async function impact(scope: Scope, bringIn: BringIn): Promise<Impact> {
  const going = [...(await gather(scope, bringIn)).values()].filter(({ isUpdate }) => isUpdate);
  const templateIds = going.map(({ row: { read } }) => read.targetId ?? '');
  const rows = () => scheduleRows(scope, { templateIds });
  const year = await plannedYear(scope, await rows());
  for (const one of going) {
    const before = await scope.locked(Template, one.row.read.targetId ?? '', 'template');
    await scope.save(Template, before.id, { ...changesOf(one, before), version: before.version + 1 });
  }
  return impactOf(scope, await rows(), year, UNSEEN_ONLY);
}

export const templateWays: Ways<true> = {
  ...{ look, finish, write, takeOut, impact },
  topics: ['templates', 'schedules', 'tasks'],
};
