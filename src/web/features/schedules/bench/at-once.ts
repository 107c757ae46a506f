import { useMemo } from 'react';
import { scheduleAddresses } from '../../../../contract/addresses.ts';
import { MOST_TIMED_PEOPLE } from '../../../../contract/index.ts';
import {
  atOnce,
  callNames,
  dayOfIso,
  isoOfDay,
  type Remark,
  remarkAtOnce,
  type SetTask,
  type TimedWork,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAnswer } from '../../../kit/answer.ts';

/** What it makes within the horizon that whoever has it could not do for other work at the same time. */
export function useAtOnce(owed: readonly SetTask[], ownId: string | null): readonly Remark[] {
  const { people, today } = useWorkspace();
  const own = useMemo(() => owed.flatMap(timedOf), [owed]);
  // What is asked changes with the people and the days alone, not with each key.
  const ids = [...new Set(own.map(({ personId }) => personId))].sort().slice(0, MOST_TIMED_PEOPLE);
  const last = own.reduce((latest, { on }) => Math.max(latest, on), today);
  const query = {
    people: ids.join(','),
    ...{ from: isoOfDay(today), to: isoOfDay(last) },
    ...(ownId === null ? {} : { without: ownId }),
  };
  const { data } = useAnswer(scheduleAddresses.timed, ids.length === 0 ? null : { query });
  return useMemo(() => {
    const others = (data?.work ?? []).map((work): TimedWork => ({ ...work, on: dayOfIso(work.on) }));
    // Where there is more than is told, the days from the last one on are not known whole.
    const end = data?.hasMore ? (others.at(-1)?.on ?? 0) : Number.POSITIVE_INFINITY;
    const known = own.filter(({ on }) => on < end);
    const called = callNames(people);
    return remarkAtOnce(atOnce(known, others), (id) => called.get(id) ?? 'somebody', today);
  }, [data, own, people, today]);
}

function timedOf({ assigneeId, on, starts, startTime, due, dueTime, estimateMinutes }: SetTask): TimedWork[] {
  if (assigneeId === null || startTime === null || starts !== on) return [];
  const until = due === on ? dueTime : null;
  return [{ personId: assigneeId, on, startTime, dueTime: until, minutes: estimateMinutes, title: '' }];
}
