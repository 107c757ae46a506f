import { Link, useNavigate, useParams } from 'react-router';
import { dayOfIso, groupBy, plural } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { DateBlock } from '../../kit/date-block.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { CloseButton, SECTION, SectionTitle, SideSheet } from '../../kit/side-sheet.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { useRun } from './api.ts';
import { canTakeBack, sayLeftOut, sayMade, sayPeriod, sayWhy } from './run-words.ts';

/** One run, down to each task that it made. */
export default function RunSheet() {
  const { runId = '' } = useParams();
  const { data, error, mutate } = useRun(runId);
  const today = useToday();
  const navigate = useNavigate();
  const nameOf = (scheduleId: string) => data?.schedules.find(({ id }) => id === scheduleId)?.name ?? 'a schedule';
  const close = () => void navigate('/fill');
  return (
    <SideSheet label="A run" onClose={close}>
      <div className="flex justify-end px-5 pt-3">
        <CloseButton onClose={close} />
      </div>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={8} />}
      {data && (
        <>
          <div className={`${SECTION} pt-0`}>
            <h2 className="text-title leading-6.5 first-letter:uppercase">{sayWhy(data.run)}</h2>
            <p className="text-row text-ink-2">{sayPeriod(data.run, today)}</p>
            <p className="mt-1 text-row">{sayMade(data.run)}</p>
            {canTakeBack(data.run) && data.keeps !== null && (
              <p className="mt-1 text-row">
                Taking it back removes {plural(data.there - data.keeps, 'task')}
                {data.keeps > 0 ? ` and leaves ${data.keeps} that somebody has worked on.` : '.'}
              </p>
            )}
          </div>
          {data.details.problems.length > 0 && (
            <div className={SECTION}>
              <SectionTitle>Problems</SectionTitle>
              {data.details.problems.map(({ scheduleId, message }) => (
                <p key={scheduleId} className="text-row leading-4.75">
                  <Link className="link-line" to={`/schedules/${scheduleId}`}>
                    {nameOf(scheduleId)}
                  </Link>
                  : {message}
                </p>
              ))}
            </div>
          )}
          {data.details.leftOut.length > 0 && (
            <div className={SECTION}>
              <SectionTitle>Left out</SectionTitle>
              {[...groupBy(data.details.leftOut, ({ scheduleId }) => scheduleId)].map(([scheduleId, dates]) => (
                <p key={scheduleId} className="text-row leading-4.75">
                  <Link className="link-line" to={`/schedules/${scheduleId}`}>
                    {nameOf(scheduleId)}
                  </Link>
                  : {sayLeftOut(dates)}
                </p>
              ))}
            </div>
          )}
          {data.more > 0 && (
            <p className={`${SECTION} text-row text-ink-2`}>
              It has {plural(data.more, 'more line')} to tell; these are the first of each kind.
            </p>
          )}
          <div className={`${SECTION} border-b-0`}>
            <SectionTitle
              aside={
                data.tasks.length === 0
                  ? 'none that is still there'
                  : data.tasks.length < data.there && `the first ${data.tasks.length} of ${data.there}`
              }
            >
              Tasks
            </SectionTitle>
            <ol>
              {data.tasks.map((task) => (
                <li
                  key={task.id}
                  className="grid min-h-[31px] grid-cols-[22px_138px_minmax(0,1fr)] items-center gap-1 border-b border-line text-row last:border-0"
                >
                  <Pennant state={task.state} late={task.late} />
                  <DateBlock day={dayOfIso(task.on)} />
                  <Link
                    className="truncate underline decoration-line-2 underline-offset-4"
                    to={`/schedules/task/${task.id}`}
                  >
                    {task.title}
                  </Link>
                </li>
              ))}
            </ol>
          </div>
        </>
      )}
    </SideSheet>
  );
}
