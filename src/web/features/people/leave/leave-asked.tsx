import { useRef, useState } from 'react';
import type { Leave, LeaveImpact } from '../../../../contract/index.ts';
import { dayOfIso, type LeaveCover } from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { Band } from '../../../kit/band.tsx';
import { useTrying } from '../../../kit/use-trying.ts';
import { useLeaveActions } from './api.ts';
import { LeaveImpactDialog } from './leave-impact-dialog.tsx';
import { sayAway, sayCount, sayLeaveDays, sayLeaveSpan } from './leave-words.ts';

interface Looked {
  readonly leave: Leave;
  readonly impact: LeaveImpact;
  readonly cover: LeaveCover | null;
}

/** What is asked for and not decided, soonest first: given after a look at what it does, or refused. */
export function LeaveAsked({ leave }: { readonly leave: readonly Leave[] }) {
  const today = useToday();
  const { people } = useWorkspace();
  const { impactOfGiving, decide } = useLeaveActions();
  const [looked, setLooked] = useState<Looked | null>(null);
  /** Whoever was chosen to take over, kept over a closed dialog. */
  const chosen = useRef(new Map<string, LeaveCover | null>());
  const { busy, trying: run } = useTrying();
  const asked = leave
    .filter(({ state, to }) => state === 'asked' && dayOfIso(to) >= today)
    .sort((a, b) => a.from.localeCompare(b.from));
  const look = async (of: Leave, cover: LeaveCover | null) => {
    chosen.current.set(of.id, cover);
    setLooked({ leave: of, impact: await impactOfGiving(of, cover), cover });
  };
  if (asked.length === 0) return null;
  const nameOf = ({ personId }: Leave) => people.find(({ id }) => id === personId)?.name ?? 'Somebody';
  return (
    <>
      {looked && (
        <LeaveImpactDialog
          title={sayAway(nameOf(looked.leave), looked.leave, today)}
          span={sayLeaveSpan(looked.impact)}
          impact={looked.impact}
          cover={{
            of: looked.leave.personId,
            chosen: looked.cover,
            onChoose: (cover) => void run(() => look(looked.leave, cover)),
          }}
          words="Give the leave"
          busy={busy}
          onSave={() =>
            void run(async () => {
              await decide(looked.leave, nameOf(looked.leave), 'given', looked.cover);
              setLooked(null);
            })
          }
          onClose={() => setLooked(null)}
        />
      )}
      <Band name={asked.length === 1 ? 'asks for leave' : 'ask for leave'} count={asked.length}>
        {asked.map((one) => (
          <div
            key={one.id}
            className="flex min-h-9 items-center gap-4 border-b border-line pr-5 text-row last:border-b-0 max-[720px]:flex-wrap max-[720px]:gap-y-1 max-[720px]:px-4 max-[720px]:py-2"
          >
            <b className="w-[150px] font-semibold">{nameOf(one)}</b>
            <span>
              {sayLeaveDays(one, today)}
              {one.half === null && `, ${sayCount(one.days)}`}
            </span>
            <span className="min-w-0 flex-1 truncate text-ink-2" title={one.note}>
              {one.note}
            </span>
            <button
              type="button"
              className="btn btn-text"
              disabled={busy}
              aria-label={`Refuse the leave of ${nameOf(one)}`}
              onClick={() => void run(() => decide(one, nameOf(one), 'refused'))}
            >
              Refuse
            </button>
            <button
              type="button"
              className="btn"
              disabled={busy}
              aria-label={`See impact of the leave of ${nameOf(one)}`}
              onClick={() => void run(() => look(one, chosen.current.get(one.id) ?? null))}
            >
              See impact
            </button>
          </div>
        ))}
      </Band>
    </>
  );
}
