import fc from 'fast-check';
import ICAL from 'ical.js';
import { convertIcsCalendar } from 'ts-ics';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { dayOfIso, instantOf, isoOfDay, zoneObservances } from '../../core/index.ts';
import { scheduleNamed } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { doTo } from '../testing/work.ts';
import { type CalendarEntry, calendarText } from './calendar-file.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const zones = ['Europe/London', 'America/St_Johns', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'UTC'];
const time = fc
  .tuple(fc.integer({ min: 0, max: 23 }), fc.integer({ min: 0, max: 59 }))
  .map(([hours, minutes]) => `${String(hours).padStart(2, '0')}:${String(minutes).padStart(2, '0')}`);
const anyEntry: fc.Arbitrary<CalendarEntry> = fc.record({
  uid: fc.uuid(),
  changedAt: fc.date({ min: new Date('2026-01-01'), max: new Date('2027-01-01'), noInvalidDate: true }),
  title: fc.string({ minLength: 1, maxLength: 120, unit: 'grapheme' }).filter((text) => text.trim() === text),
  status: fc.constantFrom('foreseen', 'stands', 'cancelled'),
  startsOn: fc.integer({ min: dayOfIso('2026-03-01'), max: dayOfIso('2027-11-30') }).map(isoOfDay),
  dueOn: fc.constant(''),
  startTime: fc.option(time),
  dueTime: fc.option(time),
  zone: fc.constantFrom(...zones),
  estimateMinutes: fc.integer({ min: 1, max: 3000 }),
  location: fc.constantFrom('', 'Long Quay; berth 4, north', 'a\\b'),
  category: fc.constantFrom(null, 'inspection'),
  says: fc.constantFrom([], ['For Brindle, Quentin', 'Who: Kit']),
  url: fc.constantFrom(null, 'http://127.0.0.1/tasks/1'),
});
const entry = fc
  .tuple(anyEntry, fc.integer({ min: 0, max: 9 }))
  .map(([one, days]) => ({ ...one, dueOn: isoOfDay(dayOfIso(one.startsOn) + days) }));

describe('a calendar as text', () => {
  it('is read by two programs that know nothing of each other as what it was written from', async () => {
    await fc.assert(
      fc.asyncProperty(fc.uniqueArray(entry, { maxLength: 6, selector: ({ uid }) => uid }), async (entries) => {
        const text = await calendarText({ name: 'Kit, Tern Quay', says: '', refreshMinutes: 60, entries });
        // Lines of 75 octets at most (RFC 5545, section 3.1), and none but CRLF between them.
        expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75 && !/[\r\n]/.test(line))).toBe(true);
        const component = new ICAL.Component(ICAL.parse(text));
        const byIcal = new Map(
          component
            .getAllSubcomponents('vevent')
            .map((one) => [String(one.getFirstPropertyValue('uid')), new ICAL.Event(one)]),
        );
        const others = new Map((convertIcsCalendar(undefined, text).events ?? []).map((one) => [one.uid, one]));
        expect(byIcal.size).toBe(entries.length);
        for (const one of component.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(one);
        for (const { uid, title, startsOn, dueOn, startTime, zone, status, says } of entries) {
          const event = byIcal.get(uid);
          const other = others.get(uid);
          if (event === undefined || other === undefined) throw new Error(`${uid} is not there`);
          expect(event.summary).toBe(title);
          expect(event.description ?? '').toBe(says.join('\n'));
          expect(String(other.summary)).toBe(title);
          expect(other.status).toBe({ foreseen: 'TENTATIVE', stands: 'CONFIRMED', cancelled: 'CANCELLED' }[status]);
          if (startTime === null) {
            expect([event.startDate.isDate, event.startDate.toString(), event.endDate.toString()]).toEqual([
              true,
              startsOn,
              isoOfDay(dayOfIso(dueOn) + 1),
            ]);
            expect(other.start.type).toBe('DATE');
          } else {
            const at = instantOf(startsOn, startTime, zone);
            // By the definition of the zone that stands in the file, and by what a program itself knows of the zone; a time that a
            // change leaves out, or has twice, has two readings.
            if (!isAtChange(at, zone)) expect(event.startDate.toUnixTime() * 1000).toBe(at);
            // The second program tells the offset by the civil time, as if that were universal time.
            if (!isAtChange(at, zone, 15 * HOUR_MS)) expect(other.start.date.getTime()).toBe(at);
            expect(event.endDate.compare(event.startDate)).toBe(1);
          }
        }
        ICAL.TimezoneService.reset();
      }),
      { numRuns: 60 },
    );
  });

  it('is the same for the same entries, and says nothing of zones where no time is said', async () => {
    const [one] = fc.sample(entry, { numRuns: 1, seed: 5 });
    if (!one) throw new Error('no entry');
    const asked = { name: 'A', says: '', refreshMinutes: null, entries: [{ ...one, startTime: null }] };
    const text = await calendarText(asked);
    expect(await calendarText(asked)).toBe(text);
    expect(text).not.toContain('VTIMEZONE');
    expect(text).not.toContain('REFRESH-INTERVAL');
  });
});

