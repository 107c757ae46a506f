import { ChevronDown, ChevronUp } from 'lucide-react';
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { type Tideline as TidelineAnswer, taskEndpoints } from '../../contract/index.ts';
import { type CivilDay, dayOfIso, sayDay, sayDuration, weekdayOf } from '../../core/index.ts';
import { useAnswer } from '../answer.ts';
import { useWidth } from '../ui/width.ts';
import { useWorkspace } from './workspace.tsx';

/** A day or a span of days, both ends included. */
export interface DaySpan {
  readonly from: CivilDay;
  readonly to: CivilDay;
}

interface TidelineProps {
  readonly personId: string | undefined;
  readonly chosen: DaySpan | null;
  readonly onChoose: (span: DaySpan) => void;
  /** Whether a drag may choose several days. */
  readonly spans: boolean;
  /** Dates that the page is about, marked by small triangles. */
  readonly marks?: { readonly days: readonly CivilDay[]; readonly label: string } | undefined;
}

const FOLD_KEY = 'jolly-rota.tideline';
const BASE = 52;
const TOP = 12;
const LEFT = 44;
const RIGHT = 28;

/** Work due per day over the past week and the coming six; it drives the page below. */
export function Tideline(props: TidelineProps) {
  const [folded, setFolded] = useState(() => localStorage.getItem(FOLD_KEY) === 'folded');
  const { data } = useAnswer(taskEndpoints.tideline, { query: props.personId ? { person: props.personId } : {} });
  const fold = (next: boolean) => {
    localStorage.setItem(FOLD_KEY, next ? 'folded' : 'open');
    setFolded(next);
  };
  return (
    <section
      className="tideline relative flex flex-none border-b border-line bg-base-200"
      style={{ height: folded ? 24 : 72 }}
      aria-label="Tideline"
    >
      {data && !folded && (
        <>
          <LateFigure
            late={data.late}
            scope={data.scope}
            to={props.personId ? `/day-sheet/${props.personId}` : '/schedules?state=late'}
          />
          <Columns {...props} tide={data} />
        </>
      )}
      {folded && data && (
        <p className="px-5 text-[13px] leading-6 text-ink-2">
          <b className={data.late > 0 ? 'font-semibold text-late' : 'font-semibold text-ink'}>{data.late} late</b>,{' '}
          {data.scope}
        </p>
      )}
      <button
        type="button"
        className="absolute bottom-0 right-1 grid max-[720px]:hidden h-6 w-6 cursor-pointer place-items-center text-ink-2"
        aria-label={folded ? 'Unfold the tideline' : 'Fold the tideline away'}
        aria-expanded={!folded}
        onClick={() => fold(!folded)}
      >
        {folded ? <ChevronDown size={15} aria-hidden /> : <ChevronUp size={15} aria-hidden />}
      </button>
    </section>
  );
}

/** How much is late, and the way to it: a person's day sheet, or the schedules with late work. */
function LateFigure({ late, scope, to }: { readonly late: number; readonly scope: string; readonly to: string }) {
  const colour = late > 0 ? 'text-late' : 'text-ink';
  const figure = (
    <>
      <b className={`mr-[5px] font-head text-[30px] font-bold leading-7 ${colour}`} style={{ fontStretch: '80%' }}>
        {late}
      </b>
      <strong className={`text-[15px] font-semibold ${colour}`}>late</strong>
    </>
  );
  return (
    <div className="w-[152px] flex-none pl-5 pt-[9px] text-[13px] leading-4 max-[720px]:w-[92px] max-[720px]:pl-4">
      {late > 0 ? (
        <Link to={to} aria-label={`${late} late, ${scope}: show what is late`}>
          {figure}
        </Link>
      ) : (
        figure
      )}
      <div className="truncate text-ink-2">
        <span className="max-[720px]:hidden">work due a day,</span>
        <br className="max-[720px]:hidden" />
        {scope}
      </div>
    </div>
  );
}

