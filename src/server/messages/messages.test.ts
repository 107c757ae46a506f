import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Overview, Summary } from '../../contract/index.ts';
import { type SummaryWish, summaryBandsFor } from '../../core/index.ts';
import type { Person } from '../platform/identity/person.ts';
import { Scope } from '../platform/scope.ts';
import { TEST_NOW } from '../testing/clock.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { areSummariesOwed, sendSummaries } from './index.ts';

let server: TestServer;
let ines: Agent;
let nadia: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  nadia = await server.browser('Nadia Orme');
});
afterAll(() => server.stop());

interface Mine {
  readonly wish: SummaryWish;
  readonly email: string | null;
  readonly summary: Summary;
}
const mine = async (by: Agent): Promise<Mine> => (await by.get('/api/messages').expect(200)).body;
const countOf = ({ bands }: Summary, name: string) => bands.find(({ band }) => band === name)?.count ?? 0;
const mails = (reason = 'summary %') =>
  server.source.query<{ toEmail: string; subject: string; text: string; html: string }[]>(
    `select to_email as "toEmail", subject, text, html from mail where kind = 'summary' and reason like $1 order by id`,
    [reason],
  );
async function night(at: string): Promise<number> {
  server.clock.set(at);
  try {
    const scope = await server.scope();
    const as = (person: Person) => Scope.on(server.source, scope.workspace, person, scope.clock);
    return await sendSummaries(scope, as, server.address);
  } finally {
    server.clock.set(TEST_NOW);
  }
}

describe('the summary of a day', () => {
  it('tells a manager of all work as the morning page does, and others of their own', async () => {
    const { summary, wish, email } = await mine(ines);
    const morning: Overview = (await ines.get('/api/overview').expect(200)).body;
    expect(wish).toEqual({ at: '07:30', days: 'working', evenIfEmpty: false });
    expect(email).toBe('ines@ternquay.example');
    expect(countOf(summary, 'late')).toBe(morning.late.count);
    expect(countOf(summary, 'toCheck')).toBe(morning.toCheck.count);
    expect(countOf(summary, 'nobody')).toBe(morning.nobody.count);
    expect(summary.subject).toMatch(new RegExp(`^Tue 24 Nov: ${morning.late.count} late, `));
    for (const { lines, count } of summary.bands) expect(lines.length).toBeLessThanOrEqual(Math.min(6, count));
    const own = await mine(nadia);
    expect(own.wish.days).toBe('none');
    expect(countOf(own.summary, 'late')).toBeLessThan(morning.late.count);
    expect(own.summary.bands.map(({ band }) => band)).not.toContain('toCheck');
    // What a line leads to is there.
    const [line] = summary.bands[0]?.lines ?? [];
    const id = line?.path.split(/[/?]/)[3];
    await ines.get(`/api/tasks/${id}`).expect(200);
  });

  it('leaves out what somebody wants to hear nothing of, as it is looked at and as it is sent', async () => {
    await server.source.query(`delete from mail where kind = 'summary'`);
    const { summary, wish } = await mine(ines);
    const [first, ...others] = summary.bands.map(({ band }) => band);
    expect(first).toBe('late');
    await ines
      .put('/api/messages/summary')
      .send({ ...wish, leavesOut: ['late'] })
      .expect(200);
    const less = (await mine(ines)).summary;
    expect(less.bands.map(({ band }) => band)).toEqual(others);
    expect(less.subject).not.toContain('late');
    await ines.post('/api/messages/summary/now').send({}).expect(200);
    const [mail] = await mails();
    expect(mail?.subject).toBe(less.subject);
    expect(mail?.text).not.toMatch(/\d+ late/);
    await ines
      .put('/api/messages/summary')
      .send({ ...wish, leavesOut: ['tea'] })
      .expect(422);
    await server.source.query('delete from message_wish');
    // Everything there is to tell somebody can be left out, and nothing else is told.
    for (const by of [ines, nadia])
      for (const { band } of (await mine(by)).summary.bands)
        expect(summaryBandsFor(by === ines ? 'manager' : 'member')).toContain(band);
  });

  it('goes at its time on the days that are wished, once, with a link a line; and at once to whoever asks', async () => {
    await server.source.query(`delete from mail where kind = 'summary'`);
    await server.source.query('delete from message_wish');
    expect(await night('2026-11-25T07:29')).toBe(0);
    expect(await night('2026-11-25T07:30')).toBe(1);
    // Once, whoever runs it again, and however late.
    expect(await night('2026-11-25T07:31')).toBe(0);
    expect(await night('2026-11-25T23:00')).toBe(0);
    const [mail] = await mails();
    expect(mail?.toEmail).toBe('ines@ternquay.example');
    expect(mail?.text).toMatch(/\d+ late, .*\n- .+\n {2}Open: http.+\/tasks\/task\//);
    expect(mail?.html).toContain('/overview');
    // Nobody works on that Sunday; a week without a server brings one summary, not seven.
    expect(await night('2026-11-29T09:00')).toBe(0);
    expect(await night('2026-12-03T09:00')).toBe(1);
    await nadia
      .put('/api/messages/summary')
      .send({ at: '06:00', days: 'every', evenIfEmpty: true } satisfies SummaryWish)
      .expect(200);
    await ines.put('/api/messages/summary').send({ at: '07:30', days: 'none', evenIfEmpty: false }).expect(200);
    expect((await mine(nadia)).wish).toEqual({ at: '06:00', days: 'every', evenIfEmpty: true });
    expect(await night('2026-12-06T06:00')).toBe(1);
    expect((await mails()).at(-1)?.toEmail).toBe('nadia@ternquay.example');
    server.clock.set('2026-12-06T06:01');
    expect(await areSummariesOwed(await server.scope())).toBe(false);
    server.clock.set(TEST_NOW);
    await nadia.put('/api/messages/summary').send({ at: '25:00', days: 'every', evenIfEmpty: true }).expect(422);
    const before = (await mails('%asked%')).length;
    for (let n = 0; n < 2; n++)
      expect((await nadia.post('/api/messages/summary/now').send({}).expect(200)).body.email).toBe(
        'nadia@ternquay.example',
      );
    const asked = await mails('%asked%');
    expect(asked).toHaveLength(before + 2);
    expect(asked.at(-1)?.subject).toBe((await mine(nadia)).summary.subject);
  });

  it('is sent once by two that run at one moment', async () => {
    await server.source.query(`delete from mail where kind = 'summary'`);
    await server.source.query('delete from message_wish');
    server.clock.set('2026-11-26T08:00');
    const scope = await server.scope();
    const as = (person: Person) => Scope.on(server.source, scope.workspace, person, scope.clock);
    const sent = await Promise.all([1, 2, 3].map(() => sendSummaries(scope, as, server.address)));
    server.clock.set(TEST_NOW);
    expect(sent.reduce((sum, count) => sum + count, 0)).toBe(1);
    expect(await mails()).toHaveLength(1);
  });
});
