import { Link } from 'react-router';
import { shiftAddresses } from '../../../../contract/addresses.ts';
import { dayOfIso, plural } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { useAnswer } from '../../../kit/answer.ts';
import { Band } from '../../../kit/band.tsx';
import { sayDayList } from '../leave/leave-words.ts';

/** So many dates are named. */
const NAMED = 4;

/** Work for those on shift in a role while nobody is, weeks ahead. */
export function ShiftGaps() {
  const today = useToday();
  const { data } = useAnswer(shiftAddresses.gaps, {});
  const gaps = data?.gaps ?? [];
  if (gaps.length === 0) return null;
  const dates = gaps.reduce((sum, { days }) => sum + days.length, 0);
  return (
    <Band name="unstaffed" count={dates} asides={['within 8 weeks']}>
      {gaps.map(({ scheduleId, work, about, group, days }) => {
        const named = sayDayList(days.slice(0, NAMED).map(dayOfIso), today);
        const name = [work, about].filter(Boolean).join(', ');
        return (
          <p
            key={`${scheduleId} ${name} ${group}`}
            className="flex min-h-9 items-center gap-4 border-b border-line py-1 pr-5 text-row leading-4.5 last:border-b-0 max-[720px]:flex-wrap max-[720px]:gap-y-0 max-[720px]:px-4 max-[720px]:py-2"
          >
            <span className="w-[386px] font-semibold max-[720px]:w-full">
              {scheduleId === null ? (
                name
              ) : (
                <Link className="link-line" to={`/schedules/${scheduleId}`}>
                  {name}
                </Link>
              )}
            </span>
            <span>
              nobody of {group.replace(/ on shift$/, '')} is on shift: {named}
              {days.length > NAMED && ` and ${plural(days.length - NAMED, 'day')} more`}
            </span>
          </p>
        );
      })}
    </Band>
  );
}
