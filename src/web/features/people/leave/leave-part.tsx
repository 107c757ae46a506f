import { useState } from 'react';
import { z } from 'zod';
import type { Leave, LeaveImpact, LeaveInput } from '../../../../contract/index.ts';
import { leaveCoverSchema, leaveInputSchema } from '../../../../contract/index.ts';
import { callNames, dayOfIso, isoOfDay, plural } from '../../../../core/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { ProblemError } from '../../../kit/api.ts';
import { ChoiceBlank, DateBlank, NameBlank } from '../../../kit/blanks.tsx';
import { useDraft } from '../../../kit/draft.ts';
import { SECTION, SectionTitle } from '../../../kit/side-sheet.tsx';
import { useLeaveActions, useLeaveOf } from './api.ts';
import { LeaveImpactDialog } from './leave-impact-dialog.tsx';
import { LeaveMonths } from './leave-months.tsx';
import { sayAway, sayCount, sayLeaveCover, sayLeaveDays, sayLeaveSpan } from './leave-words.ts';

interface LeavePartProps {
  readonly personId: string;
  readonly name: string;
  /** The edges of the part, where it does not stand in a sheet. */
  readonly className?: string;
}

/** Nothing is chosen yet where `days` is null. */
const draftSchema = z.object({
  days: z.object({ from: z.string(), to: z.string() }).nullable(),
  half: z.enum(['morning', 'afternoon']).nullable(),
  note: z.string(),
  cover: leaveCoverSchema.nullable(),
});
type Draft = z.infer<typeof draftSchema>;
const NOTHING: Draft = { days: null, half: null, note: '', cover: null };

/** When somebody is away: what was and is to come, and more of it, entered or asked for. */
export function LeavePart({ personId, name, className = SECTION }: LeavePartProps) {
  const { may, me, today } = useWorkspace();
  const { data, error } = useLeaveOf(personId);
  const isMine = me.id === personId;
  const mayEnter = may('leave') || (isMine && me.access !== 'viewer');
  const { draft, change, forget } = useDraft(`leave.${personId}`, NOTHING, draftSchema);
  const leave = data?.leave ?? [];
  const chosen = draft.days && { from: dayOfIso(draft.days.from), to: dayOfIso(draft.days.to) };
  const year = isoOfDay(today).slice(0, 4);
  const taken = leave
    .filter(({ state, from, to }) => state === 'given' && from.startsWith(year) && dayOfIso(to) < today)
    .reduce((sum, { days }) => sum + days, 0);
  return (
    <section className={className} aria-label="Away">
      <SectionTitle aside={taken > 0 ? `${sayCount(taken)} taken in ${year}` : ''}>Away</SectionTitle>
      <LeaveMonths
        leave={leave}
        chosen={chosen}
        onChoose={
          mayEnter
            ? (from, to) =>
                change({
                  ...draft,
                  days: { from: isoOfDay(from), to: isoOfDay(to) },
                  half: from === to ? draft.half : null,
                })
            : null
        }
      />
      <LeaveLines leave={leave} name={name} />
      {/* Below what there is already: nothing moves from under a finger once that has come. */}
      {mayEnter &&
        (data || error) &&
        (draft.days ? (
          <LeaveForm
            {...{ personId, name }}
            isAsking={!may('leave')}
            draft={{ ...draft, days: draft.days }}
            onChange={change}
            onDone={forget}
          />
        ) : (
          <p className="mt-1.5 text-note leading-4.5 text-ink-2">
            Drag over days to choose them, or{' '}
            <button
              type="button"
              className="link-line text-ink"
              onClick={() => change({ ...draft, days: { from: isoOfDay(today + 1), to: isoOfDay(today + 1) } })}
            >
              write when
            </button>
          </p>
        ))}
    </section>
  );
}

const STATE_WORDS = { asked: 'asked for', given: '', refused: 'refused' } as const;

