import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { ordinalWord, plural, sayDay } from '../wording/date-words.ts';
import type { WhyListed } from './picking.ts';

/** Why somebody is on the list of a day: "never rung", "second try", "last rung 94 days ago", "call back asked for 11:00". */
export function sayWhyListed(why: WhyListed, day: CivilDay): string {
  switch (why.kind) {
    case 'promised': {
      const on = dayOfIso(why.on);
      const at = why.at === null ? '' : ` for ${why.at}`;
      return on === day ? `call back asked${at || ' for today'}` : `call back owed since ${sayDay(on, day)}${at}`;
    }
    case 'carriedOver':
      return `left over from ${sayDay(dayOfIso(why.from), day)}`;
    case 'neverRung':
      return 'never rung';
    case 'triedAgain':
      return `${ordinalWord(why.tries + 1)} try`;
    case 'byHand':
      return why.lastOn === null ? 'put on by hand' : `put on by hand, last rung ${sayDay(dayOfIso(why.lastOn), day)}`;
    case 'rungBefore':
      return `last rung ${plural(day - dayOfIso(why.lastOn), 'day')} ago`;
  }
}
