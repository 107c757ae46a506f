import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findEndpoints, MOST_FOUND } from '../../contract/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.stop());

const find = async (by: Agent, q: string) =>
  findEndpoints.find.answer.parse((await by.get('/api/find').query({ q }).expect(200)).body);

describe('a jump by name', () => {
  it('finds the first of each kind that have every word, in any order', async () => {
    const nadia = await server.browser('Nadia Orme');
    const { templates, schedules } = await find(nadia, 'run payroll');
    expect(templates).toMatchObject([{ name: 'Payroll run' }]);
    expect(schedules).toMatchObject([
      { name: 'Payroll run', detail: expect.stringContaining('last working day of each month') },
    ]);
    const round = await find(nadia, 'fire long');
    expect(round.templates).toEqual([]);
    expect(round.schedules.map(({ name }) => name)).toEqual(['Fire points, Long Quay']);
    expect((await find(nadia, 'a')).schedules).toHaveLength(MOST_FOUND);
  });

  it('finds a client, and what is done for the client’s vessel by the name of either', async () => {
    const nadia = await server.browser('Nadia Orme');
    const [of] = await server.source.query<{ client: string; vessel: string }[]>(
      `select c.name as client, a.name as vessel from schedule s join client c on c.id = s.client_id join asset a on a.id = s.asset_id limit 1`,
    );
    expect((await find(nadia, of?.client ?? '')).clients).toMatchObject([{ name: of?.client }]);
    const ofVessel = await find(nadia, `${of?.vessel} ${of?.client}`);
    expect(ofVessel.schedules[0]).toMatchObject({
      name: expect.stringContaining(of?.vessel ?? ''),
      detail: expect.stringContaining(of?.client ?? ''),
    });
  });

  it('finds a client by vessel, tag, mail and telephone, and says which; and the workspace’s own things', async () => {
    const nadia = await server.browser('Nadia Orme');
    const [one] = await server.source.query<Record<'name' | 'vessel' | 'tag' | 'email' | 'telephone', string>[]>(
      `select c.name, a.name as vessel, a.tag, k.email, k.telephone from client c
       join asset a on a.client_id = c.id join contact k on k.client_id = c.id and k.position = 0 order by c.name limit 1`,
    );
    if (!one) throw new Error('The demo has no clients.');
    for (const q of [one.vessel, one.tag, one.email, one.telephone, one.telephone.replaceAll(' ', '')]) {
      const [found] = (await find(nadia, q)).clients;
      expect(found?.name).toBe(one.name);
      expect(found?.detail.toLowerCase()).toContain(q.toLowerCase());
    }
    expect((await find(nadia, 'cr-2')).assets).toMatchObject([{ name: 'Crane 2', detail: '5 t, fuel dock end, CR-2' }]);
  });

  it('finds nothing by nothing, by signs, and in another workspace', async () => {
    const nothing = { templates: [], clients: [], assets: [], schedules: [] };
    const nadia = await server.browser('Nadia Orme');
    for (const q of ['', ' , ', '%', '_']) expect(await find(nadia, q)).toEqual(nothing);
    expect(await find(await server.browser('Ada Winn'), 'payroll')).toEqual(nothing);
  });
});
