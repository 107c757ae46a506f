import HolidayRules from 'date-holidays';
import { type CivilDay, yearMonthDay } from '../../core/index.ts';
import { invalid } from '../platform/refusal.ts';

export interface PublicHoliday {
  readonly date: string;
  readonly name: string;
}

/**
 * Public holidays of England and Wales, substitute days included. The package knows the two countries apart;
 * a day counts when it is a holiday in both.
 */
export function englandAndWales(fromYear: number, toYear: number): PublicHoliday[] {
  const [england, wales] = [new HolidayRules('GB', 'ENG'), new HolidayRules('GB', 'WLS')];
  const holidays: PublicHoliday[] = [];
  for (let year = fromYear; year <= toYear; year++) {
    const welsh = new Set(publicHolidays(wales, year).map(({ date }) => date));
    holidays.push(...publicHolidays(england, year).filter(({ date }) => welsh.has(date)));
  }
  return onceADay(holidays);
}

/** Years whose holidays are brought in at once: as far as anybody plans. */
const YEARS_AHEAD = 5;

/** Those of a country, or of a region of it, from this year on. @throws Refusal for one that is not known */
export function publicHolidaysFrom(country: string, region: string, today: CivilDay): PublicHoliday[] {
  const found = countriesKnown().find(({ code }) => code === country);
  if (!found) throw invalid([{ path: 'country', message: 'The public holidays of that country are not known.' }]);
  if (region !== '' && !found.regions.some(({ code }) => code === region))
    throw invalid([{ path: 'region', message: `${found.name} has no such region.` }]);
  const { year } = yearMonthDay(today);
  const rules = region === '' ? new HolidayRules(country) : new HolidayRules(country, region);
  return onceADay(Array.from({ length: YEARS_AHEAD + 1 }, (_, i) => publicHolidays(rules, year + i)).flat());
}

export interface KnownCountry {
  readonly code: string;
  readonly name: string;
  readonly regions: { readonly code: string; readonly name: string }[];
}

let known: KnownCountry[] | undefined;

/** Countries whose holidays are known, by their English names. */
export function countriesKnown(): KnownCountry[] {
  const rules = new HolidayRules();
  known ??= Object.entries(rules.getCountries('en'))
    .map(([code, name]) => ({
      code,
      name,
      regions: byName(
        Object.entries(rules.getStates(code, 'en') ?? {}).map(([region, of]) => ({ code: region, name: of })),
      ),
    }))
    .sort((a, b) => a.name.localeCompare(b.name));
  return known;
}

function byName<T extends { readonly name: string }>(all: readonly T[]): T[] {
  return [...all].sort((a, b) => a.name.localeCompare(b.name));
}

function publicHolidays(rules: HolidayRules, year: number): PublicHoliday[] {
  return rules
    .getHolidays(year, 'en')
    .filter(({ type }) => type === 'public')
    .map(({ date, name }) => ({ date: date.slice(0, 10), name: tidyName(name) }))
    .sort((a, b) => a.date.localeCompare(b.date));
}

function onceADay(holidays: readonly PublicHoliday[]): PublicHoliday[] {
  return [...new Map(holidays.map((holiday) => [holiday.date, holiday])).values()];
}

function tidyName(name: string): string {
  return name.replaceAll("'", '’').replace(' (substitute day)', ' (substitute)').replace(' bank holiday', ' holiday');
}
