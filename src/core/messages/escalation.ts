import { plural } from '../wording/date-words.ts';

/** After how many hours late work is told to whom, one after the other; null for not at all. */
export interface Escalation {
  /** To whoever has it. */
  readonly own: number | null;
  /** To those who answer for it. */
  readonly answering: number | null;
  /** To the deputy of whoever has it. */
  readonly deputy: number | null;
}

export const ESCALATED_TO = ['own', 'answering', 'deputy'] as const satisfies readonly (keyof Escalation)[];
export type EscalatedTo = (typeof ESCALATED_TO)[number];

export const USUAL_ESCALATION: Escalation = { own: 1, answering: 4, deputy: 24 };

/** The longest that may be said, in hours: two weeks. */
export const MOST_LATE_HOURS = 336;

export const ESCALATED_WORDS: Readonly<Record<EscalatedTo, string>> = {
  own: 'whoever has it',
  answering: 'those who answer for it',
  deputy: 'the deputy of whoever has it',
};

/** "Late work is told to whoever has it after 1 hour, to those who answer for it after 4 hours, to nobody else" */
export function sayEscalation(escalation: Escalation): string {
  const told = ESCALATED_TO.flatMap((to) => {
    const hours = escalation[to];
    return hours === null ? [] : [`to ${ESCALATED_WORDS[to]} after ${plural(hours, 'hour')}`];
  });
  return told.length === 0 ? 'Late work is told to nobody' : `Late work is told ${told.join(', ')}`;
}
