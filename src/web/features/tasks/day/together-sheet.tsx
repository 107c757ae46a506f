import { useCallback, useMemo, useState } from 'react';
import { Link, Outlet, useNavigate, useParams, useSearchParams } from 'react-router';
import { paperAddresses } from '../../../../contract/addresses-later.ts';
import { TOGETHER_OF, type Together, type TogetherOf } from '../../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, sayDuration, tryDayOfIso } from '../../../../core/index.ts';
import { type TideControl, useTide } from '../../../app/shell/shell-context.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { addressOf } from '../../../kit/api.ts';
import { Band } from '../../../kit/band.tsx';
import { GoOn } from '../../../kit/go-on.tsx';
import { PaperLink } from '../../../kit/paper-link.tsx';
import { Skeleton, Trouble } from '../../../kit/states.tsx';
import { sayNear, sayTime } from '../../../kit/ways.ts';
import { useTogether } from '../api.ts';
import { useSheetOnDevice } from '../on-device.ts';
import { DayHead } from './day-head.tsx';
import { DayFrame, ThisDay, useDayKeys, useDayLines } from './day-lines.tsx';
import { addressOfDay, WhoseDayChoice } from './whose-day.tsx';

/** The day of a team, a role, everyone on shift, one asset or a site. */
export default function TogetherSheet() {
  const [search] = useSearchParams();
  const asked = search.toString();
  const of = useMemo<TogetherOf | null>(() => {
    const all = new URLSearchParams(asked);
    const kind = TOGETHER_OF.find((one) => all.get(one));
    return kind === undefined ? null : ({ [kind]: all.get(kind) } as TogetherOf);
  }, [asked]);
  return of === null ? <GoOn to="/day-sheet" /> : <OfSeveral of={of} />;
}

function OfSeveral({ of }: { readonly of: TogetherOf }) {
  const { today } = useWorkspace();
  const { taskId } = useParams();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const day = tryDayOfIso(search.get('date') ?? '') ?? today;
  const { data, error, mutate } = useTogether(of, day === today ? undefined : isoOfDay(day));
  const goTo = useCallback((next: CivilDay) => void navigate(addressOfDay(of, next, today)), [navigate, of, today]);
  const tide = useMemo<TideControl>(
    () => ({ chosen: day === today ? null : { from: day, to: day }, spans: false, onChoose: ({ to }) => goTo(to) }),
    [day, today, goTo],
  );
  useTide(tide);
  useDayKeys(day, today, goTo);
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  return (
    <div className="flex min-h-0 flex-1">
      <title>{`Day sheet${data ? `, ${data.name}` : ''} · Jolly Rota`}</title>
      {data ? (
        <Sheet key={JSON.stringify(of)} sheet={data} of={of} openTaskId={taskId} onDay={goTo} />
      ) : (
        <div className="min-w-0 flex-1">
          <Skeleton rows={12} />
        </div>
      )}
      <Outlet />
    </div>
  );
}

interface SheetProps {
  readonly sheet: Together;
  readonly of: TogetherOf;
  readonly openTaskId: string | undefined;
  readonly onDay: (day: CivilDay) => void;
}

function Sheet({ sheet: asked, of, openTaskId, onDay }: SheetProps) {
  const { sheet, waits } = useSheetOnDevice(asked);
  const { today } = useWorkspace();
  const shown = useMemo(() => [...sheet.late, ...sheet.thisDay, ...sheet.coming], [sheet]);
  const day = dayOfIso(sheet.date);
  const { line, foot } = useDayLines({
    ...{ shown, day, openTaskId, waits, sayWho: true },
    addressOf: (taskId) => addressOfDay(of, day, today, taskId),
  });
  const isOfPeople = of.asset === undefined && of.site === undefined;
  const done = sheet.thisDay.filter(({ state }) => state === 'done').length;
  return (
    <DayFrame late={sheet.late.length} thisDay={sheet.thisDay.length} foot={foot}>
      <DayHead
        day={day}
        onDay={onDay}
        whose={<WhoseDayChoice whose={of} name={sheet.name} day={day} />}
        words={isOfPeople ? sayPeople(sheet.people.length) : 'whoever works there'}
        load={{
          ...sheet,
          capacityMinutes: isOfPeople
            ? sheet.people.reduce((sum, { capacityMinutes }) => sum + capacityMinutes, 0)
            : null,
        }}
      >
        {(of.team !== undefined || of.role !== undefined) && (
          <PaperLink
            href={addressOf(paperAddresses.week, { query: { team: of.team, role: of.role, week: sheet.date } })}
            words="The week on paper"
          />
        )}
      </DayHead>
      <Loads people={sheet.people} day={day} isOfPeople={isOfPeople} />
      {sheet.late.length > 0 && (
        <Band name="late" count={sheet.late.length} isLate>
          {sheet.late.map(line('late'))}
        </Band>
      )}
      <ThisDay
        day={day}
        tasks={sheet.thisDay}
        projected={sheet.projected}
        asides={done > 0 ? [`${done} done`] : []}
        line={line('thisDay')}
        none={`Nothing is due ${sayNear(day, today)}.`}
      />
      {sheet.coming.length > 0 && (
        <Band name="coming" count={sheet.coming.length}>
          {sheet.coming.map(line('coming'))}
        </Band>
      )}
      {sheet.isMore && (
        <p className="border-t border-line-2 px-5 py-2.5 text-row text-ink-2 max-[720px]:px-4">
          There are more than stand here:{' '}
          <Link className="link-line text-ink" to={`/tasks?${new URLSearchParams(tasksOf(of, day, today))}`}>
            see all of it among the tasks
          </Link>
          .
        </p>
      )}
    </DayFrame>
  );
}

