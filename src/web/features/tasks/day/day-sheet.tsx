import { lazy, Suspense, useCallback, useMemo } from 'react';
import { Outlet, useNavigate, useParams, useSearchParams } from 'react-router';
import { paperAddresses } from '../../../../contract/addresses-later.ts';
import type { DaySheet as DaySheetAnswer } from '../../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, sayRoles, tryDayOfIso } from '../../../../core/index.ts';
import { type TideControl, useTide } from '../../../app/shell/shell-context.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { addressOf } from '../../../kit/api.ts';
import { Band } from '../../../kit/band.tsx';
import { PaperLink } from '../../../kit/paper-link.tsx';
import { Skeleton, Trouble } from '../../../kit/states.tsx';
import { sayNear } from '../../../kit/ways.ts';
import { useDaySheet } from '../api.ts';
import { useSheetOnDevice } from '../on-device.ts';
import { DayHead } from './day-head.tsx';
import { DayFrame, ThisDay, useDayKeys, useDayLines } from './day-lines.tsx';
import { DeletedTasks } from './deleted-tasks.tsx';
import { addressOfDay, WhoseDayChoice } from './whose-day.tsx';

/** What one person has to do on a day, in three bands. */
export default function DaySheet() {
  const { personId = '', taskId } = useParams();
  const { today } = useWorkspace();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const day = tryDayOfIso(search.get('date') ?? '') ?? today;
  const { data, error, mutate } = useDaySheet(personId, day === today ? undefined : isoOfDay(day));

  const goTo = useCallback(
    (next: CivilDay) => void navigate(addressOfDay({ person: personId }, next, today)),
    [navigate, personId, today],
  );
  const tide = useMemo<TideControl>(
    () => ({
      personId,
      chosen: day === today ? null : { from: day, to: day },
      spans: false,
      onChoose: ({ to }) => goTo(to),
    }),
    [personId, day, today, goTo],
  );
  useTide(tide);
  useDayKeys(day, today, goTo);

  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  return (
    <div className="flex min-h-0 flex-1">
      <title>{`Day sheet${data ? `, ${data.person.name}` : ''} · Jolly Rota`}</title>
      {data ? (
        <Sheet sheet={data} openTaskId={taskId} onDay={goTo} />
      ) : (
        <div className="min-w-0 flex-1">
          <Skeleton rows={12} />
        </div>
      )}
      <Outlet />
    </div>
  );
}

const OwnClock = lazy(() => import('../../people/clock/own-clock.tsx'));
const AskedSwaps = lazy(() => import('../../swaps/asked-swaps.tsx'));

interface SheetProps {
  readonly sheet: DaySheetAnswer;
  readonly openTaskId: string | undefined;
  readonly onDay: (day: CivilDay) => void;
}

function Sheet({ sheet: asked, openTaskId, onDay }: SheetProps) {
  const { sheet, waits } = useSheetOnDevice(asked);
  const { me, today } = useWorkspace();
  const shown = useMemo(
    () => [
      ...sheet.late,
      ...sheet.thisDay,
      ...sheet.offered.tasks,
      ...sheet.unassigned.tasks,
      ...sheet.toCheck,
      ...sheet.coming,
      ...sheet.doneBefore.tasks,
    ],
    [sheet],
  );
  const day = dayOfIso(sheet.date);
  const { line, foot } = useDayLines({
    ...{ shown, day, openTaskId, waits },
    addressOf: (taskId) => addressOfDay({ person: sheet.person.id }, day, today, taskId),
  });
  const done = sheet.thisDay.filter(({ state }) => state === 'done').length;
  const toCheck = sheet.thisDay.filter(({ state }) => state === 'toCheck').length;
  const isFree =
    sheet.late.length +
      sheet.thisDay.length +
      sheet.coming.length +
      sheet.projected.length +
      sheet.toCheck.length +
      sheet.offered.count +
      sheet.unassigned.count ===
    0;
  return (
    <DayFrame late={sheet.late.length} thisDay={sheet.thisDay.length} foot={foot}>
      <DayHead
        day={day}
        onDay={onDay}
        whose={<WhoseDayChoice whose={{ person: sheet.person.id }} name={sheet.person.name} day={day} />}
        words={sayRoles(sheet.person.roles)}
        load={{ ...sheet, capacityMinutes: sheet.person.capacityMinutes }}
      >
        <PaperLink href={addressOf(paperAddresses.day, { query: { person: sheet.person.id, on: sheet.date } })} />
        {day === today && (
          <Suspense>
            <OwnClock person={sheet.person} />
          </Suspense>
        )}
      </DayHead>
      {day === today && sheet.person.id === me.id && (
        <Suspense>
          <AskedSwaps />
        </Suspense>
      )}
      {sheet.late.length > 0 && (
        <Band name="late" count={sheet.late.length} isLate>
          {sheet.late.map(line('late'))}
        </Band>
      )}
      <ThisDay
        day={day}
        tasks={sheet.thisDay}
        projected={sheet.projected}
        asides={[done > 0 ? `${done} done` : '', toCheck > 0 ? `${toCheck} to check` : ''].filter(Boolean)}
        line={line('thisDay')}
        none={
          isFree
            ? `Nothing for ${sheet.person.name}: no task is due, and none is coming within a week.`
            : `Nothing is due ${sayNear(day, today)}.`
        }
      />
      {sheet.offered.count > 0 && (
        <Band name="to take" count={sheet.offered.count} asides={['by any one']}>
          {sheet.offered.tasks.map(line(sheet.person.id === me.id ? 'offered' : 'offeredToOthers'))}
          <MoreBelow count={sheet.offered.count - sheet.offered.tasks.length} />
        </Band>
      )}
      {sheet.unassigned.count > 0 && (
        <Band name="nobody’s" count={sheet.unassigned.count} asides={['to claim']}>
          {sheet.unassigned.tasks.map(line('unassigned'))}
          <MoreBelow count={sheet.unassigned.count - sheet.unassigned.tasks.length} />
        </Band>
      )}
      {sheet.toCheck.length > 0 && (
        <Band name="to check" count={sheet.toCheck.length} asides={['finished by others']}>
          {sheet.toCheck.map(line('toCheck'))}
        </Band>
      )}
      {sheet.coming.length > 0 && (
        <Band name="coming" count={sheet.coming.length}>
          {sheet.coming.map(line('coming'))}
        </Band>
      )}
      {sheet.doneBefore.count > 0 && (
        <Band name="done before" count={sheet.doneBefore.count}>
          {sheet.doneBefore.tasks.map(line('doneBefore'))}
          {sheet.doneBefore.count > sheet.doneBefore.tasks.length && (
            <p className="py-2 text-note text-ink-2 max-[720px]:px-4">
              and {sheet.doneBefore.count - sheet.doneBefore.tasks.length} more, done earlier
            </p>
          )}
        </Band>
      )}
      {sheet.deleted.length > 0 && <DeletedTasks deleted={sheet.deleted} />}
    </DayFrame>
  );
}

function MoreBelow({ count }: { readonly count: number }) {
  return count > 0 && <p className="py-2 text-note text-ink-2 max-[720px]:px-4">and {count} more, less urgent</p>;
}
