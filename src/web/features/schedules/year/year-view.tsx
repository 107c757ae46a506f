import { type KeyboardEvent, type PointerEvent, useCallback, useId, useRef, useState } from 'react';
import {
  type Assigner,
  type CivilDay,
  type DatedOccurrence,
  daysInMonth,
  isDated,
  monthIndexOf,
  monthOf,
  monthStart,
  moveDate,
  type PlannedYear,
  plural,
  yearMonthDay,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { sayDay } from '../../../kit/ways.ts';
import { useWidth } from '../../../kit/width.ts';
import type { BenchDraft } from '../bench/bench-draft.ts';
import type { FaceOf } from '../bench/who-faces.ts';
import { DayMenu } from './day-menu.tsx';
import { YearDrawing } from './year-drawing.tsx';
import { HEAD, placeOf, ROW } from './year-place.ts';

interface YearViewProps {
  readonly year: PlannedYear;
  readonly draft: BenchDraft;
  /** Left out for those who may look only. */
  readonly edit: YearEdit | null;
  readonly whose: Assigner;
  /** Who has each date, where the year shows that; null where it shows the dates themselves. */
  readonly faceOf: FaceOf | null;
  readonly chosenId: string | null;
  /** Shows the twelve months before (-1) or after (1). */
  readonly onPage: (step: -1 | 1) => void;
}

export interface YearEdit {
  readonly onChange: (draft: BenchDraft) => void;
  readonly onRevise: (day: CivilDay) => void;
}

/**
 * A year as twelve lines, weekdays lined up, so that weekends are bands and a moved date slides along its own line.
 * A click on a day, or Enter after the arrow keys, opens what can be changed about it; a mark can be dragged to another day.
 */
export function YearView({ year: shownYear, draft, edit, whose, faceOf, chosenId, onPage }: YearViewProps) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const { today } = useWorkspace();
  const [cursor, setCursor] = useState<CivilDay | null>(null);
  const [open, setOpen] = useState<CivilDay | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const close = useCallback(() => setOpen(null), []);

  const place = placeOf(shownYear.from, width, useId());
  const dayAt = (event: PointerEvent<SVGSVGElement>): CivilDay | null => {
    const box = event.currentTarget.getBoundingClientRect();
    return place.dayAt(event.clientX - box.left, event.clientY - box.top);
  };
  /** A day of the drawing in the window. */
  const boxOf = (day: CivilDay) => {
    const { left = 0, top = 0 } = frame.current?.getBoundingClientRect() ?? {};
    return new DOMRect(left + place.x(day) - place.cell / 2, top + place.y(day) - ROW / 2, place.cell, ROW);
  };
  const inYear = (day: CivilDay) => day >= shownYear.from && day <= shownYear.to;
  const shown = shownYear.occurrences;
  const on = (day: CivilDay) => shown.filter((one) => one.on === day || one.nominal === day);
  const dated = shown.filter(isDated);

  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    const page = ({ PageUp: -1, PageDown: 1 } as const)[event.key];
    if (page !== undefined) {
      event.preventDefault();
      setCursor(null);
      onPage(page);
    }
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -28, ArrowDown: 28 }[event.key];
    const here = cursor ?? (inYear(today) ? today : shownYear.from);
    if (step !== undefined) {
      event.preventDefault();
      const next = cursor === null ? here : monthStep(here, step);
      if (inYear(next)) setCursor(next);
    } else if (edit && (event.key === 'Enter' || event.key === ' ')) {
      event.preventDefault();
      setCursor(here);
      setOpen(here);
    }
  };
  const opened = open === null || !edit ? null : open;
  const openedAt = useRef<{ getBoundingClientRect(): DOMRect }>(null);
  openedAt.current = opened === null ? null : { getBoundingClientRect: () => boxOf(opened) };
  return (
    <div
      ref={frame}
      className="relative mt-2.5 rounded-[3px]"
      // Arrow keys move through its days, which no other role tells.
      role="application"
      aria-label={edit ? 'The year: arrow keys choose a day, Enter changes it' : 'The year: arrow keys choose a day'}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: an application of its own, reached by keyboard
      tabIndex={0}
      onKeyDown={onKeyDown}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) setCursor(null);
      }}
    >
      {width > 0 && (
        <svg
          className={`block touch-none text-note ${edit ? (drag ? 'cursor-grabbing' : 'cursor-pointer') : ''}`}
          width={width}
          height={HEAD + ROW * 12 + 1}
          role="img"
          aria-label={`The year in dates: ${plural(dated.length, 'time')} from ${sayDay(shownYear.from, today)} to ${sayDay(shownYear.to, today)}`}
          onPointerDown={(event) => {
            const day = dayAt(event);
            if (!edit || day === null || event.button !== 0) return;
            const mark = dated.find((one) => one.on === day && !one.isAdded && !one.isForeseen);
            if (mark) event.currentTarget.setPointerCapture(event.pointerId);
            setDrag({ nominal: mark?.nominal ?? null, from: day, over: day });
          }}
          onPointerMove={(event) => {
            if (drag === null || drag.nominal === null) return;
            const over = dayAt(event);
            if (over !== null && over !== drag.over) setDrag({ ...drag, over });
          }}
          onPointerUp={() => {
            if (!edit || drag === null) return;
            setDrag(null);
            if (drag.over === drag.from) setOpen(drag.from);
            else if (drag.nominal !== null) edit.onChange(moveDate(draft, drag.nominal, drag.over));
          }}
          onPointerCancel={() => setDrag(null)}
        >
          <YearDrawing
            year={shownYear}
            draft={draft}
            place={place}
            width={width}
            dragged={drag !== null && drag.nominal !== null && drag.over !== drag.from ? drag.over : null}
            ringed={opened ?? cursor}
            faceOf={faceOf}
            chosenId={chosenId}
          />
        </svg>
      )}
      <span className="sr-only" aria-live="polite">
        {cursor !== null && `${sayDay(cursor, today)}: ${sayDue(on(cursor).find(isDated), faceOf)}`}
      </span>
      {opened !== null && edit && (
        <DayMenu
          day={opened}
          occurrences={on(opened)}
          draft={draft}
          whose={whose}
          anchor={openedAt}
          backTo={frame}
          onChange={edit.onChange}
          onRevise={edit.onRevise}
          onClose={close}
        />
      )}
    </div>
  );
}

function sayDue(occurrence: DatedOccurrence | undefined, faceOf: FaceOf | null): string {
  if (!occurrence) return 'nothing due';
  const face = faceOf?.(occurrence);
  return face ? `due, ${face.name}, ${face.why}` : 'due';
}

interface Drag {
  /** The occurrence that is dragged; null for an empty day, which only opens. */
  readonly nominal: CivilDay | null;
  readonly from: CivilDay;
  readonly over: CivilDay;
}

/** A day to the side, or the same date a month up or down. */
function monthStep(day: CivilDay, step: number): CivilDay {
  if (Math.abs(step) === 1) return day + step;
  const index = monthIndexOf(day) + Math.sign(step);
  const { year, month } = monthOf(index);
  return monthStart(index) + Math.min(yearMonthDay(day).day, daysInMonth(year, month)) - 1;
}
