import { X } from 'lucide-react';
import { DEMAND_WORDS, type Demand, type DemandKind } from '../../../core/index.ts';
import { WordsBlank } from '../../kit/blanks.tsx';
import { freshDemand } from './template-draft.ts';

interface DemandsFieldProps {
  readonly demands: readonly Demand[];
  /** What the proof is for: "Step 3", "the task". */
  readonly label: string;
  readonly messageOf: (index: number) => string | undefined;
  /** Whether a tag may be what starts it. */
  readonly startsByTag?: boolean;
  readonly onChange: (demands: readonly Demand[]) => void;
}

const KINDS = Object.keys(DEMAND_WORDS) as DemandKind[];

/** What has to be there before a step or task can be finished. */
export function DemandsField({ demands, label, messageOf, startsByTag = false, onChange }: DemandsFieldProps) {
  const replace = (index: number, demand: Demand) =>
    onChange(demands.map((other, i) => (i === index ? demand : other)));
  return (
    <div className="leading-7.5">
      {demands.map((demand, index) => (
        <div key={demand.key}>
          <DemandLine
            demand={demand}
            label={`${label}, proof ${index + 1}`}
            startsByTag={startsByTag}
            onChange={(next) => replace(index, next)}
            onRemove={() => onChange(demands.filter((_, i) => i !== index))}
          />
          {messageOf(index) && (
            <p role="alert" className="field-error">
              {messageOf(index)}
            </p>
          )}
        </div>
      ))}
      <select
        className="filter-word"
        aria-label={`Ask for proof: ${label}`}
        value=""
        onChange={({ target }) => onChange([...demands, freshDemand(target.value as DemandKind)])}
      >
        <option value="" disabled>
          {demands.length === 0 ? 'ask for proof' : 'ask for more'}
        </option>
        {KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {DEMAND_WORDS[kind]}
          </option>
        ))}
      </select>
    </div>
  );
}

interface DemandLineProps {
  readonly demand: Demand;
  readonly label: string;
  readonly startsByTag: boolean;
  readonly onChange: (demand: Demand) => void;
  readonly onRemove: () => void;
}

function DemandLine({ demand, label, startsByTag, onChange, onRemove }: DemandLineProps) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-1.5">
      <span>{DEMAND_WORDS[demand.kind]}</span>
      {demand.kind === 'number' && (
        <>
          <LimitBlank
            label={`${label}, least`}
            value={demand.least}
            placeholder="from"
            onChange={(least) => onChange({ ...demand, least })}
          />
          to
          <LimitBlank
            label={`${label}, most`}
            value={demand.most}
            placeholder="no limit"
            onChange={(most) => onChange({ ...demand, most })}
          />
          <input
            className="blank w-16"
            aria-label={`${label}, unit`}
            placeholder="unit"
            maxLength={16}
            value={demand.unit}
            onChange={({ target }) => onChange({ ...demand, unit: target.value })}
          />
        </>
      )}
      {(demand.kind === 'choice' || demand.kind === 'choices') && (
        <WordsBlank
          label={`${label}, to choose from`}
          shown={demand.options.join(', ')}
          placeholder="post, by hand, mail"
          wrong="two or more, with commas between"
          read={(text) => {
            const options = text
              .split(',')
              .map((option) => option.trim())
              .filter(Boolean);
            return options.length > 1 && new Set(options).size === options.length ? options : undefined;
          }}
          onChange={(options) => onChange({ ...demand, options })}
        />
      )}
      {demand.kind === 'tag' && startsByTag && (
        <select
          className="blank"
          aria-label={`${label}, when it is read`}
          value={demand.atStart ? 'start' : 'finish'}
          onChange={({ target }) => {
            const { atStart: _, ...plain } = demand;
            onChange(target.value === 'start' ? { ...plain, atStart: true } : plain);
          }}
        >
          <option value="finish">before it is finished</option>
          <option value="start">to start it</option>
        </select>
      )}
      <span className="text-ink-2">called</span>
      <input
        className="blank w-44"
        aria-label={`${label}, called`}
        placeholder="as the step says"
        maxLength={120}
        value={demand.label}
        onChange={({ target }) => onChange({ ...demand, label: target.value })}
      />
      <button
        type="button"
        className="cursor-pointer self-center p-1 text-ink-2 hover:text-ink"
        aria-label={`Take out ${label}`}
        onClick={onRemove}
      >
        <X size={14} aria-hidden />
      </button>
    </div>
  );
}

/** A limit of a number, or none. */
function LimitBlank({
  label,
  value,
  placeholder,
  onChange,
}: {
  readonly label: string;
  readonly value: number | null;
  readonly placeholder: string;
  readonly onChange: (value: number | null) => void;
}) {
  return (
    <WordsBlank<number | null>
      label={label}
      shown={value === null ? '' : String(value)}
      placeholder={placeholder}
      wrong="a figure, like 0.8"
      read={(text) => {
        const plain = text.trim().replace(',', '.');
        if (plain === '') return null;
        return /^-?\d{1,9}(\.\d{1,6})?$/.test(plain) ? Number(plain) : undefined;
      }}
      onChange={onChange}
    />
  );
}
