import { type FieldValues, type OwnField, tryDayOfIso } from '../../../core/index.ts';
import { ChoiceBlank, DayOrNone, NameBlank, WordsBlank } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';

interface OwnFieldBlanksProps {
  readonly fields: readonly OwnField[];
  readonly values: FieldValues;
  /** What is wrong with a field, by its path. */
  readonly at: (path: string) => string | undefined;
  readonly onChange: (values: FieldValues) => void;
}

/** What the workspace keeps besides, a blank for each; one that is empty is not kept. */
export function OwnFieldBlanks({ fields, values, at, onChange }: OwnFieldBlanksProps) {
  return fields.map((field) => (
    <div key={field.key}>
      {field.name}{' '}
      <OwnFieldBlank
        field={field}
        value={values[field.key]}
        onChange={(value) => {
          const { [field.key]: _, ...others } = values;
          onChange(value === undefined ? others : { ...others, [field.key]: value });
        }}
      />
      {at(`fields.${field.key}`) && <FieldError message={at(`fields.${field.key}`)} />}
    </div>
  ));
}

interface OwnFieldBlankProps {
  readonly field: OwnField;
  readonly value: string | number | undefined;
  readonly onChange: (value: string | number | undefined) => void;
}

function OwnFieldBlank({ field, value, onChange }: OwnFieldBlankProps) {
  const { name, kind, choices } = field;
  switch (kind) {
    case 'choice':
      return (
        <ChoiceBlank
          label={name}
          value={String(value ?? '')}
          options={[
            ['', 'none'],
            ...[...new Set([...choices, ...(value ? [String(value)] : [])])].map((one) => [one, one] as const),
          ]}
          onChange={(chosen) => onChange(chosen || undefined)}
        />
      );
    case 'number':
      return (
        <WordsBlank<number | undefined | null>
          label={name}
          shown={value === undefined ? '' : String(value)}
          placeholder="a number"
          wrong="a number, like 9.4"
          read={(text) => (text.trim() === '' ? null : readNumber(text))}
          onChange={(read) => onChange(read ?? undefined)}
        />
      );
    case 'date':
      return (
        <DayOrNone
          label={name}
          placeholder="a date"
          value={typeof value === 'string' && tryDayOfIso(value) !== null ? value : null}
          onChange={(day) => onChange(day ?? undefined)}
        />
      );
    case 'text':
      return (
        <NameBlank
          label={name}
          shown={String(value ?? '')}
          placeholder="none"
          onChange={(text) => onChange(text || undefined)}
        />
      );
  }
}

/** "9.4" or "9,4"; undefined for what is no number. */
function readNumber(text: string): number | undefined {
  const plain = text.trim().replace(',', '.');
  return /^-?\d{1,15}(\.\d{1,6})?$/.test(plain) ? Number(plain) : undefined;
}
