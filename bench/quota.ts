import { type QuotaTerms, spreadCalls, type Worker } from '../src/core/index.ts';
import { lookAtQuota } from '../src/server/calls/look.ts';
import { makeLists } from '../src/server/calls/making.ts';
import { firstOfPool } from '../src/server/calls/pool-sql.ts';
import { CallQuota } from '../src/server/calls/stored/index.ts';
import { largeDatabase, largeScope } from './lists-database.ts';
import { best, line, longStep } from './measure.ts';

/**
 * npm run bench quota: calls of 200 people spread over a year beside the bare sum of their hours; then, over 100,000 contacts, the
 * list of a day beside the statement that only counts those who may be rung, lists made, and what a quota for 50 comes to.
 */

const CONTACTS = 100_000;
const RINGING = 50;
const DAY = 20_600;

const worker = (n: number): Worker => ({
  ...{ id: `person ${n}`, weeks: [[480, 480, 480, 480, n % 3 === 0 ? 0 : 480, 0, 0]], weeksFrom: DAY, shifts: [] },
  ...{ shiftChanges: new Map(), worksFrom: null, worksUntil: null, tickets: [], deputyId: null },
  leave: [{ from: DAY + (n % 300), to: DAY + (n % 300) + 13 }],
});

function spreading(): void {
  const workers = Array.from({ length: 200 }, (_, n) => worker(n));
  const calendar = { isHoliday: (day: number) => day % 91 === 0, isIn: () => true };
  const bare = best(5, () => {
    let sum = 0;
    for (const { weeks } of workers) for (let day = 0; day < 365; day++) sum += weeks[0]?.[day % 7] ?? 0;
    return sum;
  });
  for (const per of ['day', 'week', 'month'] as const) {
    const spread = best(5, () => {
      const calls = spreadCalls(
        { count: 55, per, share: 'hours', mostADay: 15, holidays: 'madeUp', leave: 'off' },
        workers,
        calendar,
      );
      let sum = 0;
      for (const { id } of workers) for (let day = DAY; day < DAY + 365; day++) sum += calls.on(id, day);
      return sum;
    });
    const ratio = (spread.milliseconds / bare.milliseconds).toFixed(0);
    line(`200 people × a year, a ${per}`, spread.milliseconds, `${ratio} times the bare sum, aim 50 ms`);
  }
}

const TERMS: QuotaTerms = {
  amount: { count: 12, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
  group: { of: 'people', ids: [] },
  pool: { v: 1, conditions: [{ kind: 'notRungFor', days: 30 }] },
  ...{ first: 'neverRung', usualFirst: true, gap: 2, carryDays: 1, readyAt: '00:00', mails: false },
  ...{ minutesEach: 10, asks: [] },
};

async function listing(): Promise<void> {
  const large = await largeDatabase();
  try {
    const outside = await largeScope(large.source);
    await outside.rehearse(async (scope) => {
      await scope.sql(
        `insert into contact (workspace_id, id, client_id, position, name, role, email, telephone)
         select $1, gen_random_uuid(), c.id, 100 + n, 'A contact', '', '', '01632 960 000'
         from (select id from client where workspace_id = $1 order by id limit 20000) c, generate_series(1, ${CONTACTS / 20_000}) n`,
      );
      await scope.sql(
        `insert into call_standing (workspace_id, contact_id, last_rung_on, tries, is_never_called)
         select workspace_id, id, $2::date - (random() * 200)::int, 0, false from contact where workspace_id = $1 and random() < 0.9`,
        [scope.today],
      );
      const people = await scope.sql<{ id: string }>(
        `select id from person where workspace_id = $1 order by id limit ${RINGING}`,
      );
      const terms = { ...TERMS, group: { of: 'people' as const, ids: people.map(({ id }) => id) } };
      const { seconds: bare } = await longStep('those who may be rung, counted', () =>
        scope.sql(
          `select count(*) from contact k left join call_standing s on s.workspace_id = k.workspace_id and s.contact_id = k.id
           where k.workspace_id = $1 and k.telephone <> '' and (s.last_rung_on is null or $2::date - s.last_rung_on >= 30)`,
          [scope.today],
        ),
      );
      const asked = { day: scope.now.day, seed: 7, most: 12 };
      await firstOfPool(scope, terms, asked);
      const { seconds } = await longStep('the first twelve of the pool (aim 0.1 s)', () =>
        firstOfPool(scope, terms, asked),
      );
      console.log(`  ${(seconds / bare).toFixed(1)} times the count`);
      const input = { quotaId: null, from: scope.today, endsOn: null, pauses: [], says: terms };
      await longStep(
        `what a quota for ${RINGING} comes to (aim 0.5 s)`,
        () => lookAtQuota(scope, input),
        ({ forecast }) => `${forecast.days.length} days`,
      );
      await scope.insert(CallQuota, {
        ...{
          id: scope.newId(),
          version: 1,
          name: 'Bench',
          startsOn: scope.today,
          endsOn: null,
          pauses: [],
          madeOn: null,
        },
        terms: [{ from: scope.today, says: terms }],
      });
      await longStep(
        `lists of ${RINGING}, made`,
        () => makeLists(scope, 'http://127.0.0.1'),
        (made) => `${made} lists`,
      );
    });
  } finally {
    await large.close();
  }
}

spreading();
await listing();
