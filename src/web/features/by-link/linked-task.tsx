import { type ReactNode, useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { byLinkAddresses } from '../../../contract/addresses.ts';
import type { LinkedTask } from '../../../contract/index.ts';
import { dayOfIso, sayAway, sayDuration } from '../../../core/index.ts';
import { ProblemError } from '../../kit/api.ts';
import { DateBlockOn } from '../../kit/date-block.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { Skeleton } from '../../kit/states.tsx';
import { sayTime } from '../../kit/ways.ts';
import { AskedField, Refused } from './asked-field.tsx';
import { askedItems, missingItems, NOTE_FIELD, sayMissingItems, tickField } from './asked-items.ts';
import { KeptWriting, type Writing } from './kept-writing.ts';
import { askByLink } from './link-api.ts';
import { LinkedDone } from './linked-done.tsx';
import { LinkedFile, LinkedText } from './linked-files.tsx';
import { type Opened, Rings, WorksUntil } from './opened.tsx';

interface LinkedTaskPageProps {
  readonly opened: Opened;
  readonly taskId: string;
  readonly back: ReactNode;
  /** Something was sent, or taken back: what is asked is to be looked at again. */
  readonly onChanged: () => void;
}

/** One thing that a client is asked for: what it is, by when, and the fields of it; once it is sent, what was. */
export function LinkedTaskPage({ opened, taskId, back, onChanged }: LinkedTaskPageProps) {
  const [task, setTask] = useState<LinkedTask | null>(null);
  // What is written and what is sent as a file are asked for beside each other: an answer may be overtaken by a newer one.
  const take = useCallback(
    (next: LinkedTask) => setTask((shown) => (shown !== null && next.version < shown.version ? shown : next)),
    [],
  );
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [busy, setBusy] = useState(false);
  const writing = useMemo(
    () =>
      new KeptWriting(taskId, async (field, kept) => {
        const { task: next } = await sendWriting(taskId, field, kept);
        take(next);
        return field === NOTE_FIELD ? next.note : '';
      }),
    [taskId, take],
  );
  const here = useSyncExternalStore(writing.subscribe, writing.snapshot);
  const during = async (work: () => Promise<void>) => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    } finally {
      setBusy(false);
    }
  };
  const load = useCallback(
    () =>
      askByLink(byLinkAddresses.task, { params: { taskId } })
        .then(take)
        .catch((error: unknown) => {
          if (!(error instanceof ProblemError)) throw error;
          setProblem(error);
        }),
    [taskId, take],
  );
  useEffect(() => {
    let end = () => {};
    let isGone = false;
    void load().then(() => {
      if (!isGone) end = writing.begin();
    });
    const again = () => document.visibilityState === 'visible' && void load();
    document.addEventListener('visibilitychange', again);
    return () => {
      document.removeEventListener('visibilitychange', again);
      isGone = true;
      end();
    };
  }, [load, writing]);
  // What another wrote meanwhile is shown beside what was written here: it is asked for before somebody chooses.
  const isMeanwhile = here[NOTE_FIELD]?.state === 'meanwhile';
  useEffect(() => {
    if (isMeanwhile) void load();
  }, [isMeanwhile, load]);
  if (task === null)
    return problem ? (
      <p role="alert" className="px-4 py-6 text-body">
        {problem.message}
      </p>
    ) : (
      <Skeleton rows={6} />
    );
  const finish = () =>
    during(async () => {
      if (!(await writing.sendAll()))
        throw new ProblemError({
          ...NOT_ALL,
          detail: 'Not all that you wrote has arrived yet. It is kept on this device; try again.',
        });
      take((await askByLink(byLinkAddresses.finish, { params: { taskId } })).task);
      onChanged();
    });
  const takeBack = () =>
    during(async () => {
      take((await askByLink(byLinkAddresses.takeBack, { params: { taskId } })).task);
      onChanged();
    });
  if (task.state === 'toCheck' || task.state === 'done')
    return (
      <LinkedDone
        opened={opened}
        task={task}
        back={back}
        busy={busy}
        problem={problem}
        onTakeBack={() => void takeBack()}
      />
    );
  const items = askedItems(task);
  const missing = missingItems(task, items, here);
  const waits = Object.values(here).some(({ state }) => state === 'waiting');
  return (
    <>
      <main className="flex-1">
        <title>{`${task.title} · ${opened.workspace}`}</title>
        <Head opened={opened} task={task} back={back} />
        {(task.instructions || task.brief || task.links.length + task.templateFiles.length > 0) && (
          <Instructions task={task} />
        )}
        <ol>
          {items.map((item) => (
            <li
              key={item.demand?.key ?? tickField(item.line?.key ?? '')}
              className={`grid grid-cols-[26px_minmax(0,1fr)] border-b border-line px-4 py-2.5 ${
                missing[0] === item && missing.length < items.length
                  ? 'bg-chosen shadow-[inset_3px_0_0_var(--color-accent)]'
                  : ''
              }`}
            >
              <span
                aria-hidden
                className="font-head text-[18px] leading-5.25 font-[650] text-primary font-stretch-[80%]"
              >
                {item.number}
              </span>
              <AskedField
                item={item}
                task={task}
                here={here}
                writing={writing}
                today={dayOfIso(opened.today)}
                onTask={take}
              />
            </li>
          ))}
        </ol>
        <OwnNote
          task={task}
          here={here}
          writing={writing}
          isAsked={items.some(({ demand }) => demand?.kind === 'note')}
        />
        <div className="px-4 py-3">
          <Rings ring={opened.ring} words="Not sure?" />
        </div>
      </main>
      <footer className="sticky bottom-0 border-t border-line-2 bg-base-100 px-4 pt-2.5 pb-4">
        {problem && <FieldError message={problem.message} />}
        <p className="mb-2 text-[15px] leading-5" aria-live="polite">
          {waits
            ? 'No connection just now: what you wrote is kept on this device and is sent by itself.'
            : missing.length > 0 && (
                <>
                  <b className="font-[650]">Still missing:</b> {sayMissingItems(missing)}.
                  {missing.length < items.length && ' The rest is kept.'}
                </>
              )}
        </p>
        <button
          type="button"
          className="btn btn-primary h-12 w-full justify-center text-touch"
          disabled={busy || missing.length > 0}
          onClick={() => void finish()}
        >
          Send it to {opened.workspace}
        </button>
        <WorksUntil opened={opened} />
      </footer>
    </>
  );
}

