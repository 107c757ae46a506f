import { X } from 'lucide-react';
import {
  type MonthPoint,
  type MonthsRule,
  mayLackDay,
  monthName,
  monthShort,
  type Rule,
  readPhrase,
  type YearsRule,
} from '../../../../core/index.ts';
import { ChoiceBlank, WordsBlank } from '../../../kit/blanks.tsx';
import { groupsWith, MISSING_WORDS, pointKey, pointWords } from './rule-choices.ts';

export interface DetailsProps<R extends Rule = Rule> {
  readonly rule: R;
  readonly name: string;
  readonly onChange: (rule: Rule) => void;
}

type MonthlyDetails = DetailsProps<MonthsRule | YearsRule>;

/** Easter is alone in its rule, which its months go with. */
export function isByEaster({ on }: MonthsRule | YearsRule): boolean {
  return on.some(({ kind }) => kind === 'easter');
}

export function Points({ rule, name, onChange }: MonthlyDetails) {
  const set = (on: readonly MonthPoint[]) => onChange({ ...rule, on: [...on] });
  return (
    <>
      {rule.on.map((point, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a point is its place in the sentence; keyed by its value it would lose the focus
        <span key={index} className="whitespace-nowrap">
          {index > 0 && ' and the '}
          <PointBlank
            label={`${name}: day ${index + 1}`}
            point={point}
            onChange={(next) => set(rule.on.map((other, i) => (i === index ? next : other)))}
          />
          {rule.on.length > 1 && (
            <button
              type="button"
              className="cursor-pointer px-1 align-middle text-ink-2 hover:text-ink"
              aria-label={`Take out the ${pointWords(point)}`}
              onClick={() => set(rule.on.filter((_, i) => i !== index))}
            >
              <X size={12} aria-hidden />
            </button>
          )}
        </span>
      ))}{' '}
      {rule.on.length < 8 && !isByEaster(rule) && (
        <button
          type="button"
          className="link-line leading-5 text-ink-2"
          onClick={() => set([...rule.on, freshPoint(rule.on)])}
        >
          and another
        </button>
      )}
    </>
  );
}

/** The last working day, or the next date that is not taken: something to change from. */
function freshPoint(taken: readonly MonthPoint[]): MonthPoint {
  const keys = new Set(taken.map(pointKey));
  const lastWorkingDay: MonthPoint = { kind: 'workingDay', nth: -1 };
  if (!keys.has(pointKey(lastWorkingDay))) return lastWorkingDay;
  const day = Array.from({ length: 28 }, (_, i) => i + 1).find((date) => !keys.has(`date ${date}`)) ?? 1;
  return { kind: 'date', day };
}

function PointBlank({
  label,
  point,
  onChange,
}: {
  readonly label: string;
  readonly point: MonthPoint;
  readonly onChange: (point: MonthPoint) => void;
}) {
  const groups = groupsWith(point);
  return (
    <select
      className="blank"
      aria-label={label}
      value={pointKey(point)}
      onChange={({ target }) => {
        const chosen = groups.flatMap(({ points }) => points).find((other) => pointKey(other) === target.value);
        if (chosen) onChange(chosen);
      }}
    >
      {groups.map(({ heading, points }) => (
        <optgroup key={heading} label={heading}>
          {points.map((other) => (
            <option key={pointKey(other)} value={pointKey(other)}>
              {pointWords(other)}
            </option>
          ))}
        </optgroup>
      ))}
    </select>
  );
}

const MONTH_SETS = [
  ['', 'each month'],
  ['3,6,9,12', 'the last month of each quarter'],
  ['1,4,7,10', 'the first month of each quarter'],
  ['2,5,8,11', 'Feb, May, Aug and Nov'],
  ['4,10', 'Apr and Oct'],
  ['3,4,5,6,7,8,9,10', 'March to October'],
] as const;
const CERTAIN = 'certain';

export function MonthChoice({ rule, name, onChange }: DetailsProps<MonthsRule>) {
  const current = rule.months.join();
  const known = MONTH_SETS.some(([key]) => key === current);
  return (
    <>
      {' '}
      {rule.every > 1 ? 'in' : 'of'}{' '}
      <ChoiceBlank
        label={`${name}: in which months`}
        value={known ? current : CERTAIN}
        options={[
          ...(rule.every > 1 ? [['', 'any month'] as const, ...MONTH_SETS.slice(1)] : MONTH_SETS),
          [CERTAIN, 'certain months'],
        ]}
        onChange={(key) =>
          onChange({ ...rule, months: key === CERTAIN ? [1, 7] : key === '' ? [] : key.split(',').map(Number) })
        }
      />
      {!known && (
        <>
          {': '}
          <MonthsBlank name={name} months={rule.months} onChange={(months) => onChange({ ...rule, months })} />
        </>
      )}
    </>
  );
}

export function YearMonths({ rule, name, onChange }: DetailsProps<YearsRule>) {
  return <MonthsBlank name={name} months={rule.months} onChange={(months) => onChange({ ...rule, months })} />;
}

/** Months as words: "March", "Mar and Sep". */
function MonthsBlank({
  name,
  months,
  onChange,
}: {
  readonly name: string;
  readonly months: readonly number[];
  readonly onChange: (months: number[]) => void;
}) {
  const [only] = months;
  return (
    <WordsBlank
      label={`${name}: months`}
      shown={months.length === 1 && only !== undefined ? monthName(only) : months.map(monthShort).join(', ')}
      wrong="write months, like March or Mar, Sep"
      read={(text) => {
        const reading = readPhrase(`1st of ${text}`);
        const [rule] = reading.kind === 'read' && reading.times === null ? reading.recurrence.rules : [];
        return rule?.kind === 'months' && rule.months.length > 0 ? [...rule.months] : undefined;
      }}
      onChange={onChange}
    />
  );
}

export function Missing({ rule, name, onChange }: MonthlyDetails) {
  if (!mayLackDay(rule)) return null;
  return (
    <>
      <br />
      in a month without it,{' '}
      <ChoiceBlank
        label={`${name}: in a month without that day`}
        value={rule.missing}
        options={MISSING_WORDS}
        onChange={(missing) => onChange({ ...rule, missing })}
      />
    </>
  );
}
