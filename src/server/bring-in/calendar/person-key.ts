import { type EntryPerson, nameKey } from '../../../core/index.ts';

/** What somebody is known by in a calendar: their mail, else their name. */
export const personKey = ({ name, mail }: EntryPerson): string => mail || nameKey(name);
