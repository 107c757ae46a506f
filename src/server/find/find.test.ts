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

  it('finds nothing by nothing, by signs, and in another workspace', async () => {
    const nothing = { templates: [], clients: [], schedules: [] };
    const nadia = await server.browser('Nadia Orme');
    for (const q of ['', ' , ', '%', '_']) expect(await find(nadia, q)).toEqual(nothing);
    expect(await find(await server.browser('Ada Winn'), 'payroll')).toEqual(nothing);
  });
});
