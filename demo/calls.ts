import { isoOfDay, type QuotaTerms } from '../src/core/index.ts';
import { callDay } from '../src/server/calls/day.ts';
import { makeLists } from '../src/server/calls/index.ts';
import { saidOfCall } from '../src/server/calls/rung.ts';
import { CallQuota } from '../src/server/calls/stored/index.ts';
import { Person } from '../src/server/platform/identity/person.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { SeededRandom } from './random.ts';

/** Days for which the advisers have been ringing, and how many calls of today each has made by now. */
const DAYS_AGO = 7;
const MADE_TODAY: Readonly<Record<string, number>> = { ayesha: 3, rhona: 2 };

const RENEWALS: QuotaTerms = {
  amount: { count: 8, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
  group: { of: 'role', role: 'berth adviser' },
  pool: { v: 1, conditions: [{ kind: 'notRungFor', days: 21 }] },
  ...{ first: 'neverRung', usualFirst: false, gap: 2, carryDays: 1, readyAt: '08:00', mails: false, minutesEach: 11 },
  asks: [
    'Does the berth suit them next year?',
    'Who pays before the end of January has 5 % off the year.',
    'Is the insurance certificate still good?',
  ],
};

/** How calls end, by so many of a hundred, and what is noted of them. */
const ENDS: readonly (readonly [key: string, ofHundred: number, notes: readonly string[]])[] = [
  [
    'reached',
    44,
    ['Stays, form sent by mail.', 'Stays if the post is mended.', 'Asks for a berth nearer the ramp.', ''],
  ],
  ['no-answer', 33, ['']],
  ['call-back', 12, ['When back from sea.', 'After lunch.', 'Has to ask at home first.']],
  ['declined', 6, ['Sells in spring.']],
  ['wrong-number', 5, ['']],
];
const TIMES = ['09:30', '11:00', '14:00', '16:30'] as const;

/** A quota of renewal calls with the lists of the past two weeks, and today's half rung. */
export async function addCalls(
  scope: Scope,
  people: ReadonlyMap<string, string>,
  origin: string,
  as: (person: Person | null, daysAgo: number) => Scope,
): Promise<void> {
  const random = new SeededRandom('calls');
  const { day } = scope.now;
  const from = isoOfDay(day - DAYS_AGO);
  await scope.insert(CallQuota, {
    ...{ id: scope.newId(), version: 1, name: 'Renewal calls', startsOn: from, endsOn: null, pauses: [], madeOn: null },
    // Mails tell of the lists from today on.
    terms: [
      { from, says: RENEWALS },
      { from: scope.today, says: { ...RENEWALS, mails: true } },
    ],
  });
  const callers = await Promise.all(
    Object.keys(MADE_TODAY).map(async (key) => ({
      most: MADE_TODAY[key] ?? 0,
      person: await scope.one(Person, people.get(key) as string, 'person'),
    })),
  );
  for (let ago = DAYS_AGO; ago >= 0; ago--) {
    await makeLists(as(null, ago), origin);
    for (const { person, most } of callers) {
      const by = as(person, ago);
      const { calls } = await callDay(by, { person: person.id, on: by.today });
      // Now and then the last one is left over.
      const made = ago === 0 ? most : calls.length - (random.chance(0.3) ? 1 : 0);
      for (const call of calls.slice(0, made)) {
        const [outcome, , notes] = endOf(random);
        const callBack = { on: isoOfDay(by.now.day + random.whole(1, 4)), at: random.pick(TIMES), personId: person.id };
        await saidOfCall(by, call.id, {
          ...{ version: call.version, outcome, note: random.pick(notes) },
          callBack: outcome === 'call-back' ? callBack : null,
        });
      }
    }
  }
}

function endOf(random: SeededRandom): (typeof ENDS)[number] {
  let lot = random.whole(1, 100);
  for (const end of ENDS) {
    lot -= end[1];
    if (lot <= 0) return end;
  }
  return ENDS[0] as (typeof ENDS)[number];
}
