import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Member } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { mailTo, tokenIn } from '../testing/mails.ts';
import { plainInput } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
beforeEach(() => server.clock.set('2026-11-24T10:40'));
afterAll(() => server.stop());

let count = 0;
/** Somebody new, with what a test says of them. */
function somebody(of: object = {}) {
  count++;
  return {
    ...{ name: `Perrin Vale ${count}`, email: `perrin${count}@saltmarsh.example`, telephone: '', roles: ['yard'] },
    ...{ team: null, access: 'member', weeks: [[480, 480, 480, 480, 480, 0, 0]], weeksFrom: '2026-11-23' },
    ...{ shifts: [], shiftChanges: [], worksFrom: null, worksUntil: null, deputyId: null, tickets: [], invite: false },
    ...of,
  };
}
const add = async (of: object = {}, status = 200) =>
  (await ines.post('/api/people').send(somebody(of)).expect(status)).body;
const memberNamed = async (name: string): Promise<Member> => {
  const { body } = await ines.get('/api/team').expect(200);
  return body.members.find((member: Member) => member.name === name);
};
const written = ({ id: _, signsIn: __, invitedUntil: ___, loads: ____, ...fields }: Member) => fields;
const change = (member: Member, of: Partial<Member>) =>
  ines.put(`/api/people/${member.id}`).send({ ...written(member), ...of });

describe('the people of a workspace', () => {
  it('are told with their hours, their two weeks of work and how they get in', async () => {
    const { body } = await ines.get('/api/team').expect(200);
    expect(body.weeks).toEqual(['2026-11-23', '2026-11-30']);
    const by = new Map<string, Member>(body.members.map((member: Member) => [member.name, member]));
    expect(by.get('Nadia Orme')).toMatchObject({ signsIn: 'yes', email: 'nadia@ternquay.example', access: 'member' });
    expect(by.get('Nadia Orme')?.loads.map(({ capacity }) => capacity)).toEqual([2250, 2250]);
    expect(by.get('Nadia Orme')?.loads[0]?.minutes).toBeGreaterThan(0);
    // Weeks that take turns: three days, then five.
    expect(by.get('Rhona Vick')?.loads.map(({ capacity }) => capacity)).toEqual([1260, 2100]);
    expect(by.get('Corin Hale')).toMatchObject({ signsIn: 'invited', invitedUntil: '2026-12-01T10:40' });
    expect(by.get('Gwen Astley')).toMatchObject({ signsIn: 'no', loads: [{ capacity: 0 }, { capacity: 0 }] });
  });

  it('can be added, changed, and put back; new roles and teams join the lists', async () => {
    const { member, changeId } = await add({ roles: ['rigger'], team: 'the shed' });
    expect(member).toMatchObject({ roles: ['rigger'], team: 'the shed', signsIn: 'no' });
    const { body: workspace } = await ines.get('/api/workspace');
    expect([workspace.roles.includes('rigger'), workspace.teams.includes('the shed')]).toEqual([true, true]);
    const changed = await change(member, { telephone: '01632 960 199', access: 'planner' }).expect(200);
    expect(changed.body.member).toMatchObject({ telephone: '01632 960 199', access: 'planner', version: 2 });
    const { body: history } = await ines.get(`/api/people/${member.id}/history`).expect(200);
    expect(history.entries[0].said).toBe('access and telephone changed');
    const { body: undone } = await ines.post(`/api/changes/${changed.body.changeId}/undo`).expect(200);
    expect(undone.said).toBe(`${member.name} is as before.`);
    expect(await memberNamed(member.name)).toMatchObject({ telephone: '', access: 'member' });
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await memberNamed(member.name)).toBeUndefined();
  });

  it('are refused in words: a last day before the first, a week of nine days, an address that is taken', async () => {
    const problems = async (of: object) => (await add(of, 422)).errors;
    expect(await problems({ worksFrom: '2026-12-01', worksUntil: '2026-11-01' })).toEqual([
      { path: 'worksUntil', message: 'The last day lies before the first.' },
    ]);
    expect((await problems({ weeks: [[1, 2, 3, 4, 5, 6, 7, 8, 9]] }))[0].message).toBe('A week has seven days.');
    expect((await problems({ email: 'Nadia@TernQuay.example' }))[0].message).toBe(
      'Nadia Orme has that address already.',
    );
    expect((await problems({ email: 'nowhere' }))[0].message).toMatch(/^That is no address/);
    const nadia = await memberNamed('Nadia Orme');
    const refused = await change(nadia, { email: 'other@saltmarsh.example' }).expect(422);
    expect(refused.body.detail).toContain('only Nadia Orme can change it');
  });

  it('that somebody else has changed meanwhile stay as they are', async () => {
    const { member } = await add();
    await change(member, { telephone: '1' }).expect(200);
    await change(member, { telephone: '2' }).expect(409);
  });

  it('keep somebody who does everything', async () => {
    const only = await memberNamed('Ines Calloway');
    for (const of of [{ access: 'planner' as const }, { worksUntil: '2026-11-01' }])
      expect((await change(only, of).expect(403)).body.detail).toContain('make somebody else a manager first');
  });

  it('who have left do not get in, and are signed out', async () => {
    const kit = await server.browser('Kit Sorrell');
    await kit.get('/api/workspace').expect(200);
    const { body } = await change(await memberNamed('Kit Sorrell'), { worksUntil: '2026-11-23' }).expect(200);
    await kit.get('/api/workspace').expect(401);
    const nobody = await server.browser();
    await nobody.post('/api/session').send({ email: 'kit@ternquay.example', password: 'ternquay' }).expect(401);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    await kit.get('/api/workspace').expect(200);
  });
});

