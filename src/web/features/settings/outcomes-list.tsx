import { MOST_AGAIN_DAYS, MOST_ALONE_DAYS, MOST_OUTCOMES, MOST_TRIES } from '../../../contract/calls.ts';
import { FOLLOWS, type Outcome } from '../../../core/index.ts';
import { ChoiceBlank, NameBlank, NumberBlank } from '../../kit/blanks.tsx';

type Kind = Outcome['follows']['kind'];

const WORDS: Readonly<Record<Kind, string>> = {
  rests: 'rests until the pool takes them again',
  callBack: 'is rung back on a day that is said',
  triedAgain: 'is tried again',
  leftAlone: 'is left alone',
  wrongNumber: 'is not rung at that number any more',
  neverCalled: 'is never rung again',
};
const BEGINS: Readonly<Record<Kind, Outcome['follows']>> = {
  rests: { kind: 'rests' },
  callBack: { kind: 'callBack' },
  triedAgain: { kind: 'triedAgain', workingDays: 3, tries: 4 },
  leftAlone: { kind: 'leftAlone', days: 180 },
  wrongNumber: { kind: 'wrongNumber' },
  neverCalled: { kind: 'neverCalled' },
};

interface OutcomesListProps {
  readonly outcomes: readonly Outcome[];
  readonly onChange: (outcomes: Outcome[]) => void;
}

/** How calls can end, in the order of the keys that say it, and what follows from each. */
export function OutcomesList({ outcomes, onChange }: OutcomesListProps) {
  const change = (place: number, next: Partial<Outcome>) =>
    onChange(outcomes.map((outcome, i) => (i === place ? { ...outcome, ...next } : outcome)));
  const up = (place: number) => {
    const [one, other] = [outcomes[place - 1], outcomes[place]];
    if (one && other) onChange(outcomes.map((outcome, i) => (i === place - 1 ? other : i === place ? one : outcome)));
  };
  return (
    <>
      <ol>
        {outcomes.map((outcome, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: one that is typed stays in its place
          <li key={i} className="border-b border-line py-0.5">
            <span className="flex flex-wrap items-center gap-x-2">
              <kbd className="w-3 font-mono text-note text-ink-2">{i < 9 ? i + 1 : ''}</kbd>
              <NameBlank
                label={`How calls end, ${i + 1}`}
                shown={outcome.name}
                placeholder="its name"
                width={12}
                onChange={(name) => change(i, { name })}
              />
              <ChoiceBlank
                label={`Whether ${outcome.name || 'it'} reached anybody`}
                value={outcome.isReached ? 'reached' : 'not'}
                options={[
                  ['reached', 'spoken to'],
                  ['not', 'not spoken to'],
                ]}
                onChange={(value) => change(i, { isReached: value === 'reached' })}
              />
              <span className="ml-auto flex gap-x-2">
                {i > 0 && (
                  <button
                    type="button"
                    className="link-line text-note"
                    aria-label={`Move ${outcome.name || 'it'} up`}
                    onClick={() => up(i)}
                  >
                    Up
                  </button>
                )}
                <button
                  type="button"
                  className="link-line text-note"
                  aria-label={`Take ${outcome.name || 'it'} out`}
                  onClick={() => onChange(outcomes.filter((_, n) => n !== i))}
                >
                  Take out
                </button>
              </span>
            </span>
            <span className="block pl-5">
              who was rung{' '}
              <ChoiceBlank
                label={`What follows from ${outcome.name || 'it'}`}
                value={outcome.follows.kind}
                options={FOLLOWS.map((kind) => [kind, WORDS[kind]] as const)}
                onChange={(kind) => change(i, { follows: BEGINS[kind] })}
              />
              <Numbers outcome={outcome} onChange={(follows) => change(i, { follows })} />
            </span>
          </li>
        ))}
      </ol>
      {outcomes.length < MOST_OUTCOMES && (
        <button
          type="button"
          className="link-line mt-1"
          onClick={() => onChange([...outcomes, { key: '', name: '', isReached: true, follows: BEGINS.rests }])}
        >
          Add a way to end
        </button>
      )}
    </>
  );
}

interface NumbersProps {
  readonly outcome: Outcome;
  readonly onChange: (follows: Outcome['follows']) => void;
}

/** The days and times of what follows, where it has any. */
function Numbers({ outcome: { name, follows }, onChange }: NumbersProps) {
  const of = name || 'it';
  if (follows.kind === 'triedAgain')
    return (
      <>
        {' '}
        after{' '}
        <NumberBlank
          label={`Working days after ${of}`}
          value={follows.workingDays}
          least={1}
          most={MOST_AGAIN_DAYS}
          onChange={(workingDays) => onChange({ ...follows, workingDays })}
        />{' '}
        working {follows.workingDays === 1 ? 'day' : 'days'},{' '}
        <NumberBlank
          label={`Times in a row of ${of}`}
          value={follows.tries}
          least={2}
          most={MOST_TRIES}
          onChange={(tries) => onChange({ ...follows, tries })}
        />{' '}
        times in a row, then rests
      </>
    );
  if (follows.kind !== 'leftAlone') return null;
  return (
    <>
      {' '}
      <ChoiceBlank
        label={`For how long after ${of}`}
        value={follows.days === null ? 'good' : 'days'}
        options={[
          ['days', 'for'],
          ['good', 'for good'],
        ]}
        onChange={(value) => onChange({ kind: 'leftAlone', days: value === 'good' ? null : 180 })}
      />
      {follows.days !== null && (
        <>
          {' '}
          <NumberBlank
            label={`Days after ${of}`}
            value={follows.days}
            least={1}
            most={MOST_ALONE_DAYS}
            onChange={(days) => onChange({ ...follows, days })}
          />{' '}
          {follows.days === 1 ? 'day' : 'days'}
        </>
      )}
    </>
  );
}
