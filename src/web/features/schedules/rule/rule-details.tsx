import { dayOfIso, type FollowsRule, MAX_INTERVAL, type Rule, readPhrase, rruleFault } from '../../../../core/index.ts';
import { ChoiceBlank, NumberBlank, WordsBlank } from '../../../kit/blanks.tsx';
import { sayDate } from '../../../kit/ways.ts';
import { WeekdayToggles } from '../../../kit/weekday-toggles.tsx';
import { Away } from './away-blanks.tsx';
import { type DetailsProps, isByEaster, Missing, MonthChoice, Points, YearMonths } from './month-blanks.tsx';
import { MILESTONE_CHOICES, unitChoices } from './rule-choices.ts';

/** A rule's own blanks. */
export function RuleDetails({ rule, name, onChange }: DetailsProps) {
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
          <Every rule={rule} name={name} onChange={onChange} /> month{plural(rule)}
          <Away rule={rule} name={name} onChange={onChange} />
          <Points rule={rule} name={name} onChange={onChange} />
          <MonthChoice rule={rule} name={name} onChange={onChange} />
          <Missing rule={rule} name={name} onChange={onChange} />
        </>
      );
    case 'years':
      return (
        <>
          <Every rule={rule} name={name} onChange={onChange} /> year{plural(rule)}
          <Away rule={rule} name={name} onChange={onChange} />
          <Points rule={rule} name={name} onChange={onChange} />
          {!isByEaster(rule) && (
            <>
              {' '}
              of <YearMonths rule={rule} name={name} onChange={onChange} />
            </>
          )}
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
  const [rule] = reading.kind === 'read' && reading.times === null ? reading.recurrence.rules : [];
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
