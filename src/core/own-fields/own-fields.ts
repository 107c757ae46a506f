import { tryDayOfIso } from '../civil-date/iso-date.ts';

export const FIELD_KINDS = ['text', 'number', 'date', 'choice'] as const;
export type FieldKind = (typeof FIELD_KINDS)[number];

/** Something that a workspace keeps of its clients or assets besides what everybody keeps. */
export interface OwnField {
  /** Stays when the name changes. */
  readonly key: string;
  readonly name: string;
  readonly kind: FieldKind;
  /** Of a choice: what may be chosen. */
  readonly choices: readonly string[];
}

/** Values by the key of their field; dates as ISO days. */
export type FieldValues = Readonly<Record<string, string | number>>;

/** How a contact would rather be reached. */
export const PREFERS = ['mail', 'telephone', 'post'] as const;
export type Prefers = (typeof PREFERS)[number];

const LONGEST_TEXT = 500;

/** What is wrong with a value of a field, in words; null where it may stand. */
export function fieldProblem(field: OwnField, value: unknown): string | null {
  switch (field.kind) {
    case 'text':
      return typeof value === 'string' && value.length <= LONGEST_TEXT
        ? null
        : `${field.name} is a text of ${LONGEST_TEXT} characters at most.`;
    case 'number':
      return typeof value === 'number' && Number.isFinite(value) ? null : `${field.name} is a number.`;
    case 'date':
      return typeof value === 'string' && tryDayOfIso(value) !== null ? null : `${field.name} is a date.`;
    case 'choice':
      return typeof value === 'string' && field.choices.includes(value)
        ? null
        : `${field.name} is one of ${field.choices.join(', ')}.`;
  }
}
