import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { RunOne as RunOneAnswer, Schedule } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, isoOfDay, plural } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { DateBlank } from '../../kit/blanks.tsx';
import { DateBlock } from '../../kit/date-block.tsx';
import { Dialog } from '../../kit/dialog.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { CloseButton } from '../../kit/side-sheet.tsx';
import { Skeleton } from '../../kit/states.tsx';
import { sayDay } from '../../kit/ways.ts';
import { useFill } from './api.ts';
import { sayLeftOut } from './run-words.ts';

const FATES = { new: 'new', there: 'already there', deleted: 'deleted on purpose' } as const;

/** What the run of any day makes of one schedule: rehearsed as soon as it is asked, and made if that is wanted. */
export function RunOne({ schedule, onClose }: { readonly schedule: Schedule; readonly onClose: () => void }) {
  const today = useToday();
  const { horizonDays } = useWorkspace();
  const { runOne } = useFill();
  const [asOf, setAsOf] = useState(today);
  const [told, setTold] = useState<RunOneAnswer | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const asking = (day: CivilDay, isRehearsal: boolean) => runOne(schedule.id, isoOfDay(day), isRehearsal);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked for anew when the day changes
  useEffect(() => {
    let isOld = false;
    setTold(null);
    setProblem(null);
    asking(asOf, true).then(
      (answer) => !isOld && setTold(answer),
      (error: unknown) => {
        if (!(error instanceof ProblemError)) throw error;
        if (!isOld) setProblem(error.message);
      },
    );
    return () => {
      isOld = true;
    };
  }, [asOf]);
  const fresh = told?.tasks.filter(({ fate }) => fate === 'new').length ?? 0;
  const make = async () => {
    setBusy(true);
    try {
      const { run } = await asking(asOf, false);
      sayDone(`Made ${plural(run?.made ?? 0, 'task')}. The run log can take them back.`);
      onClose();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Dialog label="Run this schedule" className="w-[680px]" onClose={onClose}>
      <header className="flex items-start px-5 pb-2 pt-4">
        <div>
          <h2 className="text-title leading-6.5">Run this schedule</h2>
          <p className="text-row leading-7">
            as if today were <DateBlank label="As of" value={asOf} onChange={setAsOf} />: what appears within{' '}
            {plural(horizonDays, 'day')} of it, on the dates of the schedule.
          </p>
        </div>
        <span className="ml-auto" />
        <CloseButton onClose={onClose} />
      </header>
      {(problem ?? told?.problem) && (
        <p role="alert" className="field-error px-5 pb-2">
          {problem ?? told?.problem}
        </p>
      )}
      {!told && !problem && <Skeleton rows={4} />}
      {told && (
        <ol className="max-h-[46vh] overflow-y-auto border-t border-line px-5 text-row">
          {told.tasks.map((task) => (
            <li
              key={`${task.on} ${task.title}`}
              className={`grid min-h-[33px] grid-cols-[24px_142px_minmax(0,1fr)_130px_130px] items-center gap-1 border-b border-line last:border-0 ${task.fate === 'new' ? '' : 'text-ink-2'}`}
            >
              <Pennant state={task.fate === 'new' ? 'coming' : task.fate === 'there' ? 'open' : 'bare'} />
              <DateBlock day={dayOfIso(task.on)} />
              <span className="truncate">{task.title}</span>
              <span className="truncate">{task.who ?? 'nobody yet'}</span>
              <span className={task.fate === 'new' ? 'font-semibold' : ''}>{FATES[task.fate]}</span>
            </li>
          ))}
          {told.tasks.length === 0 && told.problem === null && (
            <li className="py-2 text-ink-2">Nothing is due by then.</li>
          )}
        </ol>
      )}
      {told && told.leftOut.length > 0 && (
        <p className="border-t border-line px-5 py-2 text-row text-ink-2">
          Left out: {sayLeftOut(told.leftOut.map(({ because }) => ({ because, dates: 1 })))}.
        </p>
      )}
      {told?.waitsFrom && (
        <p className="px-5 pb-2 text-row text-ink-2">
          {sayDay(dayOfIso(told.waitsFrom), today)} waits until the last one is over.
        </p>
      )}
      <footer className="flex items-center gap-3 border-t border-line-2 px-5 py-3">
        <button type="button" className="btn btn-primary" disabled={fresh === 0 || busy} onClick={() => void make()}>
          {fresh === 0 ? 'Nothing to make' : `Make ${plural(fresh, 'task')}`}
        </button>
        <button type="button" className="btn" onClick={onClose}>
          Not now
        </button>
        <Link className="link-line ml-auto text-note" to="/fill">
          Run log
        </Link>
      </footer>
    </Dialog>
  );
}
