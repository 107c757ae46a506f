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
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { GripVertical, X } from 'lucide-react';
import { type ClipboardEvent, type KeyboardEvent, useRef } from 'react';
import type { CheckLine } from '../../contract/index.ts';

interface CheckLinesFieldProps {
  readonly lines: readonly CheckLine[];
  readonly message: string | undefined;
  readonly messageOf: (index: number) => string | undefined;
  readonly onChange: (lines: CheckLine[]) => void;
}

/** Check lines, added and ordered by mouse or keyboard; several lines of text can be pasted at once. */
export function CheckLinesField({ lines, message, messageOf, onChange }: CheckLinesFieldProps) {
  const list = useRef<HTMLOListElement>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const focusLine = (index: number) => {
    requestAnimationFrame(() => list.current?.querySelectorAll<HTMLInputElement>('input')[index]?.focus());
  };
  const insertAfter = (index: number, texts: readonly string[] = ['']) => {
    onChange([
      ...lines.slice(0, index + 1),
      ...texts.map((text) => ({ key: freshKey(), text })),
      ...lines.slice(index + 1),
    ]);
    focusLine(index + texts.length);
  };
  const remove = (index: number) => {
    onChange(lines.filter((_, i) => i !== index));
    focusLine(Math.max(0, index - 1));
  };
  // What a screen reader says on the way, by the lines' texts and places instead of their keys.
  const said = (id: unknown) => lines.find(({ key }) => key === id)?.text || 'the empty line';
  const place = (id: unknown) => `place ${lines.findIndex(({ key }) => key === id) + 1} of ${lines.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Holding “${said(active.id)}”, ${place(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `“${said(active.id)}” is over ${place(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) => (over ? `“${said(active.id)}” was put at ${place(over.id)}.` : undefined),
    onDragCancel: ({ active }) => `“${said(active.id)}” stays where it was.`,
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const from = lines.findIndex(({ key }) => key === active.id);
    const to = lines.findIndex(({ key }) => key === over?.id);
    if (from !== -1 && to !== -1 && from !== to) onChange(arrayMove([...lines], from, to));
  };
  const onKeyDown = (index: number) => (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      insertAfter(index);
    } else if (event.key === 'Backspace' && lines[index]?.text === '') {
      event.preventDefault();
      remove(index);
    } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      const to = index + (event.key === 'ArrowUp' ? -1 : 1);
      if (to < 0 || to >= lines.length) return;
      onChange(arrayMove([...lines], index, to));
      focusLine(to);
    }
  };
  const onPaste = (index: number) => (event: ClipboardEvent<HTMLInputElement>) => {
    const texts = linesOf(event.clipboardData.getData('text/plain'));
    if (texts.length < 2) return;
    event.preventDefault();
    if (lines[index]?.text === '') {
      onChange([
        ...lines.slice(0, index),
        ...texts.map((text) => ({ key: freshKey(), text })),
        ...lines.slice(index + 1),
      ]);
      focusLine(index + texts.length - 1);
    } else insertAfter(index, texts);
  };
  return (
    <>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements }}
        onDragEnd={onDragEnd}
      >
        <SortableContext items={lines.map(({ key }) => key)} strategy={verticalListSortingStrategy}>
          <ol ref={list}>
            {lines.map((line, index) => (
              <Line
                key={line.key}
                line={line}
                number={index + 1}
                message={messageOf(index)}
                onText={(text) => onChange(lines.map((other, i) => (i === index ? { ...other, text } : other)))}
                onKeyDown={onKeyDown(index)}
                onPaste={onPaste(index)}
                onRemove={() => remove(index)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <button type="button" className="link-line leading-6" onClick={() => insertAfter(lines.length - 1)}>
        Add a check line
      </button>
      <span className="ml-4 text-[13px] text-ink-2">Enter adds the next; a pasted list becomes a line each</span>
      <p role="alert" className="field-error">
        {message}
      </p>
    </>
  );
}

interface LineProps {
  readonly line: CheckLine;
  readonly number: number;
  readonly message: string | undefined;
  readonly onText: (text: string) => void;
  readonly onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => void;
  readonly onPaste: (event: ClipboardEvent<HTMLInputElement>) => void;
  readonly onRemove: () => void;
}

function Line({ line, number, message, onText, onKeyDown, onPaste, onRemove }: LineProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: line.key });
  const style = {
    transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined,
    transition,
    zIndex: isDragging ? 5 : undefined,
  };
  return (
    <li
      ref={setNodeRef}
      style={style}
      className={`relative border-b border-line bg-base-100 ${isDragging ? 'bg-chosen' : ''}`}
    >
      <div className="grid grid-cols-[22px_24px_minmax(0,1fr)_28px] items-center">
        <button
          type="button"
          className="cursor-grab text-ink-2"
          aria-label={`Move check line ${number}`}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={14} aria-hidden />
        </button>
        <span className="h-3.5 w-3.5 rounded-[2px] border-[1.5px] border-ink-2" aria-hidden />
        <input
          className="h-8 w-full border-0 bg-transparent text-[14px]"
          aria-label={`Check line ${number}`}
          aria-invalid={message !== undefined}
          value={line.text}
          onChange={({ target }) => onText(target.value)}
          onKeyDown={onKeyDown}
          onPaste={onPaste}
        />
        <button
          type="button"
          className="cursor-pointer text-ink-2 hover:text-ink"
          aria-label={`Take out check line ${number}`}
          onClick={onRemove}
        >
          <X size={14} aria-hidden />
        </button>
      </div>
      {message && (
        <p role="alert" className="field-error pl-[46px]">
          {message}
        </p>
      )}
    </li>
  );
}

/** Lines of pasted text, without the bullets, boxes and numbers that lists are written with. */
function linesOf(text: string): string[] {
  return text
    .split(/\r?\n/)
    .map((line) => line.replace(/^\s*(?:[-*•–☐]|\d{1,3}[.)])\s+/, '').trim())
    .filter((line) => line !== '');
}

function freshKey(): string {
  return `line-${crypto.randomUUID().slice(0, 12)}`;
}
