import { describe, expect, it } from 'vitest';
import { parsePhrase } from './reader.ts';
import { writePhrase } from './writer.ts';

/** Read on Tuesday 24 November 2026. */
const TODAY = { start: '2026-11-24', today: '2026-11-24' };
const again = (text: string) => writePhrase(parsePhrase(text, TODAY), { start: 'unsaid' });

/** What people say, and the phrase it is written back as; a dot stands for the same again. */
const PHRASES: readonly (readonly [heading: string, pairs: string])[] = [
  [
    'days',
    `
    every day | .
    daily | every day
    each day | every day
    every single day | every day
    Every Day. | every day
    every other day | every 2 days
    every second day | every 2 days
    every 2 days | .
    every three days | every 3 days
    every third day | every 3 days
    every 10 days | .
    every twenty days | every 20 days
    every twenty-eight days | every 28 days
    every ninety-nine days | every 99 days
    alternate days | every 2 days
    each 14 days | every 14 days
    every day but Sun | .
    every day except Sunday | every day but Sun
    daily except Sundays | every day but Sun
    daily, but not on Sundays | every day but Sun
    every day apart from weekends | every day but Sat and Sun
    every day other than Sat and Sun | every day but Sat and Sun
    every 3 days but Sat and Sun | .
    every day excluding Mondays | every day but Mon
    every day, except weekends | every day but Sat and Sun`,
  ],
  [
    'working days',
    `
    every working day | .
    each working day | every working day
    on working days | every working day
    every business day | every working day
    every workday | every working day
    every 10 working days | .
    every other working day | every 2 working days
    every third working day | every 3 working days
    every five business days | every 5 working days`,
  ],
  [
    'weeks',
    `
    weekly | every week on Tue
    every week | every week on Tue
    once a week | every week on Tue
    every week on Mon | .
    weekly on Monday | every week on Mon
    once a week on Fridays | every week on Fri
    each week on Mon and Thu | every week on Mon and Thu
    every Monday | every week on Mon
    each Monday | every week on Mon
    Mondays | every week on Mon
    on Mondays | every week on Mon
    Monday | every week on Mon
    mon, wed and fri | every week on Mon, Wed and Fri
    Mon, Wed, Fri | every week on Mon, Wed and Fri
    Mon & Thu | every week on Mon and Thu
    Mondays and Thursdays | every week on Mon and Thu
    mon wed fri | every week on Mon, Wed and Fri
    Mon/Wed/Fri | every week on Mon, Wed and Fri
    MWF | every week on Mon, Wed and Fri
    TTh | every week on Tue and Thu
    Tue+Thu | every week on Tue and Thu
    alternate Fridays | every 2 weeks on Fri
    2-weekly on Mon | every 2 weeks on Mon
    four-weekly | every 4 weeks on Tue
    alternate weeks on Mon | every 2 weeks on Mon
    on Mondays and on Thursdays | every week on Mon and Thu
    every Monday and every Thursday | every week on Mon and Thu
    every Tues, Weds and Thurs | every week on Tue, Wed and Thu
    every weekday | .
    weekdays | every weekday
    on weekdays | every weekday
    each weekday | every weekday
    Mon–Fri | every weekday
    Mon-Fri | every weekday
    Monday to Friday | every weekday
    every Monday through Friday | every weekday
    Mon to Thu | every week on Mon, Tue, Wed and Thu
    Fri to Mon | every week on Mon, Fri, Sat and Sun
    weekdays but Wed | every week on Mon, Tue, Thu and Fri
    every weekday except Friday | every week on Mon, Tue, Wed and Thu
    weekends | every weekend
    every weekend | .
    every week on Mon and every weekend | .
    Saturdays and Sundays | every weekend
    every 2 weeks on Tue and Thu | .
    every two weeks on Tuesday and Thursday | every 2 weeks on Tue and Thu
    every other week on Mon | every 2 weeks on Mon
    every second week on Monday | every 2 weeks on Mon
    every other Monday | every 2 weeks on Mon
    every alternate Friday | every 2 weeks on Fri
    fortnightly | every 2 weeks on Tue
    fortnightly on Fridays | every 2 weeks on Fri
    every fortnight on Wed | every 2 weeks on Wed
    once a fortnight on Thu | every 2 weeks on Thu
    every 4 weeks on Mon | .
    every four weeks on Monday | every 4 weeks on Mon
    every 2 weeks on weekdays | .
    every 2 weeks on Mon and every weekday | .
    every 2 weeks on Mon and every Tue | every 2 weeks on Mon and every week on Tue
    every other Monday and every Friday | every 2 weeks on Mon and every week on Fri
    every week on Mon and every weekday | .
    every Mon and every Tue | every week on Mon and Tue
    every 3 Fridays | every 3 weeks on Fri
    twice a week on Mon and Thu | every week on Mon and Thu
    three times a week on Mon, Wed and Fri | every week on Mon, Wed and Fri`,
  ],
  [
    'months by date',
    `
    monthly | 24th of each month
    every month | 24th of each month
    once a month | 24th of each month
    every 2 months on the first Monday, 5 times | every 2 months on the first Monday, 5 times
    monthly on the 5th, 1 time | 5th of each month, once
    monthly on the 5th, 12 and 20 | 5th, 12th and 20th of each month
    monthly on the 15th | 15th of each month
    every month on the 15th | 15th of each month
    each month on the 15th | 15th of each month
    15th of each month | .
    15th of every month | 15th of each month
    15th of the month | 15th of each month
    15th of a month | 15th of each month
    the 15th of each month | 15th of each month
    on the 15th | 15th of each month
    the 15th | 15th of each month
    15th | 15th of each month
    every 15th | 15th of each month
    fifteenth of each month | 15th of each month
    twenty-first of each month | 21st of each month
    1st and 15th | 1st and 15th of each month
    1st and 15th of each month | .
    1st, 10th and 20th of each month | .
    the 1st and the 15th of every month | 1st and 15th of each month
    every 1st and 15th | 1st and 15th of each month
    days 1 and 15 of each month | 1st and 15th of each month
    1 and 15 of each month | 1st and 15th of each month
    twice a month on the 5th and 20th | 5th and 20th of each month
    last day of each month | .
    last day of the month | last day of each month
    the last day of every month | last day of each month
    month end | last day of each month
    EOM | last day of each month
    by the 15th of each month | 15th of each month
    mid-month | 15th of each month
    30th of Jan, Apr, Jul and Oct | .
    31st of Mar, Jun, Sep and Dec | 31st of Mar, Jun, Sep and Dec, or the last day
    fifth Friday of Jan, Apr, Jul and Oct | .
    month-end | last day of each month
    at month end | last day of each month
    at the end of the month | last day of each month
    end of each month | last day of each month
    start of the month | 1st of each month
    beginning of each month | 1st of each month
    last but one day of each month | .
    penultimate day of each month | last but one day of each month
    second last day of each month | last but one day of each month
    third last day of each month | .
    third to last day of each month | third last day of each month
    1st and last day of each month | .
    1st and last of the month | 1st and last day of each month
    31st of each month | 31st of each month, or the last day
    31st of each month, or the last day | .
    31st of each month, where there is one | .
    31st of each month, if it exists | 31st of each month, where there is one
    30th of each month, or the 1st after | .
    30th of each month, or the 1st of the next month | 30th of each month, or the 1st after
    every 2 months on the 1st | .
    every other month on the 1st | every 2 months on the 1st
    every second month on the 10th | every 2 months on the 10th
    every 3 months | every 3 months on the 24th
    every 3 months on the 15th | .
    every three months on the 15th and last day | every 3 months on the 15th and last day
    15th of every third month | every 3 months on the 15th
    1st of every other month | every 2 months on the 1st
    every 6 months on the 18th | .
    every half year on the 18th | every 6 months on the 18th
    half-yearly on the 18th | every 6 months on the 18th
    twice a year on the 1st | every 6 months on the 1st
    every 5 months on the 3rd | .
    quarterly on the 7th | 7th of every quarter
    every quarter on the 7th | 7th of every quarter
    quarterly from February on the 7th | 7th of Feb, May, Aug and Nov
    every 6 months from April on the 1st | 1st of Apr and Oct
    every 2 months from January on the 15th | 15th of Jan, Mar, May, Jul, Sep and Nov
    1st of every quarter | .
    20th of the first month of every quarter | 20th of every quarter
    20th of the second month of each quarter | 20th of Feb, May, Aug and Nov
    half-yearly on 1 January and 1 July | 1st of Jan and Jul
    twice a year, on 5 April and 5 October | 5th of Apr and Oct
    half-yearly: 1 April and 15 October | yearly on 1 April and yearly on 15 October
    first day of the quarter | 1st of every quarter
    start of each quarter | 1st of every quarter
    last day of every quarter | .
    quarter end | last day of every quarter
    each quarter end | last day of every quarter
    end of the quarter | last day of every quarter
    15th of Mar and Sep | .
    15th of March and September | 15th of Mar and Sep
    1st of Jan, Apr, Jul and Oct | 1st of every quarter
    7th of Feb, May, Aug and Nov | .
    1st in April to September | 1st of Apr, May, Jun, Jul, Aug and Sep
    every January on the 10th | 10th of Jan
    each Mar and Sep on the 1st | 1st of Mar and Sep
    every 3 months on the 15th in Feb and May | .`,
  ],
  [
    'months by weekday and working day',
    `
    first Monday of each month | .
    1st Monday of each month | first Monday of each month
    first Monday of the month | first Monday of each month
    the first Monday of every month | first Monday of each month
    first Monday | first Monday of each month
    every first Monday | first Monday of each month
    every first Monday of the month | first Monday of each month
    every second Tuesday of the month | second Tuesday of each month
    2nd Tue of each month | second Tuesday of each month
    monthly on the second Tuesday | second Tuesday of each month
    every month on the last Friday | last Friday of each month
    last Friday of each month | .
    every last Friday | last Friday of each month
    the last Friday | last Friday of each month
    once a month on the last Friday | last Friday of each month
    last but one Friday of each month | .
    fifth Monday of each month | .
    first and third Monday of each month | .
    first Monday and third Monday of each month | first and third Monday of each month
    1st and 3rd Monday of each month | first and third Monday of each month
    first and last Friday of the month | first and last Friday of each month
    1st and the third Monday of each month | .
    first Monday of Mar and Sep | .
    last Sunday in March | last Sunday of Mar
    every 2 months on the first Friday | .
    first Friday of every other month | every 2 months on the first Friday
    first working day of each month | .
    first working day of the month | first working day of each month
    the first business day of every month | first working day of each month
    monthly on the first working day | first working day of each month
    last working day of each month | .
    last working day of the month | last working day of each month
    last working day | last working day of each month
    monthly on the last working day | last working day of each month
    last but one working day of each month | .
    third working day of each month | .
    10th working day of each month | tenth working day of each month
    15th and the last working day of each month | .
    15th and the last working day | 15th and the last working day of each month
    15th and the last Friday of each month | .
    the 15th and the last working day of the month | 15th and the last working day of each month
    first and last working day of each month | .
    first three working days of each month | first, second and third working day of each month
    last two Fridays of each month | last but one and last Friday of each month
    last working day of every quarter | .
    last working day of each quarter | last working day of every quarter
    first working day of the quarter | first working day of every quarter
    last working day every quarter | last working day of every quarter
    last weekday of each month | .
    first weekday of the month | first weekday of each month
    first weekend day of each month | .
    first Tue or Thu of each month | .
    last Monday or Friday of the month | last Mon or Fri of each month
    every 3 months on the last working day | .`,
  ],
  [
    'how often, and on which day beside it',
    `
    weekly, on Mondays | every week on Mon
    weekly - Monday | every week on Mon
    weekly: Mondays | every week on Mon
    weekly; Mon and Thu | every week on Mon and Thu
    weekly Monday | every week on Mon
    weekly on a Friday | every week on Fri
    every week, Friday | every week on Fri
    fortnightly, Friday | every 2 weeks on Fri
    fortnightly Fridays | every 2 weeks on Fri
    every 2 weeks, Tuesday | every 2 weeks on Tue
    every other week, on Tue and Thu | every 2 weeks on Tue and Thu
    daily, Mon-Fri | every weekday
    daily Mon to Sat | every week on Mon, Tue, Wed, Thu, Fri and Sat
    daily on weekdays | every weekday
    daily, weekdays but Wed | every week on Mon, Tue, Thu and Fri
    monthly, 15th | 15th of each month
    monthly 15th | 15th of each month
    monthly: the 1st and 15th | 1st and 15th of each month
    monthly, last working day | last working day of each month
    monthly - last Friday of the month | last Friday of each month
    every month, last Friday | last Friday of each month
    every 3 months, 1st | every 3 months on the 1st
    quarterly, last working day | last working day of every quarter
    quarterly on the last working day | last working day of every quarter
    quarterly, first Monday of the quarter | first Monday of every quarter
    every quarter: 15th | 15th of every quarter
    annually, 5 April | yearly on 5 April
    annually 5 April | yearly on 5 April
    every year, 5 April | yearly on 5 April
    yearly, first Monday of May | yearly on the first Monday of May
    every 2 years - 1 June | every 2 years on 1 June
    Friday, fortnightly | every 2 weeks on Fri
    Fridays fortnightly | every 2 weeks on Fri
    Tuesdays and Thursdays, every 2 weeks | every 2 weeks on Tue and Thu
    Mondays, weekly | every week on Mon
    Mon-Fri, daily | every weekday
    15th, monthly | 15th of each month
    15th, every 3 months | every 3 months on the 15th
    last Friday - monthly | last Friday of each month
    last working day, quarterly | last working day of every quarter
    5 April, annually | yearly on 5 April
    5 April, every 2 years | every 2 years on 5 April
    weekly, not on days off | every week on Tue, not on days off
    weekly, Friday, or the working day before | every week on Fri, or the working day before`,
  ],
  [
    'places in figures and in words',
    `
    1st and last Friday | first and last Friday of each month
    1st and last Friday of the month | first and last Friday of each month
    5th and 10th working day | fifth and tenth working day of each month
    5th and tenth working day of each month | fifth and tenth working day of each month
    1st, 2nd and 3rd Tuesday | first, second and third Tuesday of each month
    first and 3rd Monday | first and third Monday of each month
    1st and third Monday of each month | first and third Monday of each month
    the first and the third Monday | first and third Monday of each month
    1st and last working day of every quarter | first working day of every quarter and last working day of every quarter
    15th and last Friday | 15th and the last Friday of each month
    1st and last day | 1st and last day of each month
    twenty-first working day of each month | .
    thirteenth and last but one working day of each month | .`,
  ],
  [
    'years',
    `
    yearly | yearly on 24 November
    annually | yearly on 24 November
    every year | yearly on 24 November
    once a year | yearly on 24 November
    yearly on 15 June | .
    every year on 15 June | yearly on 15 June
    annually on June 15 | yearly on 15 June
    once a year on the 15th of June | yearly on 15 June
    on 15 June | yearly on 15 June
    15 June | yearly on 15 June
    15th June | yearly on 15 June
    June 15 | yearly on 15 June
    15 June every year | yearly on 15 June
    every 15 June | yearly on 15 June
    every June 15 | yearly on 15 June
    yearly on 1 and 15 March | .
    yearly on 1 March and September | .
    yearly on the first Monday of May | .
    every year on the last Sunday of March | yearly on the last Sunday of March
    yearly in March on the 10th | yearly on 10 March
    every 2 years on 15 June | .
    every other year on 1 May | every 2 years on 1 May
    every 5 years on the first Monday of May | .
    yearly on 29 February | yearly on 29 February, or the 28th
    yearly on 29 February, or the 28th | .
    yearly on 29 February, or 1 March | .
    yearly on 29 Feb, or on 1 March | yearly on 29 February, or 1 March
    yearly on 29 February, in leap years only | .
    29 Feb, only in leap years | yearly on 29 February, in leap years only
    first working day of the year | yearly on the first working day of January
    last working day of the year | yearly on the last working day of December
    year end | yearly on 31 December
    end of the year | yearly on 31 December`,
  ],
  [
    'listed dates',
    `
    on 3 Mar 2027 | .
    3 March 2027 | on 3 Mar 2027
    once on 3 March 2027 | on 3 Mar 2027
    2027-03-03 | on 3 Mar 2027
    03/03/2027 | on 3 Mar 2027
    on 3 Mar 2027 and 5 Apr 2027 | .
    3 Mar, 5 Apr and 6 May 2027 | on 3 Mar 2027, 5 Apr 2027 and 6 May 2027
    March 3, 2027 | on 3 Mar 2027
    on Wed 3 March 2027 | on 3 Mar 2027`,
  ],
  [
    'after completion and on progress',
    `
    every 10 working days after completion | .
    10 working days after completion | every 10 working days after completion
    every 2 weeks after completion | .
    2 weeks after the last one is done | every 2 weeks after completion
    two weeks after it is finished | every 2 weeks after completion
    a month after the last | every month after completion
    6 months from completion | every 6 months after completion
    every day after completion | .
    every 3 days after the last one is under way | .
    as soon as the last one is done | .
    as soon as the last one is under way | .
    as soon as it is started | as soon as the last one is under way
    when the last one is to be checked | as soon as the last one is to be checked`,
  ],
  [
    'several rules',
    `
    every week on Mon and last working day of each month | .
    every Monday and the last working day of the month | every week on Mon and last working day of each month
    1st of each month, 15th of Mar and every week on Fri | .
    every day but Sun and yearly on 15 June | .
    every day but Mon, every weekday and every 2 weeks on Sun | .
    last day of every 2 months and 1st of each month | .
    first Monday of every 2 months, last day of every 2 months and 1st of each month | .
    every 2 months on the last day and 1st of each month | last day of every 2 months and 1st of each month
    9th of Jan and on 3 Sep 2027 | .
    on 3 Sep 2027 and 11th of Feb | .
    15th of each month and on 3 Mar 2027 | .
    31st of each month, where there is one and every week on Mon | .
    15th and last day of every quarter | 15th of every quarter and last day of every quarter
    by RRULE FREQ=YEARLY;BYYEARDAY=1,100 | .
    RRULE:FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO | by RRULE FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO
    by RRULE FREQ=YEARLY;BYYEARDAY=1,100 and every week on Mon | .`,
  ],
  [
    'days off',
    `
    1st and 15th, or the working day before | 1st and 15th of each month, or the working day before
    every week on Fri, or the working day before | .
    every Friday or the previous working day | every week on Fri, or the working day before
    every Friday, or the preceding working day | every week on Fri, or the working day before
    every Friday, or the working day after | every week on Fri, or the working day after
    every Friday or the next working day | every week on Fri, or the working day after
    every Friday, or the following business day | every week on Fri, or the working day after
    every Friday, or the first working day after | every week on Fri, or the working day after
    last day of each month, or the working day before in the same month | .
    1st of each month or the next working day within the same month | 1st of each month, or the working day after in the same month
    15th of each month, or the nearest working day | .
    15th of each month or the closest working day | 15th of each month, or the nearest working day
    every day, not on holidays | .
    every day except bank holidays | every day, not on holidays
    every Saturday except bank holidays | every week on Sat, not on holidays
    every day, skipped on weekends | .
    15th, skipping weekends | 15th of each month, skipped on weekends
    7th, if a bank holiday the working day after | 7th of each month, or the working day after if that is a holiday
    7th of each month, or the working day after if that is a holiday | .
    7th of each month, or the working day before if that is a weekend | .
    15th or the previous working day if it falls on a weekend | 15th of each month, or the working day before if that is a weekend
    15th or the next working day if it falls on a weekend or a bank holiday | 15th of each month, or the working day after
    the 1st, or the working day after in the same month if that is a holiday | 1st of each month, or the working day after in the same month if that is a holiday
    every weekday, not on days off | .
    every weekday, skip holidays | every weekday, not on holidays
    every weekday except holidays | every weekday, not on holidays
    weekdays excl. bank holidays | every weekday, not on holidays
    Mon-Fri, except bank holidays | every weekday, not on holidays
    15th, if it falls on a weekend or bank holiday, the working day before | 15th of each month, or the working day before
    every Friday, if it’s a bank holiday the working day before | every week on Fri, or the working day before if that is a holiday
    every weekday but not on bank holidays | every weekday, not on holidays
    every day, only on working days | every day, not on days off
    every Monday unless it is a day off | every week on Mon, not on days off
    every Monday; if it is a day off, the working day after | every week on Mon, or the working day after
    every Monday, on a day off the working day before | every week on Mon, or the working day before
    every Monday, if it is a holiday, skip it | every week on Mon, not on holidays
    every Monday, even on days off | every week on Mon
    15th of each month, moved to the working day before | 15th of each month, or the working day before`,
  ],
  [
    'closed seasons',
    `
    every week on Fri, not in Jan | .
    every Friday but not in January | every week on Fri, not in Jan
    every Friday except in January and August | every week on Fri, not in Jan and Aug
    every week on Fri, not from Nov to Feb | .
    every Friday, not from November to February | every week on Fri, not from Nov to Feb
    every Friday from March to October | every week on Fri, not from Nov to Feb
    every Friday between March and October | every week on Fri, not from Nov to Feb
    every Friday in June, July and August | every week on Fri, not from Sep to May
    every Friday only in June | every week on Fri, not from Jul to May
    every Friday except August | every week on Fri, not in Aug
    every Friday, not August | every week on Fri, not in Aug
    every Friday between 1 March and 31 May | every week on Fri, not from Jun to Feb
    every Friday between 15 March and 10 May | every week on Fri, not from 11 May to 14 Mar
    every Friday, closed from 15 Dec to 10 Jan | every week on Fri, not from 15 Dec to 10 Jan
    every week on Fri, not in Jan and Aug, not from 15 Oct to 3 Nov | .
    15th of each month, or the working day before, moved out of Jan | .
    15th of each month, or the working day after, moved out of 15 Dec to 10 Jan | .`,
  ],
  [
    'starts and ends',
    `
    first Friday of each month until 30 Sep 2027 | .
    every Friday till 30 September 2027 | every week on Fri until 30 Sep 2027
    every Friday up to 30/09/2027 | every week on Fri until 30 Sep 2027
    every Friday ending on 30 Sep 2027 | every week on Fri until 30 Sep 2027
    every Friday until 30 Sep | every week on Fri until 30 Sep 2027
    every Friday until March | every week on Fri until 31 Mar 2027
    every Friday until Friday 18 December | every week on Fri until 18 Dec 2026
    every Friday until further notice | every week on Fri
    every week on Fri x 5 | every week on Fri, 5 times
    every Friday until the end of March 2028 | every week on Fri until 31 Mar 2028
    every Friday until the end of 2027 | every week on Fri until 31 Dec 2027
    every week on Fri, 12 times | .
    every Friday for 12 times | every week on Fri, 12 times
    every Friday for 10 occurrences | every week on Fri, 10 times
    every Friday, twelve times | every week on Fri, 12 times
    every Friday, ending after 6 times | every week on Fri, 6 times
    every Friday, once | every week on Fri, once
    every Friday, twice | every week on Fri, twice
    every Friday, 2 times | every week on Fri, twice
    every Friday for 6 months | every week on Fri until 23 May 2027
    every Friday for a year | every week on Fri until 23 Nov 2027
    every Friday for 3 weeks | every week on Fri until 14 Dec 2026
    every week on Fri, except 25 Dec 2026 | .
    every Friday except 25 Dec and 1 Jan | every week on Fri, except 25 Dec 2026 and 1 Jan 2027
    every Friday but not on 25 Dec 2026 | every week on Fri, except 25 Dec 2026
    every week on Fri, or the working day before, not in Jan until 30 Sep 2027, except 28 May 2027 | .`,
  ],
  [
    'feasts',
    `
    yearly on Good Friday | .
    every Good Friday | yearly on Good Friday
    Easter Monday | yearly on Easter Monday
    every 2 years on Easter Sunday | .
    2 days before Easter | yearly on Good Friday
    yearly, 10 days before Easter Sunday | .
    the Tuesday after Easter | yearly, the Tuesday after Easter Sunday
    the day after Whit Monday | yearly, 51 days after Easter Sunday
    the Wednesday before Good Friday | yearly, 4 days before Easter Sunday
    Christmas Eve | yearly on 24 December
    last working day before Christmas | yearly, the working day before 25 December
    every Friday until Easter | every week on Fri until 28 Mar 2027
    every Monday until Christmas | every week on Mon until 25 Dec 2026`,
  ],
  [
    'more than a rule',
    `
    last working day of each week | every week on Sun, or the working day before
    first working day of the week | every week on Mon, or the working day after
    every business day except Friday | every day but Fri, not on days off
    10 Fridays | every week on Fri, 10 times
    for the next 6 Mondays | every week on Mon, 6 times
    from 1 January to 31 March every Monday | every week on Mon until 31 Mar 2027
    every Monday from next week | every week on Mon
    every Monday starting next month | every week on Mon
    tomorrow | on 25 Nov 2026
    next Monday | on 30 Nov 2026
    Friday 4 December | on 4 Dec 2026
    every month except July and August on the 1st | 1st of Jan, Feb, Mar, Apr, May, Jun, Sep, Oct, Nov and Dec
    monthly except August | 24th of each month, not in Aug
    monthly on the 30th, last day in Feb | 30th of each month, or the last day
    7th of the following month | 7th of each month
    10th/20th/30th | 10th, 20th and 30th of each month, or the last day
    WD3 | third working day of each month
    M/W/F | every week on Mon, Wed and Fri
    twice a year in April and October on the 5th | 5th of Apr and Oct
    once every 3 years | every 3 years on 24 November
    3 times per week on Mon, Wed, Fri | every week on Mon, Wed and Fri
    7 days a week | every day
    14 days after the last one | every 14 days after completion`,
  ],
  [
    'one letter wrong in a long word',
    `
    every wendesday | every week on Wed
    every tuseday | every week on Tue
    fortnighly on Mon | every 2 weeks on Mon
    monthy on the 15th | 15th of each month
    15th of febuary | 15th of Feb
    last workin day | last working day of each month`,
  ],
  [
    'counted from another day',
    `
    3 working days before the last day of each month | .
    3 working days before month end | 3 working days before the last day of each month
    three business days prior to the end of the month | 3 working days before the last day of each month
    monthly, 3 working days before month end | 3 working days before the last day of each month
    every month, 2 working days before the 15th | 2 working days before the 15th of each month
    first working day on or after the 15th of each month | .
    the 1st working day on or after the 15th | first working day on or after the 15th of each month
    Friday before the 25th of each month | .
    the first Friday before the 25th | Friday before the 25th of each month
    monthly on the Friday before the 25th | Friday before the 25th of each month
    10 days after the last day of every quarter | .
    10 days after quarter end | 10 days after the last day of every quarter
    10 days after the end of each quarter | 10 days after the last day of every quarter
    quarterly, 10 days after quarter end | 10 days after the last day of every quarter
    quarterly, 3 working days before the last day | 3 working days before the last day of every quarter
    yearly, 5 working days before 31 January | .
    5 working days before 31 January | yearly, 5 working days before 31 January
    30 days after year end | yearly, 30 days after 31 December
    two weeks before 5 April | yearly, 2 weeks before 5 April
    day after the first Monday of each month | .
    the day after the first Monday | day after the first Monday of each month
    Wednesday after the second Tuesday | Wednesday after the second Tuesday of each month
    the Thursday before the last Friday of the month | Thursday before the last Friday of each month
    a month and 7 days after each quarter's end | 7 days after the last day of Jan, Apr, Jul and Oct
    a month after quarter end | last day of Jan, Apr, Jul and Oct
    3 months before 30 September | yearly on 30 June
    every 2 months, 3 days before the 5th | .
    every 3 months on the Friday after the 10th | every 3 months, the Friday after the 10th
    last working day before the 20th | working day before the 20th of each month
    second working day after the 1st and 15th | 2 working days after the 1st and 15th of each month
    every 2 months, the day before the 1st and the second Sunday before the 1st of each month | .
    2 days after the last but one Monday of each month | .
    fifth Friday of every quarter | .
    thirtieth working day of every quarter | .
    tenth Monday of the year | .
    20th working day of the year | twentieth working day of the year
    every week on Mon and the Friday before the 25th of each month | .
    1st of each month and 3 working days before month end | 1st of each month and 3 working days before the last day of each month`,
  ],
  [
    'a weekday beside a day off',
    `
    every Friday, or the Thursday before if that is a holiday | every week on Fri, or the working day before if that is a holiday
    every 2 weeks on Fri, or the Thursday before if a holiday | every 2 weeks on Fri, or the working day before if that is a holiday
    last Friday of the month, or the Thursday before if it is a bank holiday | last Friday of each month, or the working day before if that is a holiday
    every Monday, if bank holiday then Tuesday | every week on Mon, or the working day after if that is a holiday
    1st Monday of each quarter, or the Tuesday after if that is a bank holiday | first Monday of every quarter, or the working day after if that is a holiday
    25th, or the Friday before if it falls on a weekend | 25th of each month, or the working day before if that is a weekend
    15th, or the following Monday if it falls on a weekend | 15th of each month, or the working day after if that is a weekend`,
  ],
  [
    'months left out, and ends of months',
    `
    monthly on the 5th but August | 5th of each month, not in Aug
    every month but August | 24th of each month, not in Aug
    every day from 1 March except Sundays | every day but Sun
    every day, not in Aug, except Sundays | every day but Sun, not in Aug
    weekdays from 1 March but not Wed | every week on Mon, Tue, Thu and Fri
    everyday | every day
    25th of the month unless weekend then friday before | 25th of each month, or the working day before if that is a weekend
    25th, unless it is a holiday, then the working day after | 25th of each month, or the working day after if that is a holiday
    25th unless it is a weekend | 25th of each month, skipped on weekends
    each quarter end plus 7 days | 7 days after the last day of every quarter
    month end + 3 working days | 3 working days after the last day of each month
    quarter end plus 2 weeks | 2 weeks after the last day of every quarter
    start of quarter | 1st of every quarter
    start of month | 1st of each month
    beginning of year | yearly on 1 January
    end of Feb each year | yearly on the last day of February
    the beginning of May and September | yearly on 1 May and September
    M W F | every week on Mon, Wed and Fri
    by Friday each week | every week on Fri`,
  ],
];

const pairsOf = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => line.split(' | ') as [string, string])
    .map(([said, written]) => [said, written === '.' ? said : written] as const);

describe.each(PHRASES)('a phrase of %s', (_, text) => {
  it.each(pairsOf(text))('%s', (said, written) => {
    expect(again(said)).toBe(written);
    expect(again(written)).toBe(written);
  });
});

describe('the table of phrases', () => {
  it('holds more than 250', () => {
    expect(PHRASES.flatMap(([, text]) => pairsOf(text)).length).toBeGreaterThan(250);
  });
});
