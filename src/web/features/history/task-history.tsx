import { useState } from 'react';
import { historyAddresses } from '../../../contract/addresses.ts';
import { recordAddresses } from '../../../contract/addresses-later.ts';
import { useAnswer } from '../../kit/answer.ts';
import { addressOf } from '../../kit/api.ts';
import { SECTION } from '../../kit/side-sheet.tsx';
import { Skeleton } from '../../kit/states.tsx';
import { Entries } from './last-changed.tsx';

/** Why a task is here, on this day, and what was done with it since; told when it is asked for. */
export function TaskHistory({ taskId }: { readonly taskId: string }) {
  const [open, setOpen] = useState(false);
  return (
    <details
      className={`${SECTION} ${open ? '' : 'print:hidden'}`}
      onToggle={({ currentTarget }) => setOpen(currentTarget.open)}
    >
      <summary className="flex cursor-pointer items-baseline justify-between max-[720px]:min-h-8 max-[720px]:items-center">
        <h3 className="text-row leading-4.5 text-primary">Why it is here, and its history</h3>
      </summary>
      {open && <Told taskId={taskId} />}
    </details>
  );
}

function Told({ taskId }: { readonly taskId: string }) {
  const { data } = useAnswer(historyAddresses.task, { params: { taskId } });
  if (!data) return <Skeleton rows={2} height={24} />;
  return (
    <>
      <ol className="mt-1 list-decimal pl-5 text-row leading-5">
        {data.why.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ol>
      <div className="mt-2">
        <Entries entries={data.entries} />
        <a
          className="link-line mt-1.5 inline-block text-note print:hidden"
          href={addressOf(recordAddresses.task, { params: { taskId } })}
          target="_blank"
          rel="noreferrer"
        >
          The whole record on paper, as PDF
        </a>
        {data.entries.length === 0 && <p className="text-note text-ink-2">Nobody has done anything with it yet.</p>}
      </div>
    </>
  );
}
