import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { BRING_HAS_IMPACT, type BringIn, type BringInCounts } from '../../../contract/index.ts';
import { BRING_RIGHTS, BRING_WORDS, plural, sayLines } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { useUndo } from '../history/undo.tsx';
import { useLookedAt } from '../impact/looked-at.tsx';
import { PLACES, type Settling, useBringIn, useBringInActions } from './api.ts';
import { CalendarPart } from './calendar-part.tsx';
import { Fates } from './fates.tsx';
import { Mapping } from './mapping.tsx';
import { PlansMeant } from './plans-meant.tsx';
import { Rows } from './rows.tsx';

/** A file on its way in: what each column becomes at the left, what would be written at the right. */
export function BringInPage() {
  const { bringInId = '' } = useParams();
  const { may } = useWorkspace();
  const { data, error, mutate } = useBringIn(bringInId);
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Skeleton rows={12} />;
  const { kind } = data.bringIn;
  if (!may(BRING_RIGHTS[kind]))
    return (
      <NotAllowed
        right={BRING_RIGHTS[kind]}
        what={`bring in ${BRING_WORDS[kind].many}`}
        to={PLACES[kind]}
        back="Back to the list"
      />
    );
  return <Contents key={bringInId} bringIn={data.bringIn} />;
}

function Contents({ bringIn }: { readonly bringIn: BringIn }) {
  const { id, kind, fileName, rowCount, columns, separator, encoding, state, version, counts, isRemembered } = bringIn;
  const { many, all = many } = BRING_WORDS[kind];
  const navigate = useNavigate();
  const actions = useBringInActions(id);
  const undo = useUndo();
  const [busy, setBusy] = useState(false);
  const trying = async (work: () => Promise<unknown>): Promise<boolean> => {
    setBusy(true);
    try {
      await work();
      return true;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      sayTrouble(error);
      // What others did meanwhile is shown.
      await actions.again();
      return false;
    } finally {
      setBusy(false);
    }
  };
  const looked = useLookedAt<{ readonly what: string }>({
    impactOf: BRING_HAS_IMPACT[kind] ? () => actions.impactOf(version) : null,
    save: () => actions.bringIn(version, counts),
    hasReach: false,
    always: true,
    onRefused: (problem) => {
      sayTrouble(problem);
      void actions.again();
    },
  });
  const isBusy = busy || looked.busy;
  const onSettle = (input: Settling) => trying(() => actions.settle(version, input));
  const isOpen = state === 'open';
  return (
    <div className="flex min-h-0 flex-1 flex-col" aria-busy={isBusy}>
      <title>{`${fileName} · Jolly Rota`}</title>
      {undo.dialog}
      {looked.dialog}
      <div className="page-head">
        <h1>Bring in {all}</h1>
        <span className="min-w-0 truncate text-row text-ink-2">
          {fileName}, {sayLines(kind, rowCount)}
          {kind !== 'calendar' && `, ${plural(columns.length, 'column')}, split at ${separator}`}, {encoding}
          {isRemembered && isOpen && ', read as the last one like it'}
        </span>
        <span className="ml-auto flex flex-wrap items-center gap-2.5">
          <span role="status" className="text-row text-ink-2">
            {isBusy ? 'Reading …' : isOpen ? 'Nothing is written yet.' : ''}
          </span>
          {isOpen ? (
            <>
              <button
                type="button"
                className="btn"
                disabled={isBusy}
                onClick={() =>
                  void trying(actions.discard).then((isDone) => isDone && void navigate(`/bring-in?kind=${kind}`))
                }
              >
                Another file
              </button>
              <button
                type="button"
                className="btn btn-primary"
                disabled={isBusy || counts.new + counts.update === 0}
                onClick={() => looked.look({ what: `${fileName}, ${sayLines(kind, counts.new + counts.update)}` })}
              >
                {sayDeed(counts)}
              </button>
            </>
          ) : (
            <>
              {state === 'done' && bringIn.changeId && (
                <button
                  type="button"
                  className="btn"
                  disabled={undo.busy}
                  onClick={() =>
                    undo.look({ what: `${fileName} is taken out again`, changeId: bringIn.changeId ?? '' })
                  }
                >
                  Take it out again
                </button>
              )}
              <Link className="btn btn-primary" to={PLACES[kind]}>
                Show the {kind === 'calendar' ? 'schedules' : many}
              </Link>
            </>
          )}
        </span>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(0,1fr)] border-t border-line-2 max-[1000px]:block max-[1000px]:overflow-y-auto">
        <fieldset
          className="min-h-0 min-w-0 overflow-y-auto border-r border-line-2 max-[1000px]:overflow-visible max-[1000px]:border-r-0"
          disabled={!isOpen || isBusy}
        >
          <legend className="sr-only">How the file is read</legend>
          {bringIn.calendar ? (
            <CalendarPart bringIn={bringIn} calendar={bringIn.calendar} onSettle={onSettle} />
          ) : (
            <Mapping bringIn={bringIn} onSettle={onSettle} />
          )}
        </fieldset>
        <div className="min-h-0 overflow-y-auto max-[1000px]:overflow-visible max-[1000px]:border-t max-[1000px]:border-line-2">
          <Fates bringIn={bringIn} />
          <PlansMeant bringIn={bringIn} />
          <Rows bringIn={bringIn} isOpen={isOpen && !isBusy} onSettle={onSettle} />
          {isOpen && (
            <p className="px-5 py-3 text-note text-ink-2 max-[720px]:px-4">
              Read once more when you bring them in: what was added meanwhile is found.
            </p>
          )}
        </div>
      </div>
    </div>
  );
}

/** "Bring in 57, leave 3": all effects of it. */
function sayDeed({ new: fresh, update, same, leave, left }: BringInCounts): string {
  const stays = same + leave + left;
  return `Bring in ${fresh + update}${stays > 0 ? `, leave ${stays}` : ''}`;
}
