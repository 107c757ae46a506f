import { useState } from 'react';
import type { Clocking } from '../../../../contract/index.ts';
import { dayOfIso, isoOfDay } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { TimeBlank } from '../../../kit/blanks.tsx';
import { useTrying } from '../../../kit/use-trying.ts';
import { sayShortDay, sayTimeSpan, timeOf } from '../../../kit/ways.ts';
import { useClockActions, useOnNow } from './api.ts';

interface ClockLineProps {
  readonly person: { readonly id: string; readonly name: string };
  /** When they are at work today, where their hours say so. */
  readonly shifts: readonly { readonly from: string; readonly to: string }[];
  /** Above each other, and apart on a phone. */
  readonly isStacked?: boolean;
}

/** Whether somebody is on now, and what says otherwise: one's own clock, or anybody's for a manager. */
export function ClockLine({ person, shifts, isStacked = false }: ClockLineProps) {
  const { me, may, today } = useWorkspace();
  const onNow = useOnNow();
  const [at, setAt] = useState<string | null>(null);
  const [made, setMade] = useState<Clocking | null>(null);
  const { busy, trying } = useTrying();
  const actions = useClockActions(person.id, person.name);
  if (onNow === undefined) return null;
  const now = onNow.get(person.id);
  const isMine = me.id === person.id;
  const mayClock = may('clock') || (isMine && me.access !== 'viewer');
  const act = (work: () => Promise<Clocking | null>) =>
    trying(async () => {
      setMade(await work());
      setAt(null);
    });
  const first = person.name.split(' ')[0];
  return (
    <span
      className={`flex flex-wrap items-center gap-x-2.5 gap-y-1 text-row ${isStacked ? 'max-[720px]:justify-between' : ''}`}
    >
      <span className={isStacked ? 'text-right leading-4.5 max-[720px]:text-left' : 'flex flex-wrap gap-x-2'}>
        {shifts.length > 0 && (
          <span className="text-ink-2">
            <span className="sr-only">on shift </span>
            {shifts.map(({ from, to }) => sayTimeSpan(from, to)).join(' and ')}
            {isStacked && <br className="max-[720px]:hidden" />}
          </span>
        )}{' '}
        <span className={now ? 'font-semibold' : 'text-ink-2'}>
          {now ? `on since ${sayOn(now.on, isoOfDay(today))}` : 'not on'}
        </span>
      </span>
      {mayClock && (
        <>
          <button
            type="button"
            className="btn h-7 min-h-0 px-2.5 text-note max-[720px]:h-11"
            disabled={busy}
            onClick={() => void act(() => (now ? actions.off(at) : actions.on(at)))}
          >
            {now ? 'Clock off' : 'Clock on'}
            {!isMine && ' '}
            {!isMine && <span className="sr-only">{first}</span>}
          </button>
          {may('clock') && !isMine && (
            <span>
              at{' '}
              <TimeBlank label="Clocked at" value={at} placeholder="now" when="left" onChange={(time) => setAt(time)} />
            </span>
          )}
          {made && (
            <button
              type="button"
              className="link-line text-note"
              disabled={busy}
              onClick={() =>
                void act(async () => {
                  await actions.takeBack(made);
                  return null;
                })
              }
            >
              Take it back
            </button>
          )}
        </>
      )}
    </span>
  );
}

/** "06:52", with its day where that is not today. */
export function sayOn(moment: string, today: string): string {
  const date = moment.slice(0, 10);
  return date === today ? timeOf(moment) : `${timeOf(moment)} on ${sayShortDay(dayOfIso(date))}`;
}
