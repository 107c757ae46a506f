import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CallFigures, CallLine, CallListQuery } from '../../contract/index.ts';
import { dayOfIso, PROMISES_KEPT, promiseKept, tryMinutesOfTime } from '../../core/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

/** Twelve weeks up to today, of the demo. */
const DAYS = { from: '2026-09-07', to: '2026-11-24' };
let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const figures = async (query: object = {}): Promise<CallFigures> =>
  (
    await ines
      .get('/api/call-figures')
      .query({ ...DAYS, ...query })
      .expect(200)
  ).body;
async function behind(query: Partial<CallListQuery>): Promise<CallLine[]> {
  const lines: CallLine[] = [];
  for (let after: string | null = ''; after !== null; ) {
    const page: { lines: CallLine[]; next: string | null } = (
      await ines
        .get('/api/call-figures/calls')
        .query({ ...DAYS, ...query, ...(after && { after }) })
        .expect(200)
    ).body;
    lines.push(...page.lines);
    after = page.next;
  }
  return lines;
}
const sum = (counts: readonly number[]) => counts.reduce((total, count) => total + count, 0);

describe('figures of calls', () => {
  it('add up: by the week, the person, the hour and the outcome', async () => {
    const told = await figures();
    expect(told.listed).toBeGreaterThan(500);
    expect(told.rung + told.notRung + told.toRing).toBe(told.listed);
    expect(sum(told.outcomes.map(({ count }) => count))).toBe(told.rung);
    expect(sum(told.weeks.map(({ listed }) => listed))).toBe(told.listed);
    expect(sum(told.weeks.map(({ notRung }) => notRung))).toBe(told.notRung);
    expect(sum(told.weeks.flatMap(({ by }) => by.map(({ count }) => count)))).toBe(told.rung);
    expect(sum(told.people.map(({ listed }) => listed))).toBe(told.listed);
    expect(sum(told.people.map(({ reached }) => reached))).toBe(told.reached);
    expect(sum(told.hours.map(({ rung }) => rung))).toBe(told.rung);
    expect(sum(told.hours.map(({ reached }) => reached))).toBe(told.reached);
    expect(sum(told.callBacks.by.map(({ count }) => count))).toBe(told.callBacks.promised);
    for (const { days } of told.people) expect(days).toMatch(/^[wpn-]{79}$/);
    // A carried call was on a list that was not rung to its end.
    expect(told.people.some(({ whole, lists }) => whole < lists)).toBe(true);
  });

  it('open the calls behind each of them, page by page, and the same as a table', async () => {
    const told = await figures();
    const all = await behind({});
    expect(all).toHaveLength(told.listed);
    expect(new Set(all.map(({ id }) => id)).size).toBe(told.listed);
    expect(all.map(({ on }) => on)).toEqual(
      all
        .map(({ on }) => on)
        .sort()
        .reverse(),
    );
    for (const { key, count } of told.outcomes) expect(await behind({ outcome: key })).toHaveLength(count);
    expect(await behind({ ended: 'reached' })).toHaveLength(told.reached);
    expect(await behind({ ended: 'notRung' })).toHaveLength(told.notRung);
    for (const { kept, count } of told.callBacks.by) expect(await behind({ kept })).toHaveLength(count);
    const [hour] = told.hours;
    expect(await behind({ ended: 'rung', hour: hour?.hour, weekday: hour?.weekday })).toHaveLength(hour?.rung ?? 0);
    const [person] = told.people;
    expect((await figures({ person: person?.id })).listed).toBe(person?.listed);
    const { text } = await ines
      .get('/api/call-figures.csv')
      .query({ ...DAYS, ended: 'reached' })
      .expect(200);
    const { data } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
      header: true,
      skipEmptyLines: true,
    });
    expect(data).toHaveLength(told.reached);
    expect(data.every(({ reached }) => reached === 'yes')).toBe(true);
  });

  it('tell in SQL how each promise was kept as the core tells it', async () => {
    const rows = await server.source.query<
      { id: string; on: number; at: string | null; rungOn: string | null; rungAt: string | null }[]
    >(
      `select x.id, (x.call_back->>'on')::int as on, x.call_back->>'at' as at, b.day::text as "rungOn", b.time as "rungAt"
       from call x join workspace w on w.id = x.workspace_id left join lateral (
         select (b.rung_at at time zone w.zone)::date as day, to_char(b.rung_at at time zone w.zone, 'HH24:MI') as time from call b
         where b.contact_id = x.contact_id and b.state = 'rung' and b.rung_at > x.rung_at order by b.rung_at limit 1) b on true
       where x.call_back is not null and x.list_on between $1 and $2 and x.state not in ('carried', 'off')`,
      [DAYS.from, DAYS.to],
    );
    expect(rows.length).toBeGreaterThan(50);
    const minutes = (time: string) => tryMinutesOfTime(time) ?? 0;
    const { now } = await server.scope();
    const told = new Map<string, string>();
    for (const kept of PROMISES_KEPT) for (const { id } of await behind({ kept })) told.set(id, kept);
    for (const { id, on, at, rungOn, rungAt } of rows) {
      const rung = rungOn === null || rungAt === null ? null : { day: dayOfIso(rungOn), minutes: minutes(rungAt) };
      const promised = { day: on, minutes: at === null ? null : minutes(at) };
      expect([id, told.get(id)]).toEqual([id, promiseKept(promised, rung, now)]);
    }
    expect(told.size).toBe(rows.length);
  });

  it('tell what is left in the pool of one quota, and refuse a time that is none', async () => {
    const [quota] = (await ines.get('/api/quotas').expect(200)).body.quotas;
    expect((await figures({ quota: quota.id })).pool).toMatchObject({ weeks: 12 });
    expect((await figures()).pool).toBeNull();
    for (const wrong of [{ from: '2026-11-25' }, { from: '2024-01-01' }])
      await ines
        .get('/api/call-figures')
        .query({ ...DAYS, ...wrong })
        .expect(422);
    await ines
      .get('/api/call-figures/calls')
      .query({ ...DAYS, after: 'x' })
      .expect(422);
  });
});
