import {
  type Announcements,
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable';
import { GripVertical } from 'lucide-react';
import { TASK_COLUMNS, type TaskColumn } from '../../../contract/index.ts';
import { COLUMNS } from './columns.tsx';

interface ColumnsBarProps {
  readonly columns: readonly TaskColumn[];
  readonly onChange: (columns: readonly TaskColumn[]) => void;
  readonly onFold: () => void;
}

/** Which columns stand in the list, in which order: put in and taken out by their words, moved by mouse or with Space and the arrow keys. */
export default function ColumnsBar({ columns, onChange, onFold }: ColumnsBarProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const placeOf = (id: unknown) => columns.indexOf(id as TaskColumn);
  const said = (id: unknown) => COLUMNS[id as TaskColumn].head;
  const place = (id: unknown) => `place ${placeOf(id) + 1} of ${columns.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Holding ${said(active.id)}, ${place(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${said(active.id)} is over ${place(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) => (over ? `${said(active.id)} was put at ${place(over.id)}.` : undefined),
    onDragCancel: ({ active }) => `${said(active.id)} stays where it was.`,
  };
  const others = TASK_COLUMNS.filter((column) => !columns.includes(column));
  return (
    <section
      aria-label="Columns"
      className="print:hidden flex flex-none flex-wrap items-center gap-x-3.5 border-t border-line px-5 py-1 text-row leading-7"
    >
      <span className="text-note text-ink-2">columns</span>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{ announcements }}
        onDragEnd={({ active, over }) => {
          const [from, to] = [placeOf(active.id), placeOf(over?.id)];
          if (from !== -1 && to !== -1 && from !== to) onChange(arrayMove([...columns], from, to));
        }}
      >
        <SortableContext items={[...columns]} strategy={horizontalListSortingStrategy}>
          {columns.map((column) => (
            <Chosen
              key={column}
              column={column}
              onTakeOut={column === 'task' ? null : () => onChange(columns.filter((other) => other !== column))}
            />
          ))}
        </SortableContext>
      </DndContext>
      {others.length > 0 && <span className="ml-2 text-note text-ink-2">put in</span>}
      {others.map((column) => (
        <button
          key={column}
          type="button"
          className="h-6 min-w-6 cursor-pointer text-ink-2 hover:text-primary"
          aria-label={`Put in ${said(column)}`}
          onClick={() => onChange([...columns, column])}
        >
          {said(column)}
        </button>
      ))}
      <button type="button" className="link-line ml-auto" onClick={onFold}>
        Fold away
      </button>
    </section>
  );
}

/** One that stands in the list; the task itself always does. */
function Chosen({ column, onTakeOut }: { readonly column: TaskColumn; readonly onTakeOut: (() => void) | null }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: column });
  const { head } = COLUMNS[column];
  return (
    <span
      ref={setNodeRef}
      style={{ transform: transform ? `translate3d(${transform.x}px, ${transform.y}px, 0)` : undefined, transition }}
      className={`inline-flex items-center bg-base-100 whitespace-nowrap ${isDragging ? 'z-10 !bg-chosen' : ''}`}
    >
      <button
        type="button"
        className="grid h-6 w-6 cursor-grab touch-none place-items-center self-center text-ink-2"
        aria-label={`Move ${head}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={13} aria-hidden />
      </button>
      {onTakeOut === null ? (
        <b className="font-semibold">{head}</b>
      ) : (
        <button
          type="button"
          className="h-6 min-w-6 cursor-pointer border-b border-line-2 font-semibold leading-6 hover:line-through"
          aria-label={`Take out ${head}`}
          title="Take it out"
          onClick={onTakeOut}
        >
          {head}
        </button>
      )}
    </span>
  );
}
