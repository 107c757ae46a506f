import { Link } from 'react-router';
import type { PastTask } from '../../contract/index.ts';
import { dayOfIso, sayDay } from '../../core/index.ts';
import { useToday } from '../shell/workspace.tsx';
import { Pennant, stateWords } from './pennant.tsx';

interface PennantStringProps {
  readonly tasks: readonly PastTask[];
  /** Where a pennant leads; without it the string is only shown. */
  readonly to?: (taskId: string) => string;
  readonly size?: 16 | 20;
}

/** The last of a series as a row of tiny pennants, oldest first. */
export function PennantString({ tasks, to, size = 16 }: PennantStringProps) {
  const today = useToday();
  return (
    <span className="string">
      {tasks.map((task) => {
        const label = `${sayDay(dayOfIso(task.on), today)}: ${stateWords(task.state, task.late).toLowerCase()}`;
        const glyph = <Pennant state={task.state} late={task.late} size={size} label={label} />;
        return to ? (
          <Link key={task.taskId} to={to(task.taskId)} tabIndex={-1} onClick={(event) => event.stopPropagation()}>
            {glyph}
          </Link>
        ) : (
          <span key={task.taskId}>{glyph}</span>
        );
      })}
    </span>
  );
}
