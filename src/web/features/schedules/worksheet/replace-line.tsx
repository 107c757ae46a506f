import { useState } from 'react';
import { type CellPlace, plural, replaceWords } from '../../../../core/index.ts';
import { COLUMNS } from './columns.ts';

interface ReplaceLineProps {
  /** Every cell that is looked through: the chosen ones, or all that are shown. */
  readonly places: () => readonly CellPlace[];
  readonly isChosen: boolean;
  readonly textAt: (place: CellPlace) => string;
  readonly onFind: (place: CellPlace) => void;
  readonly onReplace: (texts: readonly (CellPlace & { readonly text: string })[]) => void;
}

/** Finds words in cells and puts others in their place, in all of them at once. */
export function ReplaceLine({ places, isChosen, textAt, onFind, onReplace }: ReplaceLineProps) {
  const [find, setFind] = useState('');
  const [replacement, setReplacement] = useState('');
  const [column, setColumn] = useState('');
  // Nothing is looked through while there is nothing to find.
  const found = (find === '' ? [] : places()).flatMap((place) => {
    if (column !== '' && place.column !== column) return [];
    const text = replaceWords(textAt(place), find, replacement);
    return text === null ? [] : [{ ...place, text }];
  });
  const changed = found.filter((one) => one.text !== textAt(one));
  const [first] = found;
  return (
    <form
      aria-label="Find and replace"
      className="flex flex-wrap items-center gap-x-2 gap-y-1 border-t border-line px-5 py-1 text-row leading-7.5 text-ink-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (changed.length > 0) onReplace(changed);
      }}
    >
      in{' '}
      <select
        className="filter-word"
        aria-label="Column to look through"
        value={column}
        onChange={({ target }) => setColumn(target.value)}
      >
        <option value="">every column</option>
        {COLUMNS.map(({ name, words }) => (
          <option key={name} value={name}>
            {words}
          </option>
        ))}
      </select>{' '}
      of {isChosen ? 'the chosen cells' : 'what is shown'}, replace
      <input
        className="blank w-[150px]"
        type="search"
        aria-label="Words to find"
        placeholder="these words"
        value={find}
        onChange={({ target }) => setFind(target.value)}
      />
      with
      <input
        className="blank w-[150px]"
        aria-label="Words in their place"
        placeholder="those"
        value={replacement}
        onChange={({ target }) => setReplacement(target.value)}
      />
      {find !== '' && (
        <>
          <span role="status">{found.length === 0 ? 'not found' : `in ${plural(found.length, 'cell')}`}</span>
          {first && (
            <button type="button" className="link-line text-ink" onClick={() => onFind(first)}>
              Show the first
            </button>
          )}
          {changed.length > 0 && (
            <button type="submit" className="btn btn-sm">
              Replace in {plural(changed.length, 'cell')}
            </button>
          )}
        </>
      )}
    </form>
  );
}
