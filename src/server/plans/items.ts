import { In } from 'typeorm';
import type { ToldItem } from '../../contract/index.ts';
import {
  estimatesOf,
  minutesWith,
  type PlanItem,
  plural,
  type SetPart,
  setMinutes,
  setParts,
  type TaskStep,
  termsOf,
  writePhrase,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { peopleById, problemsOfPeople, rulesOf, whoWords } from '../schedules/index.ts';
import { Template } from '../templates/stored/index.ts';

/** What a plan has to know of the templates of its items. */
export interface ItemTemplate {
  readonly id: string;
  readonly name: string;
  readonly minutes: number;
  readonly parts: readonly SetPart[];
  readonly isArchived: boolean;
  readonly workType: string | null;
  readonly record: Template;
  readonly taskSteps: readonly TaskStep[];
}

export async function templatesOf(
  scope: Scope,
  items: readonly Pick<PlanItem, 'templateId'>[],
): Promise<ReadonlyMap<string, ItemTemplate>> {
  const ids = [...new Set(items.map(({ templateId }) => templateId))];
  const found = ids.length === 0 ? [] : await scope.find(Template, { id: In(ids) });
  return new Map(
    found.map((template) => {
      const { id, name, titlePattern, estimateMinutes, tickets, archivedAt, workType } = template;
      const steps = template.steps.filter((step): step is TaskStep => step.kind === 'task');
      const parts = setParts({ titlePattern, estimateMinutes, tickets, demands: [], signOff: null, steps });
      const minutes = setMinutes({ estimateMinutes, steps });
      const isArchived = archivedAt !== null;
      return [id, { id, name, minutes, parts, workType, isArchived, record: template, taskSteps: steps }] as const;
    }),
  );
}

/** Minutes of the whole set with estimates of its own; null where it says what the template says. */
export function ownMinutes({ parts }: ItemTemplate, estimates: Readonly<Record<string, number>>): number | null {
  return Object.keys(estimates).length === 0 ? null : minutesWith(parts, estimates);
}

/** How rules of items, and who does them, are said. */
export async function itemWords(scope: Scope): Promise<{
  readonly phrase: (recurrence: PlanItem['recurrence']) => string;
  readonly who: (assignment: Parameters<Awaited<ReturnType<typeof whoWords>>>[0]) => string;
}> {
  const who = await whoWords(scope);
  const { yearStarts } = scope.workspace;
  return { who, phrase: (recurrence) => writePhrase(recurrence, { start: 'unsaid', yearStarts }) };
}

/** Items with what is known around them. */
export async function toldItems(scope: Scope, items: readonly PlanItem[]): Promise<ToldItem[]> {
  const templates = await templatesOf(scope, items);
  const words = await itemWords(scope);
  return items.map((item) => {
    const template = templates.get(item.templateId);
    if (!template) throw new Error(`The template of the item ${item.key} is gone.`);
    const { id, name, minutes, parts, isArchived, workType } = template;
    const notice = termsOf(scope.workspace.visits, workType)?.terms.period ?? null;
    return {
      ...item,
      template: {
        ...{ id, name, estimateMinutes: minutes, tasks: parts.length, isArchived },
        notice: notice && plural(notice.days, notice.unit === 'day' ? 'day' : 'working day'),
      },
      minutes: minutesWith(parts, estimatesOf(item)),
      phrase: words.phrase(item.recurrence),
      who: words.who(item.assignment),
    };
  });
}

/** What the schemas can't see: that what items name is here and in use, and that their rules give dates. */
export async function problemsOfItems(
  scope: Scope,
  items: readonly PlanItem[],
  before: readonly PlanItem[],
): Promise<{ readonly path: string; readonly message: string }[]> {
  const templates = await templatesOf(scope, items);
  const people = await peopleById(scope);
  const calendar = await scope.calendar();
  const known = new Map(before.map((item) => [item.key, item]));
  return items.flatMap((item, i) => {
    const at = (path: string, message: string) => [{ path: `plan.items.${i}.${path}`, message }];
    const template = templates.get(item.templateId);
    const old = known.get(item.key);
    if (!template) return at('templateId', 'There is no such template.');
    if (old && (old.templateId !== item.templateId || old.each !== item.each))
      return at('templateId', `“${template.name}” stays what it is: take the item out, and add another.`);
    const keys = new Set(template.parts.map(({ key }) => key));
    const unknown = Object.keys(item.stepMinutes ?? {}).find(
      (step) => !keys.has(step) && !(step in (old?.stepMinutes ?? {})),
    );
    if (unknown !== undefined)
      return at(`stepMinutes.${unknown}`, `“${template.name}” has no such task: load the page again.`);
    if (!old && template.isArchived) return at('templateId', `“${template.name}” is archived: bring it back first.`);
    const ofPeople = problemsOfPeople(
      scope,
      { assignment: item.assignment },
      people,
      old ? { ...old, revisions: [] } : null,
    );
    return [...ofPeople, ...rulesOf({ recurrence: item.recurrence }, calendar, scope.now.day)].flatMap(
      ({ path, message }) => at(path, `${template.name}: ${message}`),
    );
  });
}
