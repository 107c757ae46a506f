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

const { settled, broughtIn, undo } = bringingIn(() => ines);
const begun = (lines: readonly string[], by = ines) =>
  bringingIn(() => by).begun('calendar', ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR', ''], 'ours.ics');
const whole = async () =>
  JSON.stringify(
    await server.source.query(
      `select 'schedule' as of, id::text, to_jsonb(s) - 'version' - 'settled_to' as row from schedule s
       union all select 'template', id::text, to_jsonb(t) - 'version' from template t
       union all select 'task', id::text, to_jsonb(k) - 'version' from task k
       union all select 'day off', date::text, to_jsonb(h) from holiday h
       union all select 'origin', uid, to_jsonb(o) from calendar_origin o order by 1, 2`,
    ),
  );

const part = (kind: string, uid: string, ...lines: readonly string[]) => [
  `BEGIN:${kind}`,
  `UID:${uid}`,
  ...lines,
  `END:${kind}`,
];
const round = (start = '20261201T090000') =>
  part(
    ...(['VEVENT', 'round@x', 'SUMMARY:Harbour lights round', `DTSTART;TZID=GMT Standard Time:${start}`] as const),
    ...[
      'DURATION:PT45M',
      'RRULE:FREQ=WEEKLY;BYDAY=TU',
      'EXDATE;TZID=GMT Standard Time:20261222T090000',
      'LOCATION:Outer mole',
    ],
    ...['ATTENDEE;CN=Maud Ferrier:mailto:maud@elsewhere.example', 'ATTENDEE;CN=Somebody Else:mailto:else@example.org'],
  );
const OTHERS = [
  ...part('VEVENT', 'visit@x', 'SUMMARY:Surveyor on site', 'DTSTART:20261203T140000Z', 'DTEND:20261203T153000Z'),
  ...part('VEVENT', 'boxing@x', 'SUMMARY:Founders’ day', 'DTSTART;VALUE=DATE:20261217', 'TRANSP:TRANSPARENT'),
  ...part('VTODO', 'cover@x', 'SUMMARY:Winter cover', 'DESCRIPTION:Two people', 'DURATION:PT2H'),
];
const KNOWN = [...round(), ...OTHERS];
const SOME = [...KNOWN, ...part('VEVENT', 'odd@x', 'SUMMARY:Strange clocks', 'DTSTART;TZID=Nowhere:20261203T140000')];

describe('a calendar that is brought in', () => {
  it('says what each entry would become, asks what it can’t know, and writes nothing by that', async () => {
    const before = await whole();
    const now = await begun(SOME);
    expect(now.calendar).toMatchObject({
      wholeDays: 'as work',
      zones: expect.arrayContaining([{ tzid: 'Nowhere', count: 1, zone: null, isSure: false }]),
    });
    expect(now.people.map(({ name, isSure }) => [name, isSure])).toEqual(
      expect.arrayContaining([
        ['Maud Ferrier', true],
        ['Somebody Else', false],
      ]),
    );
    expect(now.fresh.map(({ title, about }) => `${title}: ${about}`)).toEqual([
      'Harbour lights round: schedule at 09:00: every week on Tue, 1 exception, Maud Ferrier',
      'Surveyor on site: task: Thu 3 Dec at 14:00',
      'Founders’ day: task: Thu 17 Dec',
      'Winter cover: template, 120 min',
    ]);
    expect(now.fresh[0]?.why).toBe('With Somebody Else, who is not here');
    expect(now.left.map(({ why }) => why)).toEqual([
      'Its times are in “Nowhere”, which is no zone known here: say which it is',
    ]);
    const said = await settled(now, {
      zones: { Nowhere: 'America/New_York' },
      mended: [{ number: 3, column: 0, text: 'days off' }],
    });
    expect(said.fresh.map(({ about }) => about).slice(2)).toEqual([
      '1 day off, Thu 17 Dec',
      'template, 120 min',
      'task: Thu 3 Dec at 19:00',
    ]);
    expect(await whole()).toBe(before);
  });

  it('makes all of it in one go, as it was looked at, and takes it out without a trace', async () => {
    const before = await whole();
    const now = await settled(await begun(KNOWN), { mended: [{ number: 3, column: 0, text: 'days off' }] });
    const { body: impact } = await ines
      .post(`/api/bring-ins/${now.id}/impact`)
      .send({ version: now.version })
      .expect(200);
    expect(await whole()).toBe(before);
    const count = async (where: string) =>
      Number((await server.source.query(`select count(*) as n from ${where}`))[0].n);
    const tasks = await count('task');
    const done = await broughtIn(now);
    expect((await count('task')) - tasks).toBe(impact.figures.added - impact.figures.removed);
    expect(await count(`holiday where date = '2026-12-17' and name = 'Founders’ day'`)).toBe(1);
    const [schedule] = await server.source.query(
      `select s.assignment->>'kind' as kind, s.timing, s.recurrence->'except' as except, t.instructions, t.estimate_minutes as minutes
       from schedule s join template t on t.id = s.template_id where t.name = 'Harbour lights round'`,
    );
    expect(schedule).toMatchObject({
      kind: 'person',
      except: ['2026-12-22'],
      minutes: 45,
      timing: { startTime: '09:00', dueTime: '09:45' },
    });
    expect(schedule.instructions).toBe('<p>Place: Outer mole</p><p>With Somebody Else</p>');
    expect(await undo(done)).toContain('entries of ours.ics are taken out again');
    expect(await whole()).toBe(before);
  });

  it('knows it again: what has not changed is left, what has is brought up to date and put back', async () => {
    const before = await whole();
    const first = await broughtIn(await begun(KNOWN));
    const same = await begun(KNOWN);
    expect(same.counts).toMatchObject({ new: 0, update: 0, same: same.rowCount });
    const state = await whole();
    const later = await begun([...round('20261201T103000'), ...OTHERS]);
    expect(later.counts).toMatchObject({ new: 0, update: 1 });
    expect(later.alike[0]).toMatchObject({
      about: expect.stringContaining('at 10:30'),
      diffs: [{ name: 'time', from: '09:00 to 09:45', to: '10:30 to 11:15' }],
    });
    const second = await broughtIn(later);
    expect((await begun([...round('20261201T103000')])).counts).toMatchObject({ same: 1 });
    await undo(second);
    expect(await whole()).toBe(state);
    await undo(first);
    expect(await whole()).toBe(before);
  });

  it('gives what names nobody to whom it is said to be of, and days off only through a manager', async () => {
    const maud = await server.person('Maud Ferrier');
    const holidays = part(
      'VEVENT',
      'a',
      'SUMMARY:Regatta',
      'DTSTART;VALUE=DATE:20270612',
      'DTEND;VALUE=DATE:20270614',
      'RRULE:FREQ=YEARLY',
    );
    const now = await begun(holidays);
    expect([now.calendar?.wholeDays, now.fresh[0]?.about]).toEqual(['days off', '10 days off, Sat 12 Jun 2027 first']);
    const done = await broughtIn(now);
    expect((await begun(holidays)).counts).toMatchObject({ same: 1, new: 0 });
    await undo(done);
    const planner = await server.browser('Maud Ferrier');
    const { body } = await planner.get(`/api/bring-ins/${now.id}`);
    expect(body.bringIn.kind).toBe('calendar');
    expect((await begun(holidays, planner)).left[0]?.why).toBe('Only a manager can set days off');
    const own = await settled(await begun(OTHERS), { calendar: { ownerId: maud.id } });
    expect(own.fresh[0]?.about).toContain('Maud Ferrier');
  });

  it('refuses what is no calendar, and those who may not plan', async () => {
    const file = Buffer.from('what,when\nx,y');
    const { body } = await ines
      .post('/api/bring-ins')
      .field('kind', 'calendar')
      .attach('file', file, 'x.ics')
      .expect(422);
    expect(body.errors[0].message).toContain('That is no calendar file');
    const nadia = await server.browser('Nadia Orme');
    await nadia.post('/api/bring-ins').field('kind', 'calendar').attach('file', file, 'x.ics').expect(403);
  });

  it('takes ten thousand entries in, and out again', { timeout: 240_000 }, async () => {
    const lines = Array.from({ length: 10_000 }, (_, i) =>
      part(
        ...([
          'VEVENT',
          `n${i}@x`,
          `SUMMARY:Visit ${i % 40}`,
          `DTSTART:2026${i % 2 === 0 ? '1201' : '1215'}T090000`,
          'DURATION:PT30M',
        ] as const),
        ...(i % 50 === 0 ? ['RRULE:FREQ=MONTHLY;COUNT=6'] : []),
      ),
    ).flat();
    const now = await begun(lines);
    expect(now.counts).toMatchObject({ new: 10_000, left: 0 });
    const done = await broughtIn(now);
    expect(
      (await server.source.query(`select count(*)::int as n from calendar_origin where uid ~ '^n[0-9]'`))[0].n,
    ).toBe(10_000);
    // As the database does by itself within a minute: until then it looks for each by what it knew of the empty table.
    await server.source.query('analyze');
    expect(await undo(done)).toContain('10000 entries of ours.ics are taken out again');
  });
});
