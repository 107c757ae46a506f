import { FIELD_WORDS } from '../../contract/index.ts';
import { joinAnd } from '../../core/index.ts';
import { type Meanwhile, meanwhileOf, merged } from './merge.ts';

interface MeanwhileLineProps<T> {
  readonly base: T;
  readonly mine: T;
  readonly now: T;
  readonly onMerge: (merged: T) => void;
  /** What a field is called, where a change of it is told in other words or in none. */
  readonly words?: Readonly<Record<string, string>>;
}

/** Says what somebody else has saved since the writing began, and lets both be kept; nothing is written over unseen. */
export function MeanwhileLine<T extends { readonly version: number }>({
  base,
  mine,
  now,
  onMerge,
  words = FIELD_WORDS,
}: MeanwhileLineProps<T>) {
  const meanwhile = meanwhileOf(base, mine, now);
  if (meanwhile === null) return null;
  const merge = (wish: 'mine' | 'theirs') => onMerge(merged(base, mine, now, wish));
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t-2 border-accent bg-chosen px-5 py-1.5 text-row leading-5"
    >
      <span>
        Somebody else has changed {wordsOf(meanwhile.theirs, words)} since you began.
        {meanwhile.both.length > 0 && ` You have changed ${wordsOf(meanwhile.both, words)} too.`}
      </span>
      {meanwhile.both.length === 0 ? (
        <button type="button" className="btn btn-sm" onClick={() => merge('mine')}>
          Keep both
        </button>
      ) : (
        <>
          <button type="button" className="btn btn-sm" onClick={() => merge('mine')}>
            Keep mine there
          </button>
          <button type="button" className="btn btn-sm" onClick={() => merge('theirs')}>
            Take theirs there
          </button>
        </>
      )}
    </div>
  );
}

function wordsOf<T>(fields: Meanwhile<T>['theirs'], words: Readonly<Record<string, string>>): string {
  return joinAnd([...new Set(fields.map((field) => words[String(field)] ?? String(field)))]) || 'something';
}
