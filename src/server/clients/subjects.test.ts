import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { subjectEndpoints } from '../../contract/index.ts';
import { plainWords } from '../../core/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let nadia: Agent;
beforeAll(async () => {
  server = await testServer();
  nadia = await server.browser('Nadia Orme');
});
afterAll(() => server.stop());

const found = async (q: string, by: Agent = nadia) =>
  subjectEndpoints.find.answer.parse((await by.get('/api/subjects').query({ q }).expect(200)).body);
const namesOf = ({ subjects }: { subjects: readonly { name: string }[] }) => subjects.map(({ name }) => name);
const said = async (line: string) =>
  namesOf(subjectEndpoints.said.answer.parse((await nadia.get('/api/subjects/said').query({ line }).expect(200)).body));
const BARE = { client: { address: '', notes: '' }, asset: { is_site: 'false' } } as const;
const add = (table: 'client' | 'asset', name: string, rest: Readonly<Record<string, string>> = {}) => {
  const more: Readonly<Record<string, string>> = { ...BARE[table], fields: '{}', version: '1', ...rest };
  return server.source.query(
    `insert into ${table} (workspace_id, id, name${Object.keys(more)
      .map((key) => `, ${key}`)
      .join('')})
     select id, gen_random_uuid(), $1${Object.keys(more)
       .map((_, i) => `, $${i + 2}`)
       .join('')} from workspace where name = 'Tern Quay'`,
    [name, ...Object.values(more)],
  );
};

describe('whom and what work is for', () => {
  it('begins with our own, then clients by name, each before what is theirs', async () => {
    const { subjects, isMore } = await found('');
    expect([subjects.length, isMore]).toEqual([50, true]);
    const own = subjects.findIndex(({ clientId }) => clientId !== null);
    expect(own).toBeGreaterThan(5);
    expect(subjects.slice(own).every(({ clientId }) => clientId !== null)).toBe(true);
    const clients = subjects.filter(({ clientId, assetId }) => clientId !== null && assetId === null);
    const names = clients.map(({ name }) => name.toLowerCase());
    expect(names).toEqual([...names].sort());
    for (const client of clients.slice(0, -1)) {
      const [at, vessel] = [
        subjects.indexOf(client),
        subjects.find((one) => one.assetId && one.clientId === client.clientId),
      ];
      expect(vessel && subjects.indexOf(vessel)).toBe(at + 1);
      expect(vessel?.detail).toMatch(new RegExp(`^${client.name}, berth `));
    }
  });

  it('is found by any words of name, place, tag and client, a short one where a name begins', async () => {
    expect(namesOf(await found('CR-1'))).toEqual(['Crane 1']);
    expect(namesOf(await found('crane hard'))).toContain('Crane 1');
    // The one is 12 t strong; the other is meant.
    expect(namesOf(await found('crane 2'))[0]).toBe('Crane 2');
    const first = (await found('')).subjects.find(({ clientId, assetId }) => clientId !== null && assetId !== null);
    const [owner = '', berth = ''] = first?.detail.split(', ') ?? [];
    expect(namesOf(await found(`${owner.toUpperCase()} ${berth}`))).toEqual([first?.name]);
    expect(namesOf(await found(owner.slice(1)))).toEqual(expect.arrayContaining([owner, first?.name]));
    const short = await found('cr');
    expect(namesOf(short)).toEqual(expect.arrayContaining(['Crane 1', 'Crane 2']));
    for (const { name } of short.subjects) expect(name.toLowerCase()).toMatch(/^cr/);
  });

  it.each(['%', '_', '\\', 'no such thing', "';--"])('is not found by “%s”', async (q) => {
    expect(await found(q)).toEqual({ subjects: [], isMore: false });
  });

  it('is named by ids, an asset with its client, and nothing of another workspace', async () => {
    const vessel = (await found('')).subjects.find(({ clientId, assetId }) => clientId !== null && assetId !== null);
    const query = { assetId: vessel?.assetId };
    const { body } = await nadia.get('/api/subjects/named').query(query).expect(200);
    expect(body).toMatchObject({ asset: vessel, client: { clientId: vessel?.clientId, assetId: null } });
    const ada = await server.browser('Ada Winn');
    expect((await ada.get('/api/subjects/named').query(query).expect(200)).body).toEqual({ client: null, asset: null });
    expect(await found('', ada)).toEqual({ subjects: [], isMore: false });
  });

  it('is known to a captured line by its whole name, however many begin as it does', async () => {
    for (let i = 1; i <= 12; i++) await add('client', `Orla ${String.fromCharCode(64 + i)} Marsh`);
    await add('client', 'Orla Zeal, Jr.');
    await add('asset', 'Zeal’s “Second” Wind', { place: 'berth Z01' });
    expect(await said('ring about the ropes for orla l marsh tomorrow')).toEqual(['Orla L Marsh']);
    expect(await said('ropes for Orla Zeal jr friday')).toContain('Orla Zeal, Jr.');
    expect(await said("key for zeal's second wind fri")).toContain('Zeal’s “Second” Wind');
    expect(await said('ropes for orla')).toHaveLength(5);
    expect(await said('ropes for mar')).toEqual(expect.arrayContaining(['Orla A Marsh']));
    expect(await said('no names in this')).toEqual([]);
  });

  it('keeps its words with its name', async () => {
    await server.source.query(`update client set name = 'Quite “Other”' where name = 'Orla A Marsh'`);
    expect(namesOf(await found('quite other'))).toEqual(['Quite “Other”']);
    const rows = await server.source.query<{ name: string; words: string }[]>('select name, words from client');
    expect(rows.length).toBeGreaterThan(60);
    for (const { name, words } of rows) expect(words).toBe(plainWords(name).filter(Boolean).join(' '));
  });
});
