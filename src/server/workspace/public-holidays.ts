import HolidayRules from 'date-holidays';

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
  return [...new Map(holidays.map((holiday) => [holiday.date, holiday])).values()];
}

function publicHolidays(rules: HolidayRules, year: number): PublicHoliday[] {
  return rules
    .getHolidays(year)
    .filter(({ type }) => type === 'public')
    .map(({ date, name }) => ({ date: date.slice(0, 10), name: tidyName(name) }))
    .sort((a, b) => a.date.localeCompare(b.date));
}

function tidyName(name: string): string {
  return name.replaceAll("'", '’').replace(' (substitute day)', ' (substitute)').replace(' bank holiday', ' holiday');
}
