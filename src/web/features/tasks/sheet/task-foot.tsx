import { useState } from 'react';
import { Link } from 'react-router';
import type { Task } from '../../../../contract/index.ts';
import {
  answerProblem,
  type CivilDay,
  dayOfIso,
  isEnded,
  isoOfDay,
  latestDays,
  sayMissing,
  type TagDemand,
  termsOf,
} from '../../../../core/index.ts';
import { undo } from '../../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { DateBlank } from '../../../kit/blanks.tsx';
import { Pennant } from '../../../kit/pennant.tsx';
import { ReasonForm } from '../../../kit/reason-form.tsx';
import { sayDay } from '../../../kit/ways.ts';
import { outbox, useUnsent, useUnsentOf } from '../../unsent/use-unsent.ts';
import { useTaskActions } from '../api.ts';
import { type FinishValue, finishTask, overField, type SkipValue, skipTask, startField, startTask } from '../deeds.ts';
import { useHere } from '../on-device.ts';
import { missingOf, sayMoment, unreadTagOf } from '../task-words.ts';
import { ProofField } from './proof-field.tsx';
import { useAnswering } from './use-answering.ts';

interface TaskFootProps {
  readonly task: Task;
  /** The same with what is not sent yet. */
  readonly here: Task;
  readonly address: (taskId: string) => string;
}

/** The next thing to do, what is still missing before it, and the one that comes after. */
export function TaskFoot({ task: given, here: task, address }: TaskFootProps) {
  const ended = isEnded(task.state as 'open');
  const [nextOn, setNextOn] = useState<string | null>(null);
  return (
    <div className="sticky bottom-0 z-2 mt-auto border-t border-line-2 bg-base-100 px-5 py-3 max-[720px]:px-4 max-[720px]:pb-5 print:hidden max-[720px]:[&_.btn]:h-12 max-[720px]:[&_.btn]:min-w-24 max-[720px]:[&_.btn]:text-touch">
      {task.state === 'toCheck' ? (
        <ToCheck task={task} nextOn={nextOn} />
      ) : (
        !ended && <ToDo given={given} task={task} nextOn={nextOn} />
      )}
      <OnDevice task={task} />
      {task.finishedBy !== null && (task.mayWork || task.maySign) && (
        <button type="button" className="btn mb-2" onClick={() => task.finishedBy && undo(task.finishedBy)}>
          {task.signed && task.state === 'done' ? 'Undo the sign-off' : 'Undo the finish'}
        </button>
      )}
      <NextOne
        task={task}
        address={address}
        ended={ended}
        nextOn={nextOn}
        onNext={task.mayChooseNext ? setNextOn : null}
      />
    </div>
  );
}

const SAID_OF_WAITING = { start: 'Started', finish: 'Finished', skip: 'Skipped' } as const;

/** What was done with it on this device and is not sent yet, or was not taken: when, and what can be done about that. */
function OnDevice({ task }: { readonly task: Task }) {
  const [start, over] = [useUnsent(startField(task.id)), useUnsent(overField(task.id))];
  const { momentOf } = useHere();
  const today = useToday();
  const refused = useUnsentOf(
    ({ state, value }) => state === 'refused' && (value as Partial<SkipValue> | null)?.taskId === task.id,
  );
  // What ended it says enough.
  const told = (over?.state === 'waiting' ? [over] : [start, over]).filter(
    (one) => one !== null && (one.said !== null || one.state === 'refused'),
  );
  return (
    <>
      {told.map((one) => {
        if (one === null) return null;
        const { field, kind, state, said, value, at } = one;
        const words = SAID_OF_WAITING[kind as 'start'];
        const again = () =>
          void (kind === 'start'
            ? startTask(task)
            : kind === 'skip'
              ? skipTask(task, (value as SkipValue).reason)
              : finishTask(task, (value as FinishValue).nextOn));
        return (
          <div
            key={field}
            role={state === 'refused' ? 'alert' : 'status'}
            className="my-2 border-l-2 border-accent bg-chosen px-2.5 py-1.5 text-row leading-4.75"
          >
            <b className="font-semibold">
              {words} on this device {sayMoment(momentOf(at), today)}
              {state === 'refused' ? ', and not taken.' : ', not sent yet.'}
            </b>{' '}
            {said} {kind === 'skip' && state === 'refused' && <>Why: “{(value as SkipValue).reason}”. </>}
            {state === 'refused' && (
              <button type="button" className="link-line mr-3" onClick={again}>
                Try again
              </button>
            )}
            <button type="button" className="link-line" onClick={() => outbox.discard(field)}>
              {state === 'refused' ? 'Let it go' : 'Take it back'}
            </button>
          </div>
        );
      })}
      {refused.size > 1 && (
        <button
          type="button"
          className="link-line mb-2 block text-row"
          onClick={() => {
            for (const field of refused.keys()) outbox.discard(field);
          }}
        >
          Let go of all {refused.size} things that were not taken
        </button>
      )}
    </>
  );
}

