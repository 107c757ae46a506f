import type { QuotaLook } from '../../../contract/index.ts';
import { type Pool, type PoolCondition, plural, sayCondition } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, Part } from '../../kit/blanks.tsx';
import { usePlans } from '../plans/api.ts';
import { ConditionBlanks, newCondition } from './condition-blanks.tsx';

interface PoolPartProps {
  readonly pool: Pool;
  readonly funnel: QuotaLook['funnel'] | undefined;
  readonly onChange: (pool: Pool) => void;
}

const STEPS = {
  notNever: 'not on do not call',
  withNumber: 'with a number that works',
  free: 'rested, and on no list of the day',
} as const;
const LINE = 'grid grid-cols-[minmax(0,1fr)_64px_44px] items-start gap-x-2';

/** From whom a quota takes, condition by condition, with how many each leaves. */
export function PoolPart({ pool: { conditions }, funnel, onChange }: PoolPartProps) {
  const { people, staff, clientFields } = useWorkspace();
  const { data, error } = usePlans();
  const plans = data?.plans.filter(({ isArchived }) => !isArchived) ?? [];
  const names = {
    plans: new Map(plans.map(({ id, name }) => [id, name])),
    people: new Map(people.map(({ id, name }) => [id, name])),
    fields: clientFields,
  };
  const put = (next: readonly PoolCondition[]) => onChange({ v: 1, conditions: next });
  return (
    <Part name="From whom">
      <ul>
        {conditions.map((condition, i) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: sentences in their order, each written in its place
            key={`${condition.kind} ${i}`}
            className={LINE}
          >
            <span>
              <ConditionBlanks condition={condition} plans={plans} onChange={(next) => put(conditions.with(i, next))} />{' '}
              <button
                type="button"
                className="link-line text-note text-ink-2"
                aria-label={`Take out: ${sayCondition(condition, names)}`}
                onClick={() => put(conditions.filter((one) => one !== condition))}
              >
                out
              </button>
            </span>
            <Share part={funnel?.after[i]} all={funnel?.all} />
          </li>
        ))}
        {(['notNever', 'withNumber', 'free'] as const).map((step) => (
          <li key={step} className={`${LINE} text-ink-2`}>
            <span>{STEPS[step]}</span>
            <Share part={funnel?.[step]} all={funnel?.all} isLast={step === 'free'} />
          </li>
        ))}
      </ul>
      <ChoiceBlank
        label="Add a condition"
        value=""
        options={[
          ['', 'add a condition'],
          ...(plans.length > 0 ? [['plans', 'on a service plan'] as const] : []),
          ['usualPeople', 'looked after by'],
          ['notRungFor', 'not rung for'],
          ['neverRung', 'never rung'],
          ...clientFields.map(({ key, name }) => [`field ${key}`, name] as const),
        ]}
        onChange={(chosen) => {
          const condition = newCondition(chosen, { plans, staff, clientFields });
          if (condition) put([...conditions, condition]);
        }}
      />
      {error && !data && <span className="text-late"> {error.message}</span>}
    </Part>
  );
}

function Share({
  part,
  all,
  isLast = false,
}: {
  readonly part: number | undefined;
  readonly all: number | undefined;
  readonly isLast?: boolean;
}) {
  if (part === undefined || !all) return null;
  return (
    <>
      <span aria-hidden className="mt-3 block h-2 bg-line">
        <span
          className={`block h-full ${isLast ? 'bg-ink' : 'bg-petrol-2'}`}
          style={{ width: `${(100 * part) / all}%` }}
        />
      </span>
      <span
        className={`text-right font-mono ${isLast ? 'font-semibold text-ink' : ''}`}
        title={`${part} of ${plural(all, 'contact')}`}
      >
        {part}
      </span>
    </>
  );
}
