import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CallDay, FoundContact, ShareLook } from '../../contract/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

const TODAY = '2026-11-24';
let server: TestServer;
let ines: Agent;
let ayesha: Agent;
let people: { ayesha: string; rhona: string };
let quotaId: string;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  ayesha = await server.browser('Ayesha Quill');
  people = { ayesha: (await server.person('Ayesha Quill')).id, rhona: (await server.person('Rhona Vick')).id };
  quotaId = (await ines.get('/api/quotas').expect(200)).body.quotas[0].id;
});
afterAll(() => server.stop());

const dayOf = async (person: string): Promise<CallDay> =>
  (await ines.get('/api/calls').query({ person, on: TODAY }).expect(200)).body;
const namesOf = async (person: string) => (await dayOf(person)).calls.map(({ contact }) => contact.name);
const openOf = async (person: string) => (await dayOf(person)).calls.filter(({ state }) => state === 'open');
const undo = (changeId: string) => ines.post(`/api/changes/${changeId}/undo`).send({}).expect(200);
const found = async (q: string): Promise<FoundContact[]> =>
  (await ines.get('/api/calls/contacts').query({ q }).expect(200)).body.contacts;
const more = (by: Agent, person: string, contactId: string | null) =>
  by.post('/api/calls/more').send({ person, quotaId, contactId });

describe('a list of today', () => {
  it('takes the next from the pool, or whoever is named, and loses whoever is taken off; each is undone', async () => {
    const before = await namesOf(people.ayesha);
    const next = (await more(ayesha, people.ayesha, null).expect(200)).body;
    expect(await namesOf(people.ayesha)).toEqual([...before, next.call.contact.name]);
    await undo(next.changeId);
    expect(await namesOf(people.ayesha)).toEqual(before);
    // Whoever is named, and is on no list: why they are on it is said.
    const contact = (await found('')).find(({ onListOf, cannot }) => onListOf === null && cannot === null);
    if (!contact) throw new Error('nobody to put on');
    expect((await found(contact.contact.name)).map(({ contact: { id } }) => id)).toContain(contact.contact.id);
    const named = (await more(ayesha, people.ayesha, contact.contact.id).expect(200)).body;
    expect(named.call.why.kind).toMatch(/byHand|promised/);
    expect((await found(contact.contact.name)).find(({ contact: { id } }) => id === contact.contact.id)?.onListOf).toBe(
      'Ayesha Quill',
    );
    expect((await more(ines, people.rhona, contact.contact.id).expect(422)).body.errors).toMatchObject([
      { path: 'contactId', message: expect.stringContaining('already') },
    ]);
    const { changeId } = (
      await ayesha.post(`/api/calls/${named.call.id}/off`).send({ version: named.call.version }).expect(200)
    ).body;
    expect(await namesOf(people.ayesha)).toEqual(before);
    await ayesha
      .post(`/api/calls/${named.call.id}/off`)
      .send({ version: named.call.version + 1 })
      .expect(409);
    await undo(changeId);
    expect(await namesOf(people.ayesha)).toHaveLength(before.length + 1);
    await undo(named.changeId);
    // Taken off, they may be put on once more, on another list too.
    const again = (await more(ines, people.rhona, contact.contact.id).expect(200)).body;
    expect(again.call.id).toBe(named.call.id);
    await undo(again.changeId);
    expect(await namesOf(people.ayesha)).toEqual(before);
  });

  it('has the next from the pool in the place of a call, and one undo brings the first one back', async () => {
    const before = await namesOf(people.ayesha);
    const [call] = await openOf(people.ayesha);
    if (!call) throw new Error('no call');
    const { call: other, changeId } = (
      await ayesha.post(`/api/calls/${call.id}/swap`).send({ version: call.version }).expect(200)
    ).body;
    expect(await namesOf(people.ayesha)).toEqual(
      before.map((name) => (name === call.contact.name ? other.contact.name : name)),
    );
    await undo(changeId);
    expect(await namesOf(people.ayesha)).toEqual(before);
    // Another’s list is nobody’s to change who may not do all work.
    const [theirs] = await openOf(people.rhona);
    await ayesha.post(`/api/calls/${theirs?.id}/swap`).send({ version: theirs?.version }).expect(403);
    await more(ayesha, people.rhona, null).expect(403);
  });

  it('is shared out as was looked at, all of it or none, and one undo gives it back', async () => {
    const [own, theirs] = [await namesOf(people.ayesha), await namesOf(people.rhona)];
    const open = await openOf(people.rhona);
    const asked = { person: people.rhona, to: null };
    const look: ShareLook = (await ines.post('/api/calls/share-out/look').send(asked).expect(200)).body;
    const toMake = (await openOf(people.ayesha)).length;
    expect(look.receivers).toMatchObject([{ name: 'Ayesha Quill', before: toMake, after: toMake + open.length }]);
    expect(look.calls).toBe(open.length);
    expect(look.receivers[0]?.minutesAfter).toBe((toMake + open.length) * 11);
    expect(look.receivers[0]?.given.map(({ contact }) => contact).sort()).toEqual(
      open.map(({ contact }) => contact.name).sort(),
    );
    const body = { person: people.rhona, moves: look.moves };
    await ayesha.post('/api/calls/share-out').send(body).expect(403);
    const { changeId } = (await ines.post('/api/calls/share-out').send(body).expect(200)).body;
    expect(await openOf(people.rhona)).toEqual([]);
    expect((await namesOf(people.ayesha)).sort()).toEqual([...own, ...open.map(({ contact }) => contact.name)].sort());
    // What was looked at is not so any more.
    await ines.post('/api/calls/share-out').send(body).expect(409);
    await undo(changeId);
    expect(await namesOf(people.rhona)).toEqual(theirs);
    expect(await namesOf(people.ayesha)).toEqual(own);
    // What was made by whoever took it is theirs: then the rest is not taken from them either.
    const more: ShareLook = (await ines.post('/api/calls/share-out/look').send(asked).expect(200)).body;
    const given = (
      await ines
        .post('/api/calls/share-out')
        .send({ ...body, moves: more.moves })
        .expect(200)
    ).body;
    const [moved] = (await openOf(people.ayesha)).filter(({ id }) => more.moves.some(({ callId }) => callId === id));
    const said = { version: moved?.version, outcome: 'reached', note: '' };
    const rung = (await ayesha.post(`/api/calls/${moved?.id}/rung`).send(said).expect(200)).body;
    const refused = await ines.post(`/api/changes/${given.changeId}/undo`).send({}).expect(409);
    expect(refused.body.detail).toContain('made meanwhile');
    expect(await openOf(people.rhona)).toEqual([]);
    await undo(rung.changeId);
    await undo(given.changeId);
    expect(await namesOf(people.rhona)).toEqual(theirs);
    // Nobody takes any: nothing would be given.
    const none: ShareLook = (
      await ines
        .post('/api/calls/share-out/look')
        .send({ ...asked, to: [] })
        .expect(200)
    ).body;
    expect(none.moves).toEqual([]);
    const stranger = (await server.person('Nadia Orme')).id;
    const wrong = {
      ...body,
      moves: (await openOf(people.rhona)).map(({ id, version }) => ({ callId: id, version, to: stranger })),
    };
    await ines.post('/api/calls/share-out').send(wrong).expect(422);
    expect(await namesOf(people.rhona)).toEqual(theirs);
  });
});
