import { useState } from 'react';
import { useNavigate } from 'react-router';
import { bringInAddresses } from '../../../contract/addresses.ts';
import type { BringIn } from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ask } from '../../kit/api.ts';

/** Which plans a file names: before it is brought in whether there are such, afterwards the way to put its clients on them. */
export function PlansMeant({ bringIn }: { readonly bringIn: BringIn }) {
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const { id, plans, state } = bringIn;
  if (plans.length === 0 || state === 'undone') return null;
  const putOn = async (planId: string) => {
    setBusy(true);
    try {
      const { clients } = await ask(bringInAddresses.forPlan, { params: { bringInId: id }, query: { plan: planId } });
      await navigate(`/plans/put-on?plan=${planId}`, { state: { clients } });
    } catch (error) {
      sayTrouble(error);
      setBusy(false);
    }
  };
  return (
    <section className="border-t border-line px-5 py-2.5 text-row leading-6" aria-label="Service plans">
      <h2 className="text-row text-primary">Service plans</h2>
      <ul>
        {plans.map(({ name, count, planId }) => (
          <li key={name}>
            {planId === null ? (
              <span className="text-late">
                “{name}” is no service plan here: {plural(count, 'line')}
              </span>
            ) : (
              <>
                <b className="font-semibold">{name}</b>, {plural(count, 'line')}
                {state === 'done' && may('plan') && (
                  <button type="button" className="link-line ml-3" disabled={busy} onClick={() => void putOn(planId)}>
                    Put them on it …
                  </button>
                )}
              </>
            )}
          </li>
        ))}
      </ul>
      <p className="text-note leading-4.5 text-ink-2">
        {state === 'open'
          ? 'Once the list is in, they are put on their plan after a look at what that makes.'
          : 'Those who are on it already are left out; what it makes is shown before.'}
      </p>
    </section>
  );
}
