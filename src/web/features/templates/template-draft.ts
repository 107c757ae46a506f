import { z } from 'zod';
import { type Template, type TemplateInput, templateInputSchema } from '../../../contract/index.ts';
import type { CheckStep, Demand, DemandKind, TaskStep } from '../../../core/index.ts';
import { newKey } from '../../kit/new-key.ts';
import { withRule } from './older-draft.ts';

/** What stands in the editor, and the version it was begun from, so that nobody's change is written over unseen. */
export interface TemplateDraft extends TemplateInput {
  readonly version: number;
}

/** What a draft looks like while it is kept. */
export const templateDraftSchema = z.preprocess(withRule, templateInputSchema.safeExtend({ version: z.number() }));

export type StepDraft = TemplateInput['steps'][number];

export const FRESH: TemplateDraft = {
  version: 0,
  name: '',
  summary: '',
  titlePattern: '',
  category: null,
  dot: null,
  instructions: '',
  links: [],
  priority: 'normal',
  workType: null,
  signOff: null,
  finishWithLast: false,
  numbered: false,
  demands: [],
  estimateMinutes: 30,
  assignment: { v: 1, kind: 'nobody' },
  tickets: [],
  escalation: null,
  steps: [],
  fileIds: [],
};

/** A template as it stands in the editor; of all that is known of it, only what is written. */
export function draftOf(template: Template): TemplateDraft {
  const fields = Object.keys(FRESH) as (keyof TemplateDraft)[];
  return Object.fromEntries(fields.map((field) => [field, template[field]])) as unknown as TemplateDraft;
}

/** Names a step or a demand for good, while its words change. */
function freshKey(what: string): string {
  return `${what}-${newKey().slice(0, 12)}`;
}

export function freshCheck(text = ''): Extract<StepDraft, { kind: 'check' }> {
  return { kind: 'check', key: freshKey('line'), text, note: '', demands: [] } satisfies CheckStep;
}

export function freshTask(): Extract<StepDraft, { kind: 'task' }> {
  return {
    kind: 'task',
    key: freshKey('task'),
    titlePattern: '',
    note: '',
    offset: { amount: 1, unit: 'workingDay' },
    startTime: null,
    dueTime: null,
    assignee: { by: 'set' },
    estimateMinutes: 15,
    demands: [],
    signOff: null,
  } satisfies TaskStep;
}

export function freshDemand(kind: DemandKind): Demand {
  const key = freshKey('ask');
  if (kind === 'number') return { key, label: '', kind, unit: '', least: null, most: null };
  if (kind === 'choice' || kind === 'choices') return { key, label: '', kind, options: ['yes', 'no'] };
  return { key, label: '', kind };
}

/** Lines of pasted text, without the bullets, boxes and numbers that lists are written with. */
export function linesOf(text: string): string[] {
  return text
    .split(/\r?\n/)
    .map((line) => line.replace(/^\s*(?:[-*•–☐]|\[[ x]?\]|\d{1,3}[.)])\s+/, '').trim())
    .filter((line) => line !== '');
}
