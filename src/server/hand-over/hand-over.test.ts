import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { HandOver, Held, Member } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { scheduleNamed } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let nadia: string;
let kit: string;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  nadia = (await server.person('Nadia Orme')).id;
  kit = (await server.person('Kit Sorrell')).id;
});
afterAll(() => server.stop());

const heldBy = async (id: string): Promise<Held> => (await ines.get(`/api/people/${id}/held`).expect(200)).body;
const versionOf = async (id: string): Promise<number> =>
  (await ines.get('/api/team')).body.members.find((member: Member) => member.id === id).version;
const input = async (of: Partial<HandOver> = {}): Promise<HandOver> => ({
  ...{
    version: await versionOf(nadia),
    lastDay: null,
    tasksTo: kit,
    schedulesTo: kit,
    templatesTo: kit,
    signOffsTo: kit,
  },
  ...of,
});
/** All that could tell that somebody is named somewhere. */
const named = async () =>
  server.source.query(
    `select id, assignee_id, edited::text, null as said from task where state in ('open', 'underWay', 'toCheck')
     union all select id, (assignment->>'personId')::uuid, exceptions::text, revisions::text from schedule
     union all select id, (assignment->>'personId')::uuid, steps::text, sign_off::text from template
     union all select id, null, works_until::text, null from person order by 1`,
  );

describe('what somebody holds', () => {
  it('is counted and named: tasks, schedules, templates and what they sign off', async () => {
    await newTemplate(ines, { name: 'Winch check', signOff: { by: 'person', personId: nadia } });
    await newTemplate(ines, { name: 'Fender check', assignment: givenTo(nadia) });
    const held = await heldBy(nadia);
    expect(held.counts.tasks).toBeGreaterThan(10);
    expect(held.counts.schedules).toBeGreaterThan(3);
    expect(held.templates).toContainEqual({ id: expect.any(String), name: 'Fender check' });
    expect(held.signOffs).toEqual([{ id: expect.any(String), name: 'Winch check' }]);
    expect(held.tasks).toHaveLength(12);
  });

  it('goes to others in one go, as it was shown before, and one undo takes it back', async () => {
    const before = await named();
    const held = await heldBy(nadia);
    const asked = await input({ lastDay: '2026-12-18', signOffsTo: null });
    const { body: impact } = await ines.post(`/api/people/${nadia}/hand-over/impact`).send(asked).expect(200);
    expect(await named()).toEqual(before);
    expect(impact.figures.changed).toBe(held.counts.tasks);
    const { body } = await ines.post(`/api/people/${nadia}/hand-over`).send(asked).expect(200);
    expect(body.member.worksUntil).toBe('2026-12-18');
    expect((await heldBy(nadia)).counts).toEqual({ tasks: 0, underWay: 0, schedules: 0, templates: 0, signOffs: 0 });
    expect((await heldBy(kit)).counts.schedules).toBeGreaterThanOrEqual(held.counts.schedules);
    // What nobody in particular signs any more, a manager does: it would wait for ever.
    const [winch] = await server.source.query(`select sign_off as "signOff" from template where name = 'Winch check'`);
    expect(winch.signOff).toEqual({ by: 'manager' });
    const [fender] = await server.source.query(`select assignment from template where name = 'Fender check'`);
    expect(fender.assignment).toEqual(givenTo(asked.templatesTo));
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await named()).toEqual(before);
  });

  it('can be given to nobody yet, and single dates and later rules that name somebody go with it', async () => {
    const schedule = await scheduleNamed(ines, 'Fire points', 'Long Quay');
    const exceptions = [{ kind: 'change', date: '2027-02-03', assigneeId: nadia }];
    await server.source.query('update schedule set exceptions = $2, assignment = $3 where id = $1', [
      schedule.id,
      JSON.stringify(exceptions),
      JSON.stringify(givenTo(kit)),
    ]);
    const asked = await input({ tasksTo: null, schedulesTo: null, templatesTo: null });
    const { body } = await ines.post(`/api/people/${nadia}/hand-over`).send(asked).expect(200);
    const [after] = await server.source.query(
      `select exceptions, assignment->>'personId' as "by" from schedule where id = $1`,
      [schedule.id],
    );
    expect(after).toMatchObject({ exceptions: [{ ...exceptions[0], assigneeId: null }], by: kit });
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
  });

  it('is refused to whoever has left, is the same one, or is from elsewhere, and by a version that is old', async () => {
    const gwen = (await server.person('Gwen Astley')).id;
    const ada = (await server.person('Ada Winn')).id;
    const refused = async (of: Partial<HandOver>, status = 422) =>
      (
        await ines
          .post(`/api/people/${nadia}/hand-over/impact`)
          .send(await input(of))
          .expect(status)
      ).body.detail;
    expect(await refused({ tasksTo: gwen })).toBe('Gwen Astley has left.');
    expect(await refused({ schedulesTo: nadia })).toBe('That is Nadia Orme: choose somebody else.');
    expect(await refused({ templatesTo: ada })).toBe('There is no such person here.');
    expect(await refused({ version: 999 }, 409)).toContain('Look once more');
  });
});
