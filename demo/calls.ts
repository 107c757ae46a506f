import {
  type CallBack,
  type CallStanding,
  type Candidate,
  isoOfDay,
  NEVER_RUNG,
  type Outcome,
  pickLists,
  type QuotaTerms,
  seedOf,
  standingAfter,
  USUAL_OUTCOMES,
  type WhyListed,
} from '../src/core/index.ts';
import { callDay } from '../src/server/calls/day.ts';
import { makeLists } from '../src/server/calls/index.ts';
import { saidOfCall } from '../src/server/calls/rung.ts';
import { CallQuota, keepStanding } from '../src/server/calls/stored/index.ts';
import { Person } from '../src/server/platform/identity/person.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { ringing, wantedOn } from '../src/server/ringing/index.ts';
import { SeededRandom } from './random.ts';

/** Days for which the advisers have been ringing, and how many calls of today each has made by now. */
const DAYS_AGO = 182;
/** Days that a contact rests before the pool takes them again. */
const RESTS = 14;
const MADE_TODAY: Readonly<Record<string, number>> = { ayesha: 3, rhona: 2 };

const RENEWALS: QuotaTerms = {
  amount: { count: 8, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
  group: { of: 'role', role: 'berth adviser' },
  pool: { v: 1, conditions: [{ kind: 'notRungFor', days: RESTS }] },
  ...{ first: 'neverRung', usualFirst: false, gap: 2, carryDays: 1, readyAt: '08:00', mails: false, minutesEach: 11 },
  asks: [
    'Does the berth suit them next year?',
    'Who pays before the end of January has 5 % off the year.',
    'Is the insurance certificate still good?',
  ],
};

const NOTES: Readonly<Record<string, readonly string[]>> = {
  reached: ['Stays, form sent by mail.', 'Stays if the post is mended.', 'Asks for a berth nearer the ramp.', ''],
  'call-back': ['When back from sea.', 'After lunch.', 'Has to ask at home first.'],
  declined: ['Sells in spring.'],
};
/** Of a hundred calls that begin in an hour, how many reach whoever is rung. */
const REACHED: Readonly<Record<number, number>> = { 9: 41, 10: 46, 11: 52, 12: 60, 13: 58, 14: 51, 15: 56, 16: 68 };
const TIMES = ['09:30', '11:00', '14:00', '16:30'] as const;

/** A quota of renewal calls with the lists of half a year, and today's half rung. */
export async function addCalls(
  scope: Scope,
  people: ReadonlyMap<string, string>,
  origin: string,
  as: (person: Person | null, daysAgo: number) => Scope,
): Promise<void> {
  const from = isoOfDay(scope.now.day - DAYS_AGO);
  const quota = await scope.insert(CallQuota, {
    ...{ id: scope.newId(), version: 1, name: 'Renewal calls', startsOn: from, endsOn: null, pauses: [], madeOn: null },
    // Mails tell of the lists from today on.
    terms: [
      { from, says: RENEWALS },
      { from: scope.today, says: { ...RENEWALS, mails: true } },
    ],
  });
  await ringHalfAYear(scope, quota);
  await makeLists(as(null, 0), origin);
  const random = new SeededRandom('calls of today');
  const calendar = await scope.calendar();
  const today = calendar.numberOf(scope.now.day);
  for (const [key, most] of Object.entries(MADE_TODAY)) {
    const person = await scope.one(Person, people.get(key) as string, 'person');
    const { calls } = await callDay(as(person, 0), { person: person.id, on: scope.today });
    for (const [i, call] of calls.slice(0, most).entries()) {
      // A quarter of an hour each, the last of them just now.
      const by = as(person, ((most - i) * 17) / (24 * 60));
      const outcome = endOf(random, 10);
      const callBack = {
        ...{ on: isoOfDay(calendar.dayNumbered(today + random.whole(1, 3))), at: random.pick(TIMES) },
        personId: person.id,
      };
      await saidOfCall(by, call.id, {
        ...{ version: call.version, outcome: outcome.key, note: noteOf(random, outcome) },
        callBack: outcome.follows.kind === 'callBack' ? callBack : null,
      });
    }
  }
}

interface PastContact {
  readonly id: string;
  readonly clientId: string;
  readonly telephone: string;
}

interface PastCall {
  readonly id: string;
  readonly contactId: string;
  readonly clientId: string;
  readonly number: string;
  readonly place: number;
  readonly why: WhyListed;
  readonly state: 'rung' | 'carried' | 'dropped' | 'open';
  readonly outcome: Outcome | null;
  readonly note: string;
  readonly rungAt: string | null;
  readonly callBack: CallBack | null;
  readonly standingBefore: CallStanding | null;
}

/** The lists of all days before today, as the core would have picked them then, and how their calls went. */
async function ringHalfAYear(scope: Scope, quota: CallQuota): Promise<void> {
  const random = new SeededRandom('calls');
  const today = scope.now.day;
  const contacts = await scope.sql<PastContact>(
    `select k.id, k.client_id as "clientId", k.telephone from contact k
     join client c on c.workspace_id = k.workspace_id and c.id = k.client_id and c.archived_at is null
     where k.workspace_id = $1 and k.telephone <> '' order by k.id`,
  );
  const byId = new Map(contacts.map((contact) => [contact.id, contact]));
  const standings = new Map<string, CallStanding>(contacts.map(({ id }) => [id, NEVER_RUNG]));
  const carried = new Map<string, NonNullable<Candidate['carried']>>();
  const [calendar, rings] = [await scope.calendar(), await ringing(scope)];
  const wanted = wantedOn(rings, quota);
  const callers = [...rings.people.of(RENEWALS.group)].sort();
  const ahead = (id: string, day: number) =>
    Array.from({ length: 10 }, (_, i) => day + 1 + i)
      .filter((on) => wanted(id, on) > 0)
      .slice(0, 4);
  for (let day = today - DAYS_AGO; day < today; day++) {
    const wants = new Map(callers.flatMap((id) => (wanted(id, day) > 0 ? [[id, wanted(id, day)] as const] : [])));
    if (wants.size === 0) continue;
    const candidates = contacts.map(
      ({ id, telephone }): Candidate => ({
        ...{ contactId: id, number: telephone, usualPersonId: null, carried: carried.get(id) ?? null },
        standing: standings.get(id) ?? NEVER_RUNG,
      }),
    );
    // Who rests by the pool's own condition is no candidate.
    const isRested = ({ standing: { lastRungOn, againOn, callBack }, carried: left }: Candidate) =>
      callBack !== null || left !== null || againOn !== null || lastRungOn === null || day - lastRungOn >= RESTS;
    const seed = seedOf(quota.id, day);
    const { gap, first, usualFirst } = RENEWALS;
    const lists = pickLists(candidates.filter(isRested), { day, wants, gap, first, usualFirst, seed });
    carried.clear();
    for (const [personId, listed] of lists) {
      // Now and then the last ones are left over.
      const left = random.chance(0.2) ? random.whole(1, 4) : 0;
      const calls = listed.map(({ contactId, why }, place): PastCall => {
        const { clientId, telephone } = byId.get(contactId) as PastContact;
        const call = { id: scope.newId(), contactId, clientId, number: telephone, place, why };
        if (place >= listed.length - left) {
          const isLast = why.kind === 'carriedOver';
          if (!isLast) carried.set(contactId, { personId, from: isoOfDay(day) });
          const state = day === today - 1 ? 'open' : isLast ? 'dropped' : 'carried';
          return { ...call, state, outcome: null, note: '', rungAt: null, callBack: null, standingBefore: null };
        }
        const minutes = minutesOfCall(random, place, listed.length, why);
        const outcome = endOf(random, Math.floor(minutes / 60));
        const callBack =
          outcome.follows.kind === 'callBack'
            ? { ...promiseOf(random, ahead(personId, day)), personId, quotaId: quota.id }
            : null;
        const before = standings.get(contactId) ?? NEVER_RUNG;
        const after = standingAfter(before, { on: day, outcome, callBack, number: telephone }, calendar);
        // The office finds another number within the week.
        standings.set(contactId, random.chance(0.8) ? { ...after, wrongNumber: null } : after);
        const rungAt = `${isoOfDay(day)}T${clockOf(minutes)}`;
        return {
          ...call,
          state: 'rung',
          outcome,
          note: noteOf(random, outcome),
          rungAt,
          callBack,
          standingBefore: before,
        };
      });
      await writeDay(scope, { quota, personId, day, wanted: wants.get(personId) ?? 0, calls });
    }
  }
  for (const [contactId, standing] of standings)
    if (standing !== NEVER_RUNG) await keepStanding(scope, contactId, standing);
}

interface PastDay {
  readonly quota: CallQuota;
  readonly personId: string;
  readonly day: number;
  readonly wanted: number;
  readonly calls: readonly PastCall[];
}

async function writeDay(scope: Scope, { quota, personId, day, wanted, calls }: PastDay): Promise<void> {
  const [listId, on, { zone }] = [scope.newId(), isoOfDay(day), scope.workspace];
  await scope.sql(
    `insert into call_list (workspace_id, id, quota_id, person_id, list_on, wanted, made_at)
     values ($1, $2, $3, $4, $5, $6, ($5::date + time '08:00') at time zone $7)`,
    [listId, quota.id, personId, on, wanted, zone],
  );
  await scope.sql(
    `insert into call (workspace_id, id, version, list_id, list_on, place, contact_id, client_id, why, state, number, outcome, note,
       rung_at, rung_by, call_back, standing_before)
     select $1, c.id, 1, $2, $3, c.place, c."contactId", c."clientId", c.why, c.state, c.number, c.outcome, c.note,
       (c."rungAt")::timestamp at time zone $5, case when c."rungAt" is not null then $6::uuid end, c."callBack", c."standingBefore"
     from jsonb_to_recordset($4::jsonb) as c (id uuid, place int, "contactId" uuid, "clientId" uuid, why jsonb, state text, number text,
       outcome jsonb, note text, "rungAt" text, "callBack" jsonb, "standingBefore" jsonb)`,
    [listId, on, JSON.stringify(calls), zone, personId],
  );
}

/** Calls are spread over the day; a promised one is rung about its time. */
function minutesOfCall(random: SeededRandom, place: number, count: number, why: WhyListed): number {
  if (why.kind === 'promised' && why.at !== null && random.chance(0.8))
    return Number(why.at.slice(0, 2)) * 60 + Number(why.at.slice(3)) + random.whole(0, 25);
  return 9 * 60 + Math.floor((place * 440) / Math.max(1, count)) + random.whole(2, 45);
}

const clockOf = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

/** One of the days on which whoever promises it rings. */
const promiseOf = (random: SeededRandom, days: readonly number[]) => ({
  on: random.pick(days),
  at: random.pick(TIMES),
});

function endOf(random: SeededRandom, hour: number): Outcome {
  const isReached = random.whole(1, 100) <= (REACHED[hour] ?? 55);
  const lot = random.whole(1, 100);
  const key = isReached
    ? lot <= 78
      ? 'reached'
      : lot <= 96
        ? 'call-back'
        : 'declined'
    : lot <= 94
      ? 'no-answer'
      : 'wrong-number';
  return USUAL_OUTCOMES.find((outcome) => outcome.key === key) as Outcome;
}

const noteOf = (random: SeededRandom, { key }: Outcome): string => random.pick(NOTES[key] ?? ['']);
