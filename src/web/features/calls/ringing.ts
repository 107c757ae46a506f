import { callAddresses } from '../../../contract/addresses-later.ts';
import type { ListedCall, RungInput } from '../../../contract/index.ts';
import type { Outcome } from '../../../core/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { refresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import type { Outcome as Delivered, Kind, Unsent } from '../unsent/outbox.ts';
import { outbox } from '../unsent/use-unsent.ts';

/**
 * How it went is said through what is kept on this device, so that a whole list is rung without a net too; which page is open
 * when it is sent does not matter.
 */

export interface RungValue {
  readonly callId: string;
  readonly body: RungInput;
  /** As it was pressed: how the call ends here until the server says so. */
  readonly outcome: Outcome;
  /** What is said once it is taken. */
  readonly said: string;
}

const lookAgain = () => void refresh('/calls', '/quotas');

export const RUNG: Kind<RungValue> = outbox.register({
  name: 'rung',
  sender: {
    send: async ({ callId, body, said }: RungValue, sending) => {
      const { changeId } = await ask(callAddresses.rung, { params: { callId }, body }, sending);
      await refresh('/calls', '/quotas');
      // What has waited is sent while something else is done: that it waits no more is enough.
      if (!sending.hasWaited) sayDone(said, changeId);
    },
    onArrived: lookAgain,
    onRefused: (_value: RungValue, problem, { hasWaited }) => {
      lookAgain();
      // Refused at once it is said, and what was typed stands where it was typed; later somebody counts on it.
      if (hasWaited) return false;
      sayTrouble(problem);
      return true;
    },
  },
});

export const rungField = (callId: string) => `rung ${callId}`;

/** Says how a call went; tells whether the server has it, it waits, or it was refused. */
export const sayRung = (call: ListedCall, value: Omit<RungValue, 'callId'>): Promise<Delivered> =>
  outbox.deliver(RUNG, {
    field: rungField(call.id),
    value: { ...value, callId: call.id },
    about: `how the call to ${call.contact.name} went`,
    to: window.location.pathname,
  });

/** A call as it stands on this device: with what was said of it here and is not sent yet. */
export function callOnDevice(
  call: ListedCall,
  all: ReadonlyMap<string, Unsent>,
  {
    me,
    momentOf,
  }: { readonly me: { readonly id: string; readonly name: string }; readonly momentOf: (at: number) => string },
): ListedCall {
  const waiting = all.get(rungField(call.id));
  if (waiting?.state !== 'waiting' || waiting.kind !== RUNG.name) return call;
  const { outcome, body } = waiting.value as RungValue;
  return {
    ...call,
    ...{ state: 'rung', outcome, note: body.note, callBack: body.callBack ?? null },
    rungAt: call.rungAt ?? momentOf(waiting.at),
    rungBy: { id: me.id, name: me.name },
  };
}
