import type { CivilDay } from '../civil-date/civil-day.ts';
import { sayDayHours } from '../people/week-hours.ts';
import { joinAnd, plural, sayNear } from '../wording/date-words.ts';
import type { Assignment, Why } from './assignment.ts';
import type { PassedOver } from './cover.ts';

/** First names, or as people are told apart: what a sentence calls them by. */
export type NameOf = (id: string) => string;

/** Why somebody has a task, or nobody does, as a colleague would say it: "turn 3 of 5", "Kit is away until Fri, Tamsin instead". */
export function sayWhy(assignment: Assignment, nameOf: NameOf, today: CivilDay): string {
  switch (assignment.kind) {
    case 'anyOf':
      return assignment.personIds.length === 0
        ? `${sayPassedOver(assignment.passedOver, nameOf, today) || 'nobody is of that group'}, and nobody else can`
        : `whoever of ${plural(assignment.personIds.length, 'person', 'people')} takes it`;
    case 'eachOf':
      return `one for each of ${plural(assignment.personIds.length, 'person', 'people')}`;
    case 'client':
      return 'asked by mail, with a link';
    case 'nobody':
      return assignment.why === null ? 'nobody is named yet' : sayWhyOf(null, assignment.why, nameOf, today);
    case 'one':
      return sayWhyOf(assignment.personId, assignment.why, nameOf, today);
  }
}

/** The same for where it stands beside whoever has it: "Kit is away until Fri". */
export function sayWhyBeside(assignment: Assignment, nameOf: NameOf, today: CivilDay): string {
  if (assignment.kind !== 'one' || assignment.why.by === 'hand' || assignment.why.by === 'least to do')
    return sayWhy(assignment, nameOf, today);
  return sayPassedOver(assignment.why.passedOver, nameOf, today) || sayOwn(assignment.personId, assignment.why, nameOf);
}

/** The same of a reason that was kept. @param personId who has it; null for nobody */
export function sayWhyOf(personId: string | null, why: Why, nameOf: NameOf, today: CivilDay): string {
  const over = why.by === 'hand' ? '' : sayPassedOver(why.passedOver, nameOf, today);
  if (personId === null) return over === '' ? sayNobodys(why, nameOf) : `${over}, and nobody takes over`;
  // Where the load decides, those who can't are no reason for it.
  return over === '' || why.by === 'least to do'
    ? sayOwn(personId, why, nameOf)
    : `${over}, ${nameOf(personId)} instead`;
}

function sayNobodys(why: Why, nameOf: NameOf): string {
  if (why.by !== 'list') return sayOwn(null, why, nameOf);
  switch (why.place) {
    case 'before':
      return 'the list begins later';
    case 'after':
      return 'the list ends before it';
    case 'between':
    case 'on it':
      return 'not on the list';
  }
}

function sayOwn(personId: string | null, why: Why, nameOf: NameOf): string {
  switch (why.by) {
    case 'hand':
      return 'chosen by hand';
    case 'name':
      return 'always';
    case 'usual person':
      return 'looks after the client';
    case 'turn': {
      const turn = `turn ${why.place} of ${why.of}`;
      return why.insteadOf === null ? turn : `${turn}, swapped with ${nameOf(why.insteadOf)}`;
    }
    case 'list':
      return 'as listed';
    case 'each':
      return personId === null ? 'nobody is of that group' : 'each has one';
    case 'least to do':
      return why.load === null
        ? 'nobody has any hours in this week'
        : `least to do this week: ${sayDayHours(why.load.minutes) || '0'} of ${sayDayHours(why.load.capacity)} h`;
  }
}

/** "Kit is away until Fri, Nadia off": each of those who were asked before. */
export function sayPassedOver(passedOver: readonly PassedOver[], nameOf: NameOf, today: CivilDay): string {
  return joinAnd(passedOver.map(({ personId, why }) => `${nameOf(personId)} ${saySingle(why, today)}`));
}

function saySingle(why: PassedOver['why'], today: CivilDay): string {
  switch (why.because) {
    case 'away':
      return `is away until ${sayNear(why.until, today)}`;
    case 'off':
      return 'is off';
    case 'not on shift':
      return 'is not on shift';
    case 'has left':
      return 'has left';
    case 'not here yet':
      return 'is not here yet';
    case 'no ticket':
      return why.endedOn === null
        ? `has no ticket “${why.ticket}”`
        : `has “${why.ticket}” only until ${sayNear(why.endedOn, today)}`;
    case 'not known':
      return 'is nobody here';
  }
}
