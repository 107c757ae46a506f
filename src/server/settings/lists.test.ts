import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Lists, type ListsInput, listsSchema } from '../../contract/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const lists = async (): Promise<Lists> => listsSchema.parse((await ines.get('/api/settings/lists').expect(200)).body);
const same = ({ roles, teams, tickets, clientFields, assetFields, ...rest }: Lists): ListsInput => ({
  ...rest,
  roles: roles.map(({ name }) => ({ was: name, name })),
  teams: teams.map(({ name }) => ({ was: name, name })),
  tickets: tickets.map(({ name }) => ({ was: name, name })),
  clientFields: clientFields.map(({ count: _, ...field }) => field),
  assetFields: assetFields.map(({ count: _, ...field }) => field),
});
const save = (input: ListsInput) => ing(input).expect(200);
const ing = (input: ListsInput) => ines.put('/api/settings/lists').send(input);
const refused = async (input: ListsInput) => (await ing(input).expect(422)).body.errors;

describe('the lists', () => {
  it('tell how often each name is used, and change nothing that is the same', async () => {
    const now = await lists();
    expect(now.roles.find(({ name }) => name === 'dock crew')?.count).toBeGreaterThan(4);
    expect(now.clientFields.find(({ key }) => key === 'notices')?.count).toBe(60);
    expect((await save(same(now))).body.changeId).toBeNull();
  });

  it('say how calls end: a new way has a key of its own, one that is taken out comes back with the undo', async () => {
    const input = same(await lists());
    const [first, ...others] = input.outcomes;
    if (!first) throw new Error('no outcome');
    const brochure = {
      key: '',
      name: 'asked for prices',
      isReached: true,
      follows: { kind: 'leftAlone', days: 20 },
    } as const;
    const { body } = await save({
      ...input,
      outcomes: [{ ...first, name: 'spoken to' }, ...others.slice(1), brochure],
    });
    expect((await lists()).outcomes.map(({ key, name }) => [key, name])).toEqual([
      [first.key, 'spoken to'],
      ...others.slice(1).map(({ key, name }) => [key, name]),
      ['asked-for-prices', 'asked for prices'],
    ]);
    const wrong = (outcomes: ListsInput['outcomes']) => refused({ ...input, version: body.lists.version, outcomes });
    expect(await wrong([])).toMatchObject([{ path: 'outcomes' }]);
    const back = { kind: 'callBack' } as const;
    expect(
      await wrong([
        { ...first, follows: back },
        { ...brochure, follows: back },
      ]),
    ).toMatchObject([{ path: 'outcomes.1.follows' }]);
    expect(await wrong([first, { ...brochure, name: first.name.toUpperCase() }])).toMatchObject([
      { path: 'outcomes.1.name' },
    ]);
    await ines.post(`/api/changes/${body.changeId}/undo`).send({}).expect(200);
    expect((await lists()).outcomes).toEqual(input.outcomes);
  });

  it('carry another name over to whoever has it, and one undo gives the old one back', async () => {
    const before = await server.source.query('select id, roles, team from person order by id');
    // Of schedules that give their work to a role, and tasks that are offered to one.
    const rules = () =>
      server.source.query<{ role: string }[]>(
        `select id, assignment->'group'->>'role' as role from schedule where assignment->'group'->>'role' is not null
         union all select id, offered_to->>'role' from task where offered_to is not null
         union all select id, step->'assignee'->'group'->>'role' from template, jsonb_array_elements(steps) step
           where step->'assignee'->'group'->>'role' is not null order by 1`,
      );
    const rulesBefore = await rules();
    const now = await lists();
    const input = same(now);
    const { body } = await save({
      ...input,
      roles: [
        ...input.roles.map((role) => ({
          ...role,
          name: { 'fuel dock': 'pumps', 'dock crew': 'quay crew' }[role.was ?? ''] ?? role.name,
        })),
        { was: null, name: 'rigger' },
      ],
      teams: input.teams.map((team) => (team.was === 'yard' ? { ...team, name: 'boatyard' } : team)),
      skipReasons: [...input.skipReasons, 'fog', 'fog'],
    });
    expect((await server.person('Piet Garrow')).roles).toEqual(['pumps', 'quay crew']);
    expect((await server.person('Bram Hollis')).team).toBe('boatyard');
    const renamed = await rules();
    expect(renamed.some(({ role }) => role === 'quay crew')).toBe(true);
    expect(renamed.some(({ role }) => role === 'dock crew')).toBe(false);
    expect(body.lists.roles).toContainEqual({ name: 'rigger', count: 0 });
    expect(body.lists.skipReasons.filter((reason: string) => reason === 'fog')).toHaveLength(1);
    await ing(input).expect(409);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await server.source.query('select id, roles, team from person order by id')).toEqual(before);
    expect(await rules()).toEqual(rulesBefore);
    const { version: _, ...after } = await lists();
    const { version: __, ...first } = now;
    expect(after).toEqual(first);
  });

  it('keep what is in use, and a role that signs off keeps its name', async () => {
    const input = same(await lists());
    expect(await refused({ ...input, teams: input.teams.filter(({ was }) => was !== 'office') })).toEqual([
      { path: 'teams', message: '“office” can’t go: 5 people are in that team. Give them another first.' },
    ]);
    await newTemplate(ines, { name: 'A winch check', signOff: { by: 'role', role: 'first aider' } });
    expect(
      await refused({
        ...input,
        roles: input.roles.map((role) => (role.was === 'first aider' ? { ...role, name: 'medic' } : role)),
      }),
    ).toEqual([
      {
        path: 'roles',
        message: '“first aider” signs off “A winch check”, so it keeps its name: choose another there first.',
      },
    ]);
    expect(await refused({ ...input, roles: [...input.roles, { was: null, name: 'Yard' }] })).toEqual([
      { path: `roles.${input.roles.length}.name`, message: '“Yard” stands there twice.' },
    ]);
  });

  it('give a new field a key of its own, which it keeps whatever it is called', async () => {
    const input = same(await lists());
    const blank = { key: '', kind: 'number' as const, choices: [] };
    const { body } = await save({ ...input, clientFields: [...input.clientFields, { ...blank, name: 'Deposit' }] });
    const added = body.lists.clientFields.at(-1);
    expect(added).toMatchObject({ key: 'deposit-2', name: 'Deposit', count: 0 });
    const [client] = (await ines.get('/api/clients').expect(200)).body.clients;
    const record = (await ines.get(`/api/clients/${client.id}`).expect(200)).body;
    const fields = { ...record.fields, 'deposit-2': 12.5 };
    await ines
      .put(`/api/clients/${client.id}`)
      .send({ ...record, fields })
      .expect(200);
    const again = same(await lists());
    await save({
      ...again,
      clientFields: again.clientFields.map((field) =>
        field.key === 'deposit-2' ? { ...field, name: 'Bond, £' } : field,
      ),
    });
    expect((await ines.get(`/api/clients/${client.id}`).expect(200)).body.fields['deposit-2']).toBe(12.5);
    expect(
      await refused({ ...same(await lists()), assetFields: [{ ...blank, kind: 'choice', name: 'hull' }] }),
    ).toContainEqual({ path: 'assetFields.0.choices', message: 'Say what may be chosen, with commas between.' });
  });
});
