import type { CivilDay } from '../civil-date/civil-day.ts';
import type { AssignmentContext, People } from './assignment.ts';
import type { WorkedTurn } from './turn-spans.ts';

/** A turn that somebody misses, and the later one of somebody else that they take for it. */
export interface Exchange {
  readonly missed: WorkedTurn;
  readonly taken: WorkedTurn;
}

/**
 * Turns that somebody who is away gives to others for later ones of theirs: each that they miss altogether goes to whoever has
 * the first turn after it that both can do. Turns of which they are there for a part are covered day by day, and stay theirs.
 * Everybody has as many turns afterwards as before.
 * @param turns of one schedule, in their order
 * Of the days from one to another turns are given away; one that has begun by today stays.
 */
export function exchangesOf(
  turns: readonly WorkedTurn[],
  personId: string,
  { today, from, to, people, askedOf }: ExchangeContext,
): { readonly exchanges: readonly Exchange[]; readonly without: readonly WorkedTurn[] } {
  const why = (id: string, days: readonly CivilDay[]) => days.map((day) => people.passedOver(id, day, askedOf(day)));
  const isAway = (found: ReturnType<typeof why>) => found.some((one) => one?.why.because === 'away');
  /** There for a part of it at least, and on leave for none. */
  const canDo = (id: string, { days }: WorkedTurn): boolean => {
    const found = why(id, days);
    return found.includes(null) && !isAway(found);
  };
  const exchanges: Exchange[] = [];
  const without: WorkedTurn[] = [];
  const taken = new Set<WorkedTurn>();
  for (const [i, missed] of turns.entries()) {
    const { days } = missed;
    const isWithin = days.every((day) => today <= day) && days.some((day) => from <= day && day <= to);
    if (missed.personId !== personId || !isWithin) continue;
    const found = why(personId, days);
    if (found.includes(null) || !isAway(found)) continue;
    const later = turns
      .slice(i + 1)
      .find(
        (turn) =>
          turn.personId !== personId &&
          !taken.has(turn) &&
          people.workers.has(turn.personId) &&
          canDo(turn.personId, missed) &&
          canDo(personId, turn),
      );
    if (later === undefined) without.push(missed);
    else {
      taken.add(later);
      exchanges.push({ missed, taken: later });
    }
  }
  return { exchanges, without };
}

interface ExchangeContext {
  readonly today: CivilDay;
  readonly from: CivilDay;
  readonly to: CivilDay;
  readonly people: People;
  /** What the work asks of a day. */
  readonly askedOf: (day: CivilDay) => AssignmentContext['asked'];
}
