import { type CivilDay, type DatedOccurrence, monthIndexOf } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { sayDay } from '../../../kit/ways.ts';
import type { Face, FaceOf } from '../bench/who-faces.ts';
import { DAY_FONT, type Place, SMALL_DAY_FONT } from './year-place.ts';

interface FacesProps {
  readonly occurrences: readonly DatedOccurrence[];
  readonly faceOf: FaceOf;
  readonly chosenId: string | null;
  readonly place: Place;
}

/** Dates by the initials of whoever has them: those in a row of one person are one bar, as far as they are for one reason. */
export function Faces({ occurrences, faceOf, chosenId, place }: FacesProps) {
  const today = useToday();
  const dates = occurrences.flatMap((occurrence) => {
    const face = faceOf(occurrence);
    return face ? { occurrence, face } : [];
  });
  return (
    <>
      {runsOf(dates).map((run) => (
        <Bar key={run.from} run={run} isChosen={chosenId !== null && run.face.personId === chosenId} place={place} />
      ))}
      {dates.map(({ occurrence: { on, nominal, isForeseen }, face }) => {
        const isChosen = chosenId !== null && face.personId === chosenId;
        const isToday = on === today;
        return (
          <g key={nominal}>
            {isToday && (
              <rect x={place.x(on) - 9} y={place.y(on) - 9} width={18} height={18} fill="var(--color-accent)" />
            )}
            <text
              x={place.x(on)}
              y={place.y(on) + 4.5}
              textAnchor="middle"
              fill={isToday ? 'var(--color-accent-content)' : isChosen ? 'var(--color-primary-content)' : 'var(--ink)'}
              style={face.initial.length > 1 ? SMALL_DAY_FONT : DAY_FONT}
              opacity={on < today || isForeseen ? 0.65 : 1}
            >
              {face.initial}
              <title>{`${sayDay(on, today)}: ${face.name}, ${face.why}`}</title>
            </text>
          </g>
        );
      })}
    </>
  );
}

interface Run {
  readonly from: CivilDay;
  to: CivilDay;
  readonly face: Face;
}

/** Days in a row, each run on one line of the year. */
function runsOf(dates: readonly { readonly occurrence: DatedOccurrence; readonly face: Face }[]): Run[] {
  const runs: Run[] = [];
  for (const { occurrence, face } of dates) {
    const last = runs.at(-1);
    const goesOn =
      last !== undefined &&
      last.to + 1 === occurrence.on &&
      monthIndexOf(last.to) === monthIndexOf(occurrence.on) &&
      last.face.personId === face.personId &&
      last.face.kind === face.kind &&
      // Each that somebody takes over is a ring of its own.
      face.kind !== 'covers' &&
      face.kind !== 'nobody';
    if (goesOn) last.to = occurrence.on;
    else runs.push({ from: occurrence.on, to: occurrence.on, face });
  }
  return runs;
}

const HALF = 8.5;

function Bar({ run, isChosen, place }: { readonly run: Run; readonly isChosen: boolean; readonly place: Place }) {
  const { kind } = run.face;
  const left = place.x(run.from) - HALF;
  const look = {
    own: { fill: isChosen ? 'var(--color-primary)' : 'var(--petrol-3)', stroke: 'none' },
    covers: { fill: isChosen ? 'var(--color-primary)' : 'var(--color-base-100)', stroke: 'var(--ink)' },
    swapped: {
      fill: isChosen ? 'var(--color-primary)' : 'var(--petrol-3)',
      stroke: 'var(--ink)',
      strokeDasharray: '3 2',
    },
    nobody: { fill: 'var(--color-base-100)', stroke: 'var(--ink)', strokeWidth: 2 },
  }[kind];
  return (
    <rect
      x={left}
      y={place.y(run.from) - HALF}
      width={place.x(run.to) + HALF - left}
      height={HALF * 2}
      rx={kind === 'nobody' ? 2 : HALF}
      strokeWidth={1.2}
      {...look}
    />
  );
}