function Columns({
  tide,
  personId,
  chosen,
  onChoose,
  spans,
  marks,
}: TidelineProps & { readonly tide: TidelineAnswer }) {
  const { today } = useWorkspace();
  const [frame, width] = useWidth<HTMLDivElement>();
  const [dragFrom, setDragFrom] = useState<CivilDay | null>(null);
  const [hover, setHover] = useState<number | null>(null);
  /** Where the arrow keys stand: ahead of the address, which the router draws when it is ready. */
  const cursor = useRef({ pivot: today, edge: today });
  const narrow = width > 0 && width < 500;
  const all = tide.days.map((day) => ({ ...day, day: dayOfIso(day.date) }));
  const days = narrow ? all.filter(({ day }) => day >= today - 3 && day <= today + 7) : all;
  const left = narrow ? 4 : LEFT;
  const columnWidth = (width - left - (narrow ? 8 : RIGHT)) / days.length;
  const first = days[0]?.day ?? today;
  const x = (day: CivilDay) => left + (day - first) * columnWidth;
  const isEmpty = days.every(({ done, open, projected }) => done + open + projected === 0);
  const peak = Math.max(60, ...days.map(({ done, open, projected }) => done + open + projected));
  // One person's day is always seen against what it holds; a whole workspace is only where that leaves columns to see.
  const scale =
    tide.capacityMinutes <= peak * (personId ? 4 : 1.6)
      ? Math.max(peak, tide.capacityMinutes) * 1.06
      : roundHours(peak);
  const y = (minutes: number) => BASE - (minutes / scale) * (BASE - TOP);
  const capacityFits = !isEmpty && tide.capacityMinutes > 0 && tide.capacityMinutes <= scale;

  const dayAt = (event: PointerEvent<Element>): CivilDay => {
    const box = event.currentTarget.getBoundingClientRect();
    const index = Math.floor((event.clientX - box.left - left) / columnWidth);
    return first + Math.max(0, Math.min(days.length - 1, index));
  };
  const choose = (a: CivilDay, b: CivilDay) => onChoose({ from: Math.min(a, b), to: Math.max(a, b) });
  const current = chosen ?? { from: today, to: today };
  const { from: chosenFrom, to: chosenTo } = current;
  useEffect(() => {
    const { pivot, edge } = cursor.current;
    if (Math.min(pivot, edge) === chosenFrom && Math.max(pivot, edge) === chosenTo) return;
    cursor.current = { pivot: chosenFrom, edge: chosenTo };
  }, [chosenFrom, chosenTo]);

  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key];
    const last = days.at(-1)?.day ?? today;
    const to = { Home: first, End: last }[event.key] ?? (step === undefined ? null : cursor.current.edge + step);
    if (to === null) return;
    event.preventDefault();
    const edge = Math.max(first, Math.min(last, to));
    cursor.current = { pivot: spans && event.shiftKey ? cursor.current.pivot : edge, edge };
    choose(cursor.current.pivot, edge);
  };

  const shown = hover === null ? null : days[hover];
  const said = days.filter(({ day }) => day >= current.from && day <= current.to);
  return (
    <div ref={frame} className="relative min-w-0 flex-1">
      {width > 0 && (
        <div
          className="cursor-pointer touch-pan-y"
          role="slider"
          tabIndex={0}
          aria-label="Day shown, by work due"
          aria-valuemin={first}
          aria-valuemax={days.at(-1)?.day}
          aria-valuenow={current.to}
          aria-valuetext={
            said.length > 0 ? `${spanWords(current, today)}: ${dayWords(together(said))}` : spanWords(current, today)
          }
          onKeyDown={onKeyDown}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            setDragFrom(dayAt(event));
          }}
          onPointerMove={(event) => {
            setHover(dayAt(event) - first);
            if (dragFrom !== null && spans) choose(dragFrom, dayAt(event));
          }}
          onPointerLeave={() => setHover(null)}
          onPointerUp={(event) => {
            if (dragFrom !== null) choose(spans ? dragFrom : dayAt(event), dayAt(event));
            setDragFrom(null);
          }}
        >
          <svg width={width} height={71} className="block text-[13px]" aria-hidden="true">
            {days.map(
              ({ day, isOff }) =>
                isOff && (
                  <rect
                    key={day}
                    x={x(day)}
                    width={columnWidth}
                    height={BASE}
                    fill="var(--color-base-300)"
                    opacity={0.62}
                  />
                ),
            )}
            <rect x={x(today)} width={columnWidth} height={BASE + 2} fill="var(--color-accent)" opacity={0.34} />
            {days.map((load) => (
              <Column key={load.day} x={x(load.day)} width={columnWidth} y={y} isPast={load.day < today} {...load} />
            ))}
            <path d={`M${left - 6} ${BASE + 0.5}H${x(first + days.length)}`} stroke="var(--line-2)" />
            {capacityFits && (
              <path
                d={`M${left - 6} ${Math.round(y(tide.capacityMinutes)) + 0.5}H${x(first + days.length)}`}
                stroke="var(--ink-2)"
                strokeDasharray="1 4"
              />
            )}
            {!narrow && (
              <g fill="var(--ink-2)" textAnchor="end">
                <text x={left - 9} y={BASE + 4}>
                  0
                </text>
                <text x={left - 9} y={capacityFits ? y(tide.capacityMinutes) + 5 : TOP + 4}>
                  {capacityFits ? hours(tide.capacityMinutes) : hours(scale)}
                </text>
              </g>
            )}
            {chosen && (
              <rect
                x={x(chosen.from) + 1}
                y={1}
                width={Math.max(2, (chosen.to - chosen.from + 1) * columnWidth - 2)}
                height={BASE}
                fill="none"
                stroke="var(--color-accent)"
                strokeWidth={2}
              />
            )}
            {marks?.days.map(
              (day) =>
                day >= first &&
                day < first + days.length && (
                  <Mark key={day} x={x(day) + columnWidth / 2} y={topOf(days[day - first], y)} />
                ),
            )}
            <HorizonLine
              x={x(dayOfIso(tide.horizon) + 1)}
              isShown={!narrow && !isEmpty && dayOfIso(tide.horizon) < first + days.length - 1}
              mark={marks?.label}
            />
            <DayLabels days={days} x={x} columnWidth={columnWidth} narrow={narrow} today={today} />
          </svg>
        </div>
      )}
      {shown && (
        <p
          className="pointer-events-none absolute top-[74px] z-20 whitespace-nowrap rounded-[3px] bg-ink px-2 py-1 text-[13px] leading-4 text-base-100"
          style={{ left: Math.max(0, Math.min(x(shown.day), width - 260)) }}
        >
          <b>{sayDay(shown.day, today)}</b> {dayWords(shown)}
        </p>
      )}
    </div>
  );
}

