import { Check } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { Evenable } from '../../../contract/index.ts';
import { callNames, dayOfIso, type EvenMove, plural, sayDuration } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { HoursBar } from '../../kit/hours-bar.tsx';
import { CloseButton, SECTION, SideSheet } from '../../kit/side-sheet.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { sayDay, sayDayOfMonth } from '../../kit/ways.ts';
import { type Among, useEvenable, useMoves } from './api.ts';
import type { EvenAnswer, EvenQuestion } from './even-out-worker.ts';
import { hoursOf } from './workload-words.ts';

interface EvenOutSheetProps {
  /** What the people among whom it is are called: "dock crew". */
  readonly group: string;
  readonly among: Among;
  readonly week: string;
  readonly onClose: () => void;
}

/** Moves that even a week out between the people of a role or a team, each explained, to be taken or left. */
export function EvenOutSheet({ group, among, week, onClose }: EvenOutSheetProps) {
  const { data, error, mutate } = useEvenable(among, week);
  const answer = useMovesFor(data);
  // Also where news has it worked out once more: what somebody left stays left.
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const toggle = (taskId: string) => {
    const next = new Set(left);
    if (!next.delete(taskId)) next.add(taskId);
    setLeft(next);
  };
  return (
    <SideSheet label={`Even out ${group}`} onClose={onClose}>
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">Even out {group}</h2>
          <p className="text-row leading-4.75">
            {data && answer && 'moves' in answer
              ? saySum(data, answer.moves, left, week)
              : `The week from ${sayDayOfMonth(dayOfIso(week))}.`}
          </p>
        </div>
        <CloseButton onClose={onClose} />
      </header>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !answer && (
        <div role="status">
          <span className="sr-only">Working it out</span>
          <Skeleton rows={6} />
        </div>
      )}
      {answer && 'problem' in answer && <p className={`${SECTION} text-row`}>{answer.problem}</p>}
      {data && answer && 'moves' in answer && answer.moves.length > 0 && (
        <Moves
          data={data}
          moves={answer.moves}
          left={left}
          onToggle={toggle}
          onAgain={() => void mutate()}
          onClose={onClose}
        />
      )}
    </SideSheet>
  );
}

