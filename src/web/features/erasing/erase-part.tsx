import { useState } from 'react';
import { erasingAddresses } from '../../../contract/addresses-later.ts';
import type { Erasing } from '../../../contract/index.ts';
import { joinAnd, plural } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask, ProblemError } from '../../kit/api.ts';
import { Dialog } from '../../kit/dialog.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';

interface EraseProps {
  readonly of: 'client' | 'person';
  readonly id: string;
  readonly name: string;
}

/** Somebody's name and all that is said of them, out of the record for good. */
export function ErasePart(props: EraseProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="link-line" onClick={() => setOpen(true)}>
        Erase {props.name}
      </button>{' '}
      <span className="text-ink-2">for good, where that is asked for</span>
      {isOpen && <EraseDialog {...props} onClose={() => setOpen(false)} />}
    </>
  );
}

function EraseDialog({ of, id, name, onClose }: EraseProps & { readonly onClose: () => void }) {
  const client = useAnswer(erasingAddresses.lookAtClient, of === 'client' ? { params: { clientId: id } } : null);
  const person = useAnswer(erasingAddresses.lookAtPerson, of === 'person' ? { params: { personId: id } } : null);
  const { data, error, mutate } = of === 'client' ? client : person;
  return (
    <Dialog label={`Erase ${name}`} className="w-[560px] p-6" onClose={onClose}>
      <h2 className="text-[24px] leading-7.5">Erase {name}</h2>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={5} />}
      {data && <Asked of={of} id={id} erasing={data} onClose={onClose} />}
    </Dialog>
  );
}

function Asked({
  of,
  id,
  erasing,
  onClose,
}: Pick<EraseProps, 'of' | 'id'> & { readonly erasing: Erasing; readonly onClose: () => void }) {
  const refresh = useRefresh();
  const [written, setWritten] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const { name, whyNot } = erasing;
  const isMeant = written.trim() === name;
  const erase = async () => {
    if (!isMeant || busy) return;
    setBusy(true);
    setProblem(null);
    try {
      await (of === 'client'
        ? ask(erasingAddresses.client, { params: { clientId: id }, body: { name: written } })
        : ask(erasingAddresses.person, { params: { personId: id }, body: { name: written } }));
      await refresh('/clients', '/team', '/people', '/tasks', '/task-list', '/schedules', '/workspace', '/logbook');
      sayDone('Erased. What was done, and when, is still in the record.');
      onClose();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.problem.errors?.[0]?.message ?? error.message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <dl className="mt-3 grid grid-cols-[84px_minmax(0,1fr)] gap-y-2 text-row leading-5.5">
        <dt className="text-primary">Goes</dt>
        <dd>{sayGoing(of, erasing)}</dd>
        <dt className="text-primary">Stays</dt>
        <dd>{sayStaying(erasing)}</dd>
        {erasing.shared.length > 0 && (
          <>
            <dt className="text-primary">Shared</dt>
            <dd>
              {joinAnd(erasing.shared.map((text) => `“${text}”`))} {erasing.shared.length === 1 ? 'is' : 'are'} somebody
              else’s too: in what is about others {erasing.shared.length === 1 ? 'it stays' : 'they stay'}.
            </dd>
          </>
        )}
        <dt className="text-primary">Besides</dt>
        <dd className="text-ink-2">
          Backups that were made before still hold all of it until they are let go, and so does whoever took something
          out. No undo brings it back.
        </dd>
      </dl>
      {whyNot !== null ? (
        <p className="mt-4 text-row font-semibold">{whyNot}</p>
      ) : (
        <form
          className="mt-4 flex flex-wrap items-center gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void erase();
          }}
        >
          <label className="text-row">
            Write the name to say that it is meant{' '}
            <input
              className="blank"
              value={written}
              placeholder={name}
              size={Math.max(14, name.length + 2)}
              autoComplete="off"
              onChange={({ target }) => setWritten(target.value)}
            />
          </label>
          <span className="flex gap-3">
            <button type="submit" className="btn btn-primary" disabled={!isMeant || busy}>
              Erase for good
            </button>
            <button type="button" className="btn" onClick={onClose}>
              Keep
            </button>
          </span>
          {problem && <FieldError message={problem} />}
        </form>
      )}
      {whyNot !== null && (
        <p className="mt-4">
          <button type="button" className="btn" onClick={onClose}>
            Close
          </button>
        </p>
      )}
    </>
  );
}

/** "the name, 2 contacts, what is written in 14 notes, 3 pictures and papers, 6 mails" */
function sayGoing(of: EraseProps['of'], { contacts, assets, notes, files, mails, letters }: Erasing): string {
  const parts = [
    of === 'client' ? 'The name, address and notes' : 'The name, mail, telephone and sign-in',
    ...(contacts > 0 ? [plural(contacts, 'contact')] : []),
    ...(assets > 0 ? [`the ${assets === 1 ? 'name of the asset' : `names of ${assets} assets`}`] : []),
    ...(notes > 0 ? [`the words of ${plural(notes, 'note or comment', 'notes and comments')}`] : []),
    ...(files > 0 ? [plural(files, 'picture or paper', 'pictures and papers')] : []),
    ...(mails > 0 ? [`what ${plural(mails, 'mail')} said`] : []),
    ...(letters > 0 ? [`what ${plural(letters, 'letter')} said`] : []),
  ];
  return `${joinAnd(parts)}; the name wherever titles, messages and mails say it.`;
}

const sayStaying = ({ tasks, calls }: Erasing): string =>
  `${joinAnd([plural(tasks, 'task'), ...(calls > 0 ? [plural(calls, 'call')] : [])])} with their days, times, figures and how they ended; that it was erased, when and by whom.`;
