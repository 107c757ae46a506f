import { useMemo } from 'react';
import { peopleAddresses } from '../../../contract/addresses.ts';
import { type Colleague, dayOfIso, type WeekOfWork } from '../../../core/index.ts';
import { useAnswer } from '../../kit/answer.ts';

/** Everybody who may be given work, and what each has to do already by the week. */
export interface Colleagues {
  readonly colleagues: readonly Colleague[];
  readonly weeks: readonly (WeekOfWork & { readonly own: number })[];
}

/** Undefined until it is known. @param scheduleId whose work among that of the weeks is told apart */
export function useColleagues(scheduleId: string | null = null): Colleagues | undefined {
  const { data } = useAnswer(
    peopleAddresses.colleagues,
    scheduleId === null ? {} : { query: { schedule: scheduleId } },
  );
  return useMemo(
    () =>
      data && {
        colleagues: data.colleagues,
        weeks: data.weeks.map(({ monday, ...one }) => ({ ...one, monday: dayOfIso(monday) })),
      },
    [data],
  );
}
