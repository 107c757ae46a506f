import { calendarAddresses } from '../../../contract/addresses-later.ts';
import type { CalendarOf } from '../../../contract/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';

export const useMyCalendars = () => useAnswer(calendarAddresses.mine, {});

export const makeCalendar = (of: CalendarOf) => ask(calendarAddresses.make, { body: of });
export const renewCalendar = (calendarId: string) => ask(calendarAddresses.renew, { params: { calendarId } });
export const withdrawCalendar = (calendarId: string) => ask(calendarAddresses.withdraw, { params: { calendarId } });
