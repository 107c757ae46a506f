import type { IsoDate, IsoTime } from '../civil-date/iso-date.ts';

/** A DATE or DATE-TIME as an iCalendar file says it (RFC 5545, sections 3.3.4 and 3.3.5). */
export interface EntryTime {
  readonly date: IsoDate;
  /** Null for a whole day. */
  readonly time: IsoTime | null;
  /** TZID as it is written; 'UTC' for universal time; null for a time that floats: the same by every clock. */
  readonly zone: string | null;
}

/** Somebody whom an entry names. */
export interface EntryPerson {
  /** Empty where none is said. */
  readonly name: string;
  readonly mail: string;
}

/** When an alarm of an entry rings (section 3.8.6.3). */
export type EntryAlarm = { readonly minutes: number; readonly of: 'start' | 'end' } | { readonly at: EntryTime };

/** What one VEVENT or VTODO says. */
export interface EntryPart {
  readonly kind: 'event' | 'to-do';
  readonly summary: string;
  readonly description: string;
  readonly location: string;
  readonly url: string;
  readonly categories: readonly string[];
  /** 1 the highest, 9 the lowest, 0 none said (section 3.8.1.9). */
  readonly priority: number;
  readonly status: string;
  /** Whether whoever has it is free all the same (section 3.8.2.7). */
  readonly isTransparent: boolean;
  readonly sequence: number;
  readonly start: EntryTime | null;
  /** DTEND or DUE. */
  readonly end: EntryTime | null;
  /** DURATION in minutes. */
  readonly minutes: number | null;
  readonly rules: readonly string[];
  readonly added: readonly EntryTime[];
  readonly takenOut: readonly EntryTime[];
  /** Of one occurrence that differs: which one (section 3.8.4.4), and whether those after it differ likewise. */
  readonly of: { readonly at: EntryTime; readonly isLaterToo: boolean } | null;
  readonly alarms: readonly EntryAlarm[];
  /** Attendees; whoever called them, where there are none. */
  readonly people: readonly EntryPerson[];
  /** What else stands there that nothing here has a place for, by the names of the properties. */
  readonly besides: readonly string[];
}

/** All of one UID: what it is, and the occurrences that differ. */
export interface Entry {
  readonly uid: string;
  /** Null where only occurrences are told of a series that is not in the file. */
  readonly main: EntryPart | null;
  readonly changed: readonly EntryPart[];
}
