import type { Rule } from '../rule.ts';
import type { Said } from './clauses.ts';
import { isWorkingDay } from './common-words.ts';
import type { PhraseCursor } from './cursor.ts';
import { readBut, readWeekdayList } from './rules.ts';

/** What is said in a few words and takes more than a rule: days off with it, or an end. */
export function readSetOfDays(c: PhraseCursor, said: Said): Rule[] | null {
  return (
    c.try(() => readEndOfWeek(c, said)) ?? c.try(() => readWorkingDaysBut(c, said)) ?? c.try(() => readNextFew(c, said))
  );
}

const OF_WEEK = ['of each week', 'of every week', 'of the week', 'each week', 'every week', 'of week'];

/** "last working day of each week", "start of the week": a Sunday or Monday, or the working day nearest to it within. */
function readEndOfWeek(c: PhraseCursor, said: Said): Rule[] | null {
  c.filler('on', 'at', 'by', 'weekly on', 'weekly');
  c.filler('the');
  const isLast = c.word('last', 'final');
  const isFirst = !isLast && c.word('first');
  const isDay = (isLast || isFirst) && isWorkingDay(c);
  const isEnd = !isLast && !isFirst && c.word('end');
  if (!isDay && !isEnd && !c.word('start', 'beginning')) return null;
  if (!c.word(...OF_WEEK)) return null;
  const isAtEnd = isLast || isEnd;
  // The end of a week is its last working day, or Friday whatever is worked; of its start alike.
  if (!isDay && c.pick('end of the week', 2) === 1) return [{ kind: 'weeks', every: 1, on: [isAtEnd ? 5 : 1] }];
  said.dayOff = isAtEnd ? 'preceding' : 'following';
  said.daysOff = 'both';
  return [{ kind: 'weeks', every: 1, on: [isAtEnd ? 7 : 1] }];
}

/** "every working day except Friday" */
function readWorkingDaysBut(c: PhraseCursor, said: Said): Rule[] | null {
  c.filler('on');
  c.filler('every', 'each', 'all');
  const except = isWorkingDay(c) ? readBut(c) : null;
  if (!except) return null;
  said.dayOff = 'skip';
  said.daysOff = 'both';
  return [{ kind: 'days', every: 1, except }];
}

/** "10 Fridays", "for the next 6 Mondays" */
function readNextFew(c: PhraseCursor, said: Said): Rule[] | null {
  c.filler('for', 'on');
  c.filler('the');
  c.filler('next', 'first', 'following');
  const count = c.number();
  if (count === null || count < 2) return null;
  const on = c.word('weekdays', 'weekends') ? null : readWeekdayList(c);
  if (on?.length !== 1 || said.end !== null) return null;
  said.end = () => ({ kind: 'after', count });
  return [{ kind: 'weeks', every: 1, on }];
}
