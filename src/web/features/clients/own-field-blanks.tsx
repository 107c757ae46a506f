import { dayOfIso, type FieldValues, isoOfDay, type OwnField, readDate, sayDate } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, WordsBlank } from '../../kit/blanks.tsx';
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
  const today = useToday();
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
        <WordsBlank<string | null>
          label={name}
          shown={typeof value === 'string' ? sayStoredDate(value) : ''}
          placeholder="a date"
          wrong="a date, like 1 Feb 2027"
          width={11}
          read={(text) => {
            if (text.trim() === '') return null;
            const day = readDate(text, today);
            return day === null ? undefined : isoOfDay(day);
          }}
          onChange={(read) => onChange(read ?? undefined)}
        />
      );
    case 'text':
      return (
        <WordsBlank
          label={name}
          shown={String(value ?? '')}
          placeholder="none"
          wrong=""
          read={(text) => text}
          onChange={(text) => onChange(text.trim() === '' ? undefined : text.trim())}
        />
      );
  }
}

const sayStoredDate = (value: string) => (/^\d{4}-\d{2}-\d{2}$/.test(value) ? sayDate(dayOfIso(value)) : value);

/** "9.4" or "9,4"; undefined for what is no number. */
function readNumber(text: string): number | undefined {
  const plain = text.trim().replace(',', '.');
  return /^-?\d{1,15}(\.\d{1,6})?$/.test(plain) ? Number(plain) : undefined;
}
