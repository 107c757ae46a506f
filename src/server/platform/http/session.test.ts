import session from 'express-session';
import { describe, expect, it } from 'vitest';
import { shareLookups } from './session.ts';

/** A store that answers when it is told to, and counts what it was asked. */
function slowStore() {
  const store = new session.MemoryStore();
  const answers: (() => void)[] = [];
  const data = { cookie: { originalMaxAge: 1 }, personId: 'ines' } as unknown as session.SessionData;
  let kept: session.SessionData | null = data;
  store.get = (_sid, done) => {
    const found = kept;
    answers.push(() => done(null, found));
  };
  store.destroy = (_sid, done) => {
    kept = null;
    done?.();
  };
  shareLookups(store);
  const ask = (sid: string) =>
    new Promise<session.SessionData | null | undefined>((resolve, reject) =>
      store.get(sid, (error, found) => (error ? reject(error) : resolve(found))),
    );
  let asked = 0;
  /** Answers all that is asked, and what is asked thereupon. */
  const answer = async () => {
    for (let round = 0; round < 5; round++) {
      for (const one of answers.splice(0)) {
        asked++;
        one();
      }
      await new Promise((resolve) => setImmediate(resolve));
    }
  };
  return { store, answer, ask, count: () => asked };
}

describe('sessions looked up at once', () => {
  it('are few questions for each cookie, and each request has data of its own', async () => {
    const { answer, ask, count } = slowStore();
    const all = Promise.all([ask('a'), ask('a'), ask('a'), ask('b')]);
    await answer();
    const [one, two, three, other] = await all;
    // What comes while one is asked shares the next.
    expect(count()).toBe(3);
    for (const found of [one, two, three, other]) expect(found?.personId).toBe('ines');
    expect(two).not.toBe(three);
  });

  it('do not share an answer from before the session ended', async () => {
    const { store, answer, ask } = slowStore();
    const before = ask('a');
    store.destroy('a');
    const after = ask('a');
    await answer();
    expect((await before)?.personId).toBe('ines');
    expect(await after).toBe(null);
  });
});
