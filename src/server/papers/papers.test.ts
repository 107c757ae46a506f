import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bytesOf } from '../platform/pdf.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { TablePaper } from './table-paper.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const pagesOf = (bytes: Buffer) => bytes.toString('latin1').match(/\/Type \/Page\b/g)?.length;
const asked = async (path: string, query: object) => {
  const { body, headers } = await ines.get(`/api/papers/${path}`).query(query).responseType('blob').expect(200);
  expect(headers['content-type']).toBe('application/pdf');
  const bytes = body as Buffer;
  expect(bytes.toString('latin1').trimEnd().endsWith('%%EOF')).toBe(true);
  return { pages: pagesOf(bytes), name: decodeURIComponent(headers['content-disposition'] ?? ''), size: bytes.length };
};

describe('a paper', () => {
  it('is there of a day, of a week of a team or a role, of a client’s year and of a list of calls', async () => {
    const kit = (await server.person('Kit Sorrell')).id;
    const ayesha = (await server.person('Ayesha Quill')).id;
    const [client] = await server.source.query<{ id: string; name: string }[]>(
      `select c.id, c.name from client c join task t on t.client_id = c.id group by c.id, c.name order by count(*) desc limit 1`,
    );
    expect(await asked('day.pdf', { person: kit })).toMatchObject({
      pages: 1,
      name: expect.stringContaining('day sheet Kit Sorrell 2026-11-24.pdf'),
    });
    // A day ahead, of what is only foreseen.
    expect((await asked('day.pdf', { person: kit, on: '2026-12-29' })).pages).toBe(1);
    const crew = await asked('week.pdf', { role: 'dock crew', week: '2026-11-26' });
    expect([crew.pages !== undefined && crew.pages >= 1, crew.name]).toEqual([
      true,
      expect.stringContaining('week dock crew 2026-11-23.pdf'),
    ]);
    expect((await asked('week.pdf', { team: 'nobody of this' })).pages).toBe(1);
    const year = await asked('client.pdf', { client: client?.id });
    expect(year.name).toContain(client?.name);
    expect(year.pages).toBeGreaterThanOrEqual(1);
    expect(year.size).toBeGreaterThan((await asked('week.pdf', { team: 'nobody of this' })).size);
    expect((await asked('calls.pdf', { person: ayesha })).pages).toBe(1);
  });

  it('is refused in words where it is of nobody here, or of a team and a role', async () => {
    const ada = await server.browser('Ada Winn');
    const kit = (await server.person('Kit Sorrell')).id;
    for (const path of [`day.pdf?person=${kit}`, `calls.pdf?person=${kit}`])
      await ada.get(`/api/papers/${path}`).expect(404);
    await ines.get('/api/papers/week.pdf').expect(422);
    await ines.get('/api/papers/week.pdf?team=a&role=b').expect(422);
    await ines.get('/api/papers/day.pdf?person=nobody').expect(422);
  });

  it('goes on over pages by rows, whatever stands in them, and never writes below its foot', async () => {
    const columns = [
      { name: 'a', share: 1 },
      { name: 'b', share: 2 },
    ];
    const paper = new TablePaper({ workspace: 'W', title: 'T', says: '', made: 'now' }, columns);
    for (let i = 0; i < 120; i++)
      paper.row({
        cells: [`row ${i}`, 'word '.repeat(i === 60 ? 3_000 : i % 40)],
        ticks: i % 7 === 0 ? ['one', 'two'] : [],
        hasBox: true,
      });
    const pages = pagesOf(await bytesOf(paper.done()));
    expect(pages).toBeGreaterThan(4);
    // One that is longer than a page is cut, and makes no pages of its own.
    expect(pages).toBeLessThan(14);
    expect(
      pagesOf(
        await bytesOf(
          new TablePaper({ workspace: 'W', title: 'T', says: '', made: 'now' }, columns, { isWide: true }).done(),
        ),
      ),
    ).toBe(1);
  });
});
