import { useState } from 'react';
import { minutesWith, type SetPart, sayDuration, setParts } from '../../../core/index.ts';
import { EstimateBlank } from '../../kit/blanks.tsx';
import { useTemplate } from '../templates/api.ts';
import type { ItemTemplate } from './item-row.tsx';

interface ItemEstimatesProps {
  readonly label: string;
  readonly template: ItemTemplate;
  /** Those that differ from the template, by the keys of the tasks. */
  readonly estimates: Readonly<Record<string, number>>;
  /** @param ofTemplate what the template says of that task */
  readonly onChange: (key: string, minutes: number, ofTemplate: number) => void;
}

/** How long an item takes: a blank, or of a set the whole, behind which each of its tasks has one. */
export function ItemEstimates({ label, template, estimates, onChange }: ItemEstimatesProps) {
  const [isOpen, setOpen] = useState(false);
  const parts = useParts(template, isOpen);
  if (template.tasks === 1)
    return (
      <EstimateBlank
        label={label}
        minutes={estimates[''] ?? template.estimateMinutes}
        message={undefined}
        onChange={(minutes) => onChange('', minutes, template.estimateMinutes)}
      />
    );
  return (
    <>
      <button
        type="button"
        className="blank h-auto cursor-pointer py-px whitespace-normal"
        aria-expanded={isOpen}
        aria-label={`${label}: how long each task of the set takes`}
        onClick={() => setOpen(!isOpen)}
      >
        <SetMinutes template={template} estimates={estimates} />
      </button>{' '}
      <span className="text-ink-2">a set</span>
      {isOpen && parts && (
        <ul className="my-1 border-l-2 border-line-2 pl-3">
          {parts.map(({ key, titlePattern, estimateMinutes }) => (
            <li key={key}>
              {titlePattern}{' '}
              <EstimateBlank
                label={`Estimate of ${titlePattern}`}
                minutes={estimates[key] ?? estimateMinutes}
                message={undefined}
                onChange={(minutes) => onChange(key, minutes, estimateMinutes)}
              />
              {key in estimates && estimates[key] !== estimateMinutes && (
                <span className="text-note text-ink-2"> the template says {sayDuration(estimateMinutes)}</span>
              )}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** How long an item takes in all; of a set it is known once its tasks are. */
export function SetMinutes({ template, estimates }: Pick<ItemEstimatesProps, 'template' | 'estimates'>) {
  const isOwn = Object.keys(estimates).length > 0;
  const parts = useParts(template, isOwn);
  if (!isOwn) return sayDuration(template.estimateMinutes);
  if (template.tasks === 1) return sayDuration(estimates[''] ?? template.estimateMinutes);
  return parts ? sayDuration(minutesWith(parts, estimates)) : '…';
}

/** The tasks of a set, once they are asked for and known. */
function useParts({ id, tasks }: ItemTemplate, isAsked: boolean): readonly SetPart[] | null {
  const { data } = useTemplate(isAsked && tasks > 1 ? id : null);
  return data ? setParts(data) : null;
}
