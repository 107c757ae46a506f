import { closedOn, type Season } from '../../calendar/closed-season.ts';
import { civilDay, yearMonthDay } from '../../civil-date/civil-day.ts';
import { phraseTokens } from './tokens.ts';

/** A part of every year that people here have a name for: "winter", "term time". It may be several spans. */
export interface NamedSeason {
  readonly name: string;
  readonly spans: readonly Season[];
}

/** What is left of the year: a leap year, so that the 29th of February is in it. @throws InvalidSeasonError */
export function restOfYear(spans: readonly Season[]): Season[] {
  const isIn = closedOn(spans);
  const first = civilDay(2000, 1, 1);
  const isOut = (place: number) => !isIn(first + (place % DAYS));
  const rest: Season[] = [];
  for (let place = 0; place < DAYS; place++) {
    // Each stretch from where it begins; one over the new year from before it.
    if (!isOut(place) || isOut(place + DAYS - 1)) continue;
    let to = place;
    while (isOut(to + 1)) to++;
    rest.push({ from: monthDay(first + place), to: monthDay(first + (to % DAYS)) });
  }
  return rest;
}

/** Days of a leap year. */
const DAYS = 366;

function monthDay(day: number): string {
  const { month, day: date } = yearMonthDay(day);
  return `${String(month).padStart(2, '0')}-${String(date).padStart(2, '0')}`;
}

/** The words and figures of a name, as they stand in a phrase. */
export function wordsOfSeason(name: string): string[] {
  return phraseTokens(name).map(({ text }) => text.toLowerCase());
}
