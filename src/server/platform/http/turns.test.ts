import { describe, expect, it } from 'vitest';
import { type EndTurn, Turns } from './turns.ts';

/** Lets everything that waits for nothing go on. */
const settle = () => new Promise((resolve) => setImmediate(resolve));

describe('turns', () => {
  it('let each person have so many at once; the next waits, too many more are refused with when to come back', async () => {
    const turns = new Turns({ each: 1, all: 4, waiting: 2 });
    const begun: string[] = [];
    const enter = async (name: string) => {
      const end = await turns.enter('nadia');
      begun.push(name);
      return end;
    };
    const first = await enter('first');
    const second = enter('second');
    const third = enter('third');
    await expect(enter('fourth')).rejects.toMatchObject({ status: 429, headers: { 'Retry-After': '2' } });
    await settle();
    expect(begun).toEqual(['first']);
    first();
    (await second)();
    (await third)();
    expect(begun).toEqual(['first', 'second', 'third']);
  });

  it('go round: whoever has one waiting does not wait for all of somebody else’s', async () => {
    const turns = new Turns({ each: 2, all: 2, waiting: 50 });
    const order: string[] = [];
    const ends: EndTurn[] = [];
    const enter = (who: string) =>
      void turns.enter(who).then((end) => {
        order.push(who);
        ends.push(end);
      });
    for (let i = 0; i < 10; i++) enter('many');
    await settle();
    enter('one');
    await settle();
    expect(order).toEqual(['many', 'many']);
    ends.shift()?.();
    await settle();
    expect(order).toEqual(['many', 'many', 'one']);
  });

  it('end once, however often that is said, and forget who has gone', async () => {
    const turns = new Turns({ each: 1, all: 1, waiting: 5 });
    const end = await turns.enter('a');
    const gone = new AbortController();
    const waiting = turns.enter('b', gone.signal);
    gone.abort();
    await expect(waiting).rejects.toMatchObject({ status: 499 });
    end();
    end();
    (await turns.enter('a'))();
    const again = await turns.enter('c');
    let entered = false;
    void turns.enter('d').then(() => {
      entered = true;
    });
    await settle();
    expect(entered).toBe(false);
    again();
    await settle();
    expect(entered).toBe(true);
  });
});