interface DoingProps {
  readonly task: Task;
  /** The day of the next one, where another was chosen. */
  readonly nextOn: string | null;
}

function ToDo({ given, task, nextOn }: DoingProps & { readonly given: Task }) {
  const { claim, giveBack } = useTaskActions();
  const tag = unreadTagOf(task);
  const missing = missingOf(task);
  const isReady = missing.length === 0;
  if (!task.mayWork)
    return (
      <div className="flex items-center gap-3 text-row">
        {task.mayClaim ? (
          <button type="button" className="btn btn-primary" onClick={() => void claim(task.id)}>
            {task.offeredTo === null ? 'Claim' : 'Take it'}
          </button>
        ) : (
          <span className="text-ink-2">
            {task.assignee
              ? `${task.assignee.name} has this one.`
              : `For ${task.offeredTo ?? 'somebody else'} to take.`}
          </span>
        )}
      </div>
    );
  if (tag !== null) return <StartByTag given={given} task={task} tag={tag} />;
  return (
    <>
      {!isReady && (
        <p id="still-missing" className="mb-2 text-note leading-4.25 max-[720px]:text-body max-[720px]:leading-5">
          <b className="font-semibold">Still missing:</b> {sayMissing(missing)}
        </p>
      )}
      <div className="flex items-center gap-3">
        {task.state !== 'underWay' && !task.isForClient && (
          <button
            type="button"
            className={`btn ${isReady ? '' : 'btn-primary'} max-[720px]:flex-1`}
            onClick={() => void startTask(task)}
          >
            Start
          </button>
        )}
        <button
          type="button"
          className={`btn ${isReady && !task.isForClient ? 'btn-primary' : ''} max-[720px]:flex-1`}
          aria-disabled={!isReady}
          aria-describedby={isReady ? undefined : 'still-missing'}
          onClick={() => {
            if (isReady) void finishTask(task, nextOn);
          }}
        >
          {task.isForClient ? 'Finish it for them' : 'Finish'}
        </button>
        {task.mayClaim && task.offeredTo !== null && (
          <button type="button" className="btn btn-text" onClick={() => void claim(task.id)}>
            Take it
          </button>
        )}
        {task.mayGiveBack && (
          <button type="button" className="btn btn-text" onClick={() => void giveBack(task.id)}>
            Give it back
          </button>
        )}
        {task.signsOff && <span className="text-note leading-4 text-ink-2">then {task.signsOff} signs it off</span>}
      </div>
    </>
  );
}

interface StartByTagProps {
  readonly given: Task;
  readonly task: Task;
  readonly tag: TagDemand;
}

/** Reading the tag of what it is about starts it. */
function StartByTag({ given, task, tag }: StartByTagProps) {
  const of = `the tag of ${task.asset?.name ?? 'what it is about'}`;
  const asked = { ...tag, label: `Read ${of} to start` };
  const { draft, put } = useAnswering(given, asked, of);
  const text = draft?.text.trim() ?? '';
  const [isMissed, setMissed] = useState(false);
  return (
    <>
      <ProofField task={given} here={task} demand={asked} name={of} isFixed={false} />
      <button
        type="button"
        className="btn btn-primary mt-2 max-[720px]:w-full"
        onClick={() => {
          setMissed(text === '');
          if (text !== '') put(text, text, '', 0);
        }}
      >
        Start
      </button>
      {isMissed && text === '' && (
        <p role="alert" className="mt-1 text-note text-late">
          {answerProblem(tag, '', null)}
        </p>
      )}
    </>
  );
}

