import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  type AssetInput,
  type ClientInput,
  type ClientRecord,
  directoryEndpoints,
  type Impact,
  type Problem,
} from '../../contract/index.ts';
import { plainInput } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
let kit: string;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  kit = (await server.person('Kit Sorrell')).id;
});
afterAll(() => server.stop());

const ID = (n: number) => `01937000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const contact = (n: number, of: Partial<ClientInput['contacts'][number]> = {}) => ({
  ...{ id: ID(n), name: `Contact ${n}`, role: '', email: '', telephone: '', prefers: null },
  ...of,
});
const input = (of: Partial<ClientInput> = {}): ClientInput => ({
  ...{ name: 'Elspeth Varr', address: '', usualPersonId: null, notes: '', fields: {}, contacts: [] },
  ...of,
});
const vessel = (clientId: string | null, of: Partial<AssetInput> = {}): AssetInput => ({
  ...{ clientId, name: 'Wether Gage', place: 'berth A 3', tag: null, isSite: false, siteId: null },
  ...{ fields: {}, servesFrom: null, servesUntil: null },
  ...of,
});
const list = async (query: object = {}, by = ines) =>
  directoryEndpoints.clients.answer.parse((await by.get('/api/clients').query(query).expect(200)).body);
const one = async (id: string): Promise<ClientRecord> =>
  directoryEndpoints.client.answer.parse((await ines.get(`/api/clients/${id}`).expect(200)).body);
const added = async (of: Partial<ClientInput> = {}) => {
  const { body } = await ines.post('/api/clients').send(input(of)).expect(200);
  return body as { client: ClientRecord; changeId: string };
};
const asInput = ({ name, address, usualPersonId, notes, fields, contacts, version }: ClientRecord) => ({
  ...{ name, address, usualPersonId, notes, fields, contacts, version },
});
/** Some client of the demo that has schedules. */
const busy = async (): Promise<ClientRecord> => {
  const [row] = await server.source.query<{ id: string }[]>(
    `select client_id as id from schedule where client_id is not null and deleted_at is null
     group by client_id order by count(*) desc, client_id limit 1`,
  );
  return one(row?.id ?? '');
};
/** Everything that hangs on clients, as it stands. */
const standing = () =>
  server.source.query(
    `select id, client_id, null as note from task union all select id, client_id, deleted_at::text from schedule
     union all select id, client_id, archived_at::text from asset union all select id, client_id, position::text from contact
     union all select id, usual_person_id, concat(name, address, notes, fields, archived_at) from client order by 1`,
  );
const undo = (id: string) => ines.post(`/api/changes/${id}/undo`);

describe('the clients', () => {
  it('are paged by name, each once, with what is theirs and what comes next', async () => {
    const first = await list();
    const second = await list({ after: first.more });
    const names = [...first.clients, ...second.clients].map(({ name }) => name);
    expect(names).toEqual(names.toSorted((a, b) => a.localeCompare(b)));
    expect(new Set(names).size).toBe(first.counts.fitting);
    expect(first.clients.filter(({ scheduleCount, next }) => scheduleCount > 0 && next === null)).toEqual([]);
    expect(first.clients.some(({ lastEight }) => lastEight.length > 2)).toBe(true);
  });

  it('are found by whatever is theirs, and by whom they mostly have', async () => {
    const { client } = await added({ name: 'Tamar Holloway', usualPersonId: kit });
    await ines
      .post('/api/assets')
      .send(vessel(client.id, { name: 'Zephyr Eye', tag: 'QX-7797' }))
      .expect(200);
    await ines
      .put(`/api/clients/${client.id}`)
      .send({
        ...asInput(client),
        contacts: [contact(1, { name: 'Ruan', email: 'ruan@quiet.example', telephone: '01632 961 555' })],
      })
      .expect(200);
    for (const q of ['holloway', 'zephyr', 'qx-7797', 'ruan@quiet', '01632961555', 'eye tamar'])
      expect((await list({ q })).clients.map(({ name }) => name)).toEqual(['Tamar Holloway']);
    expect((await list({ q: 'holloway', person: kit })).clients).toHaveLength(1);
    expect((await list({ q: 'holloway', person: (await server.person('Nadia Orme')).id })).clients).toEqual([]);
    for (const q of ['%', '_']) expect((await list({ q })).counts.fitting).toBe(0);
    expect((await list({ q: 'nobody of that name' })).clients).toEqual([]);
  });

  it('tell a year of their work: what was, what is made and what is foreseen, each date once', async () => {
    const { id, schedules } = await busy();
    const work = directoryEndpoints.work.answer.parse((await ines.get(`/api/clients/${id}/work`).expect(200)).body);
    expect([work.from, work.to]).toEqual(['2026-06-01', '2027-05-31']);
    expect(work.lines.map(({ name }) => name)).toEqual(expect.arrayContaining(schedules.map((s) => s.template.name)));
    for (const { marks } of work.lines) {
      const dates = marks.map(({ on }) => on);
      expect(dates).toEqual(dates.toSorted());
      expect(marks.every(({ taskId, on }) => taskId !== null || on >= '2026-11-24')).toBe(true);
    }
    const coming = work.coming.map(({ on }) => on);
    expect(coming).toEqual(coming.toSorted());
    expect(work.done.some(({ proof }) => / Ω(, |$)/.test(proof) && /\d pictures?/.test(proof))).toBe(true);
    expect(work.done.every(({ state }) => ['done', 'skipped', 'lapsed'].includes(state))).toBe(true);
  });
});

describe('a client', () => {
  it('is kept with contacts in their order, and told as it was kept; one undo takes it out again', async () => {
    const whole = {
      ...{ address: '3 Mill Lane\nSaltreath', usualPersonId: kit, notes: 'Rings first.' },
      fields: { insured: '2027-03-04', deposit: 250.5, notices: 'post' },
      contacts: [contact(12, { email: 'a@berth.example', prefers: 'mail' }), contact(11, { telephone: '0163' })],
    };
    const { client, changeId } = await added(whole);
    expect(asInput(await one(client.id))).toEqual({ ...input(whole), version: 1 });
    expect((await undo(changeId).expect(200)).body.said).toBe('Elspeth Varr is not here any more.');
    await ines.get(`/api/clients/${client.id}`).expect(404);
  });

  it('is changed from the version that was seen, says what changed, and is put back', async () => {
    const { client } = await added({ contacts: [contact(21), contact(22)] });
    const next = { ...asInput(client), name: 'Elspeth Varr-Lowe', contacts: [contact(22), contact(23)] };
    const { changeId } = (await ines.put(`/api/clients/${client.id}`).send(next).expect(200)).body;
    expect((await one(client.id)).contacts.map(({ name }) => name)).toEqual(['Contact 22', 'Contact 23']);
    await ines.put(`/api/clients/${client.id}`).send(next).expect(409);
    const { entries } = (await ines.get(`/api/clients/${client.id}/history`).expect(200)).body;
    expect(entries[0].said).toBe('name and contacts changed');
    await undo(changeId).expect(200);
    expect(asInput(await one(client.id))).toEqual({ ...asInput(client), version: 3 });
  });

  it('is refused with a sentence at the field that is wrong', async () => {
    const { client } = await added({ contacts: [contact(31)] });
    const refused = async (of: object): Promise<Problem['errors']> =>
      (
        (
          await ines
            .post('/api/clients')
            .send({ ...input(), ...of })
            .expect(422)
        ).body as Problem
      ).errors;
    expect(await refused({ name: ' ' })).toEqual([{ path: 'name', message: expect.any(String) }]);
    expect(await refused({ fields: { insured: '2027-02-30', nothing: 'x', notices: 'pigeon' } })).toEqual([
      { path: 'fields.insured', message: 'insured until is a date.' },
      { path: 'fields.nothing', message: 'There is no such field here any more.' },
      { path: 'fields.notices', message: 'notices go by is one of mail, post, both.' },
    ]);
    expect(await refused({ usualPersonId: ID(999) })).toEqual([
      { path: 'usualPersonId', message: 'There is no such person here.' },
    ]);
    const gone = (await server.person('Gwen Astley')).id;
    expect(await refused({ usualPersonId: gone })).toEqual([
      { path: 'usualPersonId', message: 'Gwen Astley has left.' },
    ]);
    expect(await refused({ contacts: [contact(31)] })).toEqual([
      { path: 'contacts', message: 'Contact 31 is a contact of another client.' },
    ]);
    expect(await refused({ contacts: [contact(41), contact(41)] })).toHaveLength(1);
    expect((await one(client.id)).contacts).toHaveLength(1);
  });

  it('is named anew in tasks that nobody has seen', async () => {
    const { id, name } = await busy();
    await server.source.query(
      `update template set title_pattern = title_pattern || ' of {client}', version = version + 1
       where id in (select template_id from schedule where client_id = $1)`,
      [id],
    );
    const client = await one(id);
    await ines
      .put(`/api/clients/${id}`)
      .send({ ...asInput(client), name: 'Renamed Holder' })
      .expect(200);
    const rows = await server.source.query<{ title: string }[]>(
      `select title from task where client_id = $1 and state = 'open' and appears_on > '2026-11-24' and schedule_id is not null and step_key = ''`,
      [id],
    );
    expect(rows.length).toBeGreaterThan(0);
    expect(rows.filter(({ title }) => !title.includes('Renamed Holder') || title.includes(name))).toEqual([]);
  });
});

describe('the archive', () => {
  it('takes a client with all that is theirs, as it was shown before, and gives all of it back', async () => {
    const client = await busy();
    const before = await standing();
    const address = `/api/clients/${client.id}/archived`;
    const { body } = await ines.post(`${address}/impact`).send({ archived: true }).expect(200);
    const impact = body as Impact;
    expect(await standing()).toEqual(before);
    expect(impact.figures.removed).toBeGreaterThan(0);
    const tasks = async () =>
      (
        await server.source.query<{ count: number }[]>(
          'select count(*)::int as count from task where client_id = $1 and schedule_id is not null',
          [client.id],
        )
      )[0]?.count ?? 0;
    const had = await tasks();
    const { changeId } = (await ines.put(address).send({ archived: true }).expect(200)).body;
    expect(await tasks()).toBe(had - impact.figures.removed);
    expect((await list({ q: client.name })).clients).toEqual([]);
    expect((await list({ q: client.name, archived: 'yes' })).clients).toHaveLength(1);
    const { subjects } = (await ines.get('/api/subjects').query({ q: client.name }).expect(200)).body;
    expect(subjects).toEqual([]);
    expect((await one(client.id)).schedules).toEqual([]);
    await undo(changeId).expect(200);
    expect(await standing()).toEqual(before);
    // The other way back: by itself, later.
    await ines.put(address).send({ archived: true }).expect(200);
    await ines.put(address).send({ archived: false }).expect(200);
    expect((await one(client.id)).schedules).toHaveLength(client.schedules.length);
    expect((await ines.put(address).send({ archived: false }).expect(200)).body.changeId).toBeNull();
  });

  it('has no work given to what lies in it', async () => {
    const client = await busy();
    const body = plainInput(client.schedules[0]?.template.id ?? '', { clientId: client.id });
    const { changeId } = (await ines.put(`/api/clients/${client.id}/archived`).send({ archived: true }).expect(200))
      .body;
    const refused = await ines.post('/api/schedules').send(body).expect(422);
    expect(refused.body.errors).toContainEqual({
      path: 'clientId',
      message: `${client.name} is archived: bring it back first.`,
    });
    await undo(changeId).expect(200);
  });
});

describe('two clients that are the same', () => {
  it('become one with all that hangs on them, and are two again', async () => {
    const one1 = await busy();
    const { client } = await added({ name: 'The same again', address: '1 Upper Strand', contacts: [contact(61)] });
    await ines.post('/api/assets').send(vessel(client.id)).expect(200);
    const before = await standing();
    const address = `/api/clients/${client.id}/merge`;
    const look = (await ines.post(`${address}/look`).send({ otherId: one1.id }).expect(200)).body;
    expect(look).toMatchObject({ schedules: one1.schedules.length, assets: one1.assets.length });
    expect(look.tasks).toBeGreaterThan(5);
    const merged = await ines.post(address).send({ otherId: one1.id, version: 1 }).expect(200);
    expect(merged.body.client.contacts).toHaveLength(1 + one1.contacts.length);
    expect(merged.body.client.assets).toHaveLength(1 + one1.assets.length);
    expect(merged.body.client.address).toBe('1 Upper Strand');
    expect((await one(one1.id)).isArchived).toBe(true);
    expect((await one(one1.id)).schedules).toEqual([]);
    await undo(merged.body.changeId).expect(200);
    expect(await standing()).toEqual(before);
    await ines.post(address).send({ otherId: client.id, version: 1 }).expect(422);
  });
});

describe('an asset', () => {
  it('is added, changed and put back; it stands at a site, and never at itself', async () => {
    const { client } = await added();
    const { asset } = (await ines.post('/api/assets').send(vessel(client.id)).expect(200)).body;
    const { body } = await ines
      .put(`/api/assets/${asset.id}`)
      .send({ ...vessel(client.id, { tag: 'WG-1', servesFrom: '2020-01-01' }), version: 1 })
      .expect(200);
    expect(body.asset).toMatchObject({ tag: 'WG-1', version: 2 });
    await undo(body.changeId).expect(200);
    const refused = async (of: object, to = '/api/assets') =>
      (await (to === '/api/assets' ? ines.post(to) : ines.put(to)).send({ ...vessel(null), ...of }).expect(422)).body
        .errors;
    expect(await refused({ servesFrom: '2026-02-01', servesUntil: '2026-01-01' })).toEqual([
      { path: 'servesUntil', message: 'Its last day lies before its first.' },
    ]);
    const { assets } = (await ines.get('/api/assets').query({ q: 'quay' }).expect(200)).body;
    const quay = assets.find(({ name }: { name: string }) => name === 'Long Quay');
    const { isArchived, site, id, ...own } = quay;
    expect([isArchived, site, own.isSite]).toEqual([false, null, true]);
    expect(await refused({ ...own, siteId: id }, `/api/assets/${id}`)).toEqual([
      { path: 'siteId', message: 'Long Quay stands at this one itself.' },
    ]);
    expect(await refused({ ...own, isSite: false }, `/api/assets/${id}`)).toEqual([
      { path: 'isSite', message: 'Pontoon C stands at it: move it first.' },
    ]);
    expect(await refused({ siteId: asset.id })).toEqual([
      { path: 'siteId', message: 'That is none of the sites here.' },
    ]);
    expect(await refused({ ...own, clientId: client.id }, `/api/assets/${id}`)).toContainEqual({
      path: 'clientId',
      message: 'It stays with whom it is: add it anew where it has gone.',
    });
  });

  it('is archived with what is scheduled on it, and comes back', async () => {
    const { assets } = (await ines.get('/api/assets').query({ q: 'crane 1' }).expect(200)).body;
    const before = await standing();
    const address = `/api/assets/${assets[0].id}/archived`;
    const impact = (await ines.post(`${address}/impact`).send({ archived: true }).expect(200)).body;
    expect(impact.figures.removed).toBeGreaterThan(0);
    const { changeId } = (await ines.put(address).send({ archived: true }).expect(200)).body;
    expect((await ines.get('/api/find').query({ q: 'crane 1' })).body.assets).toEqual([]);
    await undo(changeId).expect(200);
    expect(await standing()).toEqual(before);
  });
});
