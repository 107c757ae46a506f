import type { Swap, TurnSaid } from '../../../contract/index.ts';
import { type CivilDay, callNames, dayOfIso, type NamedPerson } from '../../../core/index.ts';
import { sayDay } from '../../kit/ways.ts';
import { sayDays } from '../people/leave/leave-words.ts';

/** "Mon 30 Nov", "Mon 7 to Sat 12 Dec" */
export function sayTurn({ first, last }: Pick<TurnSaid, 'first' | 'last'>, today: CivilDay): string {
  return first === last ? sayDay(dayOfIso(first), today) : sayDays(dayOfIso(first), dayOfIso(last), today);
}

/** "Kit takes your turn of Mon 30 Nov, you take Kit’s of Mon 7 Dec", as whoever reads it would be told. */
export function saySwap(swap: Swap, meId: string, people: readonly NamedPerson[], today: CivilDay): string {
  const called = callNames(people);
  const [asker, other] = [swap.asker, swap.other].map((one) => called.get(one.id) ?? one.name);
  const [gives, takes] = [sayTurn(swap.gives, today), sayTurn(swap.takes, today)];
  if (swap.other.id === meId) return `${asker} takes your turn of ${takes}, you take ${asker}’s of ${gives}`;
  if (swap.asker.id === meId) return `${other} takes your turn of ${gives}, you take ${other}’s of ${takes}`;
  return `${other} takes ${asker}’s turn of ${gives}, ${asker} takes ${other}’s of ${takes}`;
}

/** What it waits for, or how it was decided. */
export function saySwapState({ state, other, decidedBy, may }: Swap, meId: string): string {
  switch (state) {
    case 'asked':
      return other.id === meId ? '' : `waits for ${other.name}`;
    case 'agreed':
      return may.includes('give') ? '' : 'agreed, waits for a planner’s nod';
    case 'done':
      return 'swapped';
    case 'refused':
      return `refused by ${decidedBy ?? 'somebody'}`;
    case 'withdrawn':
      return 'no longer asked for';
  }
}
