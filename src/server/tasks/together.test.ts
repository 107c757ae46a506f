import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { DaySheet, TaskLine, Together } from '../../contract/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const of = async (query: Readonly<Record<string, string>>): Promise<Together> =>
  (await ines.get('/api/day-sheets').query(query).expect(200)).body;
const sheetOf = async (id: string, date?: string): Promise<DaySheet> =>
  (
    await ines
      .get(`/api/people/${id}/day-sheet`)
      .query(date ? { date } : {})
      .expect(200)
  ).body;
const ids = (lines: readonly TaskLine[]) => lines.map(({ id }) => id).sort();
const BANDS = ['late', 'thisDay', 'coming'] as const;

describe('the day of several', () => {
  it.each([undefined, '2026-11-23', '2026-12-02', '2027-02-15'])(
    'is what stands on the sheets of those in it, on any day (%s)',
    async (date) => {
      for (const [field, column] of [
        ['team', 'team = $1'],
        ['role', 'roles ? $1'],
      ] as const) {
        const [{ name }] = await server.source.query(
          field === 'team'
            ? `select team as name from person where team is not null group by 1 order by count(*) desc limit 1`
            : `select role as name from person, jsonb_array_elements_text(roles) role group by 1 order by count(*) desc limit 1`,
        );
        const members: { id: string; name: string }[] = await server.source.query(
          `select p.id, p.name from person p join workspace w on w.id = p.workspace_id
           where w.name = 'Tern Quay' and p.${column} and (p.works_until is null or p.works_until >= $2) order by p.name`,
          [name, date ?? '2026-11-24'],
        );
        const sheet = await of({ [field]: name, ...(date ? { date } : {}) });
        expect(sheet.people.map((one) => one.name)).toEqual(members.map((one) => one.name));
        const sheets = await Promise.all(members.map(({ id }) => sheetOf(id, date)));
        for (const band of BANDS) {
          const own = ids(sheet[band].filter(({ assignee }) => assignee !== null));
          expect(own).toEqual(ids(sheets.flatMap((one) => one[band])));
        }
        expect(sheet.projected.filter(({ who }) => who !== '').length).toBe(
          sheets.reduce((sum, one) => sum + one.projected.length, 0),
        );
        expect(sheet.people.map(({ capacityMinutes }) => capacityMinutes)).toEqual(
          sheets.map(({ person }) => person.capacityMinutes),
        );
        const isFinished = ({ state }: TaskLine) => state === 'done' || state === 'toCheck';
        const isOver = ({ state }: TaskLine) => state === 'skipped' || state === 'lapsed';
        const minutes = (lines: readonly { estimateMinutes: number }[]) =>
          lines.reduce((sum, { estimateMinutes }) => sum + estimateMinutes, 0);
        expect(sheet.people.map(({ done, toDo }) => [done, toDo])).toEqual(
          sheets.map(({ late, thisDay, projected }) => {
            const lines = [...late, ...thisDay].filter((line) => !isOver(line));
            const open = lines.filter((line) => !isFinished(line));
            return [minutes(lines.filter(isFinished)), minutes([...open, ...projected])];
          }),
        );
        const offered = BANDS.flatMap((band) => sheet[band].filter(({ assignee }) => assignee === null));
        for (const { offeredTo } of offered) expect(offeredTo).toContain(name);
      }
    },
  );

  it('is everyone’s on shift, and whoever is clocked on besides', async () => {
    const sheet = await of({ shift: 'on' });
    expect(sheet.people.length).toBeGreaterThan(1);
    const clocked: { person_id: string }[] = await server.source.query(
      `select person_id from clocking where off_at is null`,
    );
    const on = new Set(clocked.map(({ person_id }) => person_id));
    for (const { id, shifts } of sheet.people) expect(shifts.length > 0 || on.has(id)).toBe(true);
    for (const { assignee } of sheet.thisDay) expect(sheet.people.map(({ id }) => id)).toContain(assignee?.id);
  });

  it('is what is done at one thing, and at all that stands at a site', async () => {
    const [{ id, site }] = await server.source.query(
      `select a.id, a.site_id as site from asset a join task t on t.asset_id = a.id
       where a.site_id is not null and t.due_on = '2026-11-24' limit 1`,
    );
    const [at, there] = [await of({ asset: id }), await of({ site })];
    expect(at.thisDay.length + at.late.length).toBeGreaterThan(0);
    for (const band of BANDS) {
      for (const { asset } of at[band]) expect(asset?.id).toBe(id);
      expect(ids(there[band])).toEqual(expect.arrayContaining(ids(at[band])));
    }
    expect(at.people.map(({ name }) => name)).toEqual(
      [...new Set([...at.late, ...at.thisDay].flatMap(({ assignee }) => assignee?.name ?? []))].sort(),
    );
  });

  it('is of one of them, that is there', async () => {
    await ines.get('/api/day-sheets').expect(422);
    await ines.get('/api/day-sheets?team=Yard&shift=on').expect(422);
    await ines.get('/api/day-sheets?team=Nowhere').expect(404);
    const ada = await server.browser('Ada Winn');
    const [{ id }] = await server.source.query(`select id from asset where name = 'Crane 1'`);
    await ada.get(`/api/day-sheets?asset=${id}`).expect(404);
  });
});
