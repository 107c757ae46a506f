import { useState } from 'react';
import { useNavigate, useOutletContext } from 'react-router';
import { directoryAddresses } from '../../../../contract/addresses.ts';
import type { ClientRecord, Merging } from '../../../../contract/index.ts';
import { joinAnd, plural } from '../../../../core/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAnswer } from '../../../kit/answer.ts';
import { ProblemError } from '../../../kit/api.ts';
import { Picker } from '../../../kit/picker.tsx';
import { CloseButton, SECTION, SideSheet } from '../../../kit/side-sheet.tsx';
import { NotAllowed } from '../../../kit/states.tsx';
import { useDirectoryActions } from '../directory-api.ts';

/** Another client that is the same goes over into this one. */
export function MergeSheet() {
  const client = useOutletContext<ClientRecord>();
  const { id, name, version } = client;
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const { merge, lookAtMerging } = useDirectoryActions();
  const [typed, setTyped] = useState<string | null>(null);
  const [other, setOther] = useState<{ readonly id: string; readonly name: string } | null>(null);
  const [merging, setMerging] = useState<Merging | null>(null);
  const [busy, setBusy] = useState(false);
  const {
    data: found,
    isLoading,
    error,
  } = useAnswer(directoryAddresses.clients, typed === null ? null : { query: { q: typed.slice(0, 100) } });
  const close = () => void navigate(`/clients/${id}`);
  const trying = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } catch (problem) {
      if (!(problem instanceof ProblemError)) throw problem;
      sayTrouble(problem);
    } finally {
      setBusy(false);
    }
  };
  if (!may('clients')) return <NotAllowed right="clients" what="merge clients" to={`/clients/${id}`} back={name} />;
  return (
    <SideSheet label={`Merge ${name} with another`} onClose={close}>
      <header className={`${SECTION} flex items-start gap-2`}>
        <h2 className="min-w-0 flex-1 text-title leading-6.5">{name} and</h2>
        <CloseButton onClose={close} />
      </header>
      <div className={`${SECTION} border-b-0 text-row leading-7`}>
        <Picker
          label="The same as"
          chosen={other?.id ?? ''}
          chosenName={other?.name}
          placeholder="another client"
          options={(found?.clients ?? [])
            .filter((one) => one.id !== id)
            .map((one) => ({ key: one.id, name: one.name, detail: one.assets.join(', ') }))}
          onType={setTyped}
          isLooking={isLoading}
          trouble={error?.message}
          onChoose={(key) => {
            const chosen = found?.clients.find((one) => one.id === key);
            if (!chosen) return;
            setOther(chosen);
            setMerging(null);
            void trying(async () => setMerging(await lookAtMerging(id, key)));
          }}
        />{' '}
        are the same.
        {other && merging && (
          <p className="mt-2 leading-5">
            {sayMerging(merging, other.name, name)} {other.name} then lies in the archive, with nothing left. One undo
            makes them two again.
          </p>
        )}
      </div>
      <footer className="sticky bottom-0 mt-auto flex gap-2 border-t border-line-2 bg-base-100 px-5 py-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={busy || !other || !merging}
          onClick={() =>
            void trying(async () => {
              await merge(id, other?.id ?? '', version);
              close();
            })
          }
        >
          {other ? `Merge ${other.name} into ${name}` : 'Merge'}
        </button>
      </footer>
    </SideSheet>
  );
}

/** "2 contacts, 1 asset, 3 schedules and 40 tasks of A go to B, who takes over the address." */
function sayMerging(
  { contacts, assets, schedules, tasks, notices, plans, calls, answers, mails, filled }: Merging,
  from: string,
  to: string,
): string {
  const parts = [
    ...(contacts > 0 ? [plural(contacts, 'contact')] : []),
    ...(assets > 0 ? [plural(assets, 'asset')] : []),
    ...(schedules > 0 ? [plural(schedules, 'schedule')] : []),
    ...(tasks > 0 ? [plural(tasks, 'task')] : []),
    ...(notices > 0 ? [plural(notices, 'notice')] : []),
    ...(calls > 0 ? [plural(calls, 'call')] : []),
    ...(mails > 0 ? [plural(mails, 'mail')] : []),
    ...(answers > 0 ? [plural(answers, 'answer')] : []),
    ...(plans > 0 ? [plural(plans, 'time on a plan', 'times on a plan')] : []),
  ];
  const goes = parts.length === 0 ? `Nothing hangs on ${from}.` : `${joinAnd(parts)} of ${from} go over to ${to}.`;
  return filled.length === 0 ? goes : `${goes} ${to} gets the ${joinAnd(filled)} of ${from}, which are missing here.`;
}
