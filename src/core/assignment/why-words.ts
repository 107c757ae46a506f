import type { CivilDay } from '../civil-date/civil-day.ts';
import { sayDayHours } from '../people/week-hours.ts';
import { joinAnd, sayNear } from '../wording/date-words.ts';
import type { Assignment, Why } from './assignment.ts';
import type { PassedOver } from './cover.ts';

/** First names, or as people are told apart: what a sentence calls them by. */
export type NameOf = (id: string) => string;

/** Why somebody has a task, or nobody does, as a colleague would say it: "turn 3 of 5", "Kit is away until Fri, Tamsin instead". */
export function sayWhy(assignment: Assignment, nameOf: NameOf, today: CivilDay): string {
  switch (assignment.kind) {
    case 'anyOf':
    case 'eachOf':
      return sayPassedOver(assignment.passedOver, nameOf, today);
    case 'nobody': {
      if (assignment.why === null) return 'nobody is named yet';
      const over = sayPassedOver(assignment.why.passedOver, nameOf, today);
      return over === '' ? sayOwn(assignment.why, nameOf) : `${over}, and nobody else can`;
    }
    case 'one': {
      const over = sayPassedOver(assignment.why.passedOver, nameOf, today);
      // Where the load decides, those who can't are no reason for it.
      return over === '' || assignment.why.by === 'least to do'
        ? sayOwn(assignment.why, nameOf)
        : `${over}, ${nameOf(assignment.personId)} instead`;
    }
  }
}

function sayOwn(why: Why, nameOf: NameOf): string {
  switch (why.by) {
    case 'name':
      return 'always';
    case 'usual person':
      return 'looks after the client';
    case 'turn': {
      const { at, order, insteadOf } = why.turn;
      const turn = `turn ${at + 1} of ${order.length}`;
      return insteadOf === null ? turn : `${turn}, swapped with ${nameOf(insteadOf)}`;
    }
    case 'least to do':
      return why.load === null
        ? 'nobody has any hours in this week'
        : `least to do this week: ${sayDayHours(why.load.minutes) || '0'} of ${sayDayHours(why.load.capacity)} h`;
  }
}

/** "Kit is away until Fri, Nadia off": each of those who were asked before. */
function sayPassedOver(passedOver: readonly PassedOver[], nameOf: NameOf, today: CivilDay): string {
  return joinAnd(passedOver.map(({ personId, why }) => `${nameOf(personId)} ${saySingle(why, today)}`));
}

function saySingle(why: PassedOver['why'], today: CivilDay): string {
  switch (why.because) {
    case 'away':
      return `is away until ${sayNear(why.until, today)}`;
    case 'off':
      return 'is off';
    case 'has left':
      return 'has left';
    case 'not here yet':
      return 'is not here yet';
    case 'no ticket':
      return `has no ticket “${why.ticket}”`;
    case 'not known':
      return 'is nobody here';
  }
}
