import { execFileSync } from 'node:child_process';
import ICAL from 'ical.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type {
  HistoryEntry,
  LetterInput,
  NoticeLetter,
  NoticeLine,
  VisitLine,
  VisitWeek,
} from '../../contract/index.ts';
import { dayOfIso, isoOfDay, isToSend } from '../../core/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
let letter: NoticeLetter;
const TODAY = '2026-11-24';
beforeAll(async () => {
  server = await testServer({ worker: true });
  ines = await server.browser('Ines Calloway');
  const { letters } = (await ines.get('/api/letters').expect(200)).body as { letters: NoticeLetter[] };
  letter = letters.find(({ name }) => name === 'Boarding notice') as NoticeLetter;
});
afterAll(() => server.stop());

async function visits(query: object = {}): Promise<VisitLine[]> {
  const lines: VisitLine[] = [];
  for (let after: string | null = '', more = true; more; more = after !== null) {
    const asked = { ...query, ...(after ? { after } : {}) };
    const page: { lines: VisitLine[]; more: string | null } = (await ines.get('/api/visits').query(asked).expect(200))
      .body;
    lines.push(...page.lines);
    after = page.more;
  }
  return lines;
}
const weeks = async (query: object = {}): Promise<VisitWeek[]> =>
  (await ines.get('/api/visits/weeks').query(query).expect(200)).body.weeks;
const visitOf = async (taskId: string | null) => (await visits()).find((line) => line.taskId === taskId) as VisitLine;
/** Those that nothing was written for, whoever comes being known. */
const free = async () =>
  (await visits()).filter(({ standing, who }) => standing.state === 'notWritten' && who !== null);
const words = (pdf: Buffer, layout = true): string =>
  execFileSync('pdftotext', [...(layout ? ['-layout'] : []), '-', '-'], { input: pdf }).toString();
const paper = async (query: object): Promise<Buffer> =>
  (await ines.get('/api/notices.pdf').query(query).responseType('blob').expect(200)).body;
const noticesOf = async (taskId: string | null): Promise<NoticeLine[]> =>
  (await ines.get('/api/notices').query({ task: taskId }).expect(200)).body.notices;

interface Writing {
  readonly way: string;
  readonly evenLate?: boolean;
  readonly mail?: boolean;
  readonly issuedOn?: string;
}
const write = (of: readonly VisitLine[], { way, mail = false, evenLate = false, issuedOn = TODAY }: Writing) =>
  ines.post('/api/notices').send({
    ...{ letterId: letter.id, letterVersion: letter.version, issuedOn, mail },
    visits: of.map(({ taskId, version }) => ({ taskId, version, way, evenLate })),
  });
const move = async ({ taskId, version }: VisitLine, on: string) =>
  ines
    .post('/api/tasks/changes')
    .send({ tasks: [{ id: taskId, version }], deed: { kind: 'moveTo', on } })
    .expect(200);

