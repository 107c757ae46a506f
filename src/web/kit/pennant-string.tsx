import { Link } from 'react-router';
import type { PastTask } from '../../contract/index.ts';
import { dayOfIso } from '../../core/index.ts';
import { useToday } from '../app/shell/workspace.tsx';
import { Pennant, stateWords } from './pennant.tsx';
import { sayDay } from './ways.ts';

interface PennantStringProps {
  readonly tasks: readonly PastTask[];
  /** Where a pennant leads; without it the string is only shown. */
  readonly to?: ((taskId: string) => string) | undefined;
  readonly size?: 16 | 20;
}

/** The last of a series as a row of tiny pennants, oldest first. */
export function PennantString({ tasks, to, size = 16 }: PennantStringProps) {
  return (
    <span
      data-string
      className="inline-flex min-h-[17px] min-w-[140px] items-end justify-end border-b border-line-2 px-0.5 align-middle *:mr-px *:-mb-px *:leading-0"
    >
      {tasks.map((task) => (
        <Member key={task.taskId} task={task} to={to} size={size} />
      ))}
    </span>
  );
}

function Member({
  task,
  to,
  size,
}: Pick<PennantStringProps, 'to'> & { readonly task: PastTask; readonly size: 16 | 20 }) {
  const today = useToday();
  const label = `${sayDay(dayOfIso(task.on), today)}: ${stateWords(task.state, task.late, task.heldUp).toLowerCase()}`;
  const glyph = <Pennant state={task.state} late={task.late} heldUp={task.heldUp} size={size} label={label} />;
  if (!to) return <span>{glyph}</span>;
  return (
    <Link to={to(task.taskId)} tabIndex={-1} onClick={(event) => event.stopPropagation()}>
      {glyph}
    </Link>
  );
}
