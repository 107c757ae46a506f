import { z } from 'zod';
import type { Task } from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { NameBlank } from '../../kit/blanks.tsx';
import { useDraft } from '../../kit/draft.ts';
import { Picker } from '../../kit/picker.tsx';
import { SECTION, SectionTitle } from '../../kit/side-sheet.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { useSwapActions, useSwaps, useTurns } from './api.ts';
import { sayTurn } from './swap-words.ts';

/** Nothing is asked yet where `takes` is null; nothing is chosen yet where it is empty. */
const draftSchema = z.object({ takes: z.string().nullable(), note: z.string() });
const NOTHING: z.infer<typeof draftSchema> = { takes: null, note: '' };

/** One’s own turn, and a swap of it for somebody else’s; nothing of a task that is nobody’s turn, or of one that has begun. */
export function SwapTurn({ task }: { readonly task: Task }) {
  const { me, today } = useWorkspace();
  const isMine = task.assignee?.id === me.id && task.schedule !== null && me.access !== 'viewer';
  const { data } = useTurns(isMine ? task.id : null);
  const { data: known } = useSwaps();
  const { ask } = useSwapActions();
  const { busy, trying } = useTrying();
  const { draft, change, forget } = useDraft(`swap.${task.id}`, NOTHING, draftSchema);
  const mine = isMine ? data?.mine : null;
  if (!mine || !data || data.others.length === 0) return null;
  const waiting = known?.swaps.find(
    ({ state, schedule, gives, takes }) =>
      (state === 'asked' || state === 'agreed') &&
      schedule.id === task.schedule?.id &&
      (gives.first === mine.first || takes.first === mine.first),
  );
  const chosen = data.others.find(({ first }) => first === draft.takes);
  const send = () =>
    trying(async () => {
      if (!chosen) return;
      await ask(task.id, chosen.person.name, chosen.first, draft.note);
      forget();
    });
  return (
    <div className={`${SECTION} text-row leading-7`}>
      <SectionTitle aside={plural(mine.dates, 'date')}>Your turn</SectionTitle>
      {sayTurn(mine, today)}
      {waiting ? (
        <span className="block text-note leading-4.5 text-ink-2">
          {waiting.asker.id === me.id
            ? `${waiting.other.name} is asked to swap it for ${sayTurn(waiting.takes, today)}.`
            : `${waiting.asker.name} asks to swap it for ${sayTurn(waiting.gives, today)}: see your day sheet.`}
        </span>
      ) : draft.takes === null ? (
        <button
          type="button"
          className="link-line ml-3 text-note"
          onClick={() => change({ ...draft, takes: data.others[0]?.first ?? '' })}
        >
          Ask for a swap
        </button>
      ) : (
        <>
          {' '}
          for the turn of{' '}
          <Picker
            label="The turn to take for it"
            chosen={draft.takes}
            options={data.others.map((one) => ({
              key: one.first,
              name: `${one.person.name}, ${sayTurn(one, today)}`,
            }))}
            onChoose={(takes) => change({ ...draft, takes })}
          />{' '}
          <NameBlank
            label="A note on the swap"
            shown={draft.note}
            placeholder="a note, if you like"
            width={17}
            onChange={(note) => change({ ...draft, note })}
          />
          <div className="mt-1.5 flex items-center gap-3">
            <button
              type="button"
              className="btn btn-primary max-[720px]:h-11"
              disabled={busy || !chosen}
              onClick={() => void send()}
            >
              Ask {chosen?.person.name.split(' ')[0] ?? 'for it'}
            </button>
            <button type="button" className="btn max-[720px]:h-11" onClick={forget}>
              Put back
            </button>
          </div>
        </>
      )}
    </div>
  );
}