describe('visits', () => {
  it('are those of the weeks, each with how far its notice is; weeks and list come to the same', async () => {
    const lines = await visits();
    const sums = await weeks();
    expect(sums.reduce((sum, { made, foreseen }) => sum + made + foreseen, 0)).toBe(lines.length);
    const inOrder = lines.map(({ on, startTime }) => `${on}${startTime ?? ''}`);
    expect(inOrder).toEqual([...inOrder].sort());
    for (const state of ['received', 'tooLate', 'elsewhere', 'notNeeded', 'notWritten'] as const) {
      const counted = sums.reduce((sum, { states }) => sum + (states[state] ?? 0), 0);
      expect([state, counted]).toEqual([
        state,
        lines.filter(({ taskId, standing }) => taskId !== null && standing.state === state).length,
      ]);
      expect(counted).toBeGreaterThan(0);
    }
    expect(lines.every(({ workType }) => workType === 'routine')).toBe(true);
    expect(lines.find(({ next }) => next !== null)?.next).toMatch(/^202[67]-/);
  });

  it('whose notice is to go are told by the database as by the core, and those that have to go soon', async () => {
    const all = (await visits()).filter(({ taskId, standing: { state } }) => taskId !== null && isToSend(state));
    expect((await visits({ toSend: 'yes' })).map(({ taskId }) => taskId)).toEqual(all.map(({ taskId }) => taskId));
    const until = isoOfDay(dayOfIso(TODAY) + 3);
    // By the way that leaves most time, whatever way it was written for.
    const soon = all.filter(({ on }) => isoOfDay(dayOfIso(on) - 7) <= until);
    const told = await visits({ toSend: 'yes', sendWithin: 3 });
    expect(told.map(({ taskId }) => taskId)).toEqual(soon.map(({ taskId }) => taskId));
    expect(told.length).toBeGreaterThan(0);
    expect(told.length).toBeLessThan(all.length);
  });

  it('are narrowed to who comes and to a client; of what is no place in the list nothing is told', async () => {
    const kit = await server.person('Kit Sorrell');
    const his = await visits({ person: kit.id });
    expect(his.length).toBeGreaterThan(0);
    expect(new Set(his.map(({ who }) => who))).toEqual(new Set(['Kit Sorrell']));
    const [one] = his;
    const theirs = await visits({ client: one?.client.id });
    expect(theirs.every(({ client }) => client.id === one?.client.id)).toBe(true);
    expect(await visits({ workType: 'arrival' })).toEqual([]);
    await ines.get('/api/visits').query({ after: '["x","y"]' }).expect(422);
    await ines
      .get('/api/visits')
      .query({ after: `["yesterday","${letter.id}"]` })
      .expect(422);
  });

  it('of a workspace that announces nothing are none', async () => {
    const ada = await server.browser('Ada Winn');
    expect((await ada.get('/api/visits').expect(200)).body).toEqual({ lines: [], more: null });
  });
});

