import type { CivilDay } from '../civil-date/civil-day.ts';

/** What makes two tasks of one occurrence the same or different; compared field by field. */
export type TaskFields = Readonly<Record<string, string | number | null>>;

export interface WantedTask<F extends TaskFields> {
  readonly nominal: CivilDay;
  /** Which task of the occurrence: the key of its step, empty for the main one, and whose it is where several have one each. */
  readonly step: string;
  readonly fields: F;
}

export interface ThereTask<F extends TaskFields> extends WantedTask<F> {
  readonly id: string;
  /** Why it must be left alone; null when it may be changed or taken back. */
  readonly held: HeldBecause | null;
  /** Fields that somebody has changed by hand: they stay, whatever becomes of the others. */
  readonly edited: ReadonlySet<keyof F>;
}

/** A task that somebody has deleted: it does not come back by itself. */
export type DeletedTask = Pick<WantedTask<TaskFields>, 'nominal' | 'step'>;

export type HeldBecause = 'finished' | 'under way' | 'written on' | 'showing already';
export type KeptBecause = HeldBecause | 'edited by hand';

/** What is to be done about one task so that what is there follows the plan. */
export type Reconciliation<F extends TaskFields> =
  | { readonly kind: 'create'; readonly wanted: WantedTask<F> }
  /** `kept` are fields that would be otherwise, had nobody changed them by hand. */
  | {
      readonly kind: 'change';
      readonly task: ThereTask<F>;
      readonly wanted: WantedTask<F>;
      readonly fields: readonly (keyof F)[];
      readonly kept: readonly (keyof F)[];
    }
  | { readonly kind: 'remove'; readonly task: ThereTask<F> }
  /** Not as the plan has it, and left alone all the same; `wanted` is null where the plan has it no more. */
  | {
      readonly kind: 'keep';
      readonly task: ThereTask<F>;
      readonly wanted: WantedTask<F> | null;
      readonly because: KeptBecause;
      readonly fields: readonly (keyof F)[];
    }
  | { readonly kind: 'same'; readonly task: ThereTask<F> }
  | { readonly kind: 'stayDeleted'; readonly wanted: WantedTask<F> };

/**
 * Compares what should be there with what is there, by nominal date and step. Doing what it says and asking again gives
 * only `same`, `keep` and `stayDeleted`. The order of what is given makes no difference but to the order of the answer.
 * @param deleted tasks that were deleted on purpose
 */
export function reconcile<F extends TaskFields>(
  wanted: readonly WantedTask<F>[],
  there: readonly ThereTask<F>[],
  deleted: readonly DeletedTask[] = [],
): Reconciliation<F>[] {
  const byKey = new Map(wanted.map((task) => [keyOf(task), task]));
  const found = new Set(there.map(keyOf));
  const gone = new Set(deleted.map(keyOf));
  return [
    ...there.map((task) => reconcileOne(task, byKey.get(keyOf(task)) ?? null)),
    ...wanted
      .filter((task) => !found.has(keyOf(task)))
      .map((task): Reconciliation<F> => ({ kind: gone.has(keyOf(task)) ? 'stayDeleted' : 'create', wanted: task })),
  ];
}

function reconcileOne<F extends TaskFields>(task: ThereTask<F>, wanted: WantedTask<F> | null): Reconciliation<F> {
  const differing = wanted ? differingFields(task.fields, wanted.fields) : [];
  if (wanted && differing.length === 0) return { kind: 'same', task };
  if (task.held) return { kind: 'keep', task, wanted, because: task.held, fields: differing };
  if (!wanted)
    return task.edited.size > 0
      ? { kind: 'keep', task, wanted, because: 'edited by hand', fields: [] }
      : { kind: 'remove', task };
  const fields = differing.filter((field) => !task.edited.has(field));
  const kept = differing.filter((field) => task.edited.has(field));
  if (fields.length === 0) return { kind: 'keep', task, wanted, because: 'edited by hand', fields: kept };
  return { kind: 'change', task, wanted, fields, kept };
}

function keyOf({ nominal, step }: DeletedTask): string {
  return `${nominal} ${step}`;
}

function differingFields<F extends TaskFields>(a: F, b: F): (keyof F)[] {
  return (Object.keys(b) as (keyof F)[]).filter((field) => a[field] !== b[field]);
}
