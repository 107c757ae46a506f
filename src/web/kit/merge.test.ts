import { describe, expect, it } from 'vitest';
import { meanwhileOf, merged } from './merge.ts';

const base = { version: 1, name: 'Round', minutes: 30, who: 'Kit' as string | null };

describe('two changes of the same thing', () => {
  it('are nobody’s business while nothing was saved in between', () => {
    expect(meanwhileOf(base, { ...base, name: 'Walk' }, base)).toBeNull();
  });

  it('come together where they touch different fields', () => {
    const mine = { ...base, name: 'Walk' };
    const now = { ...base, version: 2, minutes: 45 };
    expect(meanwhileOf(base, mine, now)).toEqual({ theirs: ['minutes'], both: [] });
    for (const wish of ['mine', 'theirs'] as const)
      expect(merged(base, mine, now, wish)).toEqual({ version: 2, name: 'Walk', minutes: 45, who: 'Kit' });
  });

  it('where both touch one, leave the choice of that and keep the rest of both', () => {
    const mine = { ...base, name: 'Walk', who: null };
    const now = { ...base, version: 3, name: 'Tour', minutes: 45 };
    expect(meanwhileOf(base, mine, now)).toEqual({ theirs: ['name', 'minutes'], both: ['name'] });
    expect(merged(base, mine, now, 'mine')).toEqual({ version: 3, name: 'Walk', minutes: 45, who: null });
    expect(merged(base, mine, now, 'theirs')).toEqual({ version: 3, name: 'Tour', minutes: 45, who: null });
  });

  it('that are the same need no choice', () => {
    const now = { ...base, version: 2, name: 'Walk' };
    expect(meanwhileOf(base, { ...base, name: 'Walk' }, now)).toEqual({ theirs: ['name'], both: [] });
  });
});
