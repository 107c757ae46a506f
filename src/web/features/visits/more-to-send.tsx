import { MOST_NOTICES_AT_ONCE } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { DateBlock } from '../../kit/date-block.tsx';
import { sayNear } from '../../kit/ways.ts';
import { useVisits } from './api.ts';
import { NoticeSheet } from './notice-sheet.tsx';
import { sayNotice } from './notice-words.ts';

interface MoreToSendProps {
  /** Those that are written already, or are about to be. */
  readonly ids: readonly string[];
  readonly onAdd: (taskId: string) => void;
}

/** Shown of them at the most. */
const SHOWN = 5;

/** The next visits whose notice is still to go, one press from being written with the others. */
export function MoreToSend({ ids, onAdd }: MoreToSendProps) {
  const { today } = useWorkspace();
  const { lines } = useVisits({ toSend: 'yes' });
  const others = lines.flatMap((line) => {
    const { taskId } = line;
    return taskId === null || ids.includes(taskId) || line.standing.state === 'written' ? [] : [{ ...line, taskId }];
  });
  if (others.length === 0 || ids.length >= MOST_NOTICES_AT_ONCE) return null;
  return (
    <li className="grid grid-cols-[104px_minmax(0,1fr)] border-b border-line-2 max-[720px]:grid-cols-[minmax(0,1fr)]">
      <h2 className="py-2 pr-2 pl-5 text-body leading-4.5">
        <span className="block font-head font-[650]">the next</span>
        <span className="block font-sans text-note font-normal text-ink-2">to send</span>
      </h2>
      <ul className="max-[720px]:pl-5">
        {others.slice(0, SHOWN).map((line) => {
          const name = line.asset?.name ?? line.client.name;
          return (
            <li
              key={line.taskId}
              className="flex items-center gap-x-3 border-b border-line py-1 pr-4 text-row leading-5 last:border-b-0"
            >
              <NoticeSheet state={line.standing.state} isWritten={line.notice?.way != null} />
              <span className="w-[104px] flex-none">
                <DateBlock day={dayOfIso(line.on)} />
              </span>
              <span className="min-w-0 flex-1 truncate">
                <b className="font-semibold">{name}</b>{' '}
                <span className="text-ink-2">{line.asset && line.client.name}</span>
              </span>
              <span className="w-[140px] flex-none truncate text-note max-[720px]:hidden">
                {sayNotice(line, today)}
              </span>
              <span className="w-[104px] flex-none text-note text-ink-2 max-[720px]:hidden">
                {line.standing.sendBy && `by ${sayNear(dayOfIso(line.standing.sendBy), today)}`}
              </span>
              <button
                type="button"
                className="link-line text-note"
                aria-label={`Add ${name}`}
                onClick={() => onAdd(line.taskId)}
              >
                Add
              </button>
            </li>
          );
        })}
      </ul>
    </li>
  );
}
