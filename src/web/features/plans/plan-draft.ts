import { z } from 'zod';
import { type PlanItemInput, planInputSchema, type ServicePlan } from '../../../contract/index.ts';
import { type CivilDay, FRESH_TIMING, isoOfDay, parsePhrase } from '../../../core/index.ts';

/** What stands on the page of a plan: the plan as it would be, and from which day that counts. */
export const planDraftSchema = planInputSchema.extend({ version: z.number(), from: z.string() });
export type PlanDraft = z.infer<typeof planDraftSchema>;

export function draftOfPlan(plan: ServicePlan, today: CivilDay): PlanDraft {
  const { version, name, note, rollsOn, items } = plan;
  return {
    ...{ version, name, note, rollsOn, from: isoOfDay(today) },
    items: items.map(({ template: _template, phrase: _phrase, who: _who, minutes: _minutes, ...item }) => item),
  };
}

export const freshPlan = (today: CivilDay): PlanDraft => ({
  ...{ version: 0, name: '', note: '', rollsOn: 'itself', items: [], from: isoOfDay(today) },
});

export const planOfDraft = ({ name, note, rollsOn, items }: PlanDraft) => ({ name, note, rollsOn, items });

/** A new item: the usual person does it, once a month until something else is said. */
export function freshItem(key: string, templateId: string, today: CivilDay): PlanItemInput {
  return {
    ...{ key, templateId, counts: 'joining', after: { amount: 0, unit: 'day' } },
    recurrence: parsePhrase('first working day of each month', { start: isoOfDay(today) }),
    ...{ timing: FRESH_TIMING, overlap: { kind: 'add' }, estimateMinutes: null, each: 'client' },
    assignment: { v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: true, cover: 'deputy' },
  };
}

/** Items in another order: one of them a place up or down. */
export function moved<T>(items: readonly T[], at: number, by: -1 | 1): T[] {
  const next = [...items];
  const [one] = next.splice(at, 1);
  if (one !== undefined) next.splice(at + by, 0, one);
  return next;
}
