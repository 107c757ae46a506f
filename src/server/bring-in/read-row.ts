import type { RowProblem, RowValues } from '../../core/index.ts';

/** What was read of a line, and what it is like. */
export interface ReadRow {
  readonly title: string;
  readonly about: string;
  readonly values: RowValues;
  readonly problems: readonly RowProblem[];
  /** By what it is the same as something, or why it is left, in words. */
  readonly why: string;
  /** What is here already that it is like. */
  readonly targetId: string | null;
  /** An earlier line that is about the same one. */
  readonly joins: number | null;
  /** The contact and the asset here that it speaks of; null for new ones, left out where it speaks of none. */
  readonly contactId?: string | null;
  readonly assetId?: string | null;
  /** What would be written of it, as its kind has it; left out where the values say it all. */
  readonly made?: object;
  /** What would change of what is here. */
  readonly diffs: readonly { readonly name: string; readonly from: string; readonly to: string }[];
}

export const UNREAD: ReadRow = {
  ...{ title: '', about: '', values: {}, problems: [], why: '', targetId: null, joins: null, diffs: [] },
};

/** A line before it is held against what is here. */
export interface Line {
  readonly number: number;
  readonly cells: readonly string[];
  readonly values: RowValues;
  readonly problems: readonly RowProblem[];
}

export interface Told {
  readonly number: number;
  readonly fate: 'new' | 'alike' | 'same' | 'left';
  readonly read: ReadRow;
}

/** A line that is left, and why. */
export const leftBecause = (line: Line, read: Pick<ReadRow, 'title' | 'about'>, why: string): Told => ({
  number: line.number,
  fate: 'left',
  read: { ...UNREAD, ...read, values: line.values, problems: line.problems, why },
});
