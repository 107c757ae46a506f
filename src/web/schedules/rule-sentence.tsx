import { X } from 'lucide-react';
import {
  MAX_INTERVAL,
  type MonthPoint,
  type MonthsRule,
  monthName,
  type Rule,
  type Weekday,
  weekdayName,
  type YearsRule,
} from '../../core/index.ts';
import { ChoiceBlank, NumberBlank } from '../ui/blanks.tsx';
import {
  FREQUENCIES,
  type Frequency,
  frequencyOf,
  groupsWith,
  hasShortMonths,
  MISSING_WORDS,
  pointKey,
  pointWords,
  ruleOf,
} from './rule-choices.ts';

interface RuleSentenceProps {
  readonly rule: Rule;
  /** The letter that ties it to its part of the phrase; null when there is only one rule. */
  readonly letter: string | null;
  readonly start: number;
  readonly onChange: (rule: Rule) => void;
  readonly onRemove: (() => void) | null;
}

/** One rule as a sentence with blanks. */
export function RuleSentence({ rule, letter, start, onChange, onRemove }: RuleSentenceProps) {
  const name = letter ? `Rule ${letter}` : 'The rule';
  return (
    <div className="grid grid-cols-[18px_minmax(0,1fr)_auto]">
      <b className="font-head text-[14px] font-semibold text-primary" aria-hidden>
        {letter}
      </b>
      <div>
        <ChoiceBlank<Frequency>
          label={`${name}: how often`}
          value={frequencyOf(rule)}
          options={FREQUENCIES}
          onChange={(frequency) => onChange(ruleOf(frequency, start))}
        />
        <br />
        <Details rule={rule} name={name} onChange={onChange} />
      </div>
      {onRemove && (
        <button
          type="button"
          className="btn btn-text !h-7 !min-h-7"
          aria-label={`Remove rule ${letter}`}
          onClick={onRemove}
        >
          <X size={14} aria-hidden />
        </button>
      )}
    </div>
  );
}

interface DetailsProps<R extends Rule = Rule> {
  readonly rule: R;
  readonly name: string;
  readonly onChange: (rule: Rule) => void;
}

function Details({ rule, name, onChange }: DetailsProps) {
  const every = (
    <>
      every{' '}
      <NumberBlank
        label={`${name}: interval`}
        value={rule.every}
        least={1}
        most={MAX_INTERVAL}
        onChange={(value) => onChange({ ...rule, every: value })}
      />
    </>
  );
  const s = rule.every === 1 ? '' : 's';
  switch (rule.kind) {
    case 'days':
      return (
        <>
          {every} day{s}, but not on{' '}
          <WeekdayToggles
            name={`${name}: not on`}
            chosen={rule.except}
            most={6}
            least={0}
            onChange={(except) => onChange({ ...rule, except })}
          />
        </>
      );
    case 'weeks':
      return (
        <>
          {every} week{s} on{' '}
          <WeekdayToggles
            name={`${name}: on`}
            chosen={rule.on}
            most={7}
            least={1}
            onChange={(on) => onChange({ ...rule, on })}
          />
        </>
      );
    case 'months':
      return (
        <>
          {every} month{s} on the <Points rule={rule} name={name} onChange={onChange} />
          <MonthChoice rule={rule} name={name} onChange={onChange} />
          <Missing rule={rule} name={name} onChange={onChange} />
        </>
      );
    case 'years':
      return (
        <>
          {every} year{s} on the <Points rule={rule} name={name} onChange={onChange} /> of{' '}
          <ChoiceBlank
            label={`${name}: month`}
            value={rule.months[0] ?? 1}
            options={Array.from({ length: 12 }, (_, i) => [i + 1, monthName(i + 1)] as const)}
            onChange={(month) => onChange({ ...rule, months: [month] })}
          />
          <Missing rule={rule} name={name} onChange={onChange} />
        </>
      );
  }
}

const WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7];

interface WeekdayTogglesProps {
  readonly name: string;
  readonly chosen: readonly Weekday[];
  readonly least: number;
  readonly most: number;
  readonly onChange: (weekdays: Weekday[]) => void;
}

function WeekdayToggles({ name, chosen, least, most, onChange }: WeekdayTogglesProps) {
  return (
    <fieldset className="inline-flex gap-0.5 align-middle">
      <legend className="sr-only">{name}</legend>
      {WEEKDAYS.map((weekday) => {
        const on = chosen.includes(weekday);
        const next = on ? chosen.filter((other) => other !== weekday) : [...chosen, weekday].sort((a, b) => a - b);
        return (
          <button
            key={weekday}
            type="button"
            aria-pressed={on}
            aria-label={weekdayName(weekday)}
            title={weekdayName(weekday)}
            className={`h-6 w-[29px] cursor-pointer rounded-t-[3px] border-b-[1.5px] text-[13px] leading-5 ${on ? 'border-primary bg-primary font-semibold text-primary-content' : 'border-primary bg-field'}`}
            onClick={() => {
              if (next.length >= least && next.length <= most) onChange(next);
            }}
          >
            {weekdayName(weekday).slice(0, 2)}
          </button>
        );
      })}
    </fieldset>
  );
}

type MonthlyDetails = DetailsProps<MonthsRule | YearsRule>;

function Points({ rule, name, onChange }: MonthlyDetails) {
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
      {rule.on.length < 8 && (
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

function MonthChoice({
  rule,
  name,
  onChange,
}: {
  readonly rule: MonthsRule;
  readonly name: string;
  readonly onChange: (rule: Rule) => void;
}) {
  if (rule.every > 1) return null;
  const current = rule.months.join();
  const known = MONTH_SETS.some(([key]) => key === current);
  const options: (readonly [string, string])[] = known
    ? [...MONTH_SETS]
    : [...MONTH_SETS, [current, rule.months.map((month) => monthName(month).slice(0, 3)).join(', ')]];
  return (
    <>
      {' '}
      of{' '}
      <ChoiceBlank
        label={`${name}: in which months`}
        value={current}
        options={options}
        onChange={(key) => onChange({ ...rule, months: key === '' ? [] : key.split(',').map(Number) })}
      />
    </>
  );
}

function Missing({ rule, name, onChange }: MonthlyDetails) {
  if (!hasShortMonths(rule.on)) return null;
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
