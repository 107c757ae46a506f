import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import type { PersonInput } from '../../../../contract/index.ts';
import { type PatternShift, type Shift, sayDuration, type Weekday, weeksOfShifts } from '../../../../core/index.ts';
import { ChoiceBlank, TimeBlank, WordsBlank } from '../../../kit/blanks.tsx';
import { WeekdayToggles } from '../../../kit/weekday-toggles.tsx';
import { AT_FIRST, readBreak } from './shift-words.ts';

type Hours = Pick<PersonInput, 'weeks' | 'shifts'>;

interface ShiftLinesProps {
  readonly week: number;
  readonly hours: Hours;
  /** What they are here, of which a shift may be for one. */
  readonly roles: readonly string[];
  readonly onChange: (hours: Hours) => void;
}

/** The same with other shifts, and the minutes that follow from them. */
export function withShifts(weeks: Hours['weeks'], shifts: readonly PatternShift[]): Hours {
  // A break that is too long is told beside its shift.
  const minutes = weeksOfShifts(shifts, weeks.length).map((week) => week.map((one) => Math.max(0, one)));
  return { weeks: minutes, shifts: [...shifts] };
}

/** The shifts of one week, a sentence each. */
export function ShiftLines({ week, hours, roles, onChange }: ShiftLinesProps) {
  const { weeks, shifts } = hours;
  const set = (next: readonly PatternShift[]) => onChange(withShifts(weeks, next));
  const own = shifts.filter((one) => one.week === week);
  const free = ([1, 2, 3, 4, 5, 6, 7] as Weekday[]).find((day) => !own.some(({ weekdays }) => weekdays.includes(day)));
  return (
    <>
      {shifts.map(
        (shift, i) =>
          shift.week === week && (
            <ShiftSentence
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other name, and are only added at the end
              key={i}
              name={`shift ${own.indexOf(shift) + 1}${weeks.length > 1 ? ` of week ${week + 1}` : ''}`}
              shift={shift}
              roles={roles}
              onChange={(next) => set(shifts.map((one, n) => (n === i ? { ...shift, ...next } : one)))}
              onTakeOut={shifts.length === 1 ? null : () => set(shifts.filter((_, n) => n !== i))}
            >
              <WeekdayToggles
                name={`Weekdays of shift ${own.indexOf(shift) + 1}`}
                chosen={shift.weekdays}
                least={1}
                most={7}
                onChange={(weekdays) => set(shifts.map((one, n) => (n === i ? { ...shift, weekdays } : one)))}
              />{' '}
              from
            </ShiftSentence>
          ),
      )}
      <button
        type="button"
        className="link-line text-note"
        onClick={() => {
          const { from, to, breakMinutes, role } = own.at(-1) ?? AT_FIRST;
          set([...shifts, { from, to, breakMinutes, role, week, weekdays: [free ?? 1] }]);
        }}
      >
        Another shift
      </button>
    </>
  );
}

interface ShiftSentenceProps {
  readonly name: string;
  readonly shift: Shift;
  readonly roles: readonly string[];
  readonly onChange: (shift: Shift) => void;
  /** Null where it is the last of them. */
  readonly onTakeOut: (() => void) | null;
  readonly children: ReactNode;
}

/** "… from 07:00 to 15:00 less 30 min, as dock crew" */
export function ShiftSentence({ name, shift, roles, onChange, onTakeOut, children }: ShiftSentenceProps) {
  const { from, to, breakMinutes, role } = shift;
  const strange = role !== null && !roles.includes(role) ? [role] : [];
  return (
    <div className="mb-1 leading-7.5">
      {children}{' '}
      <TimeBlank
        label={`Start of ${name}`}
        value={from}
        placeholder="09:00"
        onChange={(time) => time !== null && onChange({ ...shift, from: time })}
      />{' '}
      to{' '}
      <TimeBlank
        label={`End of ${name}`}
        value={to}
        placeholder="17:00"
        onChange={(time) => time !== null && onChange({ ...shift, to: time })}
      />
      {to <= from && <span className="text-ink-2"> the day after</span>}, less{' '}
      <WordsBlank
        label={`Break of ${name}`}
        shown={breakMinutes === 0 ? '' : sayDuration(breakMinutes)}
        placeholder="no break"
        wrong="a length of time, like 30 min"
        width={7}
        read={readBreak}
        onChange={(minutes) => onChange({ ...shift, breakMinutes: minutes })}
      />
      {(roles.length > 1 || strange.length > 0 || role !== null) && (
        <>
          {' '}
          as{' '}
          <ChoiceBlank
            label={`Role of ${name}`}
            value={role ?? ''}
            options={[['', 'any role'] as const, ...[...roles, ...strange].map((one) => [one, one] as const)]}
            onChange={(value) => onChange({ ...shift, role: value === '' ? null : value })}
          />
        </>
      )}
      {onTakeOut && (
        <button
          type="button"
          className="ml-2 cursor-pointer align-middle text-ink-2 hover:text-ink"
          aria-label={`Take out ${name}`}
          onClick={onTakeOut}
        >
          <X size={13} aria-hidden />
        </button>
      )}
    </div>
  );
}
