import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { problemOf } from '../../../contract/problems.ts';
import { ProblemError } from '../../kit/api.ts';
import { Outbox, type Storage } from './outbox.ts';

function storage(): Storage & { readonly kept: Map<string, string> } {
  const kept = new Map<string, string>();
  return {
    kept,
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, text) => void kept.set(key, text),
    removeItem: (key) => void kept.delete(key),
  };
}

const problem = (status: number, detail = 'No.') =>
  new ProblemError({ type: 'about:blank', title: '', status, detail });

interface Note {
  readonly text: string;
  readonly was: string;
}

/** A server that holds one note, answers as it is told, and keeps what it was sent. */
function server() {
  const sent: Note[] = [];
  let answer: () => void = () => undefined;
  const note = {
    name: 'note',
    sender: {
      send: async (value: Note) => {
        answer();
        sent.push(value);
      },
      onTopOf: (value: Note, before: Note) => ({ ...value, was: before.text }),
    },
  };
  return { sent, note, answers: (next: () => void) => (answer = next) };
}

const item = (text: string, was = '') => ({ field: 'note 1', value: { text, was }, about: 'the note', to: '/task/1' });

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('what was typed', () => {
  it('is sent once the typing pauses, and is gone from the browser when the server has it', async () => {
    const place = storage();
    const { sent, note } = server();
    const outbox = new Outbox(place);
    outbox.register(note);
    outbox.open('nadia');
    outbox.put(note, item('a'), 1000);
    await vi.advanceTimersByTimeAsync(900);
    outbox.put(note, item('ab'), 1000);
    await vi.advanceTimersByTimeAsync(900);
    expect(sent).toEqual([]);
    expect(place.kept.size).toBe(1);
    await vi.advanceTimersByTimeAsync(100);
    expect(sent).toEqual([{ text: 'ab', was: '' }]);
    expect([outbox.get('note 1'), place.kept.size]).toEqual([null, 0]);
  });

  it.each([
    [0, 'when the connection is back'],
    [401, 'once you are signed in again'],
    [503, 'The database is away'],
    [429, 'The database is away'],
  ])('waits through %i, says so, and sends itself again', async (status, said) => {
    const { sent, note, answers } = server();
    const outbox = new Outbox(storage());
    outbox.register(note);
    outbox.open('nadia');
    answers(() => {
      throw problem(status, 'The database is away.');
    });
    outbox.put(note, item('a'));
    await vi.advanceTimersByTimeAsync(20_000);
    expect(outbox.get('note 1')).toMatchObject({ state: 'waiting', said: expect.stringContaining(said) });
    answers(() => undefined);
    await vi.advanceTimersByTimeAsync(60_000);
    expect(sent).toEqual([{ text: 'a', was: '' }]);
    expect(outbox.get('note 1')).toBeNull();
  });

  it('is tried again soon where the connection was said to be back a moment too early', async () => {
    const { sent, note, answers } = server();
    const outbox = new Outbox(storage());
    outbox.register(note);
    outbox.open('nadia');
    answers(() => {
      throw problem(0);
    });
    outbox.put(note, item('a'));
    // An outage so long that the pauses have become long too.
    await vi.advanceTimersByTimeAsync(200_000);
    void outbox.connected();
    await vi.advanceTimersByTimeAsync(0);
    answers(() => undefined);
    expect(sent).toEqual([]);
    await vi.advanceTimersByTimeAsync(2000);
    expect(sent).toEqual([{ text: 'a', was: '' }]);
  });

  it('stays where it was refused, with why, until somebody decides', async () => {
    const { note, answers } = server();
    const outbox = new Outbox(storage());
    outbox.register(note);
    outbox.open('nadia');
    answers(() => {
      throw problem(409, 'Someone else wrote the note meanwhile.');
    });
    outbox.put(note, item('mine'));
    await vi.advanceTimersByTimeAsync(100_000);
    expect(outbox.get('note 1')).toMatchObject({
      state: 'refused',
      type: 'about:blank',
      said: 'Someone else wrote the note meanwhile.',
    });
    answers(() => undefined);
    outbox.put(note, item('theirs\nmine', 'theirs'));
    await vi.advanceTimersByTimeAsync(0);
    expect(outbox.get('note 1')).toBeNull();
  });

  it('outlives the page: whoever opens it next finds it and it is sent, but nobody else’s is touched', async () => {
    const place = storage();
    const first = server();
    const before = new Outbox(place);
    before.register(first.note);
    before.open('nadia');
    first.answers(() => {
      throw problem(0);
    });
    before.put(first.note, item('a'));
    await vi.advanceTimersByTimeAsync(0);
    const { sent, note } = server();
    const after = new Outbox(place);
    after.register(note);
    after.open('kit');
    await vi.advanceTimersByTimeAsync(0);
    expect([after.all.size, sent.length]).toEqual([0, 0]);
    after.open('nadia');
    await vi.advanceTimersByTimeAsync(0);
    expect(sent).toEqual([{ text: 'a', was: '' }]);
    expect(place.kept.size).toBe(0);
  });

  it('is sent though how it is sent is only known after it was taken up', async () => {
    const place = storage();
    const { sent, note } = server();
    const before = new Outbox(place);
    before.register(note);
    before.open('nadia');
    before.put(note, item('a'), 60_000);
    const later = new Outbox(place);
    later.open('nadia');
    await vi.advanceTimersByTimeAsync(100);
    expect(sent).toEqual([]);
    later.register(note);
    await vi.advanceTimersByTimeAsync(100);
    expect(sent).toEqual([{ text: 'a', was: '' }]);
  });

  it('goes on from what has arrived, where more was typed while that was on its way', async () => {
    const { sent, note, answers } = server();
    const outbox = new Outbox(storage());
    outbox.register(note);
    outbox.open('nadia');
    answers(() => outbox.put(note, item('ab'), 500));
    outbox.put(note, item('a'));
    await vi.advanceTimersByTimeAsync(0);
    answers(() => undefined);
    expect(outbox.get('note 1')?.value).toEqual({ text: 'ab', was: 'a' });
    await vi.advanceTimersByTimeAsync(500);
    expect(sent).toEqual([
      { text: 'a', was: '' },
      { text: 'ab', was: 'a' },
    ]);
  });

  it('that can’t be sent as it is stays a draft, and is never sent', async () => {
    const { sent, note } = server();
    const outbox = new Outbox(storage());
    outbox.register(note);
    outbox.open('nadia');
    outbox.put(note, item('0.4x'), null);
    await vi.advanceTimersByTimeAsync(100_000);
    expect([sent.length, outbox.get('note 1')?.state]).toEqual([0, 'draft']);
  });

  it('is not lost to a storage that holds something else', () => {
    const place = storage();
    for (const odd of ['{', '[{"field":1}]', 'null']) {
      place.setItem('jolly-rota.unsent.nadia', odd);
      const outbox = new Outbox(place);
      outbox.open('nadia');
      expect(outbox.all.size).toBe(0);
    }
  });
});

