import type { Assignment, DatedOccurrence } from '../../../../core/index.ts';

/** A date by whoever has it, as the year shows it. */
export interface Face {
  readonly personId: string | null;
  readonly initial: string;
  readonly name: string;
  /** Their own turn, somebody else's that they cover, swapped with them, or nobody's. */
  readonly kind: 'own' | 'covers' | 'swapped' | 'nobody';
  readonly why: string;
}

/** One letter of each name, or two where others begin with the same. */
export function initialsOf(ids: Iterable<string>, called: ReadonlyMap<string, string>): ReadonlyMap<string, string> {
  const names = [...new Set(ids)].map((id) => [id, called.get(id) ?? '?'] as const);
  const counts = new Map<string, number>();
  for (const [, name] of names) counts.set(name.charAt(0), (counts.get(name.charAt(0)) ?? 0) + 1);
  return new Map(names.map(([id, name]) => [id, counts.get(name.charAt(0)) === 1 ? name.charAt(0) : name.slice(0, 2)]));
}

export function kindOf(assignment: Assignment): Face['kind'] {
  if (assignment.kind !== 'one') return 'nobody';
  const { why } = assignment;
  if (why.by === 'hand') return 'swapped';
  if (why.passedOver.length > 0 && why.by !== 'least to do') return 'covers';
  return why.by === 'turn' && why.insteadOf !== null ? 'swapped' : 'own';
}

export type FaceOf = (occurrence: DatedOccurrence) => Face | null;