describe('an invitation', () => {
  it('lets somebody in once, with a password of their own', async () => {
    const { member } = await add({ invite: true });
    const mail = await mailTo(server, member.email);
    expect(mail).toMatchObject({ subject: 'Ines Calloway asks you to Tern Quay', state: 'waiting' });
    const token = tokenIn(mail.text);
    const browser = await server.browser();
    const { body: look } = await browser.post('/api/invitations/look').send({ token }).expect(200);
    expect(look).toEqual({ workspace: 'Tern Quay', name: member.name, email: member.email, hasAccount: false });
    const accept = (password: string) => browser.post('/api/invitations/accept').send({ token, password });
    expect((await accept('short').expect(422)).body.detail).toBe('A password has 10 characters or more.');
    const { body } = await accept('herring gulls').expect(200);
    expect(body.person).toMatchObject({ name: member.name });
    await browser.get('/api/workspace').expect(200);
    expect((await accept('herring gulls').expect(409)).body.detail).toContain('was used already');
    expect((await memberNamed(member.name)).signsIn).toBe('yes');
    const again = await ines.post(`/api/people/${member.id}/invitation`).expect(409);
    expect(again.body.detail).toContain('signs in already');
  });

  it('used by two at once lets one of them in', async () => {
    const { member } = await add({ invite: true });
    const token = tokenIn((await mailTo(server, member.email)).text);
    const tries = await Promise.all(
      Array.from({ length: 4 }, async () =>
        (await server.browser()).post('/api/invitations/accept').send({ token, password: 'herring gulls' }),
      ),
    );
    expect(tries.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409]);
  });

  it('runs out, is sent again, and is withdrawn', async () => {
    const { member } = await add({ invite: true });
    const first = tokenIn((await mailTo(server, member.email)).text);
    const look = async (token: string) =>
      (await (await server.browser()).post('/api/invitations/look').send({ token })).body.detail;
    server.clock.set('2026-12-01T10:41');
    expect(await look(first)).toContain('has run out');
    expect((await memberNamed(member.name)).signsIn).toBe('invitation ended');
    await ines.post(`/api/people/${member.id}/invitation`).expect(200);
    const second = tokenIn((await mailTo(server, member.email)).text);
    expect(await look(first)).toContain('was withdrawn, or a newer one was sent');
    expect(await look(second)).toBeUndefined();
    await ines.delete(`/api/people/${member.id}/invitation`).expect(200);
    expect(await look(second)).toContain('was withdrawn');
    expect(await look('x'.repeat(43))).toContain('is not known here');
    expect((await memberNamed(member.name)).signsIn).toBe('no');
  });

  it('of an address that signs in elsewhere asks for its password, and the account changes between the two', async () => {
    const { member } = await add({ email: 'ada@heronyard.example', invite: true });
    const token = tokenIn((await mailTo(server, 'ada@heronyard.example')).text);
    const browser = await server.browser();
    const accept = (password: string) => browser.post('/api/invitations/accept').send({ token, password });
    expect((await accept('not the one').expect(422)).body.detail).toBe('That is not the password of this address.');
    await accept('ternquay').expect(200);
    const { body } = await browser.get('/api/account/workspaces').expect(200);
    expect(body.workspaces.map(({ name }: { name: string }) => name)).toEqual(['Heron Yard', 'Tern Quay']);
    const heron = body.workspaces[0];
    await browser.post('/api/session/workspace').send({ personId: heron.id }).expect(200);
    expect((await browser.get('/api/workspace')).body.name).toBe('Heron Yard');
    const stranger = await server.person('Nadia Orme');
    await browser.post('/api/session/workspace').send({ personId: stranger.id }).expect(404);
    expect((await memberNamed(member.name)).signsIn).toBe('yes');
  });
});