const sayPeople = (count: number) => (count === 1 ? '1 person' : `${count} people`);

/** The same as a question to the list of all tasks: today with what is late; who is on shift is not asked for there. */
function tasksOf({ shift: _, ...of }: TogetherOf, day: CivilDay, today: CivilDay): Record<string, string> {
  const days: Record<string, string> = day === today ? {} : { from: isoOfDay(day), to: isoOfDay(day), are: 'any' };
  return { ...of, ...days, by: 'person' };
}

function sayLoad(minutes: number, capacity: number, isOfPeople: boolean): string {
  if (capacity > 0) return `${minutes === 0 ? 'nothing' : sayDuration(minutes)} of ${sayDuration(capacity)}`;
  if (!isOfPeople) return sayDuration(minutes);
  return minutes === 0 ? 'not at work' : `${sayDuration(minutes)}, not at work`;
}

/** Shown at once of however many there are. */
const SHOWN_PEOPLE = 12;

interface LoadsProps {
  readonly people: Together['people'];
  readonly day: CivilDay;
  readonly isOfPeople: boolean;
}

/** Who is in it, with how full the day of each is, as far as it is of this sheet. */
function Loads({ people, day, isOfPeople }: LoadsProps) {
  const { today } = useWorkspace();
  const [isOpen, setIsOpen] = useState(false);
  if (people.length === 0)
    return isOfPeople ? (
      <p className="px-5 pb-2.5 text-row text-ink-2 max-[720px]:px-4">Nobody is in it on this day.</p>
    ) : null;
  const shown = isOpen ? people : people.slice(0, SHOWN_PEOPLE);
  return (
    <ul
      aria-label="Who, and how full the day is"
      className="grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-x-5 gap-y-1.5 px-5 pb-3 text-note leading-4 max-[720px]:grid-cols-2 max-[720px]:px-4"
    >
      {shown.map(({ id, name, toDo, done, capacityMinutes, shifts }) => {
        const total = toDo + done;
        const scale = Math.max(total, capacityMinutes, 1);
        const hours = shifts.map(({ from, to }) => `${sayTime(from)}–${sayTime(to)}`).join(', ');
        return (
          <li key={id} className="min-w-0">
            <span className="flex items-baseline gap-2">
              <Link
                className="truncate text-row font-semibold text-ink hover:underline"
                to={addressOfDay({ person: id }, day, today)}
              >
                {name}
              </Link>
              <span className="ml-auto whitespace-nowrap text-ink-2">{hours}</span>
            </span>
            <span className="block truncate text-ink-2">
              {sayLoad(total, capacityMinutes, isOfPeople)}
              {done > 0 && <span className="max-[720px]:hidden">, {sayDuration(done)} finished</span>}
            </span>
            <span aria-hidden className="mt-0.5 flex h-1 bg-base-300">
              <i className="bg-primary" style={{ width: `${(done / scale) * 100}%` }} />
              <i className="bg-petrol-2" style={{ width: `${(toDo / scale) * 100}%` }} />
            </span>
          </li>
        );
      })}
      {people.length > SHOWN_PEOPLE && (
        <li>
          <button type="button" className="link-line text-row text-ink" onClick={() => setIsOpen(!isOpen)}>
            {isOpen ? 'Fewer' : `and ${people.length - SHOWN_PEOPLE} more`}
          </button>
        </li>
      )}
    </ul>
  );
}