const NOT_ALL = { type: 'about:blank', title: 'Not all sent', status: 0, detail: '' };

function sendWriting(taskId: string, field: string, { value, text, remark, was }: Writing) {
  const params = { taskId };
  if (field === NOTE_FIELD) return askByLink(byLinkAddresses.note, { params, body: { note: text, was } });
  if (field.startsWith(tickField('')))
    return askByLink(byLinkAddresses.tick, {
      params,
      body: { key: field.slice(tickField('').length), ticked: value === true },
    });
  return askByLink(byLinkAddresses.answer, {
    params,
    body: { demand: field, value: typeof value === 'object' && value !== null ? [...value] : value, remark },
  });
}

/** What it is about, what is asked and by when. */
function Head({ opened, task, back }: Pick<LinkedTaskPageProps, 'opened' | 'back'> & { readonly task: LinkedTask }) {
  const today = dayOfIso(opened.today);
  const due = dayOfIso(task.dueOn);
  return (
    <div className="border-b border-line-2 px-4 pt-3.5 pb-3">
      {back}
      {task.about && <p className="text-[15px] leading-5 text-ink-2">{task.about}</p>}
      <h1 className="mt-0.5 mb-2 text-[24px] leading-7 tracking-[-0.01em]">{task.title}</h1>
      <p className="flex flex-wrap items-baseline gap-x-2 text-[15px]">
        <span>{due < today ? 'was due' : 'by'}</span>
        <DateBlockOn day={due} today={today} look={due < today ? 'large late' : 'large'} />
        <span className="text-ink-2">
          {[
            task.dueTime === null ? '' : sayTime(task.dueTime),
            sayAway(due, today),
            `takes about ${sayDuration(task.estimateMinutes)}`,
          ]
            .filter(Boolean)
            .join(', ')}
        </span>
      </p>
      {task.sentBack && (
        <p className="mt-2.5 border-l-[3px] border-accent pl-2.5 text-body leading-5.5">
          <b className="font-[650]">Once more, please:</b> “{task.sentBack.reason}” What you sent is still here.
        </p>
      )}
    </div>
  );
}

function Instructions({ task }: { readonly task: LinkedTask }) {
  return (
    <section className="border-b border-line px-4 py-2.5 text-touch leading-5.5" aria-label="What it is about">
      {task.brief && <p className="whitespace-pre-line">{task.brief}</p>}
      {task.instructions && <LinkedText html={task.instructions} />}
      {task.links.map(({ title, url }) => (
        <p key={url} className="mt-1.5">
          <a className="link-line break-all" href={url} target="_blank" rel="noreferrer noopener">
            {title || url}
          </a>
        </p>
      ))}
      {task.templateFiles.map((file) => (
        <LinkedFile key={file.id} file={file} />
      ))}
    </section>
  );
}

interface OwnNoteProps {
  readonly task: LinkedTask;
  readonly here: ReturnType<KeptWriting['snapshot']>;
  readonly writing: KeptWriting;
  readonly isAsked: boolean;
}

/** Room for what nobody has asked for. */
function OwnNote({ task, here, writing, isAsked }: OwnNoteProps) {
  const text = here[NOTE_FIELD]?.text ?? task.note;
  const [isOpen, setOpen] = useState(false);
  if (isAsked) return null;
  return (
    <section className="border-b border-line px-4 py-2.5">
      {isOpen || text !== '' ? (
        <>
          <label className="block text-row text-ink-2" htmlFor="own-note">
            Anything else that we should know
          </label>
          <textarea
            id="own-note"
            className="writing mt-1 w-full text-touch"
            rows={3}
            maxLength={5000}
            value={text}
            onChange={({ target }) => {
              const was = here[NOTE_FIELD]?.was ?? task.note;
              writing.put(NOTE_FIELD, { text: target.value, value: true, remark: '', was }, 1500);
            }}
            onBlur={() => void writing.sendAll()}
          />
          <Refused task={task} writing={writing} kept={here[NOTE_FIELD]} />
        </>
      ) : (
        <button type="button" className="link-line text-[15px] leading-8" onClick={() => setOpen(true)}>
          Add a note
        </button>
      )}
    </section>
  );
}
