import { useEffect, useRef, useState } from 'react';
import type { Task } from '../../contract/index.ts';
import { useTaskActions } from './api.ts';

/** Kept while typing pauses, when the field is left, and when the sheet is closed. */
const NOTE_PAUSE_MS = 1200;

function useKeptNote(task: Task) {
  const { note: save } = useTaskActions();
  const [text, setText] = useState(task.note);
  const [state, setState] = useState<'still' | 'changed' | 'kept' | 'refused'>('still');
  const typed = useRef(task.note);
  const saved = useRef(task.note);
  const pause = useRef<ReturnType<typeof setTimeout>>(undefined);

  const keep = async () => {
    clearTimeout(pause.current);
    const [note, was] = [typed.current, saved.current];
    if (note === was) return;
    saved.current = note;
    const done = await save(task.id, note, was);
    if (!done) saved.current = was;
    // What was typed while it was on its way is kept by the next pause.
    if (typed.current === note) setState(done ? 'kept' : 'refused');
  };
  const latest = useRef(keep);
  latest.current = keep;
  useEffect(() => () => void latest.current(), []);
  useEffect(() => {
    // Another's words come in only while none of one's own are waiting.
    if (typed.current !== saved.current || task.note === saved.current) return;
    typed.current = task.note;
    saved.current = task.note;
    setText(task.note);
  }, [task.note]);
  return {
    text,
    state,
    keep: () => void keep(),
    type: (next: string) => {
      typed.current = next;
      setText(next);
      setState('changed');
      clearTimeout(pause.current);
      pause.current = setTimeout(() => void latest.current(), NOTE_PAUSE_MS);
    },
  };
}

export function Note({ task }: { readonly task: Task }) {
  const { pin } = useTaskActions();
  const { text, state, keep, type } = useKeptNote(task);
  if (!task.mayWork) return <p className="mt-1 text-[14px] text-ink-2">{task.note || 'No note.'}</p>;
  return (
    <>
      <textarea
        className="mt-1.5 writing"
        style={{ fieldSizing: 'content', minHeight: 44 } as React.CSSProperties}
        aria-label="Note"
        placeholder="What the next one should know"
        maxLength={5000}
        value={text}
        onChange={({ target }) => type(target.value)}
        onBlur={keep}
      />
      <p className="mt-1 flex min-h-4 items-center gap-4 text-[13px] leading-4 text-ink-2">
        <span aria-live="polite">
          {{ still: '', changed: 'not kept yet', kept: 'kept', refused: 'not kept' }[state]}
        </span>
        {task.note.trim() !== '' && (
          <label className="ml-auto flex items-center gap-1.5 max-[720px]:min-h-11">
            <input
              type="checkbox"
              className="check"
              checked={task.notePinned}
              onChange={({ target }) => void pin(task.id, target.checked)}
            />
            pin it for the later ones
          </label>
        )}
      </p>
    </>
  );
}
