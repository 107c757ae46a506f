import { X } from 'lucide-react';
import { dayOfIso, dropRevision, type OwnOfSteps, stretchAt, writePhrase } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { Part } from '../../../kit/blanks.tsx';
import { sayDate } from '../../../kit/ways.ts';
import type { FormPartProps } from './form-part.tsx';
import { sayOwn } from './own-words.ts';

interface StretchesPartProps extends FormPartProps {
  readonly stretch: number;
  readonly onStretch: (stretch: number) => void;
}

/** Which of several rules, one after the other in time, the form shows. */
export function StretchesPart({ draft, stretch, onChange, onStretch }: StretchesPartProps) {
  const { yearStarts } = useWorkspace();
  const froms = [draft.recurrence.start, ...draft.revisions.map(({ from }) => from)];
  return (
    <Part name="Which rule">
      <ul className="leading-6">
        {froms.map((from, index) => (
          <li key={from} className="flex items-baseline gap-2">
            <button
              type="button"
              aria-pressed={index === stretch}
              className={`cursor-pointer text-left ${index === stretch ? 'font-semibold' : 'text-ink-2 hover:text-ink'}`}
              onClick={() => onStretch(index)}
            >
              <span className={index === stretch ? 'border-b-2 border-accent' : ''}>
                from {sayDate(dayOfIso(from))}
              </span>
              : {writePhrase(stretchAt(draft, index).recurrence, { start: 'unsaid', yearStarts })}
              <Own own={stretchAt(draft, index).own} />
            </button>
            {index > 0 && (
              <button
                type="button"
                className="ml-auto min-h-6 min-w-6 cursor-pointer text-center text-ink-2 hover:text-ink"
                aria-label={`Take out the rule from ${sayDate(dayOfIso(from))}`}
                onClick={() => {
                  onStretch(0);
                  onChange(dropRevision(draft, index));
                }}
              >
                <X size={13} aria-hidden className="inline" />
              </button>
            )}
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** What is said there differently from the template. */
function Own({ own }: { readonly own: OwnOfSteps | undefined }) {
  const { people } = useWorkspace();
  if (own === undefined) return null;
  const nameOf = (personId: string | null) => people.find(({ id }) => id === personId)?.name ?? 'nobody yet';
  return <span className="block text-note leading-4 text-ink-2">{sayOwn(own, nameOf)}</span>;
}
