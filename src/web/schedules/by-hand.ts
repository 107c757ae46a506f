import { type CivilDay, type Exception, isoOfDay, type OccurrenceChange, type Pause } from '../../core/index.ts';
import { type BenchDraft, stretchAt } from './bench-draft.ts';

/** Changes by hand of a draft: single dates, pauses, and another rule from a day on. Each gives a new draft. */

function without(draft: BenchDraft, nominal: CivilDay, ...kinds: Exception['kind'][]): Exception[] {
  const date = isoOfDay(nominal);
  return draft.exceptions.filter((exception) => exception.date !== date || !kinds.includes(exception.kind));
}

function inOrder(exceptions: readonly Exception[]): Exception[] {
  return [...exceptions].sort((a, b) => (a.date + a.kind < b.date + b.kind ? -1 : 1));
}

export function skipDate(draft: BenchDraft, nominal: CivilDay): BenchDraft {
  const others = without(draft, nominal, 'skip', 'move');
  return { ...draft, exceptions: inOrder([...others, { kind: 'skip', date: isoOfDay(nominal) }]) };
}

/** Moves one to a day; to its own nominal date takes the move away, unless a day off would take it elsewhere. */
export function moveDate(draft: BenchDraft, nominal: CivilDay, to: CivilDay): BenchDraft {
  const others = without(draft, nominal, 'move', 'skip');
  return { ...draft, exceptions: inOrder([...others, { kind: 'move', date: isoOfDay(nominal), to: isoOfDay(to) }]) };
}

export function addDate(draft: BenchDraft, day: CivilDay): BenchDraft {
  const others = without(draft, day, 'add', 'skip');
  return { ...draft, exceptions: inOrder([...others, { kind: 'add', date: isoOfDay(day) }]) };
}

/** What is different about one date; an empty change takes it away. */
export function changeDate(draft: BenchDraft, nominal: CivilDay, change: OccurrenceChange): BenchDraft {
  const others = without(draft, nominal, 'change');
  if (Object.keys(change).length === 0) return { ...draft, exceptions: others };
  return { ...draft, exceptions: inOrder([...others, { kind: 'change', date: isoOfDay(nominal), change }]) };
}

export function changeOf(draft: BenchDraft, nominal: CivilDay): OccurrenceChange {
  const date = isoOfDay(nominal);
  const found = draft.exceptions.find((exception) => exception.kind === 'change' && exception.date === date);
  return found?.kind === 'change' ? found.change : {};
}

/** Puts one date back to what the rule says. */
export function putBack(draft: BenchDraft, nominal: CivilDay): BenchDraft {
  return { ...draft, exceptions: without(draft, nominal, 'skip', 'move', 'add', 'change') };
}

/** The pause that a day lies in, or null. */
export function pauseOn(draft: BenchDraft, day: CivilDay): Pause | null {
  const date = isoOfDay(day);
  return draft.pauses.find(({ from, to }) => from <= date && (to === null || date < to)) ?? null;
}

export function pauseFrom(draft: BenchDraft, day: CivilDay): BenchDraft {
  const date = isoOfDay(day);
  // A pause that would begin later anyway ends this one.
  const next = draft.pauses.map(({ from }) => from).filter((from) => from > date);
  const pauses = [...draft.pauses, { from: date, to: next.sort()[0] ?? null }];
  return { ...draft, pauses: pauses.sort((a, b) => (a.from < b.from ? -1 : 1)) };
}

/** Lets it run again from a day on, which lies in a pause. */
export function resumeFrom(draft: BenchDraft, day: CivilDay): BenchDraft {
  const paused = pauseOn(draft, day);
  const to = isoOfDay(day);
  return {
    ...draft,
    pauses: draft.pauses
      .map((pause) => (pause === paused ? { ...pause, to } : pause))
      // A pause that ends on the day it began never was.
      .filter(({ from, to: end }) => from !== end),
  };
}

/** Another rule from a day on, to begin with the same one; the index of its stretch as well. */
export function reviseFrom(draft: BenchDraft, day: CivilDay): { readonly draft: BenchDraft; readonly stretch: number } {
  const from = isoOfDay(day);
  const before = draft.revisions.filter((revision) => revision.from < from);
  const { recurrence, timing } = stretchAt(draft, before.length);
  const revisions = [...draft.revisions.filter((revision) => revision.from !== from), { from, recurrence, timing }];
  revisions.sort((a, b) => (a.from < b.from ? -1 : 1));
  return { draft: { ...draft, revisions }, stretch: before.length + 1 };
}

export function dropRevision(draft: BenchDraft, stretch: number): BenchDraft {
  return { ...draft, revisions: draft.revisions.filter((_, i) => i !== stretch - 1) };
}
