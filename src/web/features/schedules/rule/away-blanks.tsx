import {
  type Distance,
  MAX_DISTANCE,
  type MonthsRule,
  type Rule,
  type Way,
  type YearsRule,
} from '../../../../core/index.ts';
import { ChoiceBlank, NumberBlank } from '../../../kit/blanks.tsx';
import type { DetailsProps } from './month-blanks.tsx';
import { countedChoices, countedIn, isRanked, onSide, rankChoices, WAY_CHOICES } from './rule-choices.ts';

const ON = 'on';

/** Before the places of a rule: on them, or how far away from them. */
export function Away({ rule, name, onChange }: DetailsProps<MonthsRule | YearsRule>) {
  const { away, ...onIt } = rule;
  const set = (next: Distance) => onChange({ ...rule, away: next } as Rule);
  return (
    <>
      {away && <Counted away={away} name={name} onChange={set} />}{' '}
      <ChoiceBlank<Way | typeof ON>
        label={`${name}: on which side`}
        value={away?.way ?? ON}
        options={[[ON, 'on'], ...WAY_CHOICES]}
        onChange={(way) =>
          way === ON ? onChange(onIt as Rule) : set(onSide(away ?? { amount: 1, of: 'workingDay', way }, way))
        }
      />{' '}
      {rule.on[0]?.kind === 'easter' ? null : <>the </>}
    </>
  );
}

/** ", 3 working days", ", the first Friday" */
function Counted({
  away,
  name,
  onChange,
}: {
  readonly away: Distance;
  readonly name: string;
  readonly onChange: (away: Distance) => void;
}) {
  return (
    <>
      {isRanked(away) ? (
        <>
          , the{' '}
          <ChoiceBlank
            label={`${name}: which of them`}
            value={String(away.amount)}
            options={rankChoices(away.amount)}
            onChange={(rank) => onChange({ ...away, amount: Number(rank) })}
          />
        </>
      ) : (
        <>
          ,{' '}
          <NumberBlank
            label={`${name}: how far`}
            value={away.amount}
            least={1}
            most={MAX_DISTANCE}
            onChange={(amount) => onChange({ ...away, amount })}
          />
        </>
      )}{' '}
      <ChoiceBlank
        label={`${name}: counted in`}
        value={String(away.of)}
        options={countedChoices(away)}
        onChange={(key) => onChange(countedIn(away, key))}
      />
    </>
  );
}