describe('a password that is forgotten', () => {
  let own: TestServer;
  beforeAll(async () => {
    own = await testServer();
    await own.source.query('update workspace set is_demo = false');
  });
  afterAll(() => own.stop());
  const ask = async (email: string) => {
    const { body } = await (await own.browser()).post('/api/password/forgotten').send({ email }).expect(200);
    return body.said;
  };
  const linkFor = async (email: string) => {
    await ask(email);
    await expect.poll(async () => (await mailTo(own, email).catch(() => null))?.reason).toMatch(/^password/);
    return tokenIn((await mailTo(own, email)).text);
  };

  it('is told the same to anybody, and a mail goes to who is there alone', async () => {
    expect(await ask('nobody@saltmarsh.example')).toBe(await ask('tamsin@ternquay.example'));
    await expect
      .poll(async () => (await mailTo(own, 'tamsin@ternquay.example').catch(() => null))?.subject)
      .toBeTruthy();
    await expect(mailTo(own, 'nobody@saltmarsh.example')).rejects.toThrow();
  });

  it('is replaced through the link, once, and whoever is signed in with the old one is signed out', async () => {
    const joss = await own.browser();
    const signIn = (password: string) => joss.post('/api/session').send({ email: 'joss@ternquay.example', password });
    await signIn('ternquay').expect(200);
    const token = await linkFor('joss@ternquay.example');
    const elsewhere = await own.browser();
    const reset = (password: string) => elsewhere.post('/api/password/reset').send({ token, password });
    expect((await reset('joss the first').expect(422)).body.detail).toContain('Leave your own name out');
    await elsewhere.post('/api/password/look').send({ token }).expect(200, { email: 'joss@ternquay.example' });
    await reset('oystercatchers').expect(200);
    expect((await reset('oystercatchers').expect(409)).body.detail).toContain('was used already');
    await joss.get('/api/workspace').expect(401);
    await signIn('ternquay').expect(401);
    await signIn('oystercatchers').expect(200);
  });

  it('leads nowhere after two hours', async () => {
    const token = await linkFor('lowri@ternquay.example');
    own.clock.set('2026-11-24T12:41');
    const { body } = await (await own.browser()).post('/api/password/look').send({ token }).expect(409);
    expect(body.detail).toContain('has run out');
    own.clock.set('2026-11-24T10:40');
  });

  it('and an address are changed by their owner: both addresses hear of it', async () => {
    const piet = await own.browser();
    const signIn = (email: string) => piet.post('/api/session').send({ email, password: 'ternquay' });
    await signIn('piet@ternquay.example').expect(200);
    const move = (password: string) =>
      piet.post('/api/account/address').send({ email: 'piet@saltmarsh.example', password });
    expect((await move('wrong').expect(422)).body.detail).toBe('That is not your present password.');
    await move('ternquay').expect(200);
    const token = tokenIn((await mailTo(own, 'piet@saltmarsh.example')).text);
    const confirm = async (status: number) =>
      (await (await own.browser()).post('/api/account/address/confirm').send({ token }).expect(status)).body;
    expect(await confirm(200)).toEqual({ email: 'piet@saltmarsh.example' });
    await confirm(409);
    expect((await mailTo(own, 'piet@ternquay.example')).text).toContain('you sign in with piet@saltmarsh.example');
    await signIn('piet@ternquay.example').expect(401);
    await signIn('piet@saltmarsh.example').expect(200);
  });
});

it('a session that is not to stay ends with the browser', async () => {
  const browser = await server.browser();
  const cookie = async (stay: boolean) =>
    (await browser.post('/api/session').send({ email: 'nadia@ternquay.example', password: 'ternquay', stay })).headers[
      'set-cookie'
    ]?.[0];
  expect(await cookie(true)).toContain('Expires=');
  expect(await cookie(false)).not.toContain('Expires=');
});

describe('whoever has left', () => {
  it('is given no work any more, by a schedule, a task or a start', async () => {
    const gwen = (await server.person('Gwen Astley')).id;
    const message = 'Gwen Astley has left: give it to somebody else.';
    const templateId = await newTemplate(ines, { name: 'Winch round' });
    const [task] = await server.source.query<{ id: string; version: number }[]>(
      `select id, version from task where state = 'open' and work_on > '2026-12-01' order by id limit 1`,
    );
    const line = { title: 'Rinse', on: '2026-11-24', dueOn: '2026-11-24', startTime: null, dueTime: null };
    const tries: [string, object, string][] = [
      ['/schedules', plainInput(templateId, { assignment: givenTo(gwen) }), 'assignment'],
      ['/tasks', { ...line, assigneeId: gwen, clientId: null, assetId: null, estimateMinutes: 5 }, 'assigneeId'],
      ['/tasks/changes', { tasks: [task], deed: { kind: 'give', personId: gwen } }, 'deed.personId'],
    ];
    for (const [path, body, at] of tries)
      expect((await ines.post(`/api${path}`).send(body).expect(422)).body.errors).toEqual([{ path: at, message }]);
  });
});
