import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import * as z from 'zod/mini';
import { listAddresses } from '../../../contract/addresses-later.ts';
import type { TaskView } from '../../../contract/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { addressOf, ProblemError } from '../../kit/api.ts';
import { useDraft } from '../../kit/draft.ts';
import { useTrying } from '../../kit/use-trying.ts';
import { CalendarLink } from '../calendars/calendar-link.tsx';
import { useChangeMyWays } from '../people/change-my-ways.ts';
import { useViewActions, useViews } from './api.ts';
import { isPlain } from './columns.tsx';
import { searchOfView, type TaskFilterView } from './task-filter.tsx';

const ColumnsBar = lazy(() => import('./columns-bar.tsx'));

/** Kept until it is a view, or left alone: null where nothing is being kept. */
const draftSchema = z.nullable(z.object({ name: z.string(), isShared: z.boolean() }));

/** Views that are kept, and what is shown kept as one of them. */
export function ViewsBar({ view }: { readonly view: TaskFilterView }) {
  const { data, error } = useViews();
  const { draft, change, forget } = useDraft('task view', null as z.infer<typeof draftSchema>, draftSchema);
  const { keep, change: changeView, drop } = useViewActions();
  const { busy, trying } = useTrying();
  const { myWays, visits } = useWorkspace();
  const { startsAt } = myWays;
  const changeWays = useChangeMyWays();
  const [problem, setProblem] = useState<string | null>(null);
  const [areColumnsOpen, openColumns] = useState(false);
  const views = data?.views ?? [];
  const here = views.find(({ id }) => id === view.viewId);
  const isOwn = here?.sharedBy === null;
  const isStart = startsAt !== null && typeof startsAt === 'object' && startsAt.view === here?.id;
  const columns = isPlain(view.columns) ? null : [...view.columns];
  const asked = { filter: view.filter, by: view.grouping, order: view.order, columns };
  const isChanged = here !== undefined && searchOfView(here) !== searchOfView({ ...asked, id: here.id });
  const keepIt = async () => {
    if (draft === null) return;
    try {
      const id = await keep({ ...asked, name: draft.name.trim(), isShared: draft.isShared });
      forget();
      view.set({ view: id });
      setProblem(null);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.at('name') ?? error.message);
    }
  };
  return (
    <>
      <section aria-label="Views" className="print:hidden flex-none border-t border-line px-5 py-1 text-row leading-7">
        <div className="flex flex-wrap items-center gap-x-4">
          <span className="text-note text-ink-2">views</span>
          {views.map((one) => (
            <ViewWord
              key={one.id}
              view={one}
              isHere={one.id === here?.id}
              onOpen={() => view.show(searchOfView(one))}
            />
          ))}
          {/* A view that is not a question to tasks: what is foreseen and how far each is announced stand in it too. */}
          {visits.terms.length > 0 && (
            <Link className="link-line" to="/tasks/visits">
              Visits
            </Link>
          )}
          {error && !data && <span className="text-note text-late">{error.message}</span>}
          {data && views.length === 0 && draft === null && (
            <span className="text-note text-ink-2">none kept yet: choose what to see, and keep it under a name</span>
          )}
          <span className="ml-auto flex gap-x-4">
            <span className="text-ink-2 max-[720px]:hidden">
              as{' '}
              <a className="link-line" href={addressOf(listAddresses.tasks, { query: view.filter })} download>
                CSV
              </a>{' '}
              or{' '}
              <a
                className="link-line"
                href={addressOf(listAddresses.tasks, { query: { ...view.filter, as: 'json' } })}
                download
              >
                JSON
              </a>
            </span>
            {!areColumnsOpen && (
              <button type="button" className="link-line" onClick={() => openColumns(true)}>
                Columns
              </button>
            )}
            {here && !isChanged && <CalendarLink of={{ kind: 'view', id: here.id }} />}
            {here && !isChanged && (
              <button
                type="button"
                className="link-line"
                disabled={busy}
                onClick={() => void trying(() => changeWays({ startsAt: isStart ? null : { view: here.id } }))}
              >
                {isStart ? 'Begin with it no longer' : 'Begin with it'}
              </button>
            )}
            {here && isOwn && isChanged && (
              <button
                type="button"
                className="link-line"
                disabled={busy}
                onClick={() => void trying(() => changeView(here, asked))}
              >
                Keep it as it is now
              </button>
            )}
            {here && isOwn && !isChanged && (
              <>
                <button
                  type="button"
                  className="link-line"
                  disabled={busy}
                  onClick={() => void trying(() => changeView(here, { isShared: !here.isShared }))}
                >
                  {here.isShared ? 'Share no longer' : 'Share'}
                </button>
                <button
                  type="button"
                  className="link-line"
                  disabled={busy}
                  onClick={() =>
                    void trying(async () => {
                      await drop(here);
                      view.set({ view: '' });
                    })
                  }
                >
                  Drop
                </button>
              </>
            )}
            {draft === null && (here === undefined || isChanged) && (
              <button type="button" className="link-line" onClick={() => change({ name: '', isShared: false })}>
                Keep as a view
              </button>
            )}
          </span>
        </div>
        {draft !== null && (
          <form
            className="flex flex-wrap items-center gap-x-4 pb-1"
            onSubmit={(event) => {
              event.preventDefault();
              if (draft.name.trim() !== '') void trying(keepIt).catch(sayTrouble);
            }}
          >
            <span>
              Keep what is shown as{' '}
              <input
                className="blank w-[220px]"
                aria-label="The name of the view"
                aria-invalid={problem !== null}
                placeholder="a name"
                maxLength={60}
                // biome-ignore lint/a11y/noAutofocus: it has just been asked for
                autoFocus
                value={draft.name}
                onChange={({ target }) => {
                  setProblem(null);
                  change({ ...draft, name: target.value });
                }}
              />
            </span>
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="check"
                checked={draft.isShared}
                onChange={({ target }) => change({ ...draft, isShared: target.checked })}
              />
              for everybody
            </label>
            <button type="submit" className="btn btn-primary btn-sm" disabled={busy || draft.name.trim() === ''}>
              Keep
            </button>
            <button
              type="button"
              className="btn btn-text"
              onClick={() => {
                forget();
                setProblem(null);
              }}
            >
              Leave it
            </button>
            <span role="alert" className="field-error">
              {problem}
            </span>
          </form>
        )}
      </section>
      {areColumnsOpen && (
        <Suspense fallback={null}>
          <ColumnsBar columns={view.columns} onChange={view.setColumns} onFold={() => openColumns(false)} />
        </Suspense>
      )}
    </>
  );
}

interface ViewWordProps {
  readonly view: TaskView;
  readonly isHere: boolean;
  readonly onOpen: () => void;
}

function ViewWord({ view: { name, count, late, sharedBy }, isHere, onOpen }: ViewWordProps) {
  return (
    <button
      type="button"
      aria-current={isHere || undefined}
      className={`cursor-pointer leading-7 whitespace-nowrap ${isHere ? 'border-b-2 border-accent font-semibold' : 'hover:text-primary'}`}
      onClick={onOpen}
    >
      {name}{' '}
      <span className={`text-note font-normal ${late > 0 ? 'text-late' : 'text-ink-2'}`}>
        {count}
        {late > 0 && late < count && `, ${late} late`}
        {late > 0 && late === count && ' late'}
      </span>
      {sharedBy !== null && (
        <span className="text-note font-normal text-ink-2">, shared by {sharedBy.split(' ')[0]}</span>
      )}
    </button>
  );
}
