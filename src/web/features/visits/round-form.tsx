import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';
import type { TaskDeed, VisitLine } from '../../../contract/index.ts';
import { byPlace, isToSend, plural, roundTimes, sayDuration, tryMinutesOfTime } from '../../../core/index.ts';
import { NumberBlank, TimeBlank } from '../../kit/blanks.tsx';
import { sayTimeSpan } from '../../kit/ways.ts';

interface RoundFormProps {
  /** Visits of one day. */
  readonly visits: readonly (VisitLine & { readonly id: string })[];
  readonly busy: boolean;
  readonly onLook: (deed: TaskDeed) => void;
}

const USUAL_START = '09:00';
const USUAL_WAY = 5;

/** The visits of a day as a round: one after the other by place, each at the time that follows from those before it. */
export function RoundForm({ visits, busy, onLook }: RoundFormProps) {
  const stops = visits.map((visit) => ({ ...visit, place: visit.asset?.place ?? '', minutes: visit.estimateMinutes }));
  const [order, setOrder] = useState(() => byPlace(stops).map(({ id }) => id));
  const earliest = visits.flatMap(({ startTime }) => startTime ?? []).sort()[0];
  const [start, setStart] = useState(earliest ?? USUAL_START);
  const [between, setBetween] = useState(USUAL_WAY);
  // What was chosen since stands at the end, what was left is gone.
  const known = order.filter((id) => stops.some((one) => one.id === id));
  const ids = [...known, ...stops.flatMap(({ id }) => (known.includes(id) ? [] : [id]))];
  const round = ids.flatMap((id) => stops.find((one) => one.id === id) ?? []);
  const times = roundTimes(round, tryMinutesOfTime(start) ?? 0, between);
  const gone = round.filter(({ notice, standing }) => notice?.sentOn != null && !isToSend(standing.state)).length;
  const move = (place: number, by: 1 | -1) => {
    const next = [...ids];
    const [one] = next.splice(place, 1);
    if (one === undefined) return;
    next.splice(place + by, 0, one);
    setOrder(next);
  };
  const comers = new Set(round.map(({ who }) => who)).size;
  const isByPlace = byPlace(round).every(({ id }, i) => id === ids[i]);
  return (
    <form
      className="mt-2 text-row leading-7"
      onSubmit={(event) => {
        event.preventDefault();
        if (times)
          onLook({ kind: 'times', at: times.map(({ id, from, to }) => ({ id, startTime: from, dueTime: to })) });
      }}
    >
      <p>
        The round begins at{' '}
        <TimeBlank
          label="When the round begins"
          value={start}
          placeholder={USUAL_START}
          when="left"
          onChange={(time) => setStart(time ?? USUAL_START)}
        />{' '}
        with{' '}
        <NumberBlank label="Minutes from one to the next" value={between} least={0} most={240} onChange={setBetween} />{' '}
        minutes from one to the next
        {!isByPlace && (
          <>
            ,{' '}
            <button type="button" className="link-line" onClick={() => setOrder(byPlace(stops).map(({ id }) => id))}>
              by place again
            </button>
          </>
        )}
      </p>
      <ol className="max-h-[38vh] max-w-[760px] overflow-y-auto">
        {round.map((stop, i) => {
          const at = times?.[i];
          const name = stop.asset?.name ?? stop.client.name;
          return (
            <li
              key={stop.id}
              className="grid grid-cols-[24px_112px_minmax(0,1fr)_minmax(0,120px)_72px_auto] items-center gap-x-2 border-t border-line leading-8 max-[720px]:grid-cols-[20px_100px_minmax(0,1fr)_auto]"
            >
              <span className="font-head font-semibold text-primary">{i + 1}</span>
              <span className="font-semibold whitespace-nowrap">{at ? sayTimeSpan(at.from, at.to) : ''}</span>
              <span className="truncate">
                <b className="font-semibold">{name}</b> <span className="text-ink-2">{stop.place}</span>
              </span>
              <span className="truncate text-ink-2 max-[720px]:hidden">{stop.who ?? 'nobody yet'}</span>
              <span className="text-ink-2 max-[720px]:hidden">{sayDuration(stop.minutes)}</span>
              <span className="flex">
                <button
                  type="button"
                  className="grid h-8 w-8 cursor-pointer place-items-center disabled:opacity-30"
                  aria-label={`${name} earlier`}
                  disabled={i === 0}
                  onClick={() => move(i, -1)}
                >
                  <ArrowUp size={15} aria-hidden />
                </button>
                <button
                  type="button"
                  className="grid h-8 w-8 cursor-pointer place-items-center disabled:opacity-30"
                  aria-label={`${name} later`}
                  disabled={i === round.length - 1}
                  onClick={() => move(i, 1)}
                >
                  <ArrowDown size={15} aria-hidden />
                </button>
              </span>
            </li>
          );
        })}
      </ol>
      <p className="mt-1 flex flex-wrap items-center gap-x-4">
        {times === null && (
          <span role="alert" className="field-error">
            It does not end on that day: begin earlier, or leave some out.
          </span>
        )}
        {comers > 1 && (
          <span className="text-note text-ink-2">
            {comers} different people come: choose those of one for a round of one’s own.
          </span>
        )}
        {gone > 0 && (
          <span className="text-note text-ink-2">
            {plural(gone, 'notice has', 'notices have')} gone with what was said before: write them again where the time
            matters.
          </span>
        )}
        <button type="submit" className="btn btn-primary btn-sm" disabled={busy || times === null}>
          Look at what it changes
        </button>
      </p>
    </form>
  );
}
