import { execFileSync } from 'node:child_process';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { checkLine, newTemplate, startedTasks } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let nadia: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  nadia = await server.browser('Nadia Orme');
});
afterAll(() => server.stop());

const paper = async (path: string, query: object = {}, by = ines): Promise<Buffer> => {
  const { body, headers } = await by.get(`/api${path}`).query(query).responseType('blob').expect(200);
  expect(headers['content-type']).toContain('application/pdf');
  return body as Buffer;
};
/** What a reader finds on it, in lines. */
const words = (pdf: Buffer): string => execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf }).toString();
const pictures = (pdf: Buffer): number =>
  execFileSync('pdfimages', ['-list', '-'], { input: pdf }).toString().trim().split('\n').length - 2;

const pontoon = async () => {
  const [asset] = await server.source.query<{ id: string }[]>(`select id from asset where tag = 'PA-1'`);
  return asset?.id ?? '';
};

describe('the record of one thing', () => {
  it('has every entry of the time with its readings, and says what it is, when and by whom it was made, page by page', async () => {
    const asset = await pontoon();
    const span = { from: '2026-05-25', to: '2026-11-22' };
    const text = words(await paper('/logbook/record.pdf', { asset, ...span }));
    expect(text).toMatch(/Tern Quay\s+Record of Pontoon A/);
    expect(text).toContain('What was due from Mon 25 May 2026 to Sun 22 Nov 2026.');
    expect(text).toContain('Made Tue 24 Nov 2026 10:40 by Ines Calloway.');
    const { body } = await ines
      .get('/api/logbook/rates')
      .query({ asset, ...span })
      .expect(200);
    expect(text).toMatch(new RegExp(`${body.entries} entries: \\d+ done`));
    expect(text.match(/^\s*Due \w{3} \d/gm)).toHaveLength(body.entries);
    const pages = text.match(/page \d+ of \d+/g) ?? [];
    expect(pages.length).toBeGreaterThan(2);
    expect(pages[0]).toBe(`page 1 of ${pages.length}`);
    expect(pages.at(-1)).toBe(`page ${pages.length} of ${pages.length}`);
  });

  it('shows the pictures, what was out of limits with its remark, what was sent back and by whom', async () => {
    const asset = await pontoon();
    const template = await newTemplate(ines, {
      name: 'Chain look',
      titlePattern: 'Chain look',
      steps: [checkLine('seen', [{ key: 'mm', kind: 'number', label: 'Wear', unit: 'mm', least: null, most: 3 }])],
      demands: [{ key: 'pic', kind: 'file', label: 'Chain' }],
      signOff: { by: 'manager' },
    });
    const nadiaId = (await server.person('Nadia Orme')).id;
    const started = await ines
      .post(`/api/templates/${template}/start`)
      .send({
        ...{ on: '2026-11-24', clientId: null, assetId: asset, assigneeId: nadiaId, special: '' },
        parts: [{ step: '', on: '2026-11-24', startTime: null, dueTime: null, assigneeId: nadiaId }],
      })
      .expect(200);
    const { id } = started.body.tasks[0];
    const png = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    await nadia
      .put(`/api/tasks/${id}/answers`)
      .send({ demand: 'mm', value: 4.5, remark: 'Two links worn.' })
      .expect(200);
    await nadia
      .post('/api/files')
      .field({ key: '01937000-0000-7000-8000-00000000aa01', taskId: id, demand: 'pic' })
      .attach('file', png, 'chain.png')
      .expect(200);
    await nadia
      .post('/api/files')
      .field({ key: '01937000-0000-7000-8000-00000000aa02', taskId: id })
      .attach('file', Buffer.from('%PDF-1.4\n%%EOF\n'), 'plan.pdf')
      .expect(200);
    await nadia.post(`/api/tasks/${id}/finish`).send({ nextOn: null }).expect(200);
    await ines.post(`/api/tasks/${id}/send-back`).send({ reason: 'Measure both ends.' }).expect(200);
    await nadia.post(`/api/tasks/${id}/finish`).send({ nextOn: null }).expect(200);
    await ines.post(`/api/tasks/${id}/sign`).send({ nextOn: null }).expect(200);

    const pdf = await paper('/logbook/record.pdf', { asset, from: '2026-11-24', to: '2026-11-24', find: 'chain' });
    const text = words(pdf);
    expect(text).toContain('Chain look');
    expect(text).toContain('signed off by Ines Calloway Tue 24 Nov 2026 10:40');
    expect(text).toMatch(/Sent back Tue 24 Nov 2026 10:40 by Ines Calloway: “Measure both ends.”/);
    expect(text).toMatch(/Wear \(at most 3 mm\): 4.5 mm, 1.5 mm over the limit: “Two links worn.”/);
    expect(text).toContain('chain.png');
    expect(text).toContain('Files: plan.pdf');
    expect(text).toContain('Of it only a part: find “chain”.');
    expect(pictures(pdf)).toBe(1);

    // The whole chain of the one, from why it is here to what became of it.
    const one = words(await paper(`/tasks/${id}/record.pdf`, {}, nadia));
    expect(one).toContain('Record of Chain look');
    for (const part of ['Why it is here', 'What was done', 'What became of it, the latest first'])
      expect(one).toContain(part);
    expect(one).toMatch(/Nadia Orme: .*finished/i);
  });

  it('says so where nothing was due, and is refused in words without one thing, of another workspace, and for too long a time', async () => {
    const asset = await pontoon();
    const none = words(await paper('/logbook/record.pdf', { asset, from: '2024-01-01', to: '2024-01-07' }));
    expect(none).toContain('Nothing was due in this time');
    const span = { from: '2026-11-01', to: '2026-11-22' };
    const refused = await ines.get('/api/logbook/record.pdf').query(span).expect(422);
    expect(refused.body.detail).toContain('A record is of one client');
    await ines
      .get('/api/logbook/record.pdf')
      .query({ ...span, asset: 'none' })
      .expect(422);
    const ada = await server.browser('Ada Winn');
    await ada
      .get('/api/logbook/record.pdf')
      .query({ ...span, asset })
      .expect(404);
    await ines.get('/api/logbook/record.pdf').query({ asset, from: '2020-01-01', to: '2026-11-22' }).expect(422);
  });

  it('of a task that is still to be done says what is asked', async () => {
    const [id] = await startedTasks(
      ines,
      await newTemplate(ines, { name: 'Not yet', titlePattern: 'Not yet', instructions: '<p>Look &amp; note</p>' }),
      null,
    );
    const text = words(await paper(`/tasks/${id}/record.pdf`));
    expect(text).toContain('Not over yet');
    expect(text).toContain('Look & note');
  });
});
