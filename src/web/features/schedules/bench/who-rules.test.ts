import { describe, expect, it } from 'vitest';
import { dayOfIso, givenTo } from '../../../../core/index.ts';
import { membersOf, ofKind } from './who-rules.ts';

const STAFF = [
  { id: 'a', roles: ['yard'], team: 'north' },
  { id: 'b', roles: ['yard', 'office'], team: null },
  { id: 'c', roles: ['office'], team: 'north' },
];
const around = { today: dayOfIso('2026-11-24'), meId: 'c', roles: ['yard', 'office'], staff: STAFF };

describe('a rule of another kind', () => {
  it('keeps whom a group meant, of a role and of a team', () => {
    for (const [group, people] of [
      [{ of: 'role', role: 'yard' } as const, ['a', 'b']],
      [{ of: 'team', team: 'north' } as const, ['a', 'c']],
    ] as const) {
      expect(membersOf(group, STAFF)).toEqual(people);
      expect(ofKind('inTurn', { v: 1, kind: 'anyOf', group }, around)).toMatchObject({
        turns: { rosters: [{ from: '2026-11-24', people }] },
      });
    }
  });

  it('always means somebody, also where there are no roles and nobody was named', () => {
    expect(ofKind('leastToDo', givenTo(null), { ...around, roles: [] })).toMatchObject({
      group: { of: 'people', ids: ['c'] },
    });
    expect(ofKind('anyOf', givenTo(null), around)).toMatchObject({ group: { of: 'role', role: 'yard' } });
  });
});
