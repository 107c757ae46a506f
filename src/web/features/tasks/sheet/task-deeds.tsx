import { lazy, Suspense, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Task, TaskDeed } from '../../../../contract/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ReasonForm } from '../../../kit/reason-form.tsx';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { useTaskActions } from '../api.ts';
import { skipTask } from '../deeds.ts';
import { isFixed } from '../task-words.ts';
import { HoldForm } from './held-up.tsx';

const AskFirst = lazy(() => import('../../client-links/ask-form.tsx'));

interface TaskDeedsProps {
  readonly task: Task;
  readonly onEdit: () => void;
  /** When it is being deleted. */
  readonly onGone: () => void;
}

interface Asked {
  readonly what: string;
  readonly removal: 'skip' | 'delete';
  readonly deed: TaskDeed;
  /** Called once it is done. */
  readonly taken?: () => void;
}

/** What can be done with a task besides doing it: changing, skipping and deleting it, and making a template of it. */
export function TaskDeeds({ task, onEdit, onGone }: TaskDeedsProps) {
  const { may, skipReasons } = useWorkspace();
  const { impactOfSeveral, changeSeveral, nudge } = useTaskActions();
  const [skipping, setSkipping] = useState(false);
  const [holding, setHolding] = useState(false);
  const [asking, setAsking] = useState(false);
  const skipped = useRef<{ readonly reason: string; readonly taken: () => void } | null>(null);
  const { look, dialog } = useLookedAt<Asked>({
    impactOf: ({ deed }) => impactOfSeveral([task], deed),
    save: async ({ deed, taken }) => {
      // The sheet of what is gone would be asked for in vain.
      if (deed.kind === 'delete') onGone();
      await changeSeveral([task], deed, () => sayTaken(task, deed));
      taken?.();
      setSkipping(false);
    },
    hasReach: false,
    onRefused: (problem) => {
      const { reason, taken } = skipped.current ?? {};
      // Without a connection nothing can be looked at: that it is skipped is kept here until there is one.
      if (problem.problem.status !== 0 || reason === undefined) return sayTrouble(problem);
      void skipTask(task, reason);
      taken?.();
      setSkipping(false);
    },
  });
  const mayEdit = !isFixed(task);
  if (!mayEdit && !may('plan') && !task.mayNudge) return null;
  if (asking)
    return (
      <Suspense fallback={null}>
        <AskFirst task={task} onClose={() => setAsking(false)} />
      </Suspense>
    );
  if (holding) return <HoldForm task={task} onClose={() => setHolding(false)} />;
  if (skipping)
    return (
      <div className="mt-2">
        <ReasonForm
          id="skip-reason"
          label="Why it is not done this time"
          words="Look at what it changes"
          about={`skip.${task.id}`}
          offered={skipReasons}
          onReason={(reason, taken) => {
            skipped.current = { reason, taken };
            look({ what: `${task.title}: skipped`, removal: 'skip', deed: { kind: 'skip', reason }, taken });
          }}
          onClose={() => setSkipping(false)}
        />
        {dialog}
      </div>
    );
  return (
    <div className="mt-2 flex flex-wrap gap-x-4 gap-y-2 text-note leading-4.5">
      {mayEdit && (
        <button type="button" className="link-line" onClick={onEdit}>
          Change this one
        </button>
      )}
      {mayEdit && (
        <button type="button" className="link-line" onClick={() => setSkipping(true)}>
          Skip it
        </button>
      )}
      {task.mayHold && (
        <button type="button" className="link-line" onClick={() => setHolding(true)}>
          {task.hold ? 'Held up for something else' : 'Say what holds it up'}
        </button>
      )}
      {task.mayAsk && !task.isForClient && (
        <button type="button" className="link-line" onClick={() => setAsking(true)}>
          Ask {task.client?.name} to do it
        </button>
      )}
      {task.mayNudge && task.assignee && (
        <button
          type="button"
          className="link-line"
          onClick={() => void nudge([task.id], task.assignee ? { name: task.assignee.name } : {})}
        >
          Nudge {task.assignee.name}
        </button>
      )}
      {mayEdit && may('delete') && (
        <button
          type="button"
          className="link-line"
          onClick={() => look({ what: sayDeletion(task), removal: 'delete', deed: { kind: 'delete' } })}
        >
          Delete it
        </button>
      )}
      {may('plan') && (
        <Link className="link-line" to={`/templates/new?task=${task.id}`}>
          Make a template of it
        </Link>
      )}
      {dialog}
    </div>
  );
}

function sayDeletion({ title, schedule }: Task): string {
  return schedule ? `${title}: deleted, and not made again by its schedule` : `${title}: deleted`;
}

function sayTaken({ title, schedule }: Task, { kind }: TaskDeed): string {
  if (kind === 'skip') return `Skipped “${title}”.`;
  return `Deleted “${title}”.${schedule ? ' Its schedule does not make it again.' : ''}`;
}
