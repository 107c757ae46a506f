import {
  type CalendarAsked,
  type EntryPerson,
  entryPersonKey,
  hasLeftBy,
  isWholeDays,
  whoIsMeant,
  zonesOf,
} from '../../../core/index.ts';
import { Person } from '../../platform/identity/person.ts';
import { eachInTurn } from '../../platform/in-turn.ts';
import type { Scope } from '../../platform/scope.ts';
import type { NameMeant } from '../check.ts';
import type { BringIn } from '../entity.ts';
import { readEntry, zoneOfTzid } from './entry.ts';
import type { CalendarRead } from './read-calendar.ts';

/** People and zones that are told apart in one calendar, those that stand most often first. */
const MOST_PEOPLE = 200;
const MOST_ZONES = 60;

/** What a calendar names, and what most likely is meant by it and by its entries. */
export async function calendarAsked(scope: Scope, read: CalendarRead): Promise<CalendarAsked> {
  const people = new Map<string, { person: EntryPerson; count: number }>();
  const zones = new Map<string, number>();
  let [events, wholeDays] = [0, 0];
  await eachInTurn(read.entries, ({ uid, text }) => {
    const reading = readEntry(uid, text);
    // Of what can't be read its line says why.
    if ('problem' in reading) return;
    const part = reading.entry.main ?? reading.entry.changed[0];
    if (!part) return;
    if (part.kind === 'event') events++;
    if (isWholeDays(part)) wholeDays++;
    for (const person of part.people) {
      const key = entryPersonKey(person);
      if (key === '') continue;
      const known = people.get(key);
      people.set(key, { person: known?.person ?? person, count: (known?.count ?? 0) + 1 });
    }
    for (const tzid of zonesOf(reading.entry)) zones.set(tzid, (zones.get(tzid) ?? 0) + 1);
  });
  const most = <T extends { readonly count: number }>(all: readonly T[], n: number) =>
    [...all].sort((a, b) => b.count - a.count).slice(0, n);
  return {
    choices: {
      ...{ repeating: 'schedule', single: 'task', toDos: 'template' },
      // A calendar of nothing but whole days is one of holidays.
      wholeDays: events > 0 && wholeDays === events ? 'days off' : 'as work',
    },
    ...{ several: 'each of', ownerId: null, mended: read.mended, others: read.others },
    people: most(
      [...people].map(([key, { person, count }]) => ({ key, ...person, count })),
      MOST_PEOPLE,
    ),
    zones: most(
      [...zones].map(([tzid, count]) => ({
        tzid,
        count,
        zone: zoneOfTzid(tzid, read.zones.get(tzid), scope.workspace.zone),
      })),
      MOST_ZONES,
    ),
  };
}

/** Who is meant by whom a calendar names: told, of the same mail, or of a name that nobody else can have. */
export async function calendarNames(scope: Scope, { asked }: Pick<BringIn, 'asked'>): Promise<NameMeant[]> {
  if (!asked.calendar || asked.calendar.people.length === 0) return [];
  const people = (await scope.find(Person)).filter((person) => !hasLeftBy(person, scope.now.day));
  const mails = new Map(
    (
      await scope.sql<{ id: string; mail: string }>(
        `select p.id, lower(coalesce(a.email, p.email)) as mail from person p left join account a on a.id = p.account_id
         where p.workspace_id = $1 and coalesce(a.email, p.email) is not null`,
      )
    ).map(({ id, mail }) => [mail, id]),
  );
  const here = new Set(people.map(({ id }) => id));
  return asked.calendar.people.map(({ key, name, mail, count }) => {
    const shown = name || mail;
    const chosen = asked.people[key];
    if (chosen === null || (chosen !== undefined && here.has(chosen)))
      return { key, name: shown, count, personId: chosen, isSure: true };
    const byMail = mail === '' ? undefined : mails.get(mail);
    if (byMail !== undefined && here.has(byMail)) return { key, name: shown, count, personId: byMail, isSure: true };
    const meant = name === '' ? { kind: 'none' as const } : whoIsMeant(name, people);
    return meant.kind === 'one'
      ? { key, name: shown, count, personId: meant.id, isSure: true }
      : { key, name: shown, count, personId: null, isSure: false };
  });
}

export const calendarPeople = async (scope: Scope, bringIn: BringIn): Promise<ReadonlyMap<string, string | null>> =>
  new Map((await calendarNames(scope, bringIn)).map(({ key, personId }) => [key, personId]));

/** The zone that each TZID means, where somebody said so or it can be told. */
export const calendarZones = ({ asked }: Pick<BringIn, 'asked'>): ReadonlyMap<string, string | null> =>
  new Map((asked.calendar?.zones ?? []).map(({ tzid, zone }) => [tzid, asked.zones?.[tzid] ?? zone]));