/** The moves of a week, worked out by a worker; null until it has answered. */
function useMovesFor(data: Evenable | undefined): EvenAnswer | null {
  const [answer, setAnswer] = useState<EvenAnswer | null>(null);
  useEffect(() => {
    setAnswer(null);
    if (!data) return;
    const worker = new Worker(new URL('./even-out-worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data: said }: MessageEvent<EvenAnswer>) => setAnswer(said);
    worker.onerror = () => setAnswer({ problem: 'It could not be worked out. Close this and try once more.' });
    const question: EvenQuestion = { people: data.people, tasks: data.tasks };
    worker.postMessage(question);
    return () => worker.terminate();
  }, [data]);
  return answer;
}

/** "3 moves bring the week from 30 Nov from 116% for Nadia to 99% for anyone.", of those that are taken. */
function saySum(data: Evenable, moves: readonly EvenMove[], left: ReadonlySet<string>, week: string): string {
  const of = `the week from ${sayDayOfMonth(dayOfIso(week))}`;
  if (moves.length === 0) return `Nothing to move: ${of} is as even as it can be among them.`;
  const called = callNames(data.people);
  const taken = moves.filter(({ taskId }) => !left.has(taskId));
  const before = fullest(data, []);
  const who = `${before.percent}% for ${called.get(before.id) ?? 'somebody'}`;
  if (taken.length === 0) return `No move is taken: ${of} stays at ${who}.`;
  const after = fullest(data, taken);
  return `${plural(taken.length, 'move')} ${taken.length === 1 ? 'brings' : 'bring'} ${of} from ${who} to ${after.percent}% for anyone.`;
}

/** Who is fullest for their hours, with some moves made; whoever has none counts by what they have. */
function fullest({ people, tasks }: Evenable, moves: readonly EvenMove[]): { id: string; percent: number } {
  const to = new Map(moves.map((move) => [move.taskId, move.to]));
  const loads = new Map<string, number>();
  for (const { id, personId, minutes } of tasks) {
    const who = to.get(id) ?? personId;
    loads.set(who, (loads.get(who) ?? 0) + minutes);
  }
  const shares = people.map(({ id, capacity }) => ({
    id,
    percent: Math.round((100 * (loads.get(id) ?? 0)) / Math.max(1, capacity)),
  }));
  return shares.reduce((most, one) => (one.percent > most.percent ? one : most), { id: '', percent: 0 });
}

/** "both are there on that day", "turns in eight weeks: Kit 5, Tamsin 2" */
function sayWhyIt(
  { had }: Evenable['tasks'][number],
  { from, to }: EvenMove,
  called: ReadonlyMap<string, string>,
): string {
  if (had === null) return 'both are there on that day';
  const times = [from, to].map((id) => `${called.get(id) ?? 'somebody'} ${had[id] ?? 0}`);
  return `turns in eight weeks: ${times.join(', ')}`;
}

interface MovesProps {
  readonly data: Evenable;
  readonly moves: readonly EvenMove[];
  /** The tasks that stay where they are. */
  readonly left: ReadonlySet<string>;
  readonly onToggle: (taskId: string) => void;
  readonly onAgain: () => void;
  readonly onClose: () => void;
}

function Moves({ data, moves, left, onToggle, onAgain, onClose }: MovesProps) {
  const { today } = useWorkspace();
  const [busy, setBusy] = useState(false);
  const make = useMoves();
  const taken = moves.filter(({ taskId }) => !left.has(taskId));
  const save = async () => {
    setBusy(true);
    try {
      await make(
        taken.flatMap(({ taskId, to }) => {
          const task = data.tasks.find(({ id }) => id === taskId);
          return task ? [{ task, to }] : [];
        }),
      );
      onClose();
    } catch (error) {
      sayTrouble(error);
      if (error instanceof ProblemError) onAgain();
    } finally {
      setBusy(false);
    }
  };
  const called = callNames(data.people);
  const ringing = data.people.filter(({ calls }) => calls > 0);
  const loads = new Map<string, number>();
  for (const { personId, minutes } of data.tasks) loads.set(personId, (loads.get(personId) ?? 0) + minutes);
  return (
    <>
      {ringing.length > 0 && (
        <p className="px-5 py-1.5 text-note text-ink-2">
          Beside their calls: {ringing.map(({ name, calls }) => `${name} ${sayDuration(calls)}`).join(', ')}.
        </p>
      )}
      <ol className="flex-1">
        {moves.map((move) => {
          const task = data.tasks.find(({ id }) => id === move.taskId);
          if (!task) return null;
          const isTaken = !left.has(move.taskId);
          const pair = [move.from, move.to].map((id) => {
            const before = loads.get(id) ?? 0;
            return { id, before, after: before + (id === move.to ? task.minutes : -task.minutes) };
          });
          // What is left out changes nothing for those below it.
          if (isTaken) for (const { id, after } of pair) loads.set(id, after);
          return (
            <li key={move.taskId} className={`${SECTION} ${isTaken ? '' : 'text-ink-2'}`}>
              <p className="flex items-baseline gap-2 text-row">
                <b className="min-w-0 flex-1 truncate font-semibold">{task.title}</b>
                {sayDuration(task.minutes)}
              </p>
              <p className="text-note leading-4.5 text-ink-2">
                {[sayDay(dayOfIso(task.on), today), task.about].filter(Boolean).join(', ')}
              </p>
              {pair.map(({ id, before, after }) => (
                <LoadLine key={id} person={data.people.find((one) => one.id === id)} before={before} after={after} />
              ))}
              <p className="mt-1 flex items-center gap-4 text-row">
                <span className="min-w-0 flex-1 text-note text-ink-2">{sayWhyIt(task, move, called)}</span>
                <button
                  type="button"
                  className="btn btn-text h-7 min-h-7"
                  aria-pressed={isTaken}
                  aria-label={`${isTaken ? 'Leave' : 'Take'} the move of ${task.title}`}
                  onClick={() => onToggle(move.taskId)}
                >
                  {isTaken ? (
                    <>
                      <Check size={15} aria-hidden /> Taken
                    </>
                  ) : (
                    'Take it'
                  )}
                </button>
              </p>
            </li>
          );
        })}
      </ol>
      <footer className="sticky bottom-0 flex items-center gap-4 border-t border-line-2 bg-base-100 px-5 py-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={busy || taken.length === 0}
          onClick={() => void save()}
        >
          Make {plural(taken.length, 'move')}
        </button>
        <span className="ml-auto text-note text-ink-2">
          {taken.length} of {moves.length} taken
        </span>
      </footer>
    </>
  );
}

/** Somebody's hours of the week before and after a move: what goes or comes is hatched. */
function LoadLine({
  person,
  before,
  after,
}: {
  readonly person: Evenable['people'][number] | undefined;
  readonly before: number;
  readonly after: number;
}) {
  if (!person) return null;
  return (
    <p className="mt-0.5 grid grid-cols-[104px_minmax(0,1fr)_92px] items-center gap-x-2 text-note leading-4.5">
      <span className="truncate">{person.name}</span>
      <HoursBar before={before} after={after} capacity={person.capacity} />
      <span className="text-right whitespace-nowrap">
        {hoursOf(before)} → <b className={after > person.capacity ? 'font-bold' : 'font-semibold'}>{hoursOf(after)}</b>
      </span>
    </p>
  );
}
