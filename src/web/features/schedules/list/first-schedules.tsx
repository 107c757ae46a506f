import { Link } from 'react-router';
import { templateAddresses } from '../../../../contract/addresses.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAnswer } from '../../../kit/answer.ts';
import { Pennant } from '../../../kit/pennant.tsx';
import { sayTime } from '../../../kit/ways.ts';

const EXAMPLES = [
  ['every weekday', 'opening round, cash count, log book', 'weekdays'],
  ['every week on Fri, or the working day before', 'bank reconciliation, timesheets', 'friday'],
  ['15th and the last working day of each month, or the working day before', 'payroll', 'payroll'],
  ['every 6 months on the 18th', 'certificates, insurance papers', 'halfYear'],
] as const;

/** The empty table of schedules: what it is for, and the first step. */
export function FirstSchedules() {
  const { may, horizonDays, makeTime } = useWorkspace();
  const templates = useAnswer(templateAddresses.list, {}).data?.templates;
  const hasTemplates = (templates?.length ?? 0) > 0;
  return (
    <div className="grid grid-cols-[minmax(0,660px)_minmax(0,1fr)] gap-x-11 border-t border-line-2 px-5 pt-8 max-[1000px]:grid-cols-1">
      <section>
        <h2 className="text-[25px] leading-7.5">
          A schedule says when a piece of work comes round, for whom, and who does it.
        </h2>
        <p className="mt-2 max-w-[580px]">
          The tasks then make themselves, {horizonDays} days ahead, every day at {sayTime(makeTime)}. You see each date
          before any of them is made.
        </p>
        {!may('plan') && <p className="mt-3 text-ink-2">A planner or a manager of yours sets the first one.</p>}
        {may('plan') && !hasTemplates && (
          <p className="mt-4 flex items-center gap-4">
            <Link className="btn btn-primary" to="/templates/new">
              Write the first template
            </Link>
            <span className="text-ink-2">It says what is to be done; the schedule comes after.</span>
          </p>
        )}
        {may('plan') && hasTemplates && (
          <section className="mt-6 border-t border-line-2">
            <h3 className="pb-1 pt-2.5 text-body text-primary">Take one of these and change it</h3>
            <ul>
              {EXAMPLES.map(([phrase, work, key]) => (
                <li key={key} className="border-b border-line">
                  <Link
                    className="grid h-11 grid-cols-[1fr_auto] items-center hover:bg-base-200"
                    to={`/schedules/new?like=${key}`}
                  >
                    {phrase}
                    <span className="text-row text-ink-2">{work}</span>
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
      </section>
      <section className="border-l border-line-2 pl-7 max-[1000px]:mt-8 max-[1000px]:border-l-0 max-[1000px]:pl-0">
        <h3 className="pb-1 text-body text-primary">How it goes</h3>
        <ol>
          {STEPS.map(([state, what, how]) => (
            <li key={what} className="grid max-w-[460px] grid-cols-[32px_1fr] border-b border-line py-3 last:border-0">
              <Pennant state={state} size={20} label="" />
              <div>
                <b className="font-semibold">{what}</b>
                <p className="text-row leading-4.75 text-ink-2">{how}</p>
              </div>
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}

const STEPS = [
  ['bare', 'A template says what', 'Title, instructions, check lines and how long it takes: said once.'],
  ['coming', 'A schedule says when, who and for whom', 'The bench shows every date it gives before you save it.'],
  ['open', 'The tasks appear by themselves', 'Each on its day, on the day sheet of the person who does it.'],
  ['done', 'What was done is kept', 'With its notes, beside the next one of the series.'],
] as const;
