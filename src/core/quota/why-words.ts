import type { CivilDay } from '../civil-date/civil-day.ts';
import { ordinalWord, plural, sayDay } from '../wording/date-words.ts';
import type { WhyListed } from './picking.ts';

/** Why somebody is on the list of a day: "never rung", "second try", "last rung 94 days ago", "call back asked for 11:00". */
export function sayWhyListed(why: WhyListed, day: CivilDay): string {
  switch (why.kind) {
    case 'promised': {
      const at = why.at === null ? '' : ` for ${why.at}`;
      return why.on === day
        ? `call back asked${at || ' for today'}`
        : `call back owed since ${sayDay(why.on, day)}${at}`;
    }
    case 'carriedOver':
      return `left over from ${sayDay(why.from, day)}`;
    case 'neverRung':
      return 'never rung';
    case 'triedAgain':
      return `${ordinalWord(why.tries + 1)} try`;
    case 'rungBefore':
      return `last rung ${plural(day - why.lastOn, 'day')} ago`;
  }
}
