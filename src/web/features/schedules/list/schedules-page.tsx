import { useState } from 'react';
import { Link, Outlet, useNavigate } from 'react-router';
import { dayOfIso, plural } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { Empty, Skeleton, Trouble } from '../../../kit/states.tsx';
import { sayNear, sayTime, timeOf } from '../../../kit/ways.ts';
import { ListWays } from '../../bring-in/list-ways.tsx';
import { type LinesView, useLastRun, useScheduleActions, useScheduleLines } from '../api.ts';
import { FirstSchedules } from './first-schedules.tsx';
import { FilterWords, useScheduleFilter } from './schedule-filter.tsx';
import { ScheduleTable } from './schedule-table.tsx';

/** The table of schedules, to live in. */
export default function SchedulesPage() {
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const filter = useScheduleFilter();
  const { view, error, retry } = useScheduleLines(filter.filter);
  const counts = view?.counts;
  const { runNow } = useScheduleActions();
  const [running, setRunning] = useState(false);
  const newSchedule = () => void navigate('/schedules/new');
  useKeys(may('plan') ? [{ key: 'n', says: 'New schedule', run: newSchedule }] : []);
  return (
    <div className="flex min-h-0 flex-1">
      <title>Schedules · Jolly Rota</title>
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="page-head flex-wrap">
          <h1>Schedules</h1>
          {counts && counts.all > 0 && <FilterWords filter={filter} />}
          {counts && <Count counts={counts} />}
          {may('plan') && (
            <>
              <Link className="btn" to={{ pathname: '/schedules/worksheet', search: filter.search }}>
                Worksheet
              </Link>
              <button
                type="button"
                className="btn"
                disabled={running}
                title="Make whatever is missing up to the horizon, as the server does each day"
                onClick={() => {
                  setRunning(true);
                  void runNow().finally(() => setRunning(false));
                }}
              >
                Run now
              </button>
              <button type="button" className="btn btn-primary" onClick={newSchedule}>
                New schedule
              </button>
            </>
          )}
        </div>
        {error && !view && <Trouble error={error} retry={retry} />}
        {!error && !view && <Skeleton rows={14} />}
        {counts?.all === 0 && <FirstSchedules />}
        {counts && counts.all > 0 && counts.fitting === 0 && (
          <Empty title="No schedule fits.">
            {counts.all === 1 ? 'The only one is not' : `None of the ${counts.all} is`} {filter.inWords}.{' '}
            <button type="button" className="link-line" onClick={filter.clear}>
              Show them all
            </button>
          </Empty>
        )}
        {view && view.counts.fitting > 0 && <ScheduleTable view={view} filter={filter.filter} />}
        {counts && counts.all > 0 && <RunLine />}
      </div>
      <Outlet />
    </div>
  );
}

function Count({ counts: { fitting, all, problems } }: { readonly counts: LinesView['counts'] }) {
  return (
    <span className="ml-auto whitespace-nowrap text-row text-ink-2">
      {all === 0 ? 'none yet' : fitting === all ? all : `${fitting} of ${all}`}
      {problems > 0 && `, ${problems} with a problem`}
    </span>
  );
}

/** When tasks were last made, and what came of it. */
function RunLine() {
  const today = useToday();
  const { makeTime, horizonDays, may } = useWorkspace();
  const run = useLastRun().data?.run;
  if (!run) return null;
  const at = `${sayNear(dayOfIso(run.startedAt.slice(0, 10)), today)} at ${timeOf(run.startedAt)}`;
  const why = { daily: 'the daily run', startup: 'the server starting', byHand: 'hand', fill: 'a fill' }[run.why];
  return (
    <p className="print:hidden mt-auto flex-none border-t border-line px-5 py-2 text-note leading-4 text-ink-2">
      Tasks are made {horizonDays} days ahead, daily at {sayTime(makeTime)}. Last by {why}, {at}:{' '}
      {run.made === 0 ? 'nothing was missing' : `${plural(run.made, 'task')} made`}.{' '}
      <Link className="link-line text-ink" to="/fill">
        Run log, and fill a period
      </Link>{' '}
      {may('plan') && <ListWays list="schedules" bring="schedules" />}
    </p>
  );
}
