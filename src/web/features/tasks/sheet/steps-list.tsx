import type { Task, TickedLine } from '../../../../contract/index.ts';
import { isOutside } from '../../../../core/index.ts';
import { timeOf } from '../../../kit/ways.ts';
import { outbox, useUnsent } from '../../unsent/use-unsent.ts';
import { placeOf, TICK, type TickValue, tickField } from '../sending.ts';
import { isFixed, missingOf, unreadTagOf } from '../task-words.ts';
import { ProofField } from './proof-field.tsx';

/** The check lines of a task, each with what it asks for. */
export function StepsList({ task, here }: { readonly task: Task; readonly here: Task }) {
  const missing = new Set(missingOf(here).flatMap(({ line, demand }) => (demand === null ? [] : [line])));
  const next = here.steps.find(({ tickedAt }) => tickedAt === null)?.key;
  return (
    <ul className="mt-0.5">
      {here.steps.map((step, index) => (
        <Step
          key={step.key}
          task={task}
          here={here}
          step={step}
          number={task.numbered ? index + 1 : null}
          lacksProof={missing.has(step.key)}
          isNext={step.key === next}
        />
      ))}
    </ul>
  );
}

interface StepProps {
  readonly task: Task;
  /** The same with what is not sent yet. */
  readonly here: Task;
  readonly step: TickedLine;
  readonly number: number | null;
  readonly lacksProof: boolean;
  readonly isNext: boolean;
}

function Step({ task, here, step, number, lacksProof, isNext }: StepProps) {
  const field = tickField(task.id, step.key);
  // As it was pressed, until the server has it: it says so beside the line where that takes longer than a moment.
  const unsent = useUnsent(field);
  const pressed = (unsent?.value as TickValue | undefined)?.ticked ?? null;
  const press = (ticked: boolean) =>
    outbox.put(TICK, {
      field,
      value: { taskId: task.id, key: step.key, ticked },
      about: `the tick at ${step.text}`,
      to: placeOf(task),
    });
  const fixed = isFixed(here) || unreadTagOf(here) !== null;
  const asks = step.demands.length > 0;
  const isOut = step.demands.some((demand) => isOutside(demand, here.answers[demand.key]));
  // A line that asks for something is ticked by its answer; by hand only once that is there.
  const mayTick = !fixed && (!lacksProof || step.tickedAt !== null);
  const isHere = isNext && here.state === 'underWay' && !fixed && asks;
  return (
    <li
      className={`border-b border-line last:border-0 ${isHere ? '-mx-5 bg-chosen px-5 shadow-[inset_3px_0_0_var(--color-accent)] max-[720px]:-mx-4 max-[720px]:px-4' : ''}`}
    >
      <label
        className={`grid min-h-[30px] grid-cols-[24px_1fr_auto] items-center text-row leading-4.5 max-[720px]:min-h-[50px] max-[720px]:grid-cols-[34px_1fr_auto] max-[720px]:text-touch ${step.tickedAt ? 'text-ink-2' : ''} ${mayTick ? 'cursor-pointer' : ''}`}
      >
        <input
          type="checkbox"
          className="check max-[720px]:h-[22px] max-[720px]:w-[22px]"
          checked={pressed ?? step.tickedAt !== null}
          disabled={!mayTick}
          onChange={({ target }) => press(target.checked)}
        />
        <span className={`py-1 ${isOut ? 'font-semibold text-ink' : ''}`}>
          {number !== null && <span className="mr-1.5 font-mono text-note text-ink-2">{number}</span>}
          {step.text}
        </span>
        <span className="pl-3 text-note text-ink-2" title={unsent?.said ?? undefined}>
          {unsent?.said ? <b className="font-semibold text-ink">not sent yet</b> : tickWords(step)}
        </span>
      </label>
      {(step.note !== '' || asks) && (
        <div className="grid gap-2 pb-2.5 pl-6 max-[720px]:pl-[34px]">
          {step.note !== '' && (!fixed || step.tickedAt === null) && (
            <p className="whitespace-pre-line text-note leading-4.25 text-ink-2">{step.note}</p>
          )}
          {step.demands.map((demand) => (
            <ProofField key={demand.key} task={task} here={here} demand={demand} name={step.text} isFixed={fixed} />
          ))}
        </div>
      )}
    </li>
  );
}

function tickWords({ tickedAt }: TickedLine): string {
  return tickedAt === null ? '' : timeOf(tickedAt);
}