/** Finished work that a second person looks at. */
function ToCheck({ task, nextOn }: DoingProps) {
  const { sign, sendBack } = useTaskActions();
  const [isSendingBack, setSendingBack] = useState(false);
  if (!task.maySign)
    return (
      <p className="mb-2 text-row leading-4.75">
        Finished{task.doneBy ? ` by ${task.doneBy}` : ''}; waits for {task.signsOff ?? 'a manager'} to check it.
      </p>
    );
  if (isSendingBack)
    return (
      <ReasonForm
        id="send-back-reason"
        label={`What is to be done again, for ${task.doneBy ?? 'whoever did it'}`}
        words="Send back"
        about={`send-back.${task.id}`}
        onReason={(reason, taken) =>
          void sendBack(task.id, reason).then((saved) => {
            if (!saved) return;
            taken();
            setSendingBack(false);
          })
        }
        onClose={() => setSendingBack(false)}
      />
    );
  return (
    <div className="mb-2 flex gap-3">
      <button type="button" className="btn btn-primary max-[720px]:flex-1" onClick={() => void sign(task.id, nextOn)}>
        Sign it off
      </button>
      <button type="button" className="btn max-[720px]:flex-1" onClick={() => setSendingBack(true)}>
        Send back
      </button>
    </div>
  );
}

/** Until when the notice of the next visit has to go: before its day is confirmed. */
function NextNotice({ task, on }: { readonly task: Task; readonly on: CivilDay }) {
  const { visits, workingCalendar, today } = useWorkspace();
  const rules = task.client === null ? null : termsOf(visits, task.workType);
  const [latest] = rules === null ? [] : latestDays(on, rules, workingCalendar);
  if (latest === undefined) return null;
  const until = sayDay(latest.on, today);
  return latest.on < today ? (
    <span className="text-late">; its notice had to go until {until}</span>
  ) : (
    `; its notice goes until ${until}`
  );
}

interface NextOneProps extends Omit<TaskFootProps, 'here'> {
  readonly ended: boolean;
  readonly nextOn: string | null;
  /** Null where its day is not to be chosen here. */
  readonly onNext: ((on: string) => void) | null;
}

/** The one that comes after; its day can be another, this once, when this one is finished. */
function NextOne({ task, address, ended, nextOn, onNext }: NextOneProps) {
  const today = useToday();
  const { next } = task.series;
  const [isOpen, setOpen] = useState(next?.isIfDoneToday ?? false);
  if (!task.schedule) return null;
  if (!next) return <p className="mt-2 text-note leading-4 text-ink-2">This is the last one of its schedule.</p>;
  const on = dayOfIso(nextOn ?? next.on);
  const day =
    onNext && isOpen ? (
      <DateBlank label="Day of the next one" value={on} onChange={(chosen) => onNext(isoOfDay(chosen))} />
    ) : next.taskId ? (
      <Link className="link-line text-ink" to={address(next.taskId)}>
        {sayDay(on, today)}
      </Link>
    ) : (
      sayDay(on, today)
    );
  return (
    <p className={`flex items-center gap-1.5 text-note leading-4 text-ink-2 ${ended ? '' : 'mt-2'}`}>
      <Pennant state={next.taskId ? 'coming' : 'bare'} />
      <span>
        Next one{next.isIfDoneToday && ', if this is done today'}: {day}, {next.who ?? 'nobody yet'}
        <NextNotice task={task} on={on} />
        {onNext && !isOpen && (
          <>
            {'. '}
            <button type="button" className="link-line" onClick={() => setOpen(true)}>
              Another day this once
            </button>
          </>
        )}
      </span>
    </p>
  );
}