/** Whether the clocks of a zone are changed within some hours of it. */
const HOUR_MS = 60 * 60_000;
const isAtChange = (at: number, zone: string, within = 3 * HOUR_MS): boolean =>
  zoneObservances(zone, at, at + within).some((one) => Math.abs(one.at - at) < within);

interface Read {
  readonly uid: string;
  readonly title: string;
  readonly status: string;
  readonly sequence: number;
  readonly on: string;
}
function read(text: string): Read[] {
  return new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((one) => {
    const event = new ICAL.Event(one);
    return {
      ...{ uid: event.uid, title: event.summary, sequence: event.sequence },
      status: String(one.getFirstPropertyValue('status')),
      on: event.startDate.toString().slice(0, 10),
    };
  });
}
const file = async (kind: string, id: string, by = ines) =>
  read((await by.get(`/api/calendars/file.ics?kind=${kind}&id=${id}`).expect(200)).text);

describe('a calendar of a schedule', () => {
  it('has what is made and a year of what is foreseen; skipped dates are cancelled, and come back by the same id, later', async () => {
    const { id } = await scheduleNamed(ines, 'Fire points', 'Long Quay');
    const all = await file('schedule', id);
    expect(all.filter(({ status }) => status === 'TENTATIVE').length).toBeGreaterThan(3);
    expect(all.filter(({ status }) => status === 'CONFIRMED').length).toBeGreaterThan(0);
    expect(new Set(all.map(({ uid }) => uid)).size).toBe(all.length);
    const next = all.find(({ status }) => status === 'TENTATIVE');
    const of = (list: Read[]) => list.find(({ uid }) => uid === next?.uid);
    const schedule = (await ines.get(`/api/schedules/${id}`).expect(200)).body;
    // The id is the same once it is made, and the number of the change higher.
    server.clock.set('2026-11-24T11:00');
    await ines.post(`/api/schedules/${id}/runs`).send({ asOf: next?.on, isRehearsal: false }).expect(200);
    const made = of(await file('schedule', id));
    expect(made?.status).toBe('CONFIRMED');
    expect(made?.sequence).toBeGreaterThan(next?.sequence ?? 0);
    server.clock.set('2026-11-24T11:05');
    const [task] = await server.source.query<{ id: string }[]>(
      'select id from task where schedule_id = $1 and work_on = $2',
      [id, next?.on],
    );
    const { changeId } = await doTo(ines, task?.id ?? '', { kind: 'delete' });
    const gone = of(await file('schedule', id));
    expect([gone?.status, gone?.title]).toEqual(['CANCELLED', expect.stringContaining('(taken out)')]);
    expect(gone?.sequence).toBeGreaterThan(made?.sequence ?? 0);
    server.clock.set('2026-11-24T11:10');
    await ines.post(`/api/changes/${changeId}/undo`).send({}).expect(200);
    const back = of(await file('schedule', id));
    expect(back?.status).toBe('CONFIRMED');
    expect(back?.sequence).toBeGreaterThan(gone?.sequence ?? 0);
    expect(schedule.id).toBe(id);
  });
});

