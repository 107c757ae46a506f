import { type Weekday, weekdayName } from '../../core/index.ts';
import { weekdays } from './ways.ts';

interface WeekdayTogglesProps {
  readonly name: string;
  readonly chosen: readonly Weekday[];
  readonly least: number;
  readonly most: number;
  readonly onChange: (weekdays: Weekday[]) => void;
}

/** The days of a week, each on or off; no more and no fewer of them than may be. */
export function WeekdayToggles({ name, chosen, least, most, onChange }: WeekdayTogglesProps) {
  return (
    <fieldset className="inline-flex gap-0.5 align-middle">
      <legend className="sr-only">{name}</legend>
      {weekdays().map((weekday) => {
        const on = chosen.includes(weekday);
        const next = on ? chosen.filter((other) => other !== weekday) : [...chosen, weekday].sort((a, b) => a - b);
        return (
          <button
            key={weekday}
            type="button"
            aria-pressed={on}
            aria-label={weekdayName(weekday)}
            title={weekdayName(weekday)}
            className={`h-6 w-[29px] cursor-pointer rounded-t-[3px] border-b-[1.5px] text-note leading-5 ${on ? 'border-primary bg-primary font-semibold text-primary-content' : 'border-primary bg-field'}`}
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
