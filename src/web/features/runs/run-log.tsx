import { Link } from 'react-router';
import type { Run } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { DateBlock } from '../../kit/date-block.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { timeOf } from '../../kit/ways.ts';
import { useFill, useRuns } from './api.ts';
import { canTakeBack, sayLength, sayMade, sayPeriod, sayWhy } from './run-words.ts';

/** Every making of tasks, newest first. */
export function RunLog() {
  const { data, error, mutate } = useRuns();
  return (
    <section aria-label="Run log">
      <h2 className="flex items-baseline justify-between px-5 pb-1 pt-3 text-body text-primary">
        Run log
        <span className="font-sans text-note font-normal text-ink-2">every run, the server’s own and by hand</span>
      </h2>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!error && !data && <Skeleton rows={4} />}
      {data?.runs.length === 0 && <p className="px-5 py-2 text-row text-ink-2">No run yet.</p>}
      {data && data.runs.length > 0 && (
        <table className="tt min-w-[1100px]" onKeyDown={moveThroughRows}>
          <colgroup>
            <col style={{ width: 150 }} />
            <col style={{ width: 70 }} />
            <col style={{ width: 190 }} />
            <col style={{ width: 290 }} />
            <col />
            <col style={{ width: 70 }} />
            <col style={{ width: 150 }} />
          </colgroup>
          <tbody>
            {data.runs.map((run) => (
              <Row key={run.id} run={run} />
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Row({ run }: { readonly run: Run }) {
  const today = useToday();
  const { may } = useWorkspace();
  const { undo } = useFill();
  return (
    <tr className="cursor-default">
      <td className="date">
        <DateBlock day={dayOfIso(run.startedAt.slice(0, 10))} />
      </td>
      <td className="text-ink-2">{timeOf(run.startedAt)}</td>
      <td>
        <Link className="font-semibold" data-row to={`/fill/run/${run.id}`}>
          {sayWhy(run)}
        </Link>
      </td>
      <td className="text-ink-2">{sayPeriod(run, today)}</td>
      <td>{sayMade(run)}</td>
      <td className="num text-ink-2">{sayLength(run.milliseconds)}</td>
      <td className="py-0 text-right">
        {canTakeBack(run) && may('plan') && (
          <button type="button" className="btn btn-sm" onClick={() => void undo(run)}>
            Take it back
          </button>
        )}
      </td>
    </tr>
  );
}
