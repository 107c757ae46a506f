import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type HeldBecause, reconcile, type ThereTask, type WantedTask } from './reconcile.ts';

type Fields = { readonly title: string; readonly dueOn: string | null };
const fields = fc.record({
  title: fc.constantFrom('a', 'b', 'c'),
  dueOn: fc.constantFrom('2026-11-24', '2026-11-25', null),
});
const wanted: fc.Arbitrary<WantedTask<Fields>[]> = fc.uniqueArray(fc.record({ nominal: fc.nat(12), fields }), {
  selector: ({ nominal }) => nominal,
});
const there: fc.Arbitrary<ThereTask<Fields>[]> = fc.uniqueArray(
  fc.record({
    id: fc.uuid(),
    nominal: fc.nat(12),
    fields,
    held: fc.constantFrom<HeldBecause | null>(null, 'finished', 'under way', 'edited by hand', 'showing already'),
  }),
  { selector: ({ nominal }) => nominal },
);

/** What is there after doing what was said. */
function carryOut(plan: ReturnType<typeof reconcile<Fields>>): ThereTask<Fields>[] {
  return plan.flatMap((item): ThereTask<Fields>[] => {
    switch (item.kind) {
      case 'create':
        return [{ ...item.wanted, id: `new ${item.wanted.nominal}`, held: null }];
      case 'change':
        return [{ ...item.task, fields: item.wanted.fields }];
      case 'remove':
        return [];
      default:
        return [item.task];
    }
  });
}

describe('reconciling what should be there with what is', () => {
  it('changes nothing the second time', () => {
    fc.assert(
      fc.property(wanted, there, (want, have) => {
        const after = carryOut(reconcile(want, have));
        for (const { kind } of reconcile(want, after)) expect(['same', 'keep']).toContain(kind);
      }),
    );
  });

  it('never touches work that is held', () => {
    fc.assert(
      fc.property(wanted, there, (want, have) => {
        const after = carryOut(reconcile(want, have));
        for (const task of have.filter(({ held }) => held !== null)) expect(after).toContainEqual(task);
      }),
    );
  });

  it('leaves exactly what is wanted, but for what is held', () => {
    fc.assert(
      fc.property(wanted, there, (want, have) => {
        const free = carryOut(reconcile(want, have)).filter(({ held }) => held === null);
        const heldNominals = new Set(have.filter(({ held }) => held !== null).map(({ nominal }) => nominal));
        const expected = want.filter(({ nominal }) => !heldNominals.has(nominal));
        expect(
          free.map(({ nominal, fields: f }) => ({ nominal, fields: f })).sort((a, b) => a.nominal - b.nominal),
        ).toEqual([...expected].sort((a, b) => a.nominal - b.nominal));
      }),
    );
  });

  it('says which fields change, from what', () => {
    const [change] = reconcile<Fields>(
      [{ nominal: 1, fields: { title: 'b', dueOn: '2026-11-25' } }],
      [{ id: 'x', nominal: 1, fields: { title: 'b', dueOn: '2026-11-24' }, held: null }],
    );
    expect(change).toMatchObject({ kind: 'change', fields: ['dueOn'], task: { fields: { dueOn: '2026-11-24' } } });
  });
});
