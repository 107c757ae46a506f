import { X } from 'lucide-react';
import {
  dayOfIso,
  type FollowsRule,
  MAX_INTERVAL,
  type MonthPoint,
  type MonthsRule,
  mayLackDay,
  monthName,
  monthShort,
  type Rule,
  readPhrase,
  rruleFault,
  sayDate,
  type Weekday,
  weekdayName,
  type YearsRule,
} from '../../core/index.ts';
import { ChoiceBlank, NumberBlank, WordsBlank } from '../ui/blanks.tsx';
import {
  FOREIGN,
  FREQUENCIES,
  type Frequency,
  frequencyOf,
  groupsWith,
  MILESTONE_CHOICES,
  MISSING_WORDS,
  pointKey,
  pointWords,
  ruleOf,
  unitChoices,
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
          options={rule.kind === 'rrule' ? [...FREQUENCIES, FOREIGN] : FREQUENCIES}
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
  switch (rule.kind) {
    case 'days':
      return (
        <>
          <Every rule={rule} name={name} onChange={onChange} /> day{plural(rule)}, but not on{' '}
          <WeekdayToggles
            name={`${name}: not on`}
            chosen={rule.except}
            most={6}
            least={0}
            onChange={(except) => onChange({ ...rule, except })}
          />
        </>
      );
    case 'workingDays':
      return (
        <>
          <Every rule={rule} name={name} onChange={onChange} /> working day{plural(rule)}, counted from the start
        </>
      );
    case 'weeks':
      return (
        <>
          <Every rule={rule} name={name} onChange={onChange} /> week{plural(rule)} on{' '}
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
          <Every rule={rule} name={name} onChange={onChange} /> month{plural(rule)} on the{' '}
          <Points rule={rule} name={name} onChange={onChange} />
          <MonthChoice rule={rule} name={name} onChange={onChange} />
          <Missing rule={rule} name={name} onChange={onChange} />
        </>
      );
    case 'years':
      return (
        <>
          <Every rule={rule} name={name} onChange={onChange} /> year{plural(rule)} on the{' '}
          <Points rule={rule} name={name} onChange={onChange} /> of{' '}
          <YearMonths rule={rule} name={name} onChange={onChange} />
          <Missing rule={rule} name={name} onChange={onChange} />
        </>
      );
    case 'dates':
      return (
        <>
          on{' '}
          <WordsBlank
            label={`${name}: dates`}
            shown={rule.dates.map((date) => sayDate(dayOfIso(date))).join(', ')}
            placeholder="3 Mar 2027, 5 Apr 2027"
            wrong="write dates with commas between, like 3 Mar 2027, 5 Apr 2027"
            read={readDates}
            onChange={(dates) => onChange({ kind: 'dates', dates })}
          />
        </>
      );
    case 'follows':
      return <Follows rule={rule} name={name} onChange={onChange} />;
    case 'rrule':
      return (
        <WordsBlank
          label={`${name}: RRULE`}
          mono
          shown={rule.text}
          wrong="this is no RRULE that makes days"
          read={(text) => (rruleFault(text.trim().toUpperCase()) === null ? text.trim().toUpperCase() : undefined)}
          onChange={(text) => onChange({ kind: 'rrule', text })}
        />
      );
  }
}

function plural({ every }: { readonly every: number }): string {
  return every === 1 ? '' : 's';
}

function readDates(text: string): string[] | undefined {
  const reading = readPhrase(`on ${text}`);
  const [rule] = reading.kind === 'read' ? reading.recurrence.rules : [];
  return rule?.kind === 'dates' ? [...rule.dates] : undefined;
}

type Interval = Exclude<Rule, { kind: 'dates' | 'rrule' | 'follows' }>;

function Every({ rule, name, onChange }: DetailsProps<Interval>) {
  return (
    <>
      every{' '}
      <NumberBlank
        label={`${name}: interval`}
        value={rule.every}
        least={1}
        most={MAX_INTERVAL}
        onChange={(every) => onChange({ ...rule, every })}
      />
    </>
  );
}

function Follows({ rule, name, onChange }: DetailsProps<FollowsRule>) {
  const milestone = (
    <>
      the last one is{' '}
      <ChoiceBlank
        label={`${name}: how far the last one has to be`}
        value={rule.reaches}
        options={MILESTONE_CHOICES}
        onChange={(reaches) => onChange({ ...rule, reaches })}
      />
    </>
  );
  if (rule.amount === 0) return <>as soon as {milestone}</>;
  return (
    <>
      <NumberBlank
        label={`${name}: how long after`}
        value={rule.amount}
        least={1}
        most={MAX_INTERVAL}
        onChange={(amount) => onChange({ ...rule, amount })}
      />{' '}
      <ChoiceBlank
        label={`${name}: of what`}
        value={rule.unit}
        options={unitChoices(rule.amount)}
        onChange={(unit) => onChange({ ...rule, unit })}
      />{' '}
      after {milestone}
    </>
  );
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
const CERTAIN = 'certain';

function MonthChoice({ rule, name, onChange }: DetailsProps<MonthsRule>) {
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

function YearMonths({ rule, name, onChange }: DetailsProps<YearsRule>) {
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
        const [rule] = reading.kind === 'read' ? reading.recurrence.rules : [];
        return rule?.kind === 'months' && rule.months.length > 0 ? [...rule.months] : undefined;
      }}
      onChange={onChange}
    />
  );
}

function Missing({ rule, name, onChange }: MonthlyDetails) {
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
