interface NoteConflictProps {
  readonly theirs: string;
  readonly mine: string;
  readonly onChoose: (note: string) => void;
  readonly onTheirs: () => void;
}

/** Two have written the note: both stand, and one click decides. */
export function NoteConflict({ theirs, mine, onChoose, onTheirs }: NoteConflictProps) {
  const deed = 'btn max-[720px]:min-h-11';
  return (
    <div role="alert" className="mt-1.5 border-l-2 border-accent bg-chosen px-2.5 py-1.5 text-row leading-4.75">
      <p>Somebody else has written the note meanwhile:</p>
      <p className="my-1 whitespace-pre-line break-words text-ink-2">{theirs || 'It is empty now.'}</p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className={deed} onClick={() => onChoose(`${theirs}\n${mine}`.trim())}>
          Keep both
        </button>
        <button type="button" className={deed} onClick={() => onChoose(mine)}>
          Only mine
        </button>
        <button type="button" className={deed} onClick={onTheirs}>
          Only theirs
        </button>
      </div>
    </div>
  );
}
