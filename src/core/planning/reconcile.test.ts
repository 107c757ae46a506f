import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type DeletedTask, type HeldBecause, reconcile, type ThereTask, type WantedTask } from './reconcile.ts';

type Fields = { readonly title: string; readonly dueOn: string | null };
const fields = fc.record({
  title: fc.constantFrom('a', 'b', 'c'),
  dueOn: fc.constantFrom('2026-11-24', '2026-11-25', null),
});
const step = fc.constantFrom('', 'notice');
const keyOf = ({ nominal, step: part }: DeletedTask) => `${nominal} ${part}`;
const wanted: fc.Arbitrary<WantedTask<Fields>[]> = fc.uniqueArray(fc.record({ nominal: fc.nat(12), step, fields }), {
  selector: keyOf,
});
const there: fc.Arbitrary<ThereTask<Fields>[]> = fc.uniqueArray(
  fc.record({
    id: fc.uuid(),
    nominal: fc.nat(12),
    step,
    fields,
    held: fc.constantFrom<HeldBecause | null>(null, 'finished', 'under way', 'written on', 'showing already'),
    edited: fc
      .subarray<keyof Fields>(['title', 'dueOn'])
      .chain((some) => fc.constantFrom(new Set<keyof Fields>(), new Set(some))),
  }),
  { selector: keyOf },
);
const deleted: fc.Arbitrary<DeletedTask[]> = fc.array(fc.record({ nominal: fc.nat(12), step }), { maxLength: 6 });

/** What is there after doing what was said. */
function carryOut(plan: ReturnType<typeof reconcile<Fields>>): ThereTask<Fields>[] {
  return plan.flatMap((item): ThereTask<Fields>[] => {
    switch (item.kind) {
      case 'create':
        return [{ ...item.wanted, id: `new ${keyOf(item.wanted)}`, held: null, edited: new Set() }];
      case 'change': {
        const kept = Object.fromEntries(item.kept.map((field) => [field, item.task.fields[field]]));
        return [{ ...item.task, fields: { ...item.wanted.fields, ...kept } }];
      }
      case 'remove':
      case 'stayDeleted':
        return [];
      default:
        return [item.task];
    }
  });
}

describe('reconciling what should be there with what is', () => {
  it('changes nothing the second time', () => {
    fc.assert(
      fc.property(wanted, there, deleted, (want, have, gone) => {
        const after = carryOut(reconcile(want, have, gone));
        for (const { kind } of reconcile(want, after, gone)) expect(['same', 'keep', 'stayDeleted']).toContain(kind);
      }),
    );
  });

  it('never touches work that is held', () => {
    fc.assert(
      fc.property(wanted, there, deleted, (want, have, gone) => {
        const after = carryOut(reconcile(want, have, gone));
        for (const task of have.filter(({ held }) => held !== null)) expect(after).toContainEqual(task);
      }),
    );
  });

  it('leaves what was changed by hand as it is, field by field', () => {
    fc.assert(
      fc.property(wanted, there, deleted, (want, have, gone) => {
        const after = new Map(carryOut(reconcile(want, have, gone)).map((task) => [keyOf(task), task]));
        for (const task of have)
          for (const field of task.edited) expect(after.get(keyOf(task))?.fields[field]).toBe(task.fields[field]);
      }),
    );
  });

  it('never brings back what was deleted', () => {
    fc.assert(
      fc.property(wanted, there, deleted, (want, have, gone) => {
        const before = new Set(have.map(keyOf));
        const after = new Set(carryOut(reconcile(want, have, gone)).map(keyOf));
        for (const task of gone) if (!before.has(keyOf(task))) expect(after).not.toContain(keyOf(task));
      }),
    );
  });

  it('leaves exactly what is wanted, but for what is held, edited or deleted', () => {
    fc.assert(
      fc.property(wanted, there, deleted, (want, have, gone) => {
        const special = new Set([
          ...have.filter((task) => task.held !== null || task.edited.size > 0).map(keyOf),
          ...gone.filter((task) => !have.some((one) => keyOf(one) === keyOf(task))).map(keyOf),
        ]);
        const plain = (tasks: readonly WantedTask<Fields>[]) =>
          tasks
            .filter((task) => !special.has(keyOf(task)))
            .map(({ nominal, step: part, fields: f }) => ({ nominal, step: part, fields: f }))
            .sort((a, b) => keyOf(a).localeCompare(keyOf(b)));
        expect(plain(carryOut(reconcile(want, have, gone)))).toEqual(plain(want));
      }),
    );
  });

  it('says the same whatever the order', () => {
    fc.assert(
      fc.property(wanted, there, deleted, (want, have, gone) => {
        const said = (plan: ReturnType<typeof reconcile<Fields>>) =>
          plan.map((item) => `${item.kind} ${keyOf('task' in item ? item.task : item.wanted)}`).sort();
        const backwards = reconcile([...want].reverse(), [...have].reverse(), [...gone].reverse());
        expect(said(backwards)).toEqual(said(reconcile(want, have, gone)));
      }),
    );
  });

  const one = (rest: Partial<ThereTask<Fields>> = {}): ThereTask<Fields> => ({
    id: 'x',
    nominal: 1,
    step: '',
    fields: { title: 'a', dueOn: '2026-11-24' },
    held: null,
    edited: new Set(),
    ...rest,
  });
  const want: WantedTask<Fields> = { nominal: 1, step: '', fields: { title: 'b', dueOn: '2026-11-25' } };

  it('says which fields change, and which stay because somebody changed them', () => {
    expect(reconcile<Fields>([want], [one({ edited: new Set<keyof Fields>(['title']) })])).toMatchObject([
      { kind: 'change', fields: ['dueOn'], kept: ['title'] },
    ]);
    expect(reconcile<Fields>([want], [one({ edited: new Set<keyof Fields>(['title', 'dueOn']) })])).toMatchObject([
      { kind: 'keep', because: 'edited by hand', fields: ['title', 'dueOn'] },
    ]);
  });

  it('says why it keeps what the plan has no more', () => {
    expect(reconcile<Fields>([], [one({ held: 'under way' })])).toMatchObject([
      { kind: 'keep', because: 'under way', wanted: null },
    ]);
    expect(reconcile<Fields>([], [one()])).toMatchObject([{ kind: 'remove' }]);
  });
});
