import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import express from 'express';
import supertest from 'supertest';
import { QueryFailedError } from 'typeorm';
import { describe, expect, it } from 'vitest';
import { silent, testServer } from '../../testing/test-server.ts';
import { problems } from './problems.ts';

const coded = (code: string) => Object.assign(new Error(`failed: ${code}`), { code });
const ofDatabase = (code: string) => new QueryFailedError('select secret from account', [], coded(code));

describe('what goes wrong', () => {
  it.each([
    ['no room for files', coded('ENOSPC'), 507, 'disk of the server is full'],
    ['no room in the database', ofDatabase('53100'), 507, 'disk of the server is full'],
    ['a question that takes too long', ofDatabase('57014'), 503, 'longer than it may'],
    ['others that hold on too long', ofDatabase('55P03'), 503, 'longer than it may'],
    ['a deadlock', ofDatabase('40P01'), 503, 'Others are changing'],
    ['a database that is away', ofDatabase('57P01'), 503, 'does not answer'],
    ['too many connections', ofDatabase('53300'), 503, 'does not answer'],
    ['a fault of ours', new Error('select secret from account'), 500, 'Something went wrong'],
  ])('%s is said in words, without its insides, and kept by nobody', async (_, error, status, said) => {
    const app = express();
    app.get('/', () => {
      throw error;
    });
    app.use(problems(silent));
    const answer = await supertest(app).get('/').expect(status);
    expect(answer.body.detail).toContain(said);
    expect(JSON.stringify(answer.body)).not.toContain('secret');
    expect(answer.headers).toMatchObject({
      'cache-control': 'no-store',
      'content-type': expect.stringContaining('application/problem+json'),
    });
  });

  it('a full disk is told to managers, wherever they are, and to nobody else', async () => {
    const server = await testServer();
    try {
      const trouble = async (name: string) =>
        (await (await server.browser(name)).get('/api/workspace').expect(200)).body.trouble;
      // Noted by the first of these tests, in this process.
      expect(await trouble('Ines Calloway')).toContain('disk of the server is full');
      expect(await trouble('Nadia Orme')).toBeNull();
    } finally {
      await server.stop();
    }
  });
});

describe('an answer', () => {
  it('of some length is packed, a short one is not', async () => {
    const server = await testServer();
    try {
      const ines = await server.browser('Ines Calloway');
      const lines = await ines.get('/api/schedules').expect('content-encoding', 'gzip').expect(200);
      expect(lines.body.lines.length).toBeGreaterThan(20);
      expect((await ines.get('/api/clock').expect(200)).headers['content-encoding']).toBeUndefined();
    } finally {
      await server.stop();
    }
  });
});

describe('the browser side', () => {
  it('answers any page with the first one, but no part that is not there; nothing comes from elsewhere', async () => {
    const webFolder = await mkdtemp(join(tmpdir(), 'jolly-web-'));
    await writeFile(join(webFolder, 'index.html'), '<title>first</title>');
    await mkdir(join(webFolder, 'assets'));
    await writeFile(join(webFolder, 'assets', 'main.js'), 'first();');
    await writeFile(join(webFolder, 'assets', 'main.js.gz'), gzipSync('first();'));
    const server = await testServer({ webFolder });
    try {
      const ask = supertest(server.address);
      expect((await ask.get('/schedules/new').expect(200)).text).toContain('first');
      await ask.get('/assets/gone-1234.js').expect(404);
      for (const [can, is] of [
        ['gzip', 'gzip'],
        ['identity', undefined],
      ] as const) {
        const part = await ask.get('/assets/main.js').set('Accept-Encoding', can).buffer().expect(200);
        expect([part.text, part.headers['content-encoding']]).toEqual(['first();', is]);
        expect(part.headers['content-type']).toContain('javascript');
        expect(part.headers['vary']).toContain('Accept-Encoding');
      }
      const { headers } = await ask.get('/schedules');
      expect(headers['content-security-policy']).toContain("font-src 'self';");
      expect(headers['content-security-policy']).not.toContain('https:');
      expect(headers['content-encoding']).toBeUndefined();
    } finally {
      await server.stop();
      await rm(webFolder, { recursive: true });
    }
  });
});
