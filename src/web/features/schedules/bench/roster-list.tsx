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
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { GripVertical, X } from 'lucide-react';
import { memo } from 'react';

export interface RosterPlace {
  readonly personId: string;
  readonly name: string;
  readonly initial: string;
  /** When it is their turn next, in words. */
  readonly next: string;
  /** Why they can't have it any more; null where they can. */
  readonly trouble: string | null;
}

interface RosterListProps {
  readonly places: readonly RosterPlace[];
  /** Whose dates stand out on the year; null for nobody's. */
  readonly chosenId: string | null;
  readonly onChoose: (personId: string | null) => void;
  readonly onMove: (from: number, to: number) => void;
  readonly onDrop: (index: number) => void;
}

/** People in the order of their turns, put in another by dragging: by mouse, or with Space and the arrow keys. */
export const RosterList = memo(function RosterList({ places, chosenId, onChoose, onMove, onDrop }: RosterListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  // Somebody may stand in it twice: a place is told by its number and whoever has it.
  const keys = places.map(({ personId }, index) => `${index} ${personId}`);
  const nameOf = (key: unknown) => places[keys.indexOf(String(key))]?.name ?? 'this place';
  const numberOf = (key: unknown) => `place ${keys.indexOf(String(key)) + 1} of ${places.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `Holding ${nameOf(active.id)}, ${numberOf(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${nameOf(active.id)} is over ${numberOf(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) => (over ? `${nameOf(active.id)} was put at ${numberOf(over.id)}.` : undefined),
    onDragCancel: ({ active }) => `${nameOf(active.id)} stays where they were.`,
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ announcements }}
      onDragEnd={({ active, over }) => {
        const [from, to] = [keys.indexOf(String(active.id)), keys.indexOf(String(over?.id))];
        if (from !== -1 && to !== -1 && from !== to) onMove(from, to);
      }}
    >
      <SortableContext items={keys} strategy={verticalListSortingStrategy}>
        <ol className="mt-1 border-t border-line" aria-label="The order of turns">
          {places.map((place, index) => (
            <PlaceRow
              key={keys[index]}
              id={keys[index] ?? ''}
              place={place}
              number={index + 1}
              isOnly={places.length === 1}
              isChosen={place.personId === chosenId}
              onChoose={() => onChoose(place.personId === chosenId ? null : place.personId)}
              onDrop={() => onDrop(index)}
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
});

interface PlaceRowProps {
  readonly id: string;
  readonly place: RosterPlace;
  readonly number: number;
  readonly isOnly: boolean;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
  readonly onDrop: () => void;
}

function PlaceRow({ id, place, number, isOnly, isChosen, onChoose, onDrop }: PlaceRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  const { name, initial, next, trouble } = place;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined, transition }}
      className={`relative grid h-[30px] grid-cols-[20px_16px_26px_minmax(0,1fr)_auto_22px] items-center border-b border-line bg-base-100 leading-5 ${isDragging ? 'z-10 !bg-chosen' : ''} ${isChosen ? '!bg-chosen shadow-[inset_3px_0_0_var(--color-accent)]' : ''}`}
    >
      <button
        type="button"
        className="flex h-full cursor-grab touch-none items-center justify-center text-ink-2"
        aria-label={`Move ${name}, place ${number}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={14} aria-hidden />
      </button>
      <span className="text-right text-ink-2">{number}</span>
      <span
        aria-hidden
        className={`mx-auto grid size-[18px] place-items-center rounded-full font-head text-[11px] leading-none font-bold ${isChosen ? 'bg-primary text-primary-content' : 'bg-petrol-3'}`}
      >
        {initial}
      </span>
      <button
        type="button"
        className="min-w-0 cursor-pointer truncate text-left hover:underline"
        aria-pressed={isChosen}
        title="Show these turns on the year"
        onClick={onChoose}
      >
        {name}
        {trouble !== null && <b className="ml-2 font-semibold">{trouble}</b>}
      </button>
      <span className="pl-2 text-note text-ink-2">{next}</span>
      <button
        type="button"
        className="cursor-pointer justify-self-end px-1 text-ink-2 hover:text-ink disabled:invisible"
        aria-label={`Take ${name} out of the turns`}
        disabled={isOnly}
        onClick={onDrop}
      >
        <X size={13} aria-hidden />
      </button>
    </li>
  );
}
