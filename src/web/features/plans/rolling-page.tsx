import { useMemo } from 'react';
import { Link } from 'react-router';
import type { RollingLine } from '../../../contract/index.ts';
import { dayOfIso, groupBy, isoOfDay, plural } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { Band } from '../../kit/band.tsx';
import { useChosen } from '../../kit/chosen.ts';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDate } from '../../kit/ways.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { usePlanActions, useRolling } from './api.ts';

/** Clients whose year on a plan ends soon: each goes on for another, or ends there. */
export function RollingPage() {
  const { data, error, mutate } = useRolling();
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Who rolls on · Service plans · Jolly Rota</title>
      <div className="page-head">
        <h1>Who rolls on</h1>
        <span className="text-row text-ink-2">
          {data &&
            data.clients.length > 0 &&
            `${data.isMore ? 'more than ' : ''}${plural(data.clients.length, 'client')} whose year on a plan ends soon`}
        </span>
        <Link className="btn ml-auto" to="/plans">
          Service plans
        </Link>
      </div>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={10} />}
      {data?.clients.length === 0 && (
        <Empty title="Nobody’s year ends soon.">
          Clients of a plan that asks before it goes on stand here two months before their year ends.
        </Empty>
      )}
      {data && data.clients.length > 0 && <Rolling lines={data.clients} />}
    </div>
  );
}

interface Asked {
  readonly what: string;
  readonly deed: 'keep' | 'end';
  readonly of: readonly RollingLine[];
}

function Rolling({ lines }: { readonly lines: readonly RollingLine[] }) {
  const { may, today } = useWorkspace();
  const { chosen, choose, clear } = useChosen(lines);
  const ids = useMemo(() => new Set(chosen.map(({ id }) => id)), [chosen]);
  const { impactOfRollingOn, rollOn, impactOfTakingOff, takeOff } = usePlanActions();
  const offOf = (of: readonly RollingLine[]) => ({
    clients: of.map(({ id, version }) => ({ id, version })),
    // Of a year that is over already, from today on.
    ...{ from: isoOfDay(Math.max(today, dayOfIso(of[0]?.untilOn ?? '') + 1)), tasks: 'go' as const, to: null },
  });
  const { look, busy, dialog } = useLookedAt<Asked>({
    impactOf: ({ deed, of }) => (deed === 'keep' ? impactOfRollingOn(of) : impactOfTakingOff(offOf(of))),
    save: ({ deed, of }) =>
      deed === 'keep'
        ? rollOn(
            of,
            `${of.length === 1 ? '1 client goes' : `${of.length} clients go`} on until ${sayDate(dayOfIso(of[0]?.laterOn ?? ''))}.`,
          )
        : takeOff(offOf(of), `${of.length === 1 ? '1 client ends' : `${of.length} clients end`} with the year.`),
    hasReach: false,
    always: true,
    onSaved: clear,
    onRefused: sayTrouble,
  });
  const bands = [...groupBy(lines, ({ plan, untilOn }) => `${plan.id} ${untilOn}`).values()];
  const places = new Map(lines.map(({ id }, i) => [id, i]));
  const mayPlan = may('plan');
  return (
    <>
      {dialog}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: arrows go through the rows of the list within */}
      <div className="min-h-0 flex-1 overflow-y-auto pb-14" onKeyDown={moveThroughRows}>
        {bands.map((of) => {
          const [first] = of;
          if (!first) return null;
          const picked = of.filter(({ id }) => ids.has(id));
          const meant = picked.length > 0 ? picked : of;
          const count = plural(meant.length, 'client');
          return (
            <Band
              key={first.id}
              name={first.plan.name}
              count={of.length}
              asides={[`until ${sayDate(dayOfIso(first.untilOn))}`]}
            >
              {mayPlan && (
                <p className="flex flex-wrap items-center gap-x-3 border-b border-line py-2 pr-5 text-row max-[720px]:px-4">
                  <button
                    type="button"
                    className="btn btn-primary btn-sm"
                    disabled={busy}
                    onClick={() =>
                      look({
                        deed: 'keep',
                        of: meant,
                        what: `${count} of ${first.plan.name} until ${sayDate(dayOfIso(first.laterOn))}`,
                      })
                    }
                  >
                    {sayKeep(meant.length, of.length)} until {sayDate(dayOfIso(first.laterOn))}
                  </button>
                  <button
                    type="button"
                    className="btn btn-sm"
                    disabled={busy}
                    onClick={() =>
                      look({
                        deed: 'end',
                        of: meant,
                        what: `${count} off ${first.plan.name} after ${sayDate(dayOfIso(first.untilOn))}`,
                      })
                    }
                  >
                    {picked.length > 0 ? `End ${picked.length}` : 'End all'} with the year
                  </button>
                  {picked.length === 0 && <span className="text-ink-2">or choose some of them first</span>}
                </p>
              )}
              <ul>
                {of.map((line) => (
                  <Line
                    key={line.id}
                    line={line}
                    isChosen={ids.has(line.id)}
                    onChoose={mayPlan ? (how) => choose(places.get(line.id) ?? 0, how) : null}
                  />
                ))}
              </ul>
            </Band>
          );
        })}
      </div>
    </>
  );
}

const sayKeep = (meant: number, all: number): string => (meant === all ? `Keep all ${all}` : `Keep ${meant}`);

interface LineProps {
  readonly line: RollingLine;
  readonly isChosen: boolean;
  readonly onChoose: ((how: 'one' | 'range') => void) | null;
}

function Line({ line, isChosen, onChoose }: LineProps) {
  const { client, fromOn, own } = line;
  return (
    <li
      className={`relative grid grid-cols-[20px_minmax(0,1fr)_180px_140px] items-center gap-x-3 border-b border-line py-1.5 pr-5 text-row hover:bg-base-200 max-[720px]:grid-cols-[20px_minmax(0,1fr)] max-[720px]:px-4 ${isChosen ? 'bg-chosen' : ''}`}
    >
      <span className="z-1">
        {onChoose && (
          <input
            type="checkbox"
            className="check block"
            aria-label={`Choose ${client.name}`}
            checked={isChosen}
            onChange={(event) => onChoose((event.nativeEvent as MouseEvent).shiftKey ? 'range' : 'one')}
          />
        )}
      </span>
      <Link
        data-row
        className="truncate text-body font-semibold before:absolute before:inset-0 before:content-['']"
        to={`/clients/${client.id}`}
      >
        {client.name}
      </Link>
      <span className="text-ink-2 max-[720px]:hidden">since {sayDate(dayOfIso(fromOn))}</span>
      <span className="text-right text-ink-2 max-[720px]:hidden">
        {own === 0 ? 'as the plan' : plural(own, 'own change')}
      </span>
    </li>
  );
}
