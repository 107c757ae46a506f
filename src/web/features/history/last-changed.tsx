import { useState } from 'react';
import { historyAddresses } from '../../../contract/addresses.ts';
import type { HistoryEntry } from '../../../contract/index.ts';
import { dayOfIso, plural } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { sayDay, timeOf } from '../../kit/ways.ts';
import { useUndo } from './undo.tsx';

const SHOWN = 4;

interface LastChangedProps {
  readonly of: 'template' | 'schedule' | 'person' | 'client' | 'plan' | 'settings';
  /** Of which one; the settings are those of the workspace. */
  readonly id: string;
}

/** The last changes of a template, a schedule, a person, a client, a plan or the settings. */
export function LastChanged({ of, id }: LastChangedProps) {
  const template = useAnswer(historyAddresses.template, of === 'template' ? { params: { templateId: id } } : null);
  const schedule = useAnswer(historyAddresses.schedule, of === 'schedule' ? { params: { scheduleId: id } } : null);
  const person = useAnswer(historyAddresses.person, of === 'person' ? { params: { personId: id } } : null);
  const client = useAnswer(historyAddresses.client, of === 'client' ? { params: { clientId: id } } : null);
  const plan = useAnswer(historyAddresses.plan, of === 'plan' ? { params: { planId: id } } : null);
  const settings = useAnswer(historyAddresses.settings, of === 'settings' ? {} : null);
  const entries = { template, schedule, person, client, plan, settings }[of].data?.entries ?? [];
  const [all, setAll] = useState(false);
  if (entries.length === 0) return null;
  return (
    <section className="mt-4 border-t border-line-2 pt-2.5">
      <h2 className="text-body leading-5.5 text-primary">Last changed</h2>
      <Entries entries={all ? entries : entries.slice(0, SHOWN)} />
      {entries.length > SHOWN && !all && (
        <button type="button" className="link-line mt-1 text-note" onClick={() => setAll(true)}>
          All {entries.length} changes
        </button>
      )}
    </section>
  );
}

/** Who did what, when; newest first. */
export function Entries({ entries }: { readonly entries: readonly HistoryEntry[] }) {
  const today = useToday();
  const { look, busy, dialog } = useUndo();
  return (
    <>
      <dl>
        {entries.map((entry) => (
          <div
            key={entry.id}
            className="grid grid-cols-[124px_minmax(0,1fr)] py-[3px] text-row leading-5.25 max-[720px]:grid-cols-1"
          >
            <dt className="text-note text-ink-2">
              {sayDay(dayOfIso(entry.at.slice(0, 10)), today)}, {timeOf(entry.at)}
            </dt>
            <dd>
              {entry.by ? `${entry.by}: ` : ''}
              {entry.said}
              <UndoLinks entry={entry} disabled={busy} onUndo={(what, changeId) => look({ what, changeId })} />
            </dd>
          </div>
        ))}
      </dl>
      {dialog}
    </>
  );
}

interface UndoLinksProps {
  readonly entry: HistoryEntry;
  readonly disabled: boolean;
  readonly onUndo: (what: string, changeId: string) => void;
}

/** Takes one thing back, or all that was done in one go with it. */
function UndoLinks({ entry: { said, undo }, disabled, onUndo }: UndoLinksProps) {
  if (!undo) return null;
  const { changeId, together } = undo;
  const look = 'link-line ml-3 text-note text-ink-2';
  return (
    <>
      <button
        type="button"
        className={look}
        aria-label={`Undo: ${said}`}
        disabled={disabled}
        onClick={() => onUndo(`Undo: ${said}`, changeId)}
      >
        Undo
      </button>
      {together && (
        <button
          type="button"
          className={look}
          aria-label={`Undo all ${together.count} made together: ${said}`}
          disabled={disabled}
          onClick={() =>
            onUndo(`Undo: ${said}, and ${plural(together.count - 1, 'more change')} made with it`, together.changeId)
          }
        >
          Undo all {together.count} made together
        </button>
      )}
    </>
  );
}
