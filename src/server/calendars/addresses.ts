import { type DataSource, IsNull } from 'typeorm';
import {
  type CalendarAddress,
  type CalendarKind,
  type CalendarOf,
  calendarEndpoints,
  MOST_CALENDARS,
} from '../../contract/index.ts';
import { Asset, Client } from '../clients/index.ts';
import type { Clock } from '../platform/clock.ts';
import { digestOf, newToken } from '../platform/digest.ts';
import type { Asker } from '../platform/http/route.ts';
import { whoIs } from '../platform/http/session.ts';
import { Person } from '../platform/identity/person.ts';
import { notFound, notNow } from '../platform/refusal.ts';
import { Scope } from '../platform/scope.ts';
import { scheduleRows } from '../schedules/index.ts';
import { KeptView } from '../task-list/index.ts';
import { CalendarAddressRecord } from './entity.ts';

/** That a program asked is written down no more often than this: many ask every few minutes. */
const ASKED_MS = 10 * 60_000;
const LONGEST_AGENT = 120;

/** What each kind of calendar is called; null where what it is of is gone, or is not seen by whoever asks. */
const NAMES: Readonly<Record<CalendarKind, (scope: Scope, id: string) => Promise<string | null>>> = {
  person: async (scope, id) => (await scope.find(Person, { id }))[0]?.name ?? null,
  // Of what is in the archive, or was put together with another, a calendar would be empty without a word.
  client: async (scope, id) => (await scope.find(Client, { id, archivedAt: IsNull() }))[0]?.name ?? null,
  asset: async (scope, id) => (await scope.find(Asset, { id, archivedAt: IsNull() }))[0]?.name ?? null,
  schedule: async (scope, id) => {
    const [row] = await scheduleRows(scope, { ids: [id] });
    if (!row || row.deletedAt !== null) return null;
    const about = row.assetName ?? row.clientName;
    return about === null ? row.templateName : `${row.templateName}, ${about}`;
  },
  view: async (scope, id) => {
    const [view] = await scope.find(KeptView, { id });
    return view && (view.isShared || view.personId === scope.me.id) ? view.name : null;
  },
};

/** @throws Refusal where what it is of is not there */
export async function nameOfCalendar(scope: Scope, { kind, id }: CalendarOf): Promise<string> {
  const name = await NAMES[kind](scope, id);
  if (name === null) throw notFound(kind);
  return name;
}

async function toldOf(scope: Scope, row: CalendarAddressRecord): Promise<CalendarAddress> {
  const of = { kind: row.kind, id: row.ofId };
  return {
    ...{ id: row.id, of, name: await NAMES[row.kind](scope, row.ofId), askedBy: row.askedBy },
    madeAt: scope.moment(row.madeAt),
    askedAt: scope.moment(row.askedAt),
  };
}

export async function myCalendars(scope: Scope): Promise<{ calendars: CalendarAddress[] }> {
  const rows = await scope.find(CalendarAddressRecord, { personId: scope.me.id });
  const newest = rows.sort((a, b) => b.madeAt.getTime() - a.madeAt.getTime());
  return { calendars: await Promise.all(newest.map((row) => toldOf(scope, row))) };
}

const addressOf = (origin: string, token: string) => `${origin}/api${calendarEndpoints.subscribed.path}?key=${token}`;

/** A new address; whoever loses it makes another. @param origin under which programs reach this server */
export function makeCalendar(scope: Scope, of: CalendarOf, origin: string) {
  return scope.transaction(async (tx) => {
    await nameOfCalendar(tx, of);
    const personId = tx.me.id;
    // Two at once wait for each other, so that there are never more than may be.
    await tx.locked(Person, personId, 'person');
    if ((await tx.find(CalendarAddressRecord, { personId })).length >= MOST_CALENDARS)
      throw notNow(`${MOST_CALENDARS} addresses are yours already: withdraw one first.`);
    const { token, digest } = newToken();
    const row = await tx.insert(CalendarAddressRecord, {
      ...{ id: tx.newId(), personId, kind: of.kind, ofId: of.id, digest, origin },
      ...{ madeAt: tx.instant, askedAt: null, askedBy: '' },
    });
    return { address: addressOf(origin, token), calendar: await toldOf(tx, row) };
  });
}

/** Another key; what was subscribed by the one before finds nothing from then on. */
export function renewCalendar(scope: Scope, id: string, origin: string) {
  return scope.transaction(async (tx) => {
    const before = await ownAddress(tx, id);
    const { token, digest } = newToken();
    const row = { ...before, digest, origin, madeAt: tx.instant, askedAt: null, askedBy: '' };
    await tx.save(CalendarAddressRecord, id, row);
    return { address: addressOf(origin, token), calendar: await toldOf(tx, row) };
  });
}

export function withdrawCalendar(scope: Scope, id: string): Promise<{ calendars: CalendarAddress[] }> {
  return scope.transaction(async (tx) => {
    await ownAddress(tx, id);
    await tx.sql('delete from calendar_address where workspace_id = $1 and id = $2', [id]);
    return myCalendars(tx);
  });
}

async function ownAddress(tx: Scope, id: string): Promise<CalendarAddressRecord> {
  const row = await tx.locked(CalendarAddressRecord, id, 'calendar');
  if (row.personId !== tx.me.id) throw notFound('calendar');
  return row;
}

const GONE = () => notFound('calendar');
const digestIn = (key: unknown): string => {
  if (typeof key !== 'string' || key === '') throw GONE();
  return digestOf(key);
};

/** Whoever shows the key of an address sees what its owner may see, for as long as they are here. */
export const byCalendarKey = (clock: Clock): Asker => ({
  who: ({ query }) => `calendar ${digestIn(query['key'])}`,
  scope: async ({ query }, source) => {
    const row = await foundBy(source, digestIn(query['key']));
    const owner = row && (await whoIs(source, row.workspaceId, row.personId, clock));
    if (!owner) throw GONE();
    return Scope.on(source, owner.workspace, owner.person, clock);
  },
});

const foundBy = (source: DataSource, digest: string) =>
  source.getRepository(CalendarAddressRecord).findOneBy({ digest });

/** What a key opens; that a program asked is written down. */
export async function subscribedBy(scope: Scope, key: string, agent: string): Promise<CalendarAddressRecord> {
  const [row] = await scope.find(CalendarAddressRecord, { digest: digestOf(key) });
  if (!row) throw GONE();
  if (row.askedAt === null || scope.instant.getTime() - row.askedAt.getTime() >= ASKED_MS)
    await scope.sql('update calendar_address set asked_at = $3, asked_by = $4 where workspace_id = $1 and id = $2', [
      row.id,
      scope.instant,
      agent.slice(0, LONGEST_AGENT),
    ]);
  return row;
}
