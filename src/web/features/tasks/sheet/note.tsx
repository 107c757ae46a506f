import { problemType, type Task } from '../../../../contract/index.ts';
import { NoteConflict } from '../../../kit/note-conflict.tsx';
import { UnsentMark } from '../../unsent/unsent-mark.tsx';
import { outbox, useUnsent } from '../../unsent/use-unsent.ts';
import { useTaskActions } from '../api.ts';
import { NOTE, type NoteValue, noteField, placeOf } from '../sending.ts';
import { isFixed } from '../task-words.ts';

/** Sent while typing pauses, when the field is left, and by itself after whatever kept it from being sent. */
const NOTE_PAUSE_MS = 1200;

/** Somebody else has written the note meanwhile. */
const CONFLICT = problemType('changed-meanwhile');

/** The note of a task. What is typed is kept in this browser until the server has it. */
export function Note({ task, here }: { readonly task: Task; readonly here: Task }) {
  const { pin } = useTaskActions();
  const field = noteField(task.id);
  const unsent = useUnsent(field);
  const typed = unsent?.value as NoteValue | undefined;
  const put = (note: string, was: string, after: number) =>
    outbox.put(
      NOTE,
      { field, value: { taskId: task.id, note, was }, about: `the note on ${task.title}`, to: placeOf(task) },
      after,
    );
  if (isFixed(here) && !here.mayAddTo)
    return (
      <>
        <p className="mt-1 whitespace-pre-line break-words text-row text-ink-2">{task.note || 'No note.'}</p>
        {unsent && typed && (
          <p className="mt-1.5 whitespace-pre-line break-words border-l-2 border-accent pl-2.5 text-row">
            {typed.note}
            <UnsentMark unsent={unsent} />
          </p>
        )}
      </>
    );
  const isConflict = unsent?.state === 'refused' && unsent.type === CONFLICT && typed !== undefined;
  return (
    <>
      <textarea
        className="mt-1.5 writing"
        style={{ fieldSizing: 'content', minHeight: 44 } as React.CSSProperties}
        aria-label="Note"
        placeholder="What the next one should know"
        maxLength={5000}
        value={typed?.note ?? task.note}
        onChange={({ target }) => put(target.value, typed?.was ?? task.note, NOTE_PAUSE_MS)}
        onBlur={() => void outbox.flush(field)}
      />
      {isConflict ? (
        <NoteConflict
          theirs={task.note}
          mine={typed.note}
          onChoose={(note) => put(note, task.note, 0)}
          onTheirs={() => outbox.discard(field)}
        />
      ) : (
        <UnsentMark unsent={unsent?.said ? unsent : null} onTry={() => typed && put(typed.note, task.note, 0)} />
      )}
      <p className="mt-1 flex min-h-4 items-center gap-4 text-note leading-4 text-ink-2">
        <span aria-live="polite">{unsent ? (unsent.said ? '' : 'being sent') : task.note !== '' ? 'kept' : ''}</span>
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
