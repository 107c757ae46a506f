/** Who takes over where somebody can't: the next in the roster, their deputy, whoever of all has the least to do, or nobody. */
export const COVERS = ['next', 'deputy', 'leastToDo', 'nobody'] as const;
export type Cover = (typeof COVERS)[number];

/** Chosen for one leave: of those, what needs no look at what everybody has to do, or somebody by name and whoever takes over for them. */
export const LEAVE_COVERS = ['next', 'deputy', 'nobody'] as const satisfies readonly Cover[];
export type CoverChoice = (typeof LEAVE_COVERS)[number] | { readonly personId: string };

/** For turns, besides: the next who can, and whoever was away takes a later turn of theirs for it, as `exchangesOf` finds them. */
export const TURN_COVERS = [...LEAVE_COVERS, 'exchange'] as const;
export type TurnCoverChoice = CoverChoice | 'exchange';

/** Who takes over for somebody while they are away, instead of as the work itself says; null where it is as it says. */
export interface LeaveCover {
  /** For what they have by turn or by a list. */
  readonly turns: TurnCoverChoice | null;
  /** For what is given to them by name, or as the client's usual person; there is no next one. */
  readonly name: CoverChoice | null;
}
export const AS_THE_WORK_SAYS: LeaveCover = { turns: null, name: null };
