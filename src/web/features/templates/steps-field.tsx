import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { useCallback, useMemo, useRef, useState } from 'react';
import { Dialog } from '../../kit/dialog.tsx';
import { StepRow } from './step-row.tsx';
import { freshCheck, freshTask, linesOf, type StepDraft } from './template-draft.ts';

interface StepsFieldProps {
  readonly steps: readonly StepDraft[];
  readonly numbered: boolean;
  readonly message: string | undefined;
  /** What is wrong below a path into the steps: "3.text". */
  readonly messageOf: (path: string) => string | undefined;
  readonly onChange: (steps: StepDraft[]) => void;
}

/** What a step of the list may ask of the list it stands in. */
export interface StepHandlers {
  change(index: number, step: StepDraft): void;
  insertAfter(index: number, steps: readonly StepDraft[]): void;
  remove(index: number): void;
  move(index: number, to: number): void;
}

/** Steps, added and ordered by mouse or keyboard; several lines of text can be pasted at once. */
export function StepsField({ steps, numbered, message, messageOf, onChange }: StepsFieldProps) {
  const list = useRef<HTMLOListElement>(null);
  const [pasting, setPasting] = useState(false);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const focusStep = useCallback((index: number) => {
    requestAnimationFrame(() => list.current?.querySelectorAll<HTMLInputElement>('input[data-step]')[index]?.focus());
  }, []);
  // The rows keep these for good, so that a keystroke in one of two hundred draws only that one.
  const latest = useRef({ steps, onChange });
  latest.current = { steps, onChange };
  const handlers = useMemo<StepHandlers>(() => {
    const write = (next: readonly StepDraft[]) => latest.current.onChange([...next]);
    return {
      change: (index, step) => write(latest.current.steps.map((other, i) => (i === index ? step : other))),
      insertAfter: (index, added) => {
        const { steps: now } = latest.current;
        write([...now.slice(0, index + 1), ...added, ...now.slice(index + 1)]);
        focusStep(index + added.length);
      },
      remove: (index) => {
        write(latest.current.steps.filter((_, i) => i !== index));
        focusStep(Math.max(0, index - 1));
      },
      move: (index, to) => {
        const { steps: now } = latest.current;
        if (to < 0 || to >= now.length) return;
        write(arrayMove([...now], index, to));
        focusStep(to);
      },
    };
  }, [focusStep]);

  // What a screen reader says on the way, by the steps' words and places instead of their keys.
  const said = (id: unknown) => {
    const step = steps.find(({ key }) => key === id);
    return (step?.kind === 'check' ? step.text : step?.titlePattern) || 'the empty step';
  };
  const place = (id: unknown) => `place ${steps.findIndex(({ key }) => key === id) + 1} of ${steps.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Holding “${said(active.id)}”, ${place(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `“${said(active.id)}” is over ${place(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) => (over ? `“${said(active.id)}” was put at ${place(over.id)}.` : undefined),
    onDragCancel: ({ active }) => `“${said(active.id)}” stays where it was.`,
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const from = steps.findIndex(({ key }) => key === active.id);
    const to = steps.findIndex(({ key }) => key === over?.id);
    if (from !== -1 && to !== -1 && from !== to) onChange(arrayMove([...steps], from, to));
  };
  // The same array for as long as the order is the same: another would draw every row anew.
  const order = steps.map(({ key }) => key).join(' ');
  const keys = useMemo(() => order.split(' ').filter(Boolean), [order]);
  const lead = leadOf(steps);
  return (
    <>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements }}
        onDragEnd={onDragEnd}
      >
        <SortableContext items={keys} strategy={verticalListSortingStrategy}>
          <ol ref={list}>
            {steps.map((step, index) => (
              <StepRow
                key={step.key}
                step={step}
                index={index}
                number={numbered ? (lead[index] ?? '') : ''}
                problems={problemsOf(step, index, messageOf)}
                handlers={handlers}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <div className="flex flex-wrap items-baseline gap-x-5 leading-7">
        <button
          type="button"
          className="link-line leading-6"
          onClick={() => handlers.insertAfter(steps.length - 1, [freshCheck()])}
        >
          Add a check line
        </button>
        <button
          type="button"
          className="link-line leading-6"
          onClick={() => handlers.insertAfter(steps.length - 1, [freshTask()])}
        >
          Add a task of its own
        </button>
        <button type="button" className="link-line leading-6" onClick={() => setPasting(true)}>
          Paste lines of text
        </button>
      </div>
      <p role="alert" className="field-error">
        {message}
      </p>
      {pasting && (
        <PasteLines
          onClose={() => setPasting(false)}
          onLines={(lines) => handlers.insertAfter(steps.length - 1, lines.map(freshCheck))}
        />
      )}
    </>
  );
}

/** Numbers of the check lines, counted anew in each task of the set. */
function leadOf(steps: readonly StepDraft[]): string[] {
  let count = 0;
  return steps.map((step) => {
    count = step.kind === 'task' ? 0 : count + 1;
    return step.kind === 'task' ? '' : String(count);
  });
}

/** As one text, so that a row is drawn anew only when it changes. */
function problemsOf(step: StepDraft, index: number, messageOf: StepsFieldProps['messageOf']): string {
  const own = ['text', 'titlePattern', 'note', 'dueTime', 'estimateMinutes', 'offset.amount', 'assignee', 'signOff'];
  const asked = step.demands.flatMap((_, i) =>
    ['label', 'unit', 'most', 'least', 'options'].map((part) => `demands.${i}.${part}`),
  );
  return [...own, ...asked]
    .map((path) => messageOf(`${index}.${path}`))
    .filter(Boolean)
    .join(' ');
}

function PasteLines({
  onClose,
  onLines,
}: {
  readonly onClose: () => void;
  readonly onLines: (lines: string[]) => void;
}) {
  const [text, setText] = useState('');
  const lines = linesOf(text);
  return (
    <Dialog label="Paste lines of text" className="w-[560px] p-6" onClose={onClose}>
      <h2 className="text-title leading-7">Paste lines of text</h2>
      <p className="mb-2 text-row text-ink-2">Each line becomes a check line; bullets and numbers are left out.</p>
      <textarea
        className="blank h-48 w-full whitespace-pre-wrap px-2.5 py-1.5 leading-5"
        aria-label="Lines of text"
        value={text}
        onChange={({ target }) => setText(target.value)}
      />
      <div className="mt-3 flex gap-3">
        <button
          type="button"
          className="btn btn-primary"
          disabled={lines.length === 0}
          onClick={() => {
            onLines(lines);
            onClose();
          }}
        >
          {lines.length === 1 ? 'Add 1 check line' : `Add ${lines.length} check lines`}
        </button>
        <button type="button" className="btn" onClick={onClose}>
          Not now
        </button>
      </div>
    </Dialog>
  );
}