interface ColumnProps {
  readonly x: number;
  readonly width: number;
  readonly y: (minutes: number) => number;
  readonly isPast: boolean;
  readonly done: number;
  readonly open: number;
  readonly projected: number;
}

/** The finished part at the foot, what is open above it (vermilion when the day is past), what is not made yet dashed. */
function Column({ x, width, y, isPast, done, open, projected }: ColumnProps) {
  const left = Math.round(x + Math.min(3, width * 0.14));
  const wide = Math.max(3, Math.round(width - Math.min(7, width * 0.3)));
  const made = done + open;
  // A sliver of late work must still be seen.
  const openTop = Math.min(y(made), y(done) - (open > 0 ? 3 : 0));
  return (
    <>
      {open > 0 && (
        <rect
          x={left}
          y={openTop}
          width={wide}
          height={y(done) - openTop}
          fill={isPast ? 'var(--late-fill)' : 'var(--petrol-2)'}
        />
      )}
      {done > 0 && <rect x={left} y={y(done)} width={wide} height={BASE - y(done)} fill="var(--color-primary)" />}
      {projected > 0 && (
        <rect
          x={left + 0.5}
          y={y(made + projected) + 0.5}
          width={wide - 1}
          height={Math.max(2, y(made) - y(made + projected) - 1)}
          fill="none"
          stroke="var(--petrol-2)"
          strokeDasharray="2 2"
        />
      )}
    </>
  );
}

function topOf(
  load: { done: number; open: number; projected: number } | undefined,
  y: (minutes: number) => number,
): number {
  return load ? y(load.done + load.open + load.projected) : BASE;
}

function Mark({ x, y }: { readonly x: number; readonly y: number }) {
  return <path d={`M${x - 5} ${Math.max(1, y - 8.5)}h10l-5 6z`} fill="var(--ink)" />;
}

