import type { CivilDay } from '../civil-date/civil-day.ts';

/** What makes two tasks of one occurrence the same or different; compared field by field. */
export type TaskFields = Readonly<Record<string, string | number | null>>;

export interface WantedTask<F extends TaskFields> {
  readonly nominal: CivilDay;
  readonly fields: F;
}

export interface ThereTask<F extends TaskFields> extends WantedTask<F> {
  readonly id: string;
  /** Why it must be left alone; null when nobody has touched or seen it. */
  readonly held: HeldBecause | null;
}

export type HeldBecause = 'finished' | 'under way' | 'edited by hand' | 'showing already';

/** What is to be done about one occurrence so that the tasks follow the plan. */
export type Reconciliation<F extends TaskFields> =
  | { readonly kind: 'create'; readonly wanted: WantedTask<F> }
  | {
      readonly kind: 'change';
      readonly task: ThereTask<F>;
      readonly wanted: WantedTask<F>;
      readonly fields: readonly (keyof F)[];
    }
  | { readonly kind: 'remove'; readonly task: ThereTask<F> }
  | { readonly kind: 'keep'; readonly task: ThereTask<F>; readonly because: HeldBecause }
  | { readonly kind: 'same'; readonly task: ThereTask<F> };

/**
 * Compares what should be there with what is there, by nominal date. Tasks that are held are kept as they are;
 * doing what it says and asking again gives only `same` and `keep`.
 */
export function reconcile<F extends TaskFields>(
  wanted: readonly WantedTask<F>[],
  there: readonly ThereTask<F>[],
): Reconciliation<F>[] {
  const byNominal = new Map(wanted.map((task) => [task.nominal, task]));
  const found = new Set(there.map(({ nominal }) => nominal));
  return [
    ...there.map((task): Reconciliation<F> => {
      const want = byNominal.get(task.nominal);
      const fields = want ? differing(task.fields, want.fields) : [];
      if (want && fields.length === 0) return { kind: 'same', task };
      if (task.held) return { kind: 'keep', task, because: task.held };
      return want ? { kind: 'change', task, wanted: want, fields } : { kind: 'remove', task };
    }),
    ...wanted
      .filter(({ nominal }) => !found.has(nominal))
      .map((task): Reconciliation<F> => ({ kind: 'create', wanted: task })),
  ];
}

function differing<F extends TaskFields>(a: F, b: F): (keyof F)[] {
  return (Object.keys(b) as (keyof F)[]).filter((field) => a[field] !== b[field]);
}