/** A mirror that holds what it is given, as a disk does after a power cut. */
function mirror() {
  const kept = new Map<string, string>();
  return {
    kept,
    mirror: {
      keep: (place: string, text: string | null) => void (text === null ? kept.delete(place) : kept.set(place, text)),
      kept: async (place: string) => kept.get(place) ?? null,
    },
  };
}

describe('what was done', () => {
  it('is sent under a key of its own, after all that was typed before it, and tells what became of it', async () => {
    const outbox = new Outbox(storage());
    const sent: string[] = [];
    const keys = new Set<string>();
    const kind = (name: string) => ({
      name,
      sender: {
        send: async (value: string, { key }: { key: string }) => {
          sent.push(value);
          keys.add(key);
          if (value === 'no') throw problem(409, 'Finished already.');
        },
      },
    });
    const [note, deed] = [outbox.register(kind('note')), outbox.register(kind('deed'))];
    outbox.open('nadia');
    outbox.put(note, { field: 'n', value: 'typed', about: '', to: '/' }, 60_000);
    const put = (value: string) => outbox.deliver(deed, { field: 'd', value, about: '', to: '/' });
    expect(await put('done')).toBe('sent');
    expect(sent).toEqual(['typed', 'done']);
    expect(await put('no')).toBe('refused');
    expect(outbox.get('d')).toMatchObject({ state: 'refused', said: 'Finished already.' });
    expect(keys.size).toBe(3);
  });

  it('waits in order without a connection, says so of each, and goes again under the same key', async () => {
    const outbox = new Outbox(storage());
    const tries: [string, string][] = [];
    let isAway = true;
    const deed = outbox.register({
      name: 'deed',
      sender: {
        send: async (value: string, { key }: { key: string }) => {
          tries.push([value, key]);
          if (isAway) throw problem(0);
        },
      },
    });
    outbox.open('nadia');
    const put = (value: string) => outbox.deliver(deed, { field: value, value, about: '', to: '/' });
    expect([await put('start'), await put('finish')]).toEqual(['waiting', 'waiting']);
    expect([...outbox.all.values()].map(({ said }) => said)).toEqual([expect.any(String), expect.any(String)]);
    isAway = false;
    await vi.advanceTimersByTimeAsync(60_000);
    expect(outbox.all.size).toBe(0);
    const done = tries.slice(-2);
    expect(done.map(([value]) => value)).toEqual(['start', 'finish']);
    expect(new Set(tries.filter(([value]) => value === 'start').map(([, key]) => key)).size).toBe(1);
  });

  it('that had arrived before, and only the answer did not get back, counts as sent', async () => {
    const outbox = new Outbox(storage());
    const arrived: string[] = [];
    const deed = outbox.register({
      name: 'deed',
      sender: {
        send: async () => {
          throw new ProblemError(problemOf('arrived-before', 'It was there.'));
        },
        onArrived: (value: string) => void arrived.push(value),
      },
    });
    outbox.open('nadia');
    expect(await outbox.deliver(deed, { field: 'd', value: 'start', about: '', to: '/' })).toBe('sent');
    expect([arrived, outbox.all.size]).toEqual([['start'], 0]);
  });

  it('is found again in the second place where the first has lost it, but not what was sent since', async () => {
    const { mirror: disk, kept } = mirror();
    const place = storage();
    const before = new Outbox(place, disk);
    const first = server();
    before.register(first.note);
    before.open('nadia');
    first.answers(() => {
      throw problem(0);
    });
    before.put(first.note, item('a'));
    await vi.advanceTimersByTimeAsync(0);
    expect(kept.size).toBe(1);
    // The battery is flat: the first place has forgotten.
    const after = new Outbox(storage(), disk);
    const { sent, note } = server();
    after.register(note);
    after.open('nadia');
    await vi.advanceTimersByTimeAsync(0);
    expect(sent).toEqual([{ text: 'a', was: '' }]);
    expect(kept.size).toBe(0);
    // The other way round: sent, and the second place not told of it yet.
    const late = storage();
    const outbox = new Outbox(late, disk);
    const again = server();
    outbox.register(again.note);
    outbox.open('nadia');
    outbox.put(again.note, item('b'), 60_000);
    const [stale] = kept;
    await outbox.flush('note 1');
    if (stale) kept.set(...stale);
    const third = server();
    const last = new Outbox(late, disk);
    last.register(third.note);
    last.open('nadia');
    await vi.advanceTimersByTimeAsync(0);
    expect([again.sent.length, third.sent.length]).toEqual([1, 0]);
  });

  it('of a version that writes otherwise is neither sent nor let go by this one', async () => {
    const place = storage();
    const other = { what: 'something new', of: 2031 };
    place.setItem('jolly-rota.unsent.nadia', JSON.stringify({ rev: 1, items: [other] }));
    const { sent, note } = server();
    const outbox = new Outbox(place);
    outbox.register(note);
    outbox.open('nadia');
    outbox.put(note, item('a'));
    await vi.advanceTimersByTimeAsync(0);
    expect(sent).toHaveLength(1);
    expect(JSON.parse(place.getItem('jolly-rota.unsent.nadia') ?? '').items).toEqual([other]);
  });
});