describe('notices', () => {
  it('are a page each of one paper, kept as they were written, and taken back together', async () => {
    const of = (await free()).slice(0, 3);
    const { body } = await write(of, { way: 'by hand' }).expect(200);
    expect(body).toMatchObject({ count: 3, mailed: 0 });
    const pdf = await paper({ batch: body.batchId });
    const pages = words(pdf).split('\f').slice(0, -1);
    expect(pages.length).toBe(3);
    of.forEach(({ asset, client }, i) => {
      expect(pages[i]).toContain(`Coming aboard ${asset?.name}, ${asset?.place}`);
      expect(pages[i]).toContain(`Dear ${client.name},`);
      expect(pages[i]).toContain('Tuesday 24 November 2026');
      expect(pages[i]).not.toMatch(/[{}]/);
    });
    const info = execFileSync('pdfinfo', ['-'], { input: pdf }).toString();
    expect(info).toMatch(/Title:\s+3 notices, Boarding notice/);
    expect(info).toMatch(/Tagged:\s+yes/);
    expect(pdf.toString('latin1')).toContain('/Lang (en-GB)');
    // The same file whenever it is drawn, whatever the letter says by then.
    const [first] = await noticesOf(of[0]?.taskId ?? '');
    const before = await paper({ notice: first?.id });
    const changed = await ines
      .put(`/api/letters/${letter.id}`)
      .send({ ...letter, subject: 'Something else' })
      .expect(200);
    expect((await paper({ notice: first?.id })).equals(before)).toBe(true);
    await ines.post(`/api/changes/${changed.body.changeId}/undo`).send({}).expect(200);
    letter = { ...letter, version: letter.version + 2 };
    await expect(
      server.source.query(`update notice set page = page || '{"issued": "never"}' where id = $1`, [first?.id]),
    ).rejects.toThrow('stays as it is');
    expect((await visitOf(of[0]?.taskId ?? '')).standing.state).toBe('written');
    const undone = await ines.post(`/api/changes/${body.changeId}/undo`).send({}).expect(200);
    expect(undone.body.said).toBe('3 notices are as before.');
    expect((await visitOf(of[0]?.taskId ?? '')).standing.state).toBe('notWritten');
  });

  it('that go by mail leave with the page and the date, and are not taken back', async () => {
    const [visit] = await free();
    if (!visit) throw new Error('There is a visit.');
    const { body } = await write([visit], { way: 'by mail', mail: true }).expect(200);
    expect(body.mailed).toBe(1);
    const [notice] = await noticesOf(visit.taskId);
    expect(notice).toMatchObject({ sentOn: TODAY, way: 'by mail', visitOn: visit.on });
    const mailId = notice?.mail?.id ?? '';
    await expect
      .poll(async () => (await ines.get(`/api/post/${mailId}`).expect(200)).body.state, { timeout: 10_000 })
      .toBe('sent');
    const { body: mail } = await ines.get(`/api/post/${mailId}`).expect(200);
    expect(mail.subject).toBe(`Coming aboard ${visit.asset?.name}, ${visit.asset?.place}`);
    expect(mail.raw).toContain('application/pdf');
    const part = async (ending: string): Promise<Buffer> => {
      const { id } = mail.parts.find(({ name }: { name: string }) => name.endsWith(ending));
      return (await ines.get(`/api/mail-parts/${id}`).responseType('blob').expect(200)).body;
    };
    expect(words(await part('.pdf'))).toContain(`Dear ${visit.client.name},`);
    expect(mail.raw).toContain((await part('.pdf')).toString('base64').slice(0, 60));
    const event = new ICAL.Component(ICAL.parse((await part('.ics')).toString())).getFirstSubcomponent('vevent');
    const { uid, startDate, endDate, sequence } = new ICAL.Event(event as ICAL.Component);
    expect([uid, sequence]).toEqual([`${visit.taskId}@jolly-rota.local`, 0]);
    expect([startDate.toJSDate(), endDate.toJSDate()].map((at) => at.toISOString())).toEqual([
      `${visit.on}T${visit.startTime}:00.000Z`,
      `${visit.on}T${visit.dueTime}:00.000Z`,
    ]);
    const refused = await ines.post(`/api/changes/${body.changeId}/undo`).send({}).expect(409);
    expect(refused.body.detail).toContain('What has gone stays on record');
  });

  it('of a visit that was moved say so; another takes the place of the one that went', async () => {
    const [visit] = await free();
    if (!visit) throw new Error('There is a visit.');
    const { body } = await write([visit], { way: 'by hand' }).expect(200);
    const [first] = await noticesOf(visit.taskId);
    await ines
      .post('/api/notices/sent')
      .send({ notices: [first?.id], on: TODAY })
      .expect(200);
    expect((await visitOf(visit.taskId)).standing).toMatchObject({ state: 'received', inTime: true });
    await move(visit, isoOfDay(dayOfIso(visit.on) + 7));
    const moved = await visitOf(visit.taskId);
    expect(moved.standing.state).toBe('elsewhere');
    await write([moved], { way: 'by hand' }).expect(200);
    const { changeId } = (await move(moved, isoOfDay(dayOfIso(moved.on) + 1))).body;
    const [other] = await noticesOf(visit.taskId);
    const elsewhere = await ines
      .post('/api/notices/sent')
      .send({ notices: [other?.id], on: TODAY })
      .expect(409);
    expect(elsewhere.body.detail).toContain('write another');
    await ines.post(`/api/changes/${changeId}/undo`).send({}).expect(200);
    const [second, old] = await noticesOf(visit.taskId);
    expect([old?.isReplaced, second?.isReplaced, old?.id]).toEqual([false, false, first?.id]);
    expect(words(await paper({ notice: second?.id }))).toContain(
      'This letter takes the place of ours of Tuesday 24 November 2026.',
    );
    await ines
      .post('/api/notices/sent')
      .send({ notices: [second?.id], on: TODAY })
      .expect(200);
    expect((await noticesOf(visit.taskId)).map(({ isReplaced }) => isReplaced)).toEqual([false, true]);
    const half = await ines.post(`/api/changes/${body.changeId}/undo`).send({}).expect(409);
    expect(half.body.detail).toContain('stays on record');
  });

  it('are refused in words, each where it stands: too late, no such way, no address, another version', async () => {
    const [visit, other] = await free();
    if (!visit || !other) throw new Error('There are visits.');
    const pigeon = await write([other, visit], { way: 'by pigeon' }).expect(422);
    expect(pigeon.body.errors.map(({ path }: { path: string }) => path)).toEqual(['visits.0.way', 'visits.1.way']);
    const { changeId } = (await move(visit, '2026-11-26')).body;
    const soon = await visitOf(visit.taskId);
    expect(soon.standing).toMatchObject({ state: 'tooLate', sendBy: '2026-11-19' });
    const late = await write([soon], { way: 'by hand' }).expect(422);
    expect(late.body.errors[0].message).toContain('it had to go by hand until Thu 19 Nov');
    await write([soon], { way: 'by hand', evenLate: true }).expect(200);
    await ines.post(`/api/changes/${changeId}/undo`).send({}).expect(200);
    await server.source.query(`update contact set email = '' where client_id = $1`, [other.client.id]);
    const none = await write([other], { way: 'by mail' }).expect(422);
    expect(none.body.errors[0].message).toContain('no mail address is known');
    // Somebody to write to is no address.
    await server.source.query(`update client set address = '' where id = $1`, [other.client.id]);
    await server.source.query(`update contact set name = 'The key holder' where client_id = $1`, [other.client.id]);
    const nowhere = await write([other], { way: 'by post', evenLate: true }).expect(422);
    expect(nowhere.body.errors[0].message).toContain('no address is known');
    const long = `Flat 4, ${'Upper Strand House '.repeat(4)}end`;
    await server.source.query('update client set address = $2 where id = $1', [other.client.id, long]);
    const { body: posted } = await write([other], { way: 'by post', evenLate: true }).expect(200);
    expect(words(await paper({ batch: posted.batchId }), false).replace(/\s+/g, ' ')).toContain(long);
    await ines.post(`/api/changes/${posted.changeId}/undo`).send({}).expect(200);
    await write([{ ...other, version: other.version + 1 }], { way: 'by hand' }).expect(409);
    await write([other], { way: 'by hand', issuedOn: '2028-01-01' }).expect(422);
    const nobody = (await visits()).find(({ who }) => who === null) as VisitLine;
    const asks = await write([nobody], { way: 'by hand' }).expect(422);
    expect(asks.body.errors[0].message).toContain('the letter asks for who comes');
    const look = await ines
      .post('/api/notices/look')
      .send({ tasks: [nobody.taskId], language: 'de-DE', issuedOn: TODAY })
      .expect(200);
    expect(look.body.drafts[0].values.issued).toBe('Dienstag, 24. November 2026');
  });

  it('went on a day that is past, once; of what needs none nothing goes', async () => {
    const [visit, quiet] = await free();
    if (!visit || !quiet) throw new Error('There are visits.');
    await write([visit], { way: 'by post' }).expect(200);
    const [notice] = await noticesOf(visit.taskId);
    const sent = (on: string, id = notice?.id) => ines.post('/api/notices/sent').send({ notices: [id], on });
    await sent('2026-11-25').expect(422);
    await sent('2026-11-20').expect(422);
    const { body } = await sent(TODAY).expect(200);
    expect((await visitOf(visit.taskId)).standing.state).toBe('onItsWay');
    await sent(TODAY).expect(409);
    await ines.post(`/api/changes/${body.changeId}/undo`).send({}).expect(200);
    expect((await visitOf(visit.taskId)).standing.state).toBe('written');
    const { body: none } = await ines
      .post('/api/notices/none')
      .send({ tasks: [quiet.taskId], reason: 'settled at the bar' })
      .expect(200);
    expect(await visitOf(quiet.taskId)).toMatchObject({
      standing: { state: 'notNeeded', sendBy: null },
      notice: { reason: 'settled at the bar', way: null },
    });
    const [word] = await noticesOf(quiet.taskId);
    await sent(TODAY, word?.id).expect(409);
    await ines.get('/api/notices.pdf').query({ notice: word?.id }).expect(404);
    await ines.post(`/api/changes/${none.changeId}/undo`).send({}).expect(200);
    expect((await visitOf(quiet.taskId)).standing.state).toBe('notWritten');
  });

  it('stand in the history of the visit, in the logbook once they went, and keep it from being deleted', async () => {
    const [visit] = await free();
    if (!visit) throw new Error('There is a visit.');
    await write([visit], { way: 'by mail', mail: true }).expect(200);
    const { body } = await ines.get(`/api/tasks/${visit.taskId}/history`).expect(200);
    expect(body.entries.map(({ said }: HistoryEntry) => said)).toEqual(
      expect.arrayContaining(['wrote the notice', 'sent the notice by mail']),
    );
    const { body: log } = await ines
      .get('/api/logbook/changes')
      .query({ what: 'announced', from: TODAY, to: TODAY, client: visit.client.id })
      .expect(200);
    expect(log.changes).toEqual([
      expect.objectContaining({
        ...{ taskId: visit.taskId, by: 'Ines Calloway' },
        notice: expect.objectContaining({ way: 'by mail', sentOn: TODAY, visitOn: visit.on }),
      }),
    ]);
    const refused = await ines
      .post('/api/tasks/changes')
      .send({ tasks: [{ id: visit.taskId, version: visit.version }], deed: { kind: 'delete' } })
      .expect(409);
    expect(refused.body.detail).toContain('notices');
  });

  it('are not found by another workspace', async () => {
    const ada = await server.browser('Ada Winn');
    const [line] = (await visits()).filter(({ notice }) => notice?.way);
    await ada.get('/api/notices.pdf').query({ notice: line?.notice?.id }).expect(404);
    expect((await ada.get('/api/notices').query({ task: line?.taskId }).expect(200)).body.notices).toEqual([]);
  });
});

