import type { Member } from '../../../../contract/index.ts';
import { isHereOn, isoOfDay } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { SECTION } from '../../../kit/side-sheet.tsx';
import { useOnNow } from '../clock/api.ts';
import { ClockLine } from '../clock/clock-line.tsx';
import { ShiftBar } from '../clock/shift-bar.tsx';
import { useLeaveOf } from '../leave/api.ts';
import { shiftsOf } from './shift-words.ts';

/** Whether somebody is on now; nothing of those who have left or are still to come. */
export function ClockPart({ member }: { readonly member: Member }) {
  const { today, workingCalendar } = useWorkspace();
  const leave = useLeaveOf(member.id).data?.leave;
  const onNow = useOnNow()?.get(member.id);
  if (!leave || !isHereOn(member, today)) return null;
  const shifts = shiftsOf(member, leave, today, workingCalendar.holidayName(today) !== undefined);
  // Whoever is on since yesterday has no place on the line of today.
  const onToday = onNow?.on.startsWith(isoOfDay(today)) ? onNow.on : null;
  return (
    <div className={`${SECTION} py-2`}>
      <ClockLine person={member} shifts={shifts ?? []} />
      {shifts !== null && shifts.length > 0 && <ShiftBar shifts={shifts} on={onToday} />}
    </div>
  );
}
