import type { DaySheet } from '../../../../contract/index.ts';
import { useOnNow } from './api.ts';
import { ClockLine } from './clock-line.tsx';

/** The clock on today's sheet: of whoever has shifts, at work today or not, or is on. */
export default function OwnClock({ person }: Pick<DaySheet, 'person'>) {
  const onNow = useOnNow();
  // Where nobody says when hours lie, nobody is asked to clock.
  if (!person.hasShifts && !onNow?.has(person.id)) return null;
  return (
    <span className="pb-0.5 max-[720px]:order-last max-[720px]:basis-full max-[720px]:pb-0">
      <ClockLine person={person} shifts={person.shifts} isStacked />
    </span>
  );
}
