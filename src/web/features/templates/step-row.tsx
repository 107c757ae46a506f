import { useSortable } from '@dnd-kit/sortable';
import { GripVertical, X } from 'lucide-react';
import { type ClipboardEvent, type KeyboardEvent, memo, useState } from 'react';
import { sayDemand, type TaskStep } from '../../../core/index.ts';
import { ChoiceBlank, EstimateBlank, NumberBlank, TimeBlank } from '../../kit/blanks.tsx';
import { Pennant } from '../../kit/pennant.tsx';
import { DemandsField } from './demands-field.tsx';
import { SignOffBlank } from './sign-off-blank.tsx';
import { StepWho } from './step-who.tsx';
import type { StepHandlers } from './steps-field.tsx';
import { freshCheck, linesOf, type StepDraft } from './template-draft.ts';
import { TicketsAsked } from './tickets-asked.tsx';

interface StepRowProps {
  readonly step: StepDraft;
  readonly index: number;
  readonly number: string;
  readonly problems: string;
  readonly handlers: StepHandlers;
}

/** One step: its words, when and by whom where it is a task of its own, and what it asks for. */
export const StepRow = memo(function StepRow({ step, index, number, problems, handlers }: StepRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: step.key });
  const [open, setOpen] = useState(false);
  const isTask = step.kind === 'task';
  const name = `${isTask ? 'Task' : 'Check line'} ${index + 1}`;
  const style = {
    transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined,
    transition,
    zIndex: isDragging ? 5 : undefined,
  };
  return (
    <li
      ref={setNodeRef}
      style={style}
      className={`relative border-b border-line bg-base-100 ${isDragging ? '!bg-chosen' : ''} ${isTask && index > 0 ? 'border-t border-t-line-2' : ''}`}
    >
      <div className="grid grid-cols-[20px_26px_minmax(0,1fr)_auto_26px] items-center">
        <button
          type="button"
          className="cursor-grab text-ink-2"
          aria-label={`Move ${name.toLowerCase()}`}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={14} aria-hidden />
        </button>
        {isTask ? (
          <Pennant state="open" size={20} label="" />
        ) : (
          <span className="h-3.5 w-3.5 rounded-[2px] border-[1.5px] border-ink-2" aria-hidden />
        )}
        <span className="flex items-baseline gap-1.5">
          {number && <span className="font-mono text-note text-ink-2">{number}</span>}
          <input
            data-step
            className={`h-8 w-full border-0 bg-transparent ${isTask ? 'text-body font-semibold' : 'text-row'}`}
            aria-label={name}
            aria-invalid={problems !== ''}
            placeholder={isTask ? 'what this task is called, with tokens if you like' : ''}
            value={isTask ? step.titlePattern : step.text}
            onChange={({ target }) =>
              handlers.change(index, isTask ? { ...step, titlePattern: target.value } : { ...step, text: target.value })
            }
            onKeyDown={onKeyDown(step, index, handlers)}
            onPaste={onPaste(step, index, handlers)}
          />
        </span>
        <button
          type="button"
          className="cursor-pointer truncate rounded-[3px] px-2 text-note leading-6 text-ink-2 hover:bg-base-200"
          aria-expanded={open}
          aria-label={`Note and proof of ${name.toLowerCase()}: ${sayAsked(step)}`}
          onClick={() => setOpen(!open)}
        >
          {sayAsked(step)}
        </button>
        <button
          type="button"
          className="cursor-pointer text-ink-2 hover:text-ink"
          aria-label={`Take out ${name.toLowerCase()}`}
          onClick={() => handlers.remove(index)}
        >
          <X size={14} aria-hidden />
        </button>
      </div>
      {isTask && <WhenAndWho step={step} name={name} onChange={(next) => handlers.change(index, next)} />}
      {open && (
        <div className="grid gap-1 pb-2.5 pl-[46px] text-row">
          <textarea
            className="blank h-auto w-full whitespace-pre-wrap px-2.5 py-1 leading-5"
            style={{ fieldSizing: 'content', minHeight: 30 } as React.CSSProperties}
            aria-label={`Note of ${name.toLowerCase()}`}
            placeholder="a note: how this is done"
            maxLength={2000}
            value={step.note}
            onChange={({ target }) => handlers.change(index, { ...step, note: target.value })}
          />
          <DemandsField
            demands={step.demands}
            label={name.toLowerCase()}
            messageOf={() => undefined}
            startsByTag={isTask}
            onChange={(demands) => handlers.change(index, { ...step, demands })}
          />
          {isTask && (
            <TicketsAsked
              of={name.toLowerCase()}
              tickets={step.tickets ?? []}
              personId={step.assignee.by === 'person' ? step.assignee.personId : null}
              onChange={(tickets) => handlers.change(index, { ...step, tickets })}
            />
          )}
          {isTask && (
            <div>
              <SignOffBlank
                label={`Sign-off of ${name.toLowerCase()}`}
                signOff={step.signOff}
                onChange={(signOff) => handlers.change(index, { ...step, signOff })}
              />
            </div>
          )}
        </div>
      )}
      {problems && (
        <p role="alert" className="field-error pb-1 pl-[46px]">
          {problems}
        </p>
      )}
    </li>
  );
});

