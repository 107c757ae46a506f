import { clockAddresses } from '../../../../contract/addresses.ts';
import type { Clocking } from '../../../../contract/index.ts';
import { sayDone } from '../../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../../kit/answer.ts';
import { ask } from '../../../kit/api.ts';
import { timeOf } from '../../../kit/ways.ts';

/** Everybody who is on now, by person. */
export function useOnNow(): ReadonlyMap<string, Clocking> | undefined {
  const { data } = useAnswer(clockAddresses.now, {});
  return data && new Map(data.on.map((one) => [one.personId, one]));
}

/** What can be done with the clock; each throws a ProblemError when it is refused. */
export function useClockActions(personId: string, name: string) {
  const refresh = useRefresh();
  const of = { params: { personId } };
  const told = () => refresh('/clock/on', `/people/${personId}/`);
  const body = (at: string | null) => (at === null ? {} : { at });
  return {
    /** @param at an earlier time of today; null for now */
    on: async (at: string | null): Promise<Clocking> => {
      const clocking = await ask(clockAddresses.on, { ...of, body: body(at) });
      await told();
      sayDone(`${name} is on since ${timeOf(clocking.on)}.`);
      return clocking;
    },
    off: async (at: string | null): Promise<Clocking> => {
      const clocking = await ask(clockAddresses.off, { ...of, body: body(at) });
      await told();
      if (clocking.off !== null) sayDone(`${name} is off since ${timeOf(clocking.off)}.`);
      return clocking;
    },
    takeBack: async ({ id }: Clocking): Promise<void> => {
      const { on } = await ask(clockAddresses.takeBack, { ...of, body: { id } });
      await told();
      sayDone(on === null ? `${name} is not on, as before.` : `${name} is on since ${timeOf(on.on)}, as before.`);
    },
  };
}
