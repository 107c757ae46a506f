import { readdir, stat, utimes, writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { onePagePdf } from '../../../demo/pictures.ts';
import type { HistoryEntry } from '../../contract/index.ts';
import type { Demand } from '../../core/index.ts';
import { uuidv7 } from '../platform/db/uuid.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { checkLine, newTemplate, startedTasks } from '../testing/work.ts';
import { FileStore } from './stored/store.ts';
import { sweepFiles } from './stored/sweep.ts';

const DAY_MS = 86_400_000;

let server: TestServer;
let ines: Agent;
let nadia: Agent;
let taskId: string;
let picture: Buffer;
const PHOTO: Demand = { key: 'photo', label: '', kind: 'file' };

beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  nadia = await server.browser('Nadia Orme');
  picture = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#356' } })
    .jpeg()
    .toBuffer();
  const template = await newTemplate(ines, { steps: [checkLine('hose', [PHOTO])] });
  [taskId = ''] = await startedTasks(ines, template, (await server.person('Nadia Orme')).id);
});
afterAll(() => server.stop());

const send = (agent: Agent, bytes: Buffer, name: string, fields: Record<string, string> = {}) => {
  const request = agent.post('/api/files').field('key', crypto.randomUUID());
  for (const [field, value] of Object.entries(fields)) request.field(field, value);
  return request.attach('file', bytes, name);
};
/** As if it had come two days ago. */
const aged = (path: string) =>
  utimes(path, new Date(Date.now() - 2 * 86_400_000), new Date(Date.now() - 2 * 86_400_000));
const task = async () => (await ines.get(`/api/tasks/${taskId}`).expect(200)).body;

