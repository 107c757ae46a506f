import { useMemo } from 'react';
import { leaveAddresses } from '../../../../contract/addresses.ts';
import type { Leave, LeaveInput } from '../../../../contract/index.ts';
import { groupBy, type LeaveCover } from '../../../../core/index.ts';
import { sayDone } from '../../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../../kit/answer.ts';
import { ask } from '../../../kit/api.ts';
import { sayKeptExchanges } from './leave-words.ts';

/** Leave of one person, from a year back on. */
export const useLeaveOf = (personId: string) => useAnswer(leaveAddresses.list, { query: { person: personId } });

/** Leave of everybody that is not over, by person. */
export function useLeaveFrom(from: string) {
  const { data } = useAnswer(leaveAddresses.list, { query: { from } });
  return useMemo(() => (data ? groupBy(data.leave, ({ personId }) => personId) : undefined), [data]);
}

const CONCERNED = [
  '/leave',
  '/team',
  '/colleagues',
  '/shifts',
  '/people/',
  '/tasks/',
  '/schedules',
  '/tideline',
  '/workload',
  '/workspace',
];

/** What can be done with leave; each throws a ProblemError when it is refused. */
export function useLeaveActions() {
  const refresh = useRefresh();
  const saved = async (said: string, changeId: string | null) => {
    await refresh(...CONCERNED);
    sayDone(said, changeId);
  };
  const of = ({ id: leaveId }: Leave) => ({ params: { leaveId } });
  return {
    enter: async (personId: string, name: string, input: LeaveInput) => {
      const { leave, changeId } = await ask(leaveAddresses.enter, { params: { personId }, body: input });
      const isAsked = leave?.state === 'asked';
      await saved(
        isAsked ? 'Asked for: a manager gives or refuses it.' : `${name} is away then.`,
        isAsked ? null : changeId,
      );
    },
    impactOfEntering: (personId: string, input: LeaveInput) =>
      ask(leaveAddresses.impactOfEntering, { params: { personId }, body: input }),
    impactOfGiving: (leave: Leave, cover: LeaveCover | null) =>
      ask(leaveAddresses.impactOfGiving, { ...of(leave), body: { cover } }),
    decide: async (leave: Leave, name: string, state: 'given' | 'refused', cover: LeaveCover | null = null) => {
      const { changeId } = await ask(leaveAddresses.decide, {
        ...of(leave),
        body: { version: leave.version, state, cover },
      });
      await saved(state === 'given' ? `${name} is away then.` : `Refused: ${name} is not away.`, changeId);
    },
    takeBack: async (leave: Leave, name: string) => {
      const { changeId, exchangesKept } = await ask(leaveAddresses.takeBack, {
        ...of(leave),
        body: { version: leave.version },
      });
      const isAsked = leave.state === 'asked';
      const kept = sayKeptExchanges(exchangesKept);
      await saved(isAsked ? 'No longer asked for.' : `${name} is not away then.${kept}`, isAsked ? null : changeId);
    },
  };
}
