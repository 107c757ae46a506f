import supertest from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.stop());

describe('signing in', () => {
  it('works with the right password, keeps a cookie and ends on request', async () => {
    const browser = await server.browser();
    const answer = await browser
      .post('/api/session')
      .send({ email: 'Nadia@TernQuay.example', password: 'ternquay' })
      .expect(200);
    expect(answer.body.person).toMatchObject({
      name: 'Nadia Orme',
      roles: ['dock crew', 'first aider'],
      access: 'member',
    });
    expect(answer.headers['set-cookie']?.[0]).toMatch(/HttpOnly.*SameSite=Lax/);
    await browser.get('/api/workspace').expect(200);
    await browser.delete('/api/session').expect(200);
    await browser.get('/api/workspace').expect(401);
  });

  it('is refused in the same words for a wrong password and an unknown address', async () => {
    const browser = await server.browser();
    const wrong = await browser
      .post('/api/session')
      .send({ email: 'nadia@ternquay.example', password: 'nope' })
      .expect(401);
    const unknown = await browser
      .post('/api/session')
      .send({ email: 'nobody@ternquay.example', password: 'nope' })
      .expect(401);
    expect(wrong.body.detail).toBe(unknown.body.detail);
    expect(wrong.headers['content-type']).toContain('application/problem+json');
  });

  it('says which field is missing', async () => {
    const answer = await (await server.browser()).post('/api/session').send({ email: '' }).expect(422);
    expect(answer.body.errors.map(({ path }: { path: string }) => path)).toEqual(['email', 'password']);
  });

  it('is slowed down after ten wrong tries', async () => {
    const other = await testServer();
    try {
      const browser = await other.browser();
      const statuses: number[] = [];
      for (let i = 0; i < 12; i++) {
        statuses.push(
          (await browser.post('/api/session').send({ email: 'ines@ternquay.example', password: `try ${i}` })).status,
        );
      }
      expect(statuses.slice(0, 10)).toEqual(Array(10).fill(401));
      expect(statuses.slice(10)).toEqual([429, 429]);
    } finally {
      await other.stop();
    }
  });

  it('lists the people of the demo with what waits for them', async () => {
    const answer = await (await server.browser()).get('/api/welcome').expect(200);
    const [first] = answer.body.demoPeople;
    expect(first).toMatchObject({ name: 'Ines Calloway', role: 'manager' });
    expect(first.saying).toMatch(/tasks? today/);
    expect(answer.body.demoPeople.map(({ role }: { role: string }) => role)).toContain('dock crew');
  });

  it('as a demo person is refused where no demo data is loaded', async () => {
    const other = await testServer();
    try {
      const { id } = await other.person('Ines Calloway');
      await other.source.query('update workspace set is_demo = false');
      const browser = await other.browser();
      await browser.post('/api/session/demo').send({ personId: id }).expect(403);
      expect((await browser.get('/api/welcome')).body.demoPeople).toBeNull();
    } finally {
      await other.stop();
    }
  });
});

describe('a write', () => {
  it('from another site, or from no site at all, is refused', async () => {
    const { id } = await server.person('Ines Calloway');
    const foreign = supertest(server.address);
    await foreign
      .post('/api/session/demo')
      .set('Origin', 'http://elsewhere.example')
      .send({ personId: id })
      .expect(403);
    await foreign.post('/api/session/demo').send({ personId: id }).expect(403);
  });

  it('that is not JSON, or too large, is refused without a fault', async () => {
    const browser = await server.browser('Ines Calloway');
    await browser.post('/api/templates').set('Content-Type', 'application/json').send('{"name":').expect(400);
    const large = await browser
      .post('/api/templates')
      .send({ name: 'x', instructions: 'x'.repeat(1_200_000) })
      .expect(413);
    expect(large.body.detail).toContain('too much text');
  });
});

describe('an answer', () => {
  it('carries a content security policy without foreign sources', async () => {
    const { headers } = await supertest(server.address).get('/api/welcome');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['content-security-policy']).not.toContain('http:');
    expect(headers['x-powered-by']).toBeUndefined();
  });

  it('to an address that does not exist says so', async () => {
    const answer = await (await server.browser('Ines Calloway')).get('/api/nowhere').expect(404);
    expect(answer.body.detail).toContain('GET');
  });
});
