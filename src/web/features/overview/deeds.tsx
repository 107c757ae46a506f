import { useState } from 'react';
import type { TaskLine } from '../../../contract/index.ts';
import { NUDGE_AGAIN_MINUTES } from '../../../contract/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Picker } from '../../kit/picker.tsx';
import { timeOf } from '../../kit/ways.ts';
import { useTaskActions } from '../tasks/api.ts';
import { minutesBetween } from './overview-words.ts';

/** Gives a task that nobody has to somebody. */
export function Assign({ task }: { readonly task: TaskLine }) {
  const { staff, may } = useWorkspace();
  const { changeSeveral } = useTaskActions();
  if (!may('give')) return null;
  const give = (personId: string) => {
    const name = staff.find(({ id }) => id === personId)?.name ?? 'somebody';
    changeSeveral([task], { kind: 'give', personId }, () => `“${task.title}” is ${name}’s now.`).catch(sayTrouble);
  };
  return (
    <Picker
      label={`Assign ${task.title}`}
      look="deed"
      placeholder="Assign"
      chosen=""
      options={staff.map(({ id, name, roles }) => ({ key: id, name, detail: roles.join(', ') }))}
      onChoose={give}
    />
  );
}

/** Reminds whoever has a task; says when that was done last. */
export function Nudge({ task, at }: { readonly task: TaskLine; readonly at: string }) {
  const { may, me } = useWorkspace();
  const { nudge } = useTaskActions();
  const [busy, setBusy] = useState(false);
  const { nudgedAt, assignee } = task;
  const isPast = nudgedAt !== null && nudgedAt.slice(0, 10) !== at.slice(0, 10);
  const said = nudgedAt === null ? null : isPast ? 'nudged before' : `nudged ${timeOf(nudgedAt)}`;
  const isFresh = nudgedAt !== null && minutesBetween(nudgedAt, at) < NUDGE_AGAIN_MINUTES;
  const mayNudge = may('nudge') && assignee !== null && assignee.id !== me.id && !isFresh;
  return (
    <>
      {said}
      {mayNudge && (
        <button
          type="button"
          className="deed"
          disabled={busy}
          aria-label={`Nudge ${assignee.name} about ${task.title}`}
          onClick={() => {
            setBusy(true);
            void nudge([task.id], { name: assignee.name }).finally(() => setBusy(false));
          }}
        >
          Nudge
        </button>
      )}
    </>
  );
}
