import { useEffect } from 'react';
import type { WallRow } from '../../../contract/index.ts';
import { columnOfDay, dayOfIso, type WallDays, yearMonthDay } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { sayDate } from '../../kit/ways.ts';
import { hueOf, symbolOf } from './symbols.tsx';
import { dayAt, monthsOf } from './wall-place.ts';
import { cellsOf } from './wall-row.tsx';
import { LOOK_SHAPES } from './wall-words.ts';

export const PAPERS = ['A4', 'A3'] as const;
export type Paper = (typeof PAPERS)[number];

/** Millimetres of each lying on its side (ISO 216), and of what stands on a page. */
const PAPER_MM: Readonly<Record<Paper, readonly [number, number]>> = { A4: [297, 210], A3: [420, 297] };
const MARGIN_MM = 10;
const NAMES_MM = 52;
/** The title, the months and weeks, the legend, and a little to spare. */
const TITLE_MM = 8;
const AXIS_MM = 10;
const LEGEND_MM = 8;
const ROW_MM = 6.2;
/** Columns are this wide at least, to be read from a step away. */
const LEAST_COLUMN_MM = 4.1;

/** One sheet: rows and columns from one place to another. */
export interface WallSheet {
  readonly rows: readonly [number, number];
  readonly columns: readonly [number, number];
}

/** The sheets that it takes: from left to right, then down. */
export function sheetsOf(paper: Paper, rows: number, columns: number): WallSheet[] {
  const [width, height] = PAPER_MM[paper];
  const down = Math.max(1, Math.floor((height - 2 * MARGIN_MM - TITLE_MM - AXIS_MM - LEGEND_MM) / ROW_MM));
  const most = Math.max(1, Math.floor((width - 2 * MARGIN_MM - NAMES_MM) / LEAST_COLUMN_MM));
  // As many on each, so that the last one is not nearly empty.
  const across = Math.ceil(columns / Math.ceil(columns / most));
  const sheets: WallSheet[] = [];
  for (let row = 0; row < rows; row += down)
    for (let column = 0; column < columns; column += across)
      sheets.push({
        rows: [row, Math.min(rows, row + down)],
        columns: [column, Math.min(columns, column + across)],
      });
  return sheets;
}

interface WallPrintProps {
  readonly title: string;
  /** What of all rows it is; empty where it is all of them. */
  readonly part: string;
  readonly days: WallDays;
  readonly rows: readonly WallRow[];
  readonly paper: Paper;
  readonly onDone: () => void;
}

