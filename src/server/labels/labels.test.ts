import jsQR from 'jsqr';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { codeOf } from './pdf.ts';

let server: TestServer;
let ines: Agent;
let tagged: string[];
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  const rows = await server.source.query<{ id: string }[]>(
    `select a.id from asset a join workspace w on w.id = a.workspace_id where w.name = 'Tern Quay' and a.tag is not null order by a.name`,
  );
  tagged = rows.map(({ id }) => id);
});
afterAll(() => server.stop());

/** Reads a code as a camera would see it, eight dots a part with light around it. */
function seen(tag: string): string | undefined {
  const { size, isDark } = codeOf(tag);
  const [dots, quiet] = [8, 4];
  const side = (size + 2 * quiet) * dots;
  const pixels = new Uint8ClampedArray(side * side * 4).fill(255);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const [row, column] = [Math.floor(y / dots) - quiet, Math.floor(x / dots) - quiet];
      const isWithin = row >= 0 && column >= 0 && row < size && column < size;
      if (isWithin && isDark(row, column)) pixels.fill(0, (y * side + x) * 4, (y * side + x) * 4 + 3);
    }
  return jsQR(pixels, side, side)?.data;
}

const asked = (query: object) => ines.get('/api/labels.pdf').query(query).responseType('blob');

describe('labels', () => {
  it('hold the tag as a code that is read as it is written', () => {
    for (const tag of ['PA-1', 'Werkstück Ä 7', 'x'.repeat(60)]) expect(seen(tag)).toBe(tag);
  });

  it('are sheets of A4, as many as it takes from the first place that is free', async () => {
    const pages = async (query: object) => {
      const { body, headers } = await asked(query).expect(200);
      expect(headers['content-type']).toContain('application/pdf');
      const text = (body as Buffer).toString('latin1');
      expect(text).toMatch(/^%PDF-1\.\d/);
      expect(text.trimEnd().endsWith('%%EOF')).toBe(true);
      expect(text).toMatch(/MediaBox \[0 0 595\.28 841\.89\]/);
      return text.match(/\/Type \/Page\b/g)?.length;
    };
    const some = tagged.slice(0, 20);
    expect(some.length).toBe(20);
    expect(await pages({ assets: some.join(',') })).toBe(1);
    expect(await pages({ assets: some.join(','), first: 3 })).toBe(2);
    expect(await pages({ assets: some.join(','), size: 'large' })).toBe(2);
  });

  it('are refused in words for what has no tag, is not here, or does not lie on a sheet', async () => {
    const [untagged] = await server.source.query<{ id: string; name: string }[]>(
      `insert into asset (workspace_id, id, name, place, is_site, fields, version)
       select id, gen_random_uuid(), 'Loose oar', '', false, '{}', 1 from workspace where name = 'Tern Quay' returning id, name`,
    );
    const { body } = await ines
      .get('/api/labels.pdf')
      .query({ assets: [untagged?.id, tagged[0]].join(',') })
      .expect(422);
    expect(body.errors).toEqual([
      { path: 'assets', message: '1 asset has no tag yet: “Loose oar”. Give it one first.' },
    ]);
    await ines.get('/api/labels.pdf').query({ assets: 'x' }).expect(422);
    await ines.get('/api/labels.pdf').query({ assets: tagged[0], first: 22 }).expect(422);
    await ines.get('/api/labels.pdf').query({ assets: tagged[0], size: 'large', first: 15 }).expect(422);
    const ada = await server.browser('Ada Winn');
    await ada.get('/api/labels.pdf').query({ assets: tagged[0] }).expect(404);
  });
});
