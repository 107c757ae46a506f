import { useState } from 'react';
import { type HistoryEntry, historyEndpoints } from '../../contract/index.ts';
import { dayOfIso, sayDay } from '../../core/index.ts';
import { useAnswer } from '../answer.ts';
import { useToday } from '../shell/workspace.tsx';

const SHOWN = 4;

/** The last changes of a template or a schedule. */
export function LastChanged({ of, id }: { readonly of: 'template' | 'schedule'; readonly id: string }) {
  const template = useAnswer(historyEndpoints.template, of === 'template' ? { params: { templateId: id } } : null);
  const schedule = useAnswer(historyEndpoints.schedule, of === 'schedule' ? { params: { scheduleId: id } } : null);
  const entries = (of === 'template' ? template : schedule).data?.entries ?? [];
  const [all, setAll] = useState(false);
  if (entries.length === 0) return null;
  return (
    <section className="mt-4 border-t border-line-2 pt-2.5">
      <h2 className="text-[15px] leading-[22px] text-primary">Last changed</h2>
      <Entries entries={all ? entries : entries.slice(0, SHOWN)} />
      {entries.length > SHOWN && !all && (
        <button type="button" className="link-line mt-1 text-[13px]" onClick={() => setAll(true)}>
          All {entries.length} changes
        </button>
      )}
    </section>
  );
}

/** Who did what, when; newest first. */
export function Entries({ entries }: { readonly entries: readonly HistoryEntry[] }) {
  const today = useToday();
  return (
    <dl>
      {entries.map(({ id, at, by, said }) => (
        <div key={id} className="grid grid-cols-[124px_minmax(0,1fr)] text-[14px] leading-[21px]">
          <dt className="text-[13px] text-ink-2">
            {sayDay(dayOfIso(at.slice(0, 10)), today)}, {at.slice(11)}
          </dt>
          <dd>
            {by ? `${by}: ` : ''}
            {said}
          </dd>
        </div>
      ))}
    </dl>
  );
}