describe('letters', () => {
  const fresh: LetterInput = {
    ...{ name: 'Before winter', workType: 'routine', language: 'en-GB', subject: 'Covers, {date}' },
    body: [{ kind: 'paragraph', runs: [{ text: 'Dear {contact}', bold: true }] }],
  };

  it('are added, changed, dropped, and brought back; two can’t have one name', async () => {
    const { body } = await ines.post('/api/letters').send(fresh).expect(200);
    const { id } = body.letter;
    await ines
      .post('/api/letters')
      .send({ ...fresh, name: 'before winter' })
      .expect(422);
    await ines
      .put(`/api/letters/${id}`)
      .send({ ...fresh, subject: '{dat}', version: 1 })
      .expect(422);
    await ines
      .put(`/api/letters/${id}`)
      .send({ ...fresh, subject: 'Covers', version: 1 })
      .expect(200);
    await ines
      .put(`/api/letters/${id}`)
      .send({ ...fresh, version: 1 })
      .expect(409);
    const { body: dropped } = await ines.delete(`/api/letters/${id}`).send({}).expect(200);
    const there = async () =>
      (await ines.get('/api/letters').expect(200)).body.letters.map((one: NoticeLetter) => one.id);
    expect(await there()).not.toContain(id);
    await ines.post(`/api/changes/${dropped.changeId}/undo`).send({}).expect(200);
    expect(await there()).toContain(id);
    await ines.post(`/api/changes/${body.changeId}/undo`).send({}).expect(200);
    expect(await there()).not.toContain(id);
    await ines
      .post('/api/letters')
      .send({ ...fresh, workType: 'tea' })
      .expect(422);
  });
});