/** What a step asks for, in a few words; else the way to ask for something. */
function sayAsked(step: StepDraft): string {
  const asked = step.demands.map(sayDemand);
  if (step.kind === 'task' && step.signOff) asked.push('sign-off');
  if (step.kind === 'task') asked.push(...(step.tickets ?? []));
  if (step.note !== '') asked.push('note');
  const words = asked.join(' · ');
  return words === '' ? 'note, proof' : words.length > 44 ? `${words.slice(0, 42)}…` : words;
}

type TaskStepDraft = Extract<StepDraft, { kind: 'task' }>;

function WhenAndWho({
  step,
  name,
  onChange,
}: {
  readonly step: TaskStepDraft;
  readonly name: string;
  readonly onChange: (step: TaskStepDraft) => void;
}) {
  const { amount, unit } = step.offset;
  const way = amount === 0 ? 'on' : `${unit} ${amount < 0 ? 'before' : 'after'}`;
  return (
    <div className="pb-1.5 pl-[46px] text-row leading-7">
      {amount !== 0 && (
        <>
          <NumberBlank
            label={`${name}: how many days`}
            value={Math.abs(amount)}
            least={1}
            most={366}
            onChange={(days) => onChange({ ...step, offset: { unit, amount: amount < 0 ? -days : days } })}
          />{' '}
        </>
      )}
      <ChoiceBlank
        label={`${name}: when`}
        value={way}
        options={[
          ['on', 'on the day'],
          ['day before', 'days before'],
          ['day after', 'days after'],
          ['workingDay before', 'working days before'],
          ['workingDay after', 'working days after'],
        ]}
        onChange={(next) => onChange({ ...step, offset: offsetOf(next, Math.abs(amount) || 1) })}
      />
      , from{' '}
      <TimeBlank
        label={`${name}: starts at`}
        value={step.startTime}
        placeholder="any time"
        onChange={(startTime) => onChange({ ...step, startTime })}
      />{' '}
      by{' '}
      <TimeBlank
        label={`${name}: due at`}
        value={step.dueTime}
        placeholder="end of day"
        onChange={(dueTime) => onChange({ ...step, dueTime })}
      />
      <br />
      <StepWho
        label={`${name}: who`}
        assignee={step.assignee}
        onChange={(who) => onChange({ ...step, assignee: who })}
      />
      , about{' '}
      <EstimateBlank
        label={`${name}: estimate`}
        minutes={step.estimateMinutes}
        message={undefined}
        onChange={(estimateMinutes) => onChange({ ...step, estimateMinutes })}
      />
    </div>
  );
}

function offsetOf(way: string, days: number): TaskStep['offset'] {
  if (way === 'on') return { amount: 0, unit: 'day' };
  const [unit, side] = way.split(' ');
  return { unit: unit === 'workingDay' ? 'workingDay' : 'day', amount: side === 'before' ? -days : days };
}

function onKeyDown(step: StepDraft, index: number, handlers: StepHandlers) {
  return (event: KeyboardEvent<HTMLInputElement>) => {
    const isEmpty = (step.kind === 'check' ? step.text : step.titlePattern) === '';
    if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      handlers.insertAfter(index, [freshCheck()]);
    } else if (event.key === 'Backspace' && isEmpty) {
      event.preventDefault();
      handlers.remove(index);
    } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      handlers.move(index, index + (event.key === 'ArrowUp' ? -1 : 1));
    }
  };
}

function onPaste(step: StepDraft, index: number, handlers: StepHandlers) {
  return (event: ClipboardEvent<HTMLInputElement>) => {
    const [first, ...rest] = linesOf(event.clipboardData.getData('text/plain'));
    if (first === undefined || rest.length === 0) return;
    event.preventDefault();
    if (step.kind === 'check' && step.text === '') {
      handlers.change(index, { ...step, text: first });
      // The change above is drawn before more is put in behind it.
      requestAnimationFrame(() => handlers.insertAfter(index, rest.map(freshCheck)));
    } else handlers.insertAfter(index, [first, ...rest].map(freshCheck));
  };
}