describe('a file', () => {
  it('answers the demand it is sent for, ticks its line, and has a small picture', async () => {
    const { body } = await send(nadia, picture, 'hose stamp.jpg', { taskId, demand: 'photo' }).expect(200);
    expect(body.file).toMatchObject({
      name: 'hose stamp.jpg',
      mediaType: 'image/jpeg',
      isPicture: true,
      by: 'Nadia Orme',
    });
    expect(await task()).toMatchObject({ state: 'underWay', stepsDone: 1, proofMissing: [] });
    const whole = await nadia.get(`/api/files/${body.file.id}`).buffer().expect(200);
    expect(await sharp(whole.body).metadata()).toMatchObject({ format: 'jpeg', width: 900, height: 600 });
    expect(whole.headers).toMatchObject({
      'content-type': 'image/jpeg',
      'x-content-type-options': 'nosniff',
      'content-security-policy': "default-src 'none'; sandbox",
      'content-disposition': "inline; filename*=UTF-8''hose%20stamp.jpg",
    });
    const small = await nadia.get(`/api/files/${body.file.id}/small`).buffer().expect(200);
    expect(await sharp(small.body).metadata()).toMatchObject({ format: 'webp', width: 480, height: 320 });

    await nadia.delete(`/api/files/${body.file.id}`).expect(200);
    expect(await task()).toMatchObject({ stepsDone: 0, files: [] });
    await nadia.get(`/api/files/${body.file.id}`).expect(404);
    // Long after, too: from the history of its task.
    const { entries } = (await nadia.get(`/api/tasks/${taskId}/history`).expect(200)).body as {
      entries: HistoryEntry[];
    };
    expect(entries.slice(0, 2).map(({ said, undo }) => [said, undo !== null])).toEqual([
      ['took “hose stamp.jpg” out', true],
      ['added “hose stamp.jpg”', false],
    ]);
    await nadia.post(`/api/changes/${entries[0]?.undo?.changeId}/undo`).expect(200);
    expect((await task()).files).toHaveLength(1);
  });

  it('is one file, however often it is sent under one key', async () => {
    const key = crypto.randomUUID();
    const again = () =>
      nadia.post('/api/files').field('key', key).field('taskId', taskId).attach('file', picture, 'a.jpg');
    const first = await again().expect(200);
    const second = await again().expect(200);
    expect(second.body.file.id).toBe(first.body.file.id);
    const many = crypto.randomUUID();
    const sent = await Promise.all(
      [1, 2, 3].map(() => nadia.post('/api/files').field('key', many).attach('file', picture, 'b.jpg').expect(200)),
    );
    expect(new Set(sent.map(({ body }) => body.file.id)).size).toBe(1);
    // Somebody else can't find out what a key stands for.
    await ines.post('/api/files').field('key', key).attach('file', picture, 'a.jpg').expect(404);
  });

  it('that is a PDF is saved, never opened in the page', async () => {
    const { body } = await send(nadia, onePagePdf('Certificate'), 'certificate.pdf', { taskId }).expect(200);
    expect(body.file).toMatchObject({ mediaType: 'application/pdf', isPicture: false });
    const { headers } = await nadia.get(`/api/files/${body.file.id}`).expect(200);
    expect(headers['content-disposition']).toMatch(/^attachment;/);
    await nadia.get(`/api/files/${body.file.id}/small`).expect(404);
  });

  it.each([
    ['an executable named as a photo', Buffer.from(`\x7fELF\x02\x01\x01${'x'.repeat(400)}`, 'latin1'), 'photo.jpg'],
    ['a script named as a photo', Buffer.from('<script>alert(1)</script>'), 'photo.png'],
    [
      'a drawing that can run scripts',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"/>'),
      'a.svg',
    ],
    [
      'the first bytes of a picture and nothing more',
      Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 0x4a, 0x46]),
      'a.jpg',
    ],
    ['an empty file', Buffer.alloc(0), 'a.jpg'],
  ])('that is %s is refused in words, and nothing of it is kept', async (_, bytes, name) => {
    const before = await readdir(server.filesFolder);
    const { body } = await send(nadia, bytes, name, { taskId }).expect(422);
    expect(body.detail).toContain('is not a picture (JPEG, PNG, GIF, WebP) or a PDF');
    expect(await readdir(server.filesFolder)).toEqual(before);
    expect(await readdir(`${server.filesFolder}/incoming`)).toEqual([]);
  });

  it('of 21 MB is refused in words', async () => {
    const { body } = await send(nadia, Buffer.alloc(21 * 1024 * 1024, 1), 'big.jpg', { taskId }).expect(413);
    expect(body.detail).toContain('larger than 20 MB');
    expect(await readdir(`${server.filesFolder}/incoming`)).toEqual([]);
  });

  it.each([
    ['../../etc/passwd.jpg', 'passwd.jpg'],
    ['..\\..\\windows\\evil.jpg', 'evil.jpg'],
    ['/absolute/photo.jpg', 'photo.jpg'],
    ['...', 'file.jpg'],
    ['a\u202egpj.exe', 'agpj.exe.jpg'],
    ['holiday.html', 'holiday.html.jpg'],
    ['Öl an der Brücke.jpg', 'Öl an der Brücke.jpg'],
  ])('called %j keeps no path', async (name, kept) => {
    const { body } = await send(nadia, picture, name, { taskId }).expect(200);
    expect(body.file.name).toBe(kept);
    const names = await readdir(server.filesFolder);
    expect(names.every((one) => /^([0-9a-f]{40}(\.small)?|incoming)$/.test(one))).toBe(true);
  });

  it('of another workspace is not there, and nobody outside can send one', async () => {
    const ada = await server.browser('Ada Winn');
    const { body } = await send(nadia, picture, 'a.jpg', { taskId }).expect(200);
    await ada.get(`/api/files/${body.file.id}`).expect(404);
    await ada.get(`/api/files/${body.file.id}/small`).expect(404);
    await ada.delete(`/api/files/${body.file.id}`).expect(404);
    await ada.put(`/api/files/${body.file.id}/kept`).send({ kept: true }).expect(404);
    await send(ada, picture, 'a.jpg', { taskId }).expect(404);
    const nobody = await server.browser();
    await nobody.get(`/api/files/${body.file.id}`).expect(401);
    await send(nobody, picture, 'a.jpg', { taskId }).expect(401);
    const other = { name: 'Other', titlePattern: 'x', category: null, instructions: '', estimateMinutes: 5 };
    await ada
      .post('/api/templates')
      .send({ template: { ...other, fileIds: [body.file.id] }, like: null })
      .expect(422);
  });

  it('is only for those who may work on the task, and only for what the task asks', async () => {
    const kit = await server.browser('Kit Sorrell');
    await send(kit, picture, 'a.jpg', { taskId }).expect(403);
    const { body } = await send(nadia, picture, 'a.jpg', { taskId, demand: 'other' }).expect(422);
    expect(body.detail).toContain('asks for no such file');
    await nadia.post('/api/files').field('key', crypto.randomUUID()).expect(422);
    await nadia.post('/api/files').field('key', 'nonsense').attach('file', picture, 'a.jpg').expect(422);
  });

  it('of a template goes along with its tasks, and with a template that is begun from it', async () => {
    const { body: sent } = await send(ines, picture, 'diagram.jpg').expect(200);
    // While it belongs to nothing, only its sender sees it.
    await nadia.get(`/api/files/${sent.file.id}`).expect(404);
    const instructions = `<p>See</p><img src="/api/files/${sent.file.id}"><img src="https://example.org/x.png">`;
    const id = await newTemplate(ines, { name: 'Pictured', instructions, fileIds: [] });
    await nadia.get(`/api/files/${sent.file.id}`).expect(200);
    const made = (await ines.get(`/api/templates/${id}`)).body;
    expect(made.instructions).toBe(`<p>See</p><img src="/api/files/${sent.file.id}" />`);
    const { version: _, ...like } = made;
    const { body } = await ines
      .post('/api/templates')
      .send({ template: { ...like, name: 'Copy' }, like: { templateId: id } })
      .expect(200);
    const [, copied] = /files\/([0-9a-f-]{36})/.exec(body.template.instructions) ?? [];
    expect(copied).not.toBe(sent.file.id);
    await nadia.get(`/api/files/${copied}`).expect(200);
  });

  it('is kept, however often the sweep runs while it comes in', async () => {
    const store = await FileStore.at(server.filesFolder);
    let isDone = false;
    const sweeping = (async () => {
      while (!isDone) await sweepFiles(server.source, store, new Date(server.clock.now()));
    })();
    const sent = await Promise.all([1, 2, 3, 4, 5, 6].map(() => send(nadia, picture, 'a.jpg', { taskId }).expect(200)));
    isDone = true;
    await sweeping;
    for (const { body } of sent) await nadia.get(`/api/files/${body.file.id}`).expect(200);
  });

  it('is refused once a task, a person’s day or the workspace is full, and nothing is kept of it', async () => {
    const nadiaId = (await server.person('Nadia Orme')).id;
    const fill = (count: number, bytes: number, on: string | null, ago: number, taken = 0) =>
      server.source.query(
        `insert into file (workspace_id, id, upload_key, task_id, name, media_type, bytes, stored, is_picture, is_kept, uploaded_at, uploaded_by)
         select t.workspace_id, made.id, gen_random_uuid(), $5::uuid, 'filler', 'image/jpeg', $2, 'filler', true, false,
           $4::timestamptz, $6 from task t, unnest($1::uuid[]) as made(id) where t.id = $3`,
        [
          Array.from({ length: count }, () => uuidv7(server.clock.now() - ago * DAY_MS)),
          ...[bytes, taskId, new Date(server.clock.now() - (ago + taken) * DAY_MS), on, nadiaId],
        ],
      );
    const empty = () => server.source.query(`delete from file where name = 'filler'`);
    const full = async (count: number, bytes: number, on: string | null, ago: number, said: string, taken = 0) => {
      await fill(count, bytes, on, ago, taken);
      const { body } = await send(nadia, picture, 'a.jpg', { taskId }).expect(413);
      expect(body.detail).toContain(said);
      expect(await readdir(`${server.filesFolder}/incoming`)).toEqual([]);
      await empty();
    };
    await full(100, 1, taskId, 2, 'with this task already');
    await full(500, 1, null, 0, 'in a day');
    // Though a device says that they were taken weeks ago: what counts is when they come.
    await full(500, 1, null, 0, 'in a day', 20);
    await full(110, 20_000_000, null, 0, 'in a day');
    await full(1100, 20_000_000, null, 2, '20 GB');
    await send(nadia, picture, 'a.jpg', { taskId }).expect(200);
    // Of several at once only as many as there is room for.
    const [{ count = 0 } = {}] = await server.source.query<{ count: number }[]>(
      'select count(*)::int as count from file where task_id = $1 and removed_at is null',
      [taskId],
    );
    await fill(99 - count, 1, taskId, 2);
    const sent = await Promise.all([1, 2, 3, 4].map(() => send(nadia, picture, 'a.jpg', { taskId })));
    expect(sent.map(({ status }) => status).sort()).toEqual([200, 413, 413, 413]);
    await empty();
  });

  it('is counted as it comes and goes', async () => {
    const totals = await server.source.query<{ isTrue: boolean }[]>(
      `select t.bytes = coalesce((select sum(bytes) from file f where f.workspace_id = t.workspace_id), 0) as "isTrue" from file_total t`,
    );
    expect(totals.length).toBeGreaterThan(0);
    expect(totals.every(({ isTrue }) => isTrue)).toBe(true);
  });

  it('that ended half way leaves nothing behind after a day', async () => {
    const store = await FileStore.at(server.filesFolder);
    await writeFile(`${store.incoming}/half`, 'x');
    await sweepFiles(server.source, store, new Date(server.clock.now()));
    expect(await readdir(store.incoming)).toEqual(['half']);
    await aged(`${store.incoming}/half`);
    await sweepFiles(server.source, store, new Date(server.clock.now()));
    expect(await readdir(store.incoming)).toEqual([]);
  });

  it('is kept without where, with what and by whom it was taken, and is nobody else’s on the machine', async () => {
    const { body } = await send(
      nadia,
      await sharp(picture)
        .withExif({ IFD0: { Artist: 'Somebody', Model: 'Camera' }, IFD3: { GPSLatitude: '51/1 30/1 0/1' } })
        .withMetadata({ orientation: 6 })
        .toBuffer(),
      'quay.jpg',
      { taskId },
    ).expect(200);
    const { body: whole } = await nadia.get(`/api/files/${body.file.id}`).buffer().expect(200);
    const meta = await sharp(whole).metadata();
    expect([meta.exif, meta.xmp, meta.orientation]).toEqual([undefined, undefined, undefined]);
    // Turned as it was meant to be seen.
    expect([meta.width, meta.height]).toEqual([600, 900]);
    expect(whole.includes('Somebody')).toBe(false);
    const [row] = await server.source.query<{ stored: string }[]>('select stored from file where id = $1', [
      body.file.id,
    ]);
    const path = `${server.filesFolder}/${row?.stored}`;
    for (const [of, rights] of [
      [path, 0o600],
      [`${path}.small`, 0o600],
      [server.filesFolder, 0o700],
    ] as const)
      expect((await stat(of)).mode & 0o777).toBe(rights);
  });

  it('of more dots than a photo has is refused before it is unpacked', async () => {
    const trap = await sharp({
      create: { width: 9000, height: 9000, channels: 3, background: '#fff' },
      limitInputPixels: false,
    })
      .png()
      .toBuffer();
    const { body } = await send(nadia, trap, 'trap.png', { taskId }).expect(422);
    expect(body.detail).toContain('more than 50 million dots');
  });

  it.each([
    ['without a boundary', 'multipart/form-data', 'x'],
    [
      'cut short',
      'multipart/form-data; boundary=b',
      '--b\r\nContent-Disposition: form-data; name="file"; filename="a.jpg"\r\n\r\nab',
    ],
    [
      'with a NUL in its name',
      'multipart/form-data; boundary=b',
      '--b\r\nContent-Disposition: form-data; name="file"; filename="a\0.jpg"\r\n\r\nab\r\n--b--\r\n',
    ],
  ])('sent %s is refused in words, and nothing of it stays', async (_, type, bytes) => {
    const { status, body } = await nadia.post('/api/files').set('Content-Type', type).send(bytes);
    expect(status).toBeLessThan(500);
    expect(status).toBeGreaterThanOrEqual(400);
    expect(body.detail.length).toBeGreaterThan(10);
    expect(await readdir(`${server.filesFolder}/incoming`)).toEqual([]);
  });

  it('that nobody names any more is let go, bytes and all', async () => {
    const store = await FileStore.at(server.filesFolder);
    const { body } = await send(ines, picture, 'loose.jpg').expect(200);
    const [row] = await server.source.query<{ stored: string }[]>('select stored from file where id = $1', [
      body.file.id,
    ]);
    const there = async () => (await readdir(server.filesFolder)).includes(row?.stored ?? '');
    await sweepFiles(server.source, store, new Date(server.clock.now()));
    expect(await there()).toBe(true);
    const later = new Date(server.clock.now() + 3 * 86_400_000);
    await sweepFiles(server.source, store, later);
    // Its row is gone, but its bytes are of today: they might be of an upload whose row is being written.
    expect(await there()).toBe(true);
    await aged(store.pathOf(row?.stored ?? ''));
    await sweepFiles(server.source, store, later);
    expect(await there()).toBe(false);
    expect((await task()).files.length).toBeGreaterThan(0);
  });
});
