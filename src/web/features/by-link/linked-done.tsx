import type { ReactNode } from 'react';
import type { LinkedTask } from '../../../contract/index.ts';
import { dayOfIso, ownOf, plural, sayAnswer } from '../../../core/index.ts';
import type { ProblemError } from '../../kit/api.ts';
import { DateBlockOn } from '../../kit/date-block.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { sayDate, sayNear, timeOf } from '../../kit/ways.ts';
import { type AskedItem, askedItems } from './asked-items.ts';
import { LinkedMark } from './linked-files.tsx';
import { type Opened, Rings, WorksUntil } from './opened.tsx';

interface LinkedDoneProps {
  readonly opened: Opened;
  readonly task: LinkedTask;
  readonly back: ReactNode;
  readonly busy: boolean;
  readonly problem: ProblemError | null;
  readonly onTakeBack: () => void;
}

const HEADING = 'font-head text-[15px] leading-5 font-[650] text-primary font-stretch-[88%]';
const LINE =
  'grid min-h-11 grid-cols-[148px_minmax(0,1fr)] items-center border-b border-line text-touch leading-5 last:border-b-0';

/** What was sent, what becomes of it, and how it is changed for as long as nobody has looked at it. */
export function LinkedDone({ opened, task, back, busy, problem, onTakeBack }: LinkedDoneProps) {
  const today = dayOfIso(opened.today);
  const { looksAtIt, nextOn } = task;
  const waits = task.state === 'toCheck' && looksAtIt !== null;
  return (
    <>
      <main className="flex-1">
        <title>{`Sent · ${task.title} · ${opened.workspace}`}</title>
        <div className="border-b border-line-2 px-4 pt-5 pb-4">
          {back}
          <div className="grid grid-cols-[44px_minmax(0,1fr)] items-start">
            <Pennant state="done" size={24} label="" />
            <div>
              <h1 className="text-[24px] leading-7 tracking-[-0.01em]">It is with us, thank you</h1>
              <p className="mt-1 text-[15px] leading-5 text-ink-2">
                {task.title}, {saySent(task, today)}.
              </p>
            </div>
          </div>
        </div>
        <section className="border-b border-line-2 px-4 py-3.5" aria-label="What you sent">
          <h2 className={HEADING}>What you sent</h2>
          <dl>
            {askedItems(task).map((item) => (
              <div key={item.number} className={LINE}>
                <dt className="pr-2 text-[15px] text-ink-2">{item.name}</dt>
                <dd className="min-w-0">{sentFor(item, task)}</dd>
              </div>
            ))}
          </dl>
          {problem && <FieldError message={problem.message} />}
          {task.state === 'toCheck' && (
            <>
              <button
                type="button"
                className="btn mt-2.5 h-11 w-full justify-center text-[15px]"
                disabled={busy}
                onClick={onTakeBack}
              >
                Change something
              </button>
              <p className="mt-2 text-row leading-4.5 text-ink-2">Possible until somebody here has looked at it.</p>
            </>
          )}
        </section>
        <section className="border-b border-line-2 px-4 py-3.5" aria-label="What comes next">
          <h2 className={HEADING}>What comes next</h2>
          {waits && (
            <p className="border-b border-line py-2.5 text-touch leading-5">
              {looksAtIt} at {opened.workspace} looks at it
              <small className="block text-row leading-4.5 text-ink-2">and writes if something is missing</small>
            </p>
          )}
          {nextOn !== null && (
            <p className="grid min-h-13 grid-cols-[132px_minmax(0,1fr)] items-center border-b border-line text-touch">
              <DateBlockOn day={dayOfIso(nextOn)} today={today} />
              The next one
            </p>
          )}
          <p className="mt-2 text-[15px] leading-5 text-ink-2">
            Nothing else is asked of you now. A copy is on its way to {opened.email}.
          </p>
        </section>
      </main>
      <footer className="border-t border-line-2 px-4 pt-3 pb-5">
        <Rings ring={opened.ring} words="Something wrong?" />
        <WorksUntil opened={opened}> You may close the page.</WorksUntil>
      </footer>
    </>
  );
}

/** "sent today at 10:52, ten days before it was due" */
function saySent({ doneAt, dueOn }: LinkedTask, today: number): string {
  if (doneAt === null) return 'sent';
  const on = dayOfIso(doneAt.slice(0, 10));
  const before = dayOfIso(dueOn) - on;
  const inTime =
    before === 0 ? 'on the day it was due' : before > 0 ? `${plural(before, 'day')} before it was due` : '';
  return [`sent ${sayNear(on, today)} at ${timeOf(doneAt)}`, inTime].filter(Boolean).join(', ');
}

function sentFor({ demand, line }: AskedItem, task: LinkedTask): ReactNode {
  if (demand === null) return task.steps.some(({ key, isTicked }) => key === line?.key && isTicked) ? 'yes' : 'no';
  if (demand.kind === 'note') return <span className="whitespace-pre-line">{task.note}</span>;
  if (demand.kind === 'file')
    return task.files
      .filter((file) => file.demand === demand.key)
      .map((file) => (
        <span key={file.id} className="flex items-center gap-2.5 py-1">
          <LinkedMark file={file} small />
          <span className="truncate">{file.name}</span>
        </span>
      ));
  const answer = ownOf(task.answers, demand.key);
  if (answer === undefined) return '';
  const { value, remark } = answer;
  const said =
    demand.kind === 'date' && typeof value === 'string' ? sayDate(dayOfIso(value)) : sayAnswer(demand, value);
  return [said, remark].filter(Boolean).join(', ');
}