function HorizonLine({
  x,
  isShown,
  mark,
}: {
  readonly x: number;
  readonly isShown: boolean;
  readonly mark: string | undefined;
}) {
  return (
    <>
      {isShown && (
        <>
          <path d={`M${x + 0.5} 4V${BASE}`} stroke="var(--ink-2)" />
          <text x={x + 5} y={14} fill="var(--ink-2)">
            not made yet
          </text>
        </>
      )}
      {mark && isShown && (
        <>
          <path d={`M${x - 22 - mark.length * 6} 5h10l-5 6z`} fill="var(--ink)" />
          <text x={x - 7} y={14} textAnchor="end" fill="var(--ink)">
            {mark}
          </text>
        </>
      )}
    </>
  );
}

interface DayLabelsProps {
  readonly days: readonly { readonly day: CivilDay }[];
  readonly x: (day: CivilDay) => number;
  readonly columnWidth: number;
  readonly narrow: boolean;
  readonly today: CivilDay;
}

/** Of a day of the month, in pixels, with some room around it. */
const FIGURE_WIDTH = 20;

function DayLabels({ days, x, columnWidth, narrow, today }: DayLabelsProps) {
  const isNearToday = (day: CivilDay) => day !== today && day > today - 4 && day < today + 3;
  return (
    <>
      {days.map(({ day }, i) => {
        // Magnified on a phone, only every other figure, or fewer, has room.
        if (narrow && day !== today && (day - today) % Math.ceil(FIGURE_WIDTH / columnWidth) !== 0) return null;
        if (day === today) {
          return (
            <g key={day}>
              <rect
                x={x(day) + columnWidth / 2 - (narrow ? columnWidth / 2 : 24)}
                y={BASE + 2}
                width={narrow ? columnWidth : 48}
                height={17}
                rx={2}
                fill="var(--color-accent)"
              />
              <text
                x={x(day) + columnWidth / 2}
                y={BASE + 15}
                textAnchor="middle"
                fontWeight={650}
                fill="var(--color-accent-content)"
              >
                {narrow ? sayDay(day, today).split(' ')[1] : 'Today'}
              </text>
            </g>
          );
        }
        if (narrow) {
          return (
            <text key={day} x={x(day) + columnWidth / 2} y={BASE + 15} textAnchor="middle" fill="var(--ink-2)">
              {sayDay(day, today).split(' ')[1]}
            </text>
          );
        }
        if (weekdayOf(day) !== 1 || isNearToday(day) || i > days.length - 4) return null;
        return (
          <text key={day} x={x(day) + 3} y={BASE + 15} fill="var(--ink-2)">
            {sayDay(day, today).replace(/ \d{4}$/, '')}
          </text>
        );
      })}
    </>
  );
}

/** The next round number of hours at or above: 1, 2 or 5 times a power of ten, in half steps. */
function roundHours(minutes: number): number {
  const hour = minutes / 60;
  const step = 10 ** Math.floor(Math.log10(hour)) / 2;
  return Math.ceil(hour / step) * step * 60;
}

function hours(minutes: number): string {
  return `${Math.round(minutes / 6) / 10} h`.replace(/(\d\d)\.\d h/, '$1 h');
}

function dayWords({ done, open, projected, tasks, holiday }: TidelineAnswer['days'][number]): string {
  const parts = [
    holiday,
    done > 0 && `${sayDuration(done)} done`,
    open > 0 && `${sayDuration(open)} to do`,
    projected > 0 && `${sayDuration(projected)} not made yet`,
    tasks > 0 && `${tasks} ${tasks === 1 ? 'task' : 'tasks'}`,
  ].filter(Boolean);
  return parts.length > 0 ? parts.join(', ') : 'nothing due';
}

/** Several days as one: their work added up. */
function together(days: readonly TidelineAnswer['days'][number][]): TidelineAnswer['days'][number] {
  const [first, ...others] = days;
  if (!first) throw new Error('A span holds at least one day.');
  const sum = { ...first };
  for (const day of others) {
    sum.done += day.done;
    sum.open += day.open;
    sum.projected += day.projected;
    sum.tasks += day.tasks;
    sum.holiday ??= day.holiday;
  }
  return sum;
}

function spanWords({ from, to }: DaySpan, today: CivilDay): string {
  return from === to ? sayDay(from, today) : `${sayDay(from, today)} to ${sayDay(to, today)}`;
}
