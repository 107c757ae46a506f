import { useState } from 'react';
import type { Asked, AskInput, Task } from '../../../contract/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank } from '../../kit/blanks.tsx';
import { useAskActions, useAsked } from './api.ts';

interface AskFormProps {
  readonly task: Task;
  readonly asked: Asked;
  readonly onClose: () => void;
}

/** Whom to ask, and what the link opens, as a sentence. */
export function AskForm({ task, asked, onClose }: AskFormProps) {
  const { asking } = useWorkspace();
  const { ask } = useAskActions(task.id);
  const [busy, setBusy] = useState(false);
  const [first] = asked.contacts;
  const [draft, setDraft] = useState<AskInput>({
    ...{ contactId: first?.id ?? '', opens: asking.opens, needsCode: asking.needsCode },
  });
  const contact = asked.contacts.find(({ id }) => id === draft.contactId);
  if (contact === undefined)
    return (
      <p className="mt-2 text-row text-late">No contact of {task.client?.name} has a mail address: add one first.</p>
    );
  return (
    <form
      className="mt-2 text-row leading-6"
      onSubmit={(event) => {
        event.preventDefault();
        if (busy) return;
        setBusy(true);
        void ask(draft, contact.name)
          .then((done) => done && onClose())
          .finally(() => setBusy(false));
      }}
    >
      a mail to{' '}
      <ChoiceBlank
        label="Who is asked"
        value={draft.contactId}
        options={asked.contacts.map(({ id, name, role, email }) => [
          id,
          `${name}${role === '' ? '' : `, ${role}`} (${email})`,
        ])}
        onChange={(contactId) => setDraft({ ...draft, contactId })}
      />{' '}
      with a link that opens{' '}
      <ChoiceBlank
        label="What the link opens"
        value={draft.opens}
        options={[
          ['one', 'this alone'],
          ['all', 'all that they are asked for'],
        ]}
        onChange={(opens) => setDraft({ ...draft, opens })}
      />
      ,{' '}
      <ChoiceBlank
        label="Whether the link asks for a code"
        value={draft.needsCode ? 'code' : 'none'}
        options={[
          ['none', 'at once'],
          ['code', 'after a code that goes to the same address'],
        ]}
        onChange={(value) => setDraft({ ...draft, needsCode: value === 'code' })}
      />
      {!task.isForClient && (
        <span className="block text-note text-ink-2">
          It is theirs to do from then on{task.assignee ? `, not ${task.assignee.name}’s` : ''}. What has gone by mail
          is not taken back by an undo.
        </span>
      )}
      <span className="mt-2 flex gap-3">
        <button type="submit" className="btn btn-primary max-[720px]:h-11" aria-disabled={busy}>
          Send the mail
        </button>
        <button type="button" className="btn max-[720px]:h-11" onClick={onClose}>
          Not now
        </button>
      </span>
    </form>
  );
}

/** The same of a task that is not the client's yet: who could be asked is looked up first. */
export default function AskFirst({ task, onClose }: Omit<AskFormProps, 'asked'>) {
  const { data } = useAsked(task.id);
  return data ? <AskForm task={task} asked={data} onClose={onClose} /> : null;
}
