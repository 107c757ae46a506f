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
  return { store, answers, ask };
}

describe('sessions looked up at once', () => {
  it('are one question for each cookie, and each request has data of its own', async () => {
    const { answers, ask } = slowStore();
    const [one, two, other] = [ask('a'), ask('a'), ask('b')];
    expect(answers).toHaveLength(2);
    for (const answer of answers) answer();
    const found = await one;
    expect(found?.personId).toBe('ines');
    expect(await two).toEqual(found);
    expect(await two).not.toBe(found);
    expect((await other)?.personId).toBe('ines');
    void ask('a');
    expect(answers).toHaveLength(3);
  });

  it('do not share an answer from before the session ended', async () => {
    const { store, answers, ask } = slowStore();
    const before = ask('a');
    store.destroy('a');
    const after = ask('a');
    for (const answer of answers) answer();
    expect((await before)?.personId).toBe('ines');
    expect(await after).toBe(null);
  });
});
