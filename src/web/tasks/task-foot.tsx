import { useState } from 'react';
import { Link } from 'react-router';
import type { Task } from '../../contract/index.ts';
import { dayOfIso, isEnded, sayDay, sayMissing } from '../../core/index.ts';
import { undo } from '../shell/toast.tsx';
import { useToday } from '../shell/workspace.tsx';
import { Pennant } from '../ui/pennant.tsx';
import { ReasonForm } from '../ui/reason-form.tsx';
import { useTaskActions } from './api.ts';
import { missingOf } from './task-words.ts';

interface TaskFootProps {
  readonly task: Task;
  readonly address: (taskId: string) => string;
}

/** The next thing to do, what is still missing before it, and the one that comes after. */
export function TaskFoot({ task, address }: TaskFootProps) {
  const ended = isEnded(task.state as 'open');
  return (
    <div className="foot">
      {task.state === 'toCheck' ? <ToCheck task={task} /> : !ended && <ToDo task={task} />}
      {task.finishedBy !== null && (task.mayWork || task.maySign) && (
        <button type="button" className="btn mb-2" onClick={() => task.finishedBy && undo(task.finishedBy)}>
          {task.signed && task.state === 'done' ? 'Undo the sign-off' : 'Undo the finish'}
        </button>
      )}
      <NextOne task={task} address={address} ended={ended} />
    </div>
  );
}

function ToDo({ task }: { readonly task: Task }) {
  const { start, finish, claim } = useTaskActions();
  const missing = missingOf(task);
  const isReady = missing.length === 0;
  if (!task.mayWork)
    return (
      <div className="flex items-center gap-3 text-[14px]">
        {task.assignee === null ? (
          <button type="button" className="btn btn-primary" onClick={() => void claim(task.id)}>
            Claim
          </button>
        ) : (
          <span className="text-ink-2">{task.assignee.name} has this one.</span>
        )}
      </div>
    );
  return (
    <>
      {!isReady && (
        <p id="still-missing" className="mb-2 text-[13px] leading-[17px] max-[720px]:text-[15px] max-[720px]:leading-5">
          <b className="font-semibold">Still missing:</b> {sayMissing(missing)}
        </p>
      )}
      <div className="flex items-center gap-3">
        {task.state !== 'underWay' && (
          <button
            type="button"
            className={`btn ${isReady ? '' : 'btn-primary'} max-[720px]:flex-1`}
            onClick={() => void start(task.id)}
          >
            Start
          </button>
        )}
        <button
          type="button"
          className={`btn ${isReady ? 'btn-primary' : ''} max-[720px]:flex-1`}
          aria-disabled={!isReady}
          aria-describedby={isReady ? undefined : 'still-missing'}
          onClick={() => {
            if (isReady) void finish(task.id);
          }}
        >
          Finish
        </button>
        {task.signsOff && <span className="text-[13px] leading-4 text-ink-2">then {task.signsOff} signs it off</span>}
      </div>
    </>
  );
}

/** Finished work that a second person looks at. */
function ToCheck({ task }: { readonly task: Task }) {
  const { sign, sendBack } = useTaskActions();
  const [isSendingBack, setSendingBack] = useState(false);
  if (!task.maySign)
    return (
      <p className="mb-2 text-[14px] leading-[19px]">
        Finished{task.doneBy ? ` by ${task.doneBy}` : ''}; waits for {task.signsOff ?? 'a manager'} to check it.
      </p>
    );
  if (isSendingBack)
    return (
      <ReasonForm
        id="send-back-reason"
        label={`What is to be done again, for ${task.doneBy ?? 'whoever did it'}`}
        words="Send back"
        onReason={(reason) => void sendBack(task.id, reason).then((saved) => saved && setSendingBack(false))}
        onClose={() => setSendingBack(false)}
      />
    );
  return (
    <div className="mb-2 flex gap-3">
      <button type="button" className="btn btn-primary max-[720px]:flex-1" onClick={() => void sign(task.id)}>
        Sign it off
      </button>
      <button type="button" className="btn max-[720px]:flex-1" onClick={() => setSendingBack(true)}>
        Send back
      </button>
    </div>
  );
}

function NextOne({ task, address, ended }: TaskFootProps & { readonly ended: boolean }) {
  const today = useToday();
  const { next } = task.series;
  if (!task.schedule) return null;
  if (!next) return <p className="mt-2 text-[13px] leading-4 text-ink-2">This is the last one of its schedule.</p>;
  return (
    <p className={`flex items-center gap-1.5 text-[13px] leading-4 text-ink-2 ${ended ? '' : 'mt-2'}`}>
      <Pennant state={next.taskId ? 'coming' : 'bare'} />
      <span>
        Next one:{' '}
        {next.taskId ? (
          <Link className="link-line text-ink" to={address(next.taskId)}>
            {sayDay(dayOfIso(next.on), today)}
          </Link>
        ) : (
          sayDay(dayOfIso(next.on), today)
        )}
        , {next.who ?? 'nobody yet'}
      </span>
    </p>
  );
}
