import { Link } from 'react-router';
import type { ClientWork } from '../../../../contract/index.ts';
import { dayOfIso, sayDuration } from '../../../../core/index.ts';
import { Band } from '../../../kit/band.tsx';
import { DateBlock } from '../../../kit/date-block.tsx';
import { Pennant } from '../../../kit/pennant.tsx';

type Entry = ClientWork['coming'][number];

/** What is next for a client, and what was done. */
export function ClientWorkBands({ work }: { readonly work: ClientWork }) {
  const { coming, comingCount, done, doneCount } = work;
  if (comingCount + doneCount === 0)
    return (
      <p className="px-5 py-6 text-row text-ink-2 max-[720px]:px-4">
        Nothing was done in the last half year, and nothing is coming in the next.
      </p>
    );
  const late = coming.filter(({ late: isLate }) => isLate).length;
  return (
    <>
      {comingCount > 0 && (
        <Band name="coming" count={comingCount} asides={late > 0 ? [`${late} late`] : []}>
          <Entries entries={coming} count={comingCount} />
        </Band>
      )}
      {doneCount > 0 && (
        <Band name="over" count={doneCount} asides={['in half a year']}>
          <Entries entries={done} count={doneCount} />
        </Band>
      )}
    </>
  );
}

function Entries({ entries, count }: { readonly entries: readonly Entry[]; readonly count: number }) {
  return (
    <ul>
      {entries.map((entry, i) => (
        <Line key={entry.taskId ?? `${entry.on} ${entry.title} ${i}`} entry={entry} />
      ))}
      {count > entries.length && (
        <li className="py-1.5 text-note text-ink-2 max-[720px]:px-4">
          and {count - entries.length} more in the year above
        </li>
      )}
    </ul>
  );
}

function Line({ entry: { taskId, title, on, state, late, who, minutes, note, proof } }: { readonly entry: Entry }) {
  return (
    <li className="relative grid min-h-[31px] grid-cols-[20px_132px_minmax(0,1fr)_110px_64px] items-center gap-2 border-b border-line pr-5 text-row last:border-b-0 hover:bg-base-200 max-[720px]:grid-cols-[20px_132px_minmax(0,1fr)] max-[720px]:px-4">
      <Pennant state={taskId === null ? 'bare' : state} late={late} />
      <DateBlock day={dayOfIso(on)} look={late ? 'late' : undefined} />
      <span className="min-w-0 truncate">
        {taskId === null ? (
          <span className="text-ink-2">{title}</span>
        ) : (
          <Link className="font-semibold before:absolute before:inset-0 before:content-['']" to={`task/${taskId}`}>
            {title}
          </Link>
        )}
        {proof && <span className="ml-3 text-ink-2">{proof}</span>}
        {note && <span className="ml-3 text-ink-2">“{note}”</span>}
      </span>
      <span className="truncate max-[720px]:hidden">{who ?? <span className="text-ink-2">nobody yet</span>}</span>
      <span className="text-right text-ink-2 max-[720px]:hidden">{sayDuration(minutes)}</span>
    </li>
  );
}
