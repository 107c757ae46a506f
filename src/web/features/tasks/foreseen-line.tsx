import { Link } from 'react-router';
import type { ProjectedLine } from '../../../contract/index.ts';
import { dayOfIso, sayDuration } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { sayDay } from '../../kit/ways.ts';
import { sayFor } from './task-words.ts';

/** What a schedule foresees and is not made yet, as a line of a sheet: it opens its schedule. */
export function ForeseenLine({ line, hasDay }: { readonly line: ProjectedLine; readonly hasDay: boolean }) {
  const today = useToday();
  return (
    <li className="flex min-h-9 items-center gap-x-2 border-b border-line px-5 hover:bg-base-200">
      <Pennant state="bare" size={16} />
      <span className="min-w-0 flex-1 truncate">
        <Link className="hover:underline" to={`/schedules/${line.scheduleId}`}>
          {line.title}
        </Link>
        <span className="ml-2 text-ink-2">{sayFor(line)}</span>
      </span>
      {hasDay && <span className="text-note whitespace-nowrap text-ink-2">{sayDay(dayOfIso(line.dueOn), today)}</span>}
      <span className="w-14 flex-none text-right">{sayDuration(line.estimateMinutes)}</span>
    </li>
  );
}
