import { createContext, Fragment, type ReactNode, useContext, useEffect, useMemo } from 'react';
import { workspaceAddresses } from '../../../contract/addresses.ts';
import type { Person, Workspace } from '../../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  hasLeftBy,
  makeCalendar,
  mayAll,
  type Right,
  tryMinutesOfTime,
  type Ways,
  type WorkingCalendar,
} from '../../../core/index.ts';
import { outbox } from '../../features/unsent/use-unsent.ts';
import { useAnswer } from '../../kit/answer.ts';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { showIn } from '../../kit/ways.ts';
import { onSessionBegun } from './signed-out.ts';

interface WorkspaceView extends Workspace {
  readonly me: Person;
  /** Whether whoever is signed in may do this to anything, not to their own alone. */
  readonly may: (right: Right) => boolean;
  /** Those who work here now or will: whom work can be given to. `people` holds those who have left too, for their names. */
  readonly staff: readonly Person[];
  /** The same, and whoever is chosen already. */
  readonly staffWith: (...ids: readonly (string | null)[]) => readonly Person[];
  /** Today, as the server's clock has it in the workspace's zone. */
  readonly today: CivilDay;
  readonly nowMinutes: number;
  readonly workingCalendar: WorkingCalendar;
}

const WorkspaceContext = createContext<WorkspaceView | null>(null);
const CLOCK_MS = 30_000;

/** The workspace of whoever is signed in; what stands inside may ask for it, and for today. */
export function WorkspaceProvider({ me, children }: { readonly me: Person; readonly children: ReactNode }) {
  const { data, error, mutate } = useAnswer(workspaceAddresses.workspace, {});
  useEffect(() => outbox.open(me.id), [me.id]);
  useEffect(() => onSessionBegun(() => void outbox.flush()), []);
  const moves = data?.clockStands === false;
  const clock = useAnswer(workspaceAddresses.clock, moves ? {} : null);
  useMinuteHand(moves, clock.mutate);
  const view = useMemo(() => data && viewOf({ ...data, ...clock.data }, me), [data, clock.data, me]);
  const ways = data && waysOf(data);
  // Said before anything below is drawn; the same again changes nothing.
  if (ways) showIn(ways);
  if (error && !view) return <Trouble error={error} retry={() => void mutate()} />;
  if (!view) return <Skeleton rows={12} />;
  return (
    <WorkspaceContext value={view}>
      {/* Whoever changes them sees the whole page anew. */}
      <Fragment key={JSON.stringify(ways)}>{children}</Fragment>
    </WorkspaceContext>
  );
}

/** How whoever is signed in sees dates and times: their own ways, else the workspace's. */
function waysOf({ ways, myWays }: Workspace): Ways {
  return {
    weekStarts: myWays.weekStarts ?? ways.weekStarts,
    dateOrder: myWays.dateOrder ?? ways.dateOrder,
    clock: myWays.clock ?? ways.clock,
  };
}

function viewOf(workspace: Workspace, me: Person): WorkspaceView {
  const [date = '', time = ''] = workspace.now.split('T');
  const today = dayOfIso(date);
  const staff = workspace.people.filter((person) => !hasLeftBy(person, today));
  return {
    ...workspace,
    me,
    may: (right) => mayAll(me.access, right),
    staff,
    staffWith: (...ids) => workspace.people.filter((person) => ids.includes(person.id) || staff.includes(person)),
    today,
    nowMinutes: tryMinutesOfTime(time) ?? 0,
    workingCalendar: makeCalendar(workspace.calendar),
  };
}

/** The browser asks the server what time it is: its own clock may be wrong, or in another zone. */
function useMinuteHand(moves: boolean, look: () => unknown): void {
  useEffect(() => {
    if (!moves) return;
    const timer = setInterval(look, CLOCK_MS);
    return () => clearInterval(timer);
  }, [moves, look]);
}

export function useWorkspace(): WorkspaceView {
  const view = useContext(WorkspaceContext);
  if (!view) throw new Error('useWorkspace is used outside the frame of a signed-in person.');
  return view;
}

export function useToday(): CivilDay {
  return useWorkspace().today;
}
