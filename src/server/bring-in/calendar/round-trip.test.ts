import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bringingIn } from '../../testing/bring-in.ts';
import { type Agent, type TestServer, testServer } from '../../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const { begun: begunOf, broughtIn } = bringingIn(() => ines);
const begun = (file: string) => begunOf('calendar', file, 'all.ics');

describe('schedules → .ics → schedules', () => {
  it('knows what was taken out of here, and has the same dates where it was not', { timeout: 120_000 }, async () => {
    const { text } = await ines
      .get('/api/lists/schedules.ics')
      .expect(200)
      .expect('Content-Type', /text\/calendar/);
    const here = await begun(text);
    expect([here.rowCount > 200, here.counts.same]).toEqual([true, here.rowCount]);
    // The same calendar under other names, as another workspace would bring it in: every date of the coming months is there again.
    const others = text.replaceAll('@jolly-rota.local', '@elsewhere.example');
    const now = await begun(others);
    expect(now.left.map(({ title, why }) => [title, why])).toEqual([]);
    await broughtIn(now);
    const [twin] = await server.source.query(
      `select count(*)::int as all, count(*) filter (where dates is distinct from dates_again)::int as other, min(name) filter (where dates is distinct from dates_again) as first
       from (
         select t.name,
           (select array_agg(distinct k.set_on || ' ' || coalesce(k.start_time, '') order by k.set_on || ' ' || coalesce(k.start_time, '')) from task k where k.schedule_id = s.id and k.step_key = '' and k.set_on between '2026-12-08' and '2026-12-20') as dates,
           (select array_agg(distinct k.set_on || ' ' || coalesce(k.start_time, '') order by k.set_on || ' ' || coalesce(k.start_time, '')) from task k where k.schedule_id = again.id and k.step_key = '' and k.set_on between '2026-12-08' and '2026-12-20') as dates_again
         from calendar_origin o join schedule again on again.id = o.schedule_id
         join schedule s on o.uid = 'schedule-' || s.id || '@elsewhere.example' join template t on t.id = s.template_id
         where s.recurrence::text not like '%follows%') both_of`,
    );
    expect(twin).toMatchObject({ other: 0, first: null });
    expect(twin.all).toBeGreaterThan(200);
  });
});
