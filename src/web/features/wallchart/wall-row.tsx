import { memo } from 'react';
import type { WallRow } from '../../../contract/index.ts';
import { cellsOfMarks, dayOfIso, type WallCell } from '../../../core/index.ts';
import { hueOf, symbolOf } from './symbols.tsx';
import { ROW_HEIGHT, type WallPlace } from './wall-place.ts';

const read = new WeakMap<WallRow, readonly WallCell[]>();

/** The cells of a row, read once. */
export function cellsOf(row: WallRow): readonly WallCell[] {
  const known = read.get(row) ?? cellsOfMarks(row.marks);
  read.set(row, known);
  return known;
}

/** The columns of a row that are chosen: "3-5,9-9". */
export type ChosenColumns = string;

interface WallRowProps {
  readonly row: WallRow;
  readonly index: number;
  readonly place: WallPlace;
  /** Whether the name of its group stands with it, and whether it is the last of its group. */
  readonly hasGroup: boolean;
  readonly isLast: boolean;
  /** The columns in view. */
  readonly from: number;
  readonly to: number;
  readonly chosen: ChosenColumns;
  /** Where the cursor stands in it; null where it stands elsewhere. */
  readonly cursor: number | null;
  readonly cursorId: string;
  readonly cursorWords: string;
  /** Whether it is among those to which something is added; null while nothing is. */
  readonly isPicked: boolean | null;
  readonly onPick: (key: string) => void;
}

/** One row: its name, and what stands in its cells as far as they are in view. */
export const WallRowLine = memo(function WallRowLine(props: WallRowProps) {
  const { row, index, place, hasGroup, isLast, from, to, chosen, cursor, cursorId, cursorWords, isPicked, onPick } =
    props;
  const { column: wide, width, label, isNarrow } = place;
  const cells = cellsOf(row).filter(({ column }) => column >= from && column <= to);
  return (
    <div role="row" aria-rowindex={index + 2} className="flex" style={{ height: ROW_HEIGHT, width: label + width }}>
      <div
        role="rowheader"
        aria-colindex={1}
        className={`sticky left-0 z-2 flex flex-none items-stretch border-r border-line-2 bg-base-100 text-row leading-7`}
        style={{ width: label }}
      >
        {!isNarrow && (
          <span
            className={`w-[118px] flex-none truncate pr-2 pl-5 font-head font-[650] text-primary font-stretch-[86%] ${isLast ? 'border-b border-line-2' : ''}`}
            title={row.group}
          >
            {hasGroup ? row.group : ''}
          </span>
        )}
        <span
          className={`flex min-w-0 flex-1 items-center gap-1.5 pr-2 ${isNarrow ? 'pl-3' : row.group === '' ? '-ml-[98px]' : ''} ${isLast ? 'border-b border-line-2' : 'border-b border-line'}`}
          title={[row.name, row.detail].filter(Boolean).join(' ')}
        >
          {isPicked !== null && (
            <input
              type="checkbox"
              className="check"
              aria-label={`Add to ${row.name}`}
              checked={isPicked}
              onChange={() => onPick(row.key)}
            />
          )}
          <span className="truncate">{row.name}</span>
          {row.detail && <span className="truncate text-note text-ink-2">{row.detail}</span>}
        </span>
      </div>
      <div className="relative" style={{ width }}>
        <svg
          width={width}
          height={ROW_HEIGHT}
          className={`absolute inset-0 block overflow-visible border-b ${isLast ? 'border-line-2' : 'border-line'}`}
          aria-hidden
        >
          {row.rests.map((rest) => (
            <Rest key={`${rest.from} ${rest.because}`} rest={rest} place={place} />
          ))}
          {chosenSpans(chosen).map(([first, last]) => (
            <rect
              key={first}
              x={first * wide + 1}
              y={1}
              width={(last - first + 1) * wide - 2}
              height={ROW_HEIGHT - 3}
              rx={2}
              className="fill-chosen stroke-primary"
              strokeWidth={1.5}
            />
          ))}
          {cells.map((cell) => (
            <Mark key={cell.column} cell={cell} wide={wide} />
          ))}
        </svg>
        {cursor !== null && (
          <div
            id={cursorId}
            role="gridcell"
            aria-colindex={cursor + 2}
            aria-selected={chosenSpans(chosen).some(([first, last]) => first <= cursor && cursor <= last)}
            aria-label={cursorWords}
            className="pointer-events-none absolute top-0 rounded-[3px] border-2 border-transparent group-focus/wall:border-accent group-focus/wall:outline-1 group-focus/wall:outline-primary"
            style={{ left: cursor * wide - 1, width: wide + 2, height: ROW_HEIGHT - 1 }}
          />
        )}
      </div>
    </div>
  );
});

function chosenSpans(chosen: ChosenColumns): (readonly [number, number])[] {
  if (chosen === '') return [];
  return chosen.split(',').map((span) => {
    const [first = 0, last = 0] = span.split('-').map(Number);
    return [first, last] as const;
  });
}

const SIZE = 16;
const SMALL = 12;
/** Pixels that a figure of the small ones takes. */
const FIGURE = 5.9;

/** What stands in a cell: one by its shape, several by the shape to look at first and how many there are, with how many are late. */
function Mark({ cell, wide }: { readonly cell: WallCell; readonly wide: number }) {
  const { column, looks, count } = cell;
  const [first] = looks;
  if (!first) return null;
  const middle = column * wide + wide / 2;
  if (count === 1)
    return (
      <use
        href={`#${symbolOf(first.look)}`}
        className={hueOf(first.look)}
        x={middle - SIZE / 2}
        y={(ROW_HEIGHT - SIZE) / 2}
        width={SIZE}
        height={SIZE}
      />
    );
  const late = first.look === 'late' ? first.count : 0;
  // Where there is room for it, how many of how many.
  const words =
    late > 0 && late < count && `${late}/${count}`.length * FIGURE <= wide ? `${late}/${count}` : String(late || count);
  return (
    <>
      <use
        href={`#${symbolOf(first.look)}`}
        className={hueOf(first.look)}
        x={middle - SMALL / 2}
        y={2}
        width={SMALL}
        height={SMALL}
      />
      <text
        x={middle}
        y={25}
        textAnchor="middle"
        className={`font-head text-[13px] font-stretch-[84%] tabular-nums ${late > 0 ? 'fill-late font-[650]' : first.look === 'foreseen' ? 'fill-ink-2' : 'fill-ink font-[650]'}`}
      >
        {words}
      </text>
    </>
  );
}

const REST_WORDS = { away: 'away', resting: 'closed or paused' } as const;
/** Pixels a letter takes, about. */
const LETTER = 6.6;

function Rest({ rest, place }: { readonly rest: WallRow['rests'][number]; readonly place: WallPlace }) {
  const { days, column: wide } = place;
  // By the day, to the day, whatever a column is.
  const at = (day: number) => ((day - days.first) / days.length) * wide;
  const from = Math.max(0, at(dayOfIso(rest.from)));
  const to = at(dayOfIso(rest.to) + 1);
  const words = REST_WORDS[rest.because];
  const room = words.length * LETTER + 10;
  return (
    <g>
      <rect x={from} y={0} width={to - from} height={ROW_HEIGHT - 1} fill="url(#wall-hatch)" />
      {to - from > room + 16 && (
        <>
          <rect x={(from + to - room) / 2} y={6} width={room} height={16} className="fill-base-100" />
          <text x={(from + to) / 2} y={18} textAnchor="middle" className="fill-ink-2 text-note">
            {words}
          </text>
        </>
      )}
    </g>
  );
}
