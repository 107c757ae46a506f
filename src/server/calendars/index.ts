/** Work as calendars: as files, and at private addresses that programs ask again and again (RFC 5545, 5546, 7986). */
export { CalendarAddressRecord } from './entity.ts';
export { calendarRoutes } from './routes.ts';