describe('a private address', () => {
  const subscribed = async (address: string, mark?: string) => {
    const { pathname, search } = new URL(address);
    const asked = (await server.browser()).get(pathname + search);
    return mark === undefined ? asked : asked.set('If-None-Match', mark);
  };

  it('tells a plain program of a month as it changes, and nothing where nothing has', async () => {
    const kit = await server.person('Kit Sorrell');
    const { body } = await ines.post('/api/calendars').send({ kind: 'person', id: kit.id }).expect(200);
    expect(body.calendar).toMatchObject({ name: 'Kit Sorrell', askedAt: null });
    const first = await subscribed(body.address);
    expect([first.status, first.headers['content-type']]).toEqual([200, 'text/calendar; charset=utf-8']);
    expect(first.text).toContain('REFRESH-INTERVAL;VALUE=DURATION:PT60M');
    const before = read(first.text);
    expect(before.length).toBeGreaterThan(20);
    expect(before.some(({ status }) => status === 'TENTATIVE')).toBe(true);
    const mark = first.headers['etag'] ?? '';
    const again = await subscribed(body.address, mark);
    expect([again.status, again.text]).toEqual([304, '']);
    const [task] = await server.source.query<{ id: string; on: string }[]>(
      `select id, starts_on as on from task where assignee_id = $1 and state = 'open' and due_on > '2026-11-30' and schedule_id is not null
         and start_time is null order by due_on limit 1`,
      [kit.id],
    );
    server.clock.set('2026-11-24T12:00');
    await doTo(ines, task?.id ?? '', { kind: 'move', by: { amount: 1, unit: 'day' } });
    const moved = await subscribed(body.address, mark);
    expect(moved.status).toBe(200);
    const after = new Map(read(moved.text).map((one) => [one.uid, one]));
    const changed = before.filter((one) => after.get(one.uid)?.on !== one.on);
    expect(changed).toHaveLength(1);
    const [was] = changed;
    const is = after.get(was?.uid ?? '');
    expect(dayOfIso(is?.on ?? '') - dayOfIso(was?.on ?? '')).toBe(1);
    expect(is?.sequence).toBeGreaterThan(was?.sequence ?? 0);
    const { body: mine } = await ines.get('/api/calendars').expect(200);
    expect(mine.calendars[0].askedAt).not.toBeNull();
    // Only a digest is kept.
    const kept = JSON.stringify(await server.source.query('select * from calendar_address'));
    expect(kept).not.toContain(new URL(body.address).searchParams.get('key'));
  });

  it('is renewed and withdrawn by its owner alone; guessed, old and of somebody who left, it opens nothing', async () => {
    const nadia = await server.browser('Nadia Orme');
    const me = await server.person('Nadia Orme');
    const { body } = await nadia.post('/api/calendars').send({ kind: 'person', id: me.id }).expect(200);
    const { id } = body.calendar;
    await ines.post(`/api/calendars/${id}/renewal`).send({}).expect(404);
    await ines.delete(`/api/calendars/${id}`).expect(404);
    const renewed = (await nadia.post(`/api/calendars/${id}/renewal`).send({}).expect(200)).body;
    expect((await subscribed(body.address)).status).toBe(404);
    expect((await subscribed(renewed.address)).status).toBe(200);
    expect((await subscribed(`${body.address.slice(0, -3)}abc`)).status).toBe(404);
    await server.source.query(`update person set works_until = '2026-11-20' where id = $1`, [me.id]);
    expect((await subscribed(renewed.address)).status).toBe(404);
    await server.source.query('update person set works_until = null where id = $1', [me.id]);
    expect((await subscribed(renewed.address)).status).toBe(200);
    expect((await nadia.delete(`/api/calendars/${id}`).expect(200)).body.calendars).toEqual([]);
    expect((await subscribed(renewed.address)).status).toBe(404);
  });

  it('of a view has what fits it, and is nobody’s whose view it is not', async () => {
    const nadia = await server.browser('Nadia Orme');
    const { body: view } = await ines
      .post('/api/task-list/views')
      .send({ name: 'Urgent', filter: { are: 'unfinished' }, by: null, order: 'due', columns: null, isShared: false })
      .expect(200);
    const [{ count }] = await server.source.query(
      `select count(*)::int as count from task where state in ('open', 'underWay', 'toCheck') and due_on >= '2026-09-25' and workspace_id = $1`,
      [(await server.person('Ines Calloway')).workspaceId],
    );
    expect((await file('view', view.id)).length).toBe(count);
    await nadia.get(`/api/calendars/file.ics?kind=view&id=${view.id}`).expect(404);
    await nadia.post('/api/calendars').send({ kind: 'view', id: view.id }).expect(404);
    await ines.get('/api/calendars/file.ics?kind=everything&id=1').expect(422);
  });
});