/** What is asked for, refused, or still to come, each to be taken back by who may. */
function LeaveLines({ leave, name }: { readonly leave: readonly Leave[]; readonly name: string }) {
  const { people, today } = useWorkspace();
  const { takeBack } = useLeaveActions();
  const called = callNames(people);
  const nameOf = (id: string) => called.get(id) ?? 'somebody';
  const shown = leave.filter(
    ({ to, state }) => dayOfIso(to) >= today || (state === 'refused' && dayOfIso(to) >= today - 30),
  );
  return (
    <ul className="mt-1.5 text-row leading-6">
      {shown.map((one) => (
        <li key={one.id} className="flex items-baseline gap-2 border-b border-line last:border-b-0">
          <span className={one.state === 'refused' ? 'text-ink-2 line-through' : ''}>{sayLeaveDays(one, today)}</span>
          <span className="min-w-0 flex-1 truncate text-note text-ink-2" title={one.note}>
            {[
              one.half === null ? sayCount(one.days) : '',
              STATE_WORDS[one.state],
              sayLeaveCover(one.cover, nameOf),
              one.note,
            ]
              .filter(Boolean)
              .join(', ')}
          </span>
          {one.mayTakeBack && (
            <button
              type="button"
              className="link-line text-note"
              aria-label={`Take back: ${sayLeaveDays(one, today)}`}
              onClick={() => void takeBack(one, name).catch(sayTrouble)}
            >
              Take back
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

interface LeaveFormProps extends Omit<LeavePartProps, 'className'> {
  readonly isAsking: boolean;
  readonly draft: Draft & { readonly days: { readonly from: string; readonly to: string } };
  readonly onChange: (draft: Draft) => void;
  readonly onDone: () => void;
}

function LeaveForm({ personId, name, isAsking, draft, onChange, onDone }: LeaveFormProps) {
  const today = useToday();
  const { enter, impactOfEntering } = useLeaveActions();
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const [impact, setImpact] = useState<LeaveImpact | null>(null);
  const { days, half, note, cover } = draft;
  const input: LeaveInput = { from: days.from, to: days.to, half, note, cover: isAsking ? null : cover };
  const checked = leaveInputSchema.safeParse(input);
  const wrong = refusal ?? checked.error?.issues[0]?.message ?? null;
  const setDays = (next: Partial<LeaveFormProps['draft']['days']>) => {
    setRefusal(null);
    const both = { ...days, ...next };
    onChange({ ...draft, days: both, half: both.from === both.to ? half : null });
  };
  const run = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      if (error instanceof ProblemError) {
        // What is wrong is said beside what is to be put right.
        setImpact(null);
        setRefusal(error.message);
      } else sayTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  const save = () =>
    run(async () => {
      await enter(personId, name, input);
      setImpact(null);
      onDone();
    });
  return (
    <div className="mt-2 text-row leading-7">
      {impact && (
        <LeaveImpactDialog
          title={sayAway(name, input, today)}
          span={sayLeaveSpan(impact)}
          impact={impact}
          cover={{
            of: personId,
            chosen: cover,
            onChoose: (next) =>
              void run(async () => {
                onChange({ ...draft, cover: next });
                setImpact(await impactOfEntering(personId, { ...input, cover: next }));
              }),
          }}
          words="Enter the leave"
          busy={busy}
          onSave={() => void save()}
          onClose={() => setImpact(null)}
        />
      )}
      from{' '}
      <DateBlank
        label="Away from"
        value={dayOfIso(days.from)}
        when="left"
        onChange={(day) => setDays({ from: isoOfDay(day), ...(day > dayOfIso(days.to) ? { to: isoOfDay(day) } : {}) })}
      />{' '}
      to{' '}
      <DateBlank
        label="Away to"
        value={dayOfIso(days.to)}
        when="left"
        onChange={(day) => setDays({ to: isoOfDay(day) })}
      />
      ,{' '}
      {days.from === days.to ? (
        <ChoiceBlank
          label="The whole day or half of it"
          value={half ?? 'whole'}
          options={[
            ['whole', 'the whole day'],
            ['morning', 'the morning'],
            ['afternoon', 'the afternoon'],
          ]}
          onChange={(value) => onChange({ ...draft, half: value === 'whole' ? null : value })}
        />
      ) : (
        'whole days'
      )}
      ;{' '}
      <NameBlank
        label="A note on the leave"
        shown={note}
        placeholder="a note, if you like"
        width={17}
        onChange={(text) => onChange({ ...draft, note: text })}
      />
      {wrong !== null && (
        <p role="alert" className="field-error">
          {wrong}
        </p>
      )}
      <div className="mt-1.5 flex items-center gap-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={busy || !checked.success}
          onClick={() => void (isAsking ? save() : run(async () => setImpact(await impactOfEntering(personId, input))))}
        >
          {isAsking ? 'Ask for it' : 'See impact'}
        </button>
        <button
          type="button"
          className="btn"
          onClick={() => {
            setRefusal(null);
            onDone();
          }}
        >
          Put back
        </button>
        <span className="text-note text-ink-2">
          {plural(Math.max(1, dayOfIso(days.to) - dayOfIso(days.from) + 1), 'calendar day')}
        </span>
      </div>
    </div>
  );
}
