import { Outlet } from 'react-router';
import { useShell } from '../../app/shell/shell-context.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { useTaskSums } from './api.ts';
import { saySums } from './list-words.ts';
import { FilterWords, useTaskFilter } from './task-filter.tsx';
import { TaskTable } from './task-table.tsx';
import { ViewsBar } from './views-bar.tsx';

/** All tasks of the workspace, as they are asked for. */
export default function TasksPage() {
  const { may } = useWorkspace();
  const { startNow } = useShell();
  const view = useTaskFilter();
  const { data: sums, error, mutate, isLoading } = useTaskSums(view.filter);
  return (
    <div className="flex min-h-0 flex-1">
      <title>Tasks · Jolly Rota</title>
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="page-head">
          <h1>Tasks</h1>
          <FilterWords view={view} names={sums?.names} />
          <span className="ml-auto whitespace-nowrap text-row text-ink-2" role="status">
            {/* What was asked before is not what these come to. */}
            {error && sums ? 'not counted: no answer' : sums && (sums.count === 0 ? 'none' : saySums(sums))}
          </span>
          {may('begin') && (
            <button type="button" className="btn btn-primary" onClick={() => startNow()}>
              Start a template
            </button>
          )}
        </div>
        <ViewsBar view={view} />
        {error && !sums && <Trouble error={error} retry={() => void mutate()} />}
        {!error && !sums && <Skeleton rows={14} />}
        {sums?.count === 0 && !isLoading && (
          <Empty title="No task fits.">
            Show{' '}
            <button type="button" className="link-line" onClick={() => view.set({ are: 'any', due: 'any' })}>
              those due on any day, in any state
            </button>
            , or{' '}
            <button type="button" className="link-line" onClick={view.clear}>
              all that are late or due this week
            </button>
            .
          </Empty>
        )}
        {sums && sums.count > 0 && (
          <TaskTable
            key={JSON.stringify([view.filter, view.grouping])}
            filter={view.filter}
            order={view.order}
            onOrder={(order) => view.set({ order: order === 'due' ? '' : order })}
            grouping={view.grouping}
            columns={view.columns}
            sums={sums}
          />
        )}
      </div>
      <Outlet />
    </div>
  );
}
