import { USUAL_WAYS, type Ways, WEEK_STARTS } from '../../core/index.ts';

/**
 * How dates and times are usually seen in a country (two capital letters), as the locale data that comes with Node says it
 * (CLDR: first day of the week, order of date parts, hour cycle). Where no country is said, as elsewhere in the product.
 */
export function waysIn(country: string): Ways {
  if (country === '') return USUAL_WAYS;
  const locale = new Intl.Locale(`en-${country}`) as Intl.Locale & { getWeekInfo?(): WeekInfo; weekInfo?: WeekInfo };
  // A method since the proposal's third stage, a field before; which of them depends on the Node that runs this.
  const first = (locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay;
  const written = new Intl.DateTimeFormat(locale, { dateStyle: 'medium' }).formatToParts().map(({ type }) => type);
  const { hourCycle } = new Intl.DateTimeFormat(locale, { timeStyle: 'short' }).resolvedOptions();
  return {
    weekStarts: WEEK_STARTS.find((weekday) => weekday === first) ?? USUAL_WAYS.weekStarts,
    dateOrder: written.indexOf('month') < written.indexOf('day') ? 'month first' : 'day first',
    clock: hourCycle === 'h12' ? 12 : 24,
  };
}

interface WeekInfo {
  readonly firstDay: number;
}
