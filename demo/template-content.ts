import type { TemplateInput } from '../src/contract/index.ts';
import type { SignOff, Step } from '../src/core/index.ts';
import type { DemoTemplate } from './templates.ts';

/** A template of the demo as a manager could save it, with ids in the place of people's keys. */
export function templateContent(template: DemoTemplate, idOf: (key: string) => string): Omit<TemplateInput, 'fileIds'> {
  const { signOff } = template;
  return {
    name: template.name,
    summary: template.summary ?? '',
    titlePattern: template.title,
    category: template.category,
    dot: null,
    instructions: template.instructions.startsWith('<')
      ? template.instructions
      : template.instructions
          .split('\n')
          .map((line) => `<p>${line}</p>`)
          .join(''),
    links: [...(template.links ?? [])],
    priority: template.priority ?? 'normal',
    workType: template.type ?? null,
    assignment: template.who ?? { v: 1, kind: 'nobody' },
    tickets: [...(template.tickets ?? [])],
    // The crane stands still until it is looked at: that is told sooner.
    escalation: template.lateAfter ?? null,
    signOff: signOffOf(signOff, idOf),
    finishWithLast: template.finishWithLast ?? false,
    numbered: template.numbered ?? false,
    demands: template.demands ?? [],
    estimateMinutes: template.minutes,
    steps: template.steps.map((step, i) => stepOf(step, i, idOf)),
  };
}

function signOffOf(signOff: DemoTemplate['signOff'], idOf: (key: string) => string): SignOff | null {
  if (signOff === undefined) return null;
  return signOff.by === 'person' ? { by: 'person', personId: idOf(signOff.person) } : signOff;
}

function stepOf(step: string | Step, index: number, idOf: (key: string) => string): Step {
  if (typeof step === 'string') return { kind: 'check', key: `line-${index + 1}`, text: step, note: '', demands: [] };
  if (step.kind === 'check' || step.assignee.by !== 'person') return step;
  return { ...step, assignee: { by: 'person', personId: idOf(step.assignee.personId) } };
}
