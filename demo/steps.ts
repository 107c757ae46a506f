import type { Demand, SignOff, Step, StepAssignee } from '../src/core/index.ts';
import type { PersonKey } from './people.ts';

/** A line that is ticked. */
export const check = (key: string, text: string, asked: readonly Demand[] = [], note = ''): Step => ({
  kind: 'check',
  key,
  text,
  note,
  demands: asked,
});
/** What a step may ask for. */
export const ask = {
  number: (key: string, unit: string, least: number | null, most: number | null, label = ''): Demand => ({
    key,
    label,
    kind: 'number',
    unit,
    least,
    most,
  }),
  choice: (key: string, ...options: string[]): Demand => ({ key, label: '', kind: 'choice', options }),
  choices: (key: string, ...options: string[]): Demand => ({ key, label: '', kind: 'choices', options }),
  plain: (kind: 'file' | 'note' | 'yesNo' | 'date' | 'tag' | 'text' | 'longText', key: string, label = ''): Demand => ({
    key,
    label,
    kind,
  }),
  /** Of a task as a whole: reading it starts the work. */
  tagToStart: (key: string, label: string): Demand => ({ key, label, kind: 'tag', atStart: true }),
};

/** A task of its own; the keys of people become ids with the seed. */
export function own(
  key: string,
  titlePattern: string,
  minutes: number,
  amount: number,
  unit: 'day' | 'workingDay',
  rest: {
    who?: PersonKey | 'nobody' | 'any of yard';
    due?: string;
    start?: string;
    note?: string;
    demands?: readonly Demand[];
    signOff?: SignOff;
  } = {},
): Step {
  const { who } = rest;
  return {
    kind: 'task',
    key,
    titlePattern,
    note: rest.note ?? '',
    offset: { amount, unit },
    startTime: rest.start ?? null,
    dueTime: rest.due ?? null,
    assignee: assigneeOf(who),
    estimateMinutes: minutes,
    demands: rest.demands ?? [],
    signOff: rest.signOff ?? null,
  };
}

function assigneeOf(who: PersonKey | 'nobody' | 'any of yard' | undefined): StepAssignee {
  if (who === undefined) return { by: 'set' };
  if (who === 'nobody') return { by: 'nobody' };
  return who === 'any of yard' ? { by: 'anyOf', group: { of: 'role', role: 'yard' } } : { by: 'person', personId: who };
}
