import { X } from 'lucide-react';
import type { Rule } from '../../../../core/index.ts';
import { ChoiceBlank } from '../../../kit/blanks.tsx';
import { FOREIGN, FREQUENCIES, type Frequency, frequencyOf, ruleOf } from './rule-choices.ts';
import { RuleDetails } from './rule-details.tsx';

interface RuleSentenceProps {
  readonly rule: Rule;
  /** The letter that ties it to its part of the phrase; null when there is only one rule. */
  readonly letter: string | null;
  readonly start: number;
  readonly onChange: (rule: Rule) => void;
  readonly onRemove: (() => void) | null;
}

/** One rule as a sentence with blanks. */
export function RuleSentence({ rule, letter, start, onChange, onRemove }: RuleSentenceProps) {
  const name = letter ? `Rule ${letter}` : 'The rule';
  return (
    <div className="grid grid-cols-[18px_minmax(0,1fr)_auto]">
      <b className="font-head text-row font-semibold text-primary" aria-hidden>
        {letter}
      </b>
      <div>
        <ChoiceBlank<Frequency>
          label={`${name}: how often`}
          value={frequencyOf(rule)}
          options={rule.kind === 'rrule' ? [...FREQUENCIES, FOREIGN] : FREQUENCIES}
          onChange={(frequency) => onChange(ruleOf(frequency, start))}
        />
        <br />
        <RuleDetails rule={rule} name={name} onChange={onChange} />
      </div>
      {onRemove && (
        <button
          type="button"
          className="btn btn-text h-7 min-h-7"
          aria-label={`Remove rule ${letter}`}
          onClick={onRemove}
        >
          <X size={14} aria-hidden />
        </button>
      )}
    </div>
  );
}