/** The chart on paper, over as many sheets as it takes; stands there only while it is printed. */
export function WallPrint({ title, part, days, rows, paper, onDone }: WallPrintProps) {
  const { today, workingCalendar, name: workspace } = useWorkspace();
  useEffect(() => {
    window.addEventListener('afterprint', onDone);
    // Once it is drawn.
    const timer = setTimeout(() => window.print(), 50);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('afterprint', onDone);
    };
  }, [onDone]);
  const sheets = sheetsOf(paper, rows.length, days.columns);
  const [width] = PAPER_MM[paper];
  const now = columnOfDay(days, today);
  return (
    <div className="hidden print:block">
      <style>{`@page { size: ${paper} landscape; margin: ${MARGIN_MM}mm; }`}</style>
      {sheets.map(({ rows: [top, bottom], columns: [left, right] }, i) => {
        const wide = (width - 2 * MARGIN_MM - NAMES_MM) / (right - left);
        const x = (column: number) => NAMES_MM + (column - left) * wide;
        const inView = (column: number) => column >= left && column < right;
        return (
          <section key={`${top} ${left}`} className={i > 0 ? 'break-before-page' : ''}>
            <header className="flex items-baseline gap-3 text-[10pt]" style={{ height: `${TITLE_MM}mm` }}>
              <b className="font-head text-[14pt]">{title}</b>
              <span>
                {workspace}, {sayDate(days.first)} to {sayDate(days.last)}
                {part && `, ${part}`}
              </span>
              <span className="ml-auto">
                printed {sayDate(today)}, sheet {i + 1} of {sheets.length}
              </span>
            </header>
            <svg
              width={`${width - 2 * MARGIN_MM}mm`}
              height={`${AXIS_MM + (bottom - top) * ROW_MM}mm`}
              viewBox={`0 0 ${width - 2 * MARGIN_MM} ${AXIS_MM + (bottom - top) * ROW_MM}`}
              fontSize={2.9}
              role="img"
              aria-label={`Sheet ${i + 1}`}
            >
              {days.length === 1 &&
                range(left, right)
                  .filter((column) => !workingCalendar.isWorkingDay(dayAt(days, column)))
                  .map((column) => (
                    <rect
                      key={column}
                      x={x(column)}
                      y={6}
                      width={wide}
                      height={4 + (bottom - top) * ROW_MM}
                      fill="#eee"
                    />
                  ))}
              {inView(now) && (
                <rect
                  x={x(now)}
                  y={0}
                  width={wide}
                  height={AXIS_MM + (bottom - top) * ROW_MM}
                  fill="#f2b632"
                  opacity={0.25}
                />
              )}
              {monthsOf(days)
                // The month in which the part begins stands at its edge.
                .map(({ column, name }, m, all) => ({
                  name,
                  column: column < left && left < (all[m + 1]?.column ?? days.columns) ? left : column,
                }))
                .filter(({ column }) => inView(column))
                .map(({ column, name }) => (
                  <g key={column}>
                    <path d={`M${x(column)} 0V${AXIS_MM + (bottom - top) * ROW_MM}`} stroke="#999" strokeWidth={0.2} />
                    <text x={x(column) + 0.8} y={4} fontWeight={650} fontSize={3.4}>
                      {name}
                    </text>
                  </g>
                ))}
              {range(left, right).map((column) => (
                <text key={column} x={x(column) + wide / 2} y={9} textAnchor="middle" fontSize={2.6}>
                  {yearMonthDay(dayAt(days, column)).day}
                </text>
              ))}
              {range(top, bottom).map((at) => {
                const row = rows[at];
                if (!row) return null;
                const y = AXIS_MM + (at - top) * ROW_MM;
                const hasGroup = at === top || rows[at - 1]?.group !== row.group;
                return (
                  <g key={row.key}>
                    <path d={`M0 ${y}H${width}`} stroke={hasGroup ? '#666' : '#ccc'} strokeWidth={0.15} />
                    <text x={0} y={y + 4.2} fontWeight={650}>
                      {hasGroup ? cut(row.group, 13) : ''}
                    </text>
                    <text x={row.group === '' ? 0 : 21} y={y + 4.2}>
                      {cut([row.name, row.detail].filter(Boolean).join(' '), row.group === '' ? 34 : 20)}
                    </text>
                    {row.rests.map((rest) => {
                      const at = (day: number) => (day - days.first) / days.length;
                      const [begins, ends] = [
                        Math.max(left, at(dayOfIso(rest.from))),
                        Math.min(right, at(dayOfIso(rest.to) + 1)),
                      ];
                      return begins < ends ? (
                        <rect
                          key={rest.from}
                          x={x(begins)}
                          y={y}
                          width={x(ends) - x(begins)}
                          height={ROW_MM}
                          fill="url(#wall-hatch-paper)"
                        />
                      ) : null;
                    })}
                    {cellsOf(row)
                      .filter(({ column }) => inView(column))
                      .map(({ column, looks, count }) => {
                        const [first] = looks;
                        if (!first) return null;
                        const late = looks.find(({ look }) => look === 'late')?.count ?? 0;
                        const size = count === 1 ? 4 : 2.9;
                        return (
                          <g key={column}>
                            <use
                              href={`#${symbolOf(first.look)}`}
                              className={hueOf(first.look)}
                              x={x(column) + wide / 2 - size / 2}
                              y={y + (count === 1 ? 1.1 : 0.4)}
                              width={size}
                              height={size}
                            />
                            {count > 1 && (
                              <text x={x(column) + wide / 2} y={y + 5.7} textAnchor="middle" fontSize={2.4}>
                                {late > 0 && late < count ? `${late}/${count}` : count}
                              </text>
                            )}
                          </g>
                        );
                      })}
                  </g>
                );
              })}
              <path d={`M0 ${AXIS_MM + (bottom - top) * ROW_MM}H${width}`} stroke="#666" strokeWidth={0.15} />
            </svg>
            <p
              className="flex gap-x-3 overflow-hidden text-[8pt] whitespace-nowrap"
              style={{ height: `${LEGEND_MM - 2}mm` }}
            >
              {Object.entries(LOOK_SHAPES).map(([look, { words }]) => (
                <span key={look} className="inline-flex items-center gap-1">
                  <svg width={11} height={11} aria-hidden>
                    <use href={`#wall-${look}`} className={hueOf(look as 'done')} width={11} height={11} />
                  </svg>
                  {words}
                </span>
              ))}
              <span>2/6: 2 of 6 late</span>
              <span>hatched: closed, paused or away</span>
            </p>
          </section>
        );
      })}
    </div>
  );
}

const range = (from: number, to: number) => Array.from({ length: to - from }, (_, i) => from + i);
const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
