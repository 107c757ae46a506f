import { type ReactNode, useCallback, useEffect, useState } from 'react';
import { Link, useLocation, useSearchParams } from 'react-router';
import type { OpenedLink } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { ProblemError } from '../../kit/api.ts';
import { Pennant } from '../../kit/pennant.tsx';
import { sayDay, showIn } from '../../kit/ways.ts';
import { CodePage } from './code-page.tsx';
import { openLink } from './link-api.ts';
import { LinkedTaskPage } from './linked-task.tsx';
import { type Opened, Rings, WorksUntil } from './opened.tsx';

/**
 * What a client is asked for, for whoever has the link of a mail: no account, nothing of the office but a first name, at home on
 * a phone. What is written stays on the device until it is sent.
 */
export default function ByLinkPage() {
  const [opened, setOpened] = useState<OpenedLink | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const { hash } = useLocation();
  const look = useCallback(() => {
    openLink()
      .then((found) => {
        if (found.kind === 'open') showIn(found.ways);
        setOpened(found);
        setProblem(null);
      })
      .catch((error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        setProblem(error);
      });
  }, []);
  // Another link pasted into the same tab is another page.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the token is read from the hash
  useEffect(look, [look, hash]);
  if (problem && opened === null) return <Closed problem={problem} onAgain={look} />;
  if (opened === null) return null;
  if (opened.kind === 'code') return <CodePage asked={opened} onSent={setOpened} onEntered={look} />;
  return <OpenedPage key={hash} opened={opened} onChanged={look} />;
}

function Closed({ problem, onAgain }: { readonly problem: ProblemError; readonly onAgain: () => void }) {
  const { status } = problem.problem;
  const mayWork = status === 0 || status >= 500 || status === 429;
  return (
    <main className="mx-auto max-w-[460px] px-4 py-10">
      <title>This link</title>
      <h1 className="text-[24px] leading-7">
        {mayWork ? 'No connection just now' : 'This link opens nothing any more'}
      </h1>
      <p role="alert" className="mt-3 text-body leading-5.5">
        {problem.message}
      </p>
      {mayWork && (
        <button type="button" className="btn mt-4 h-12 px-6 text-touch" onClick={onAgain}>
          Try again
        </button>
      )}
    </main>
  );
}

/** The one task that was asked for, or those among which one is chosen. */
function OpenedPage({ opened, onChanged }: { readonly opened: Opened; readonly onChanged: () => void }) {
  const [search] = useSearchParams();
  const [only] = opened.tasks;
  const chosen = opened.tasks.length === 1 ? only?.id : opened.tasks.find(({ id }) => id === search.get('task'))?.id;
  if (chosen !== undefined)
    return (
      <Page opened={opened}>
        <LinkedTaskPage
          key={chosen}
          opened={opened}
          taskId={chosen}
          back={opened.tasks.length > 1 ? <BackToAll /> : null}
          onChanged={onChanged}
        />
      </Page>
    );
  return (
    <Page opened={opened}>
      <AllTasks opened={opened} />
    </Page>
  );
}

/** In the workspace's name, for whom it is. */
function Page({ opened, children }: { readonly opened: Opened; readonly children: ReactNode }) {
  return (
    <div className="mx-auto flex min-h-dvh max-w-[560px] flex-col bg-base-100 min-[561px]:border-x min-[561px]:border-line">
      <header className="flex h-12 flex-none items-center justify-between gap-3 bg-bar px-4 text-bar-text [&_:focus-visible]:[box-shadow:none]">
        <b className="truncate font-head text-[20px] leading-12 font-bold font-stretch-[84%]">{opened.workspace}</b>
        <span className="truncate text-row">for {opened.contact}</span>
      </header>
      {children}
    </div>
  );
}

function BackToAll() {
  const { hash } = useLocation();
  return (
    <Link className="link-line text-row leading-8" to={{ search: '', hash }}>
      Everything that is asked
    </Link>
  );
}

function AllTasks({ opened }: { readonly opened: Opened }) {
  const { hash } = useLocation();
  const today = dayOfIso(opened.today);
  const isToDo = ({ state }: Opened['tasks'][number]) => state === 'open' || state === 'underWay';
  const toDo = opened.tasks.filter(isToDo).length;
  return (
    <>
      <main className="flex-1">
        <title>{`What ${opened.workspace} asks for`}</title>
        <div className="border-b border-line-2 px-4 py-3.5">
          <h1 className="text-[24px] leading-7">
            {toDo === 0
              ? 'Nothing is asked of you now'
              : `${opened.workspace} asks you for ${toDo === 1 ? 'this' : `${toDo} things`}`}
          </h1>
        </div>
        <ul>
          {opened.tasks.map((task) => (
            <li key={task.id} className="border-b border-line">
              <Link
                className="grid min-h-16 grid-cols-[28px_minmax(0,1fr)_auto] items-center gap-x-2 px-4 py-2 text-touch leading-5 hover:bg-base-200"
                to={{ search: `task=${task.id}`, hash }}
              >
                <Pennant state={task.state} late={isToDo(task) && dayOfIso(task.dueOn) < today} size={20} />
                <span>
                  {task.title}
                  {task.about && <small className="block text-row text-ink-2">{task.about}</small>}
                </span>
                <span className="text-row text-ink-2">
                  {isToDo(task) ? `by ${sayDay(dayOfIso(task.dueOn), today)}` : 'sent'}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </main>
      <footer className="border-t border-line-2 px-4 py-3">
        <Rings ring={opened.ring} words="Not sure?" />
        <WorksUntil opened={opened} />
      </footer>
    </>
  );
}
