import { type Group, groupKey, type Offer } from '../assignment/assignment.ts';
import type { IsoDate } from '../civil-date/iso-date.ts';
import { isEnded, isToDo, type TaskState } from '../insight/task-state.ts';
import type { MessageKind, MessageSide } from './kinds.ts';

/** What somebody may have to hear of a task when it changes. */
export interface TaskFacts {
  readonly assigneeId: string | null;
  readonly dueOn: IsoDate;
  readonly state: TaskState;
  /** What holds it up; null where nothing does. */
  readonly heldReason: string | null;
  readonly heldUntil: IsoDate | null;
  /** How often finished work of it was sent back. */
  readonly sentBack: number;
  /** A client's contact who finished it by a link, by name; null for somebody here. */
  readonly doneByContact: string | null;
  /** To whom it is offered while nobody has it. */
  readonly offeredTo: Offer | null;
}

/** A task before and after something was done: null before it was made, and once it was taken out. */
export interface TaskTurn {
  readonly before: TaskFacts | null;
  readonly after: TaskFacts | null;
  /** Who did it; null for the server, or a client's contact. */
  readonly byId: string | null;
}

/** What became of a task, for one of those who hear of it. */
export const TURNS = [
  'given',
  'offered',
  'taken',
  'taken out',
  'claimed',
  'given back',
  'handed on',
  'moved',
  'held up',
  'goes on',
  'to check',
  'signed',
  'sent back',
  'finished',
  'skipped',
] as const;
export type Turn = (typeof TURNS)[number];

/** Who hears of it: one person, any of some, or whoever gave the work and those who answer for it. */
export interface Heard {
  readonly kind: MessageKind;
  readonly side: MessageSide;
  readonly turn: Turn;
  readonly to: { readonly personId: string } | { readonly anyOf: Group } | 'answering';
}

/**
 * Who is to hear what of a change of a task. Nobody hears of what they did themselves; whoever has the work hears of it as
 * theirs, those who gave it or answer for it as that of somebody else. Of what comes to the same in the end nothing is told.
 */
export function heardOfTurn({ before, after, byId }: TaskTurn): Heard[] {
  const own = (kind: MessageKind, turn: Turn, personId: string | null | undefined): Heard[] =>
    personId == null || personId === byId ? [] : [{ kind, turn, side: 'mine', to: { personId } }];
  const others = (kind: MessageKind, turn: Turn): Heard[] => [{ kind, turn, side: 'gave', to: 'answering' }];
  if (after === null)
    return before !== null && isToDo(before.state) ? own('hands', 'taken out', before.assigneeId) : [];
  const offered = heardOfOffer(before, after);
  if (before === null) return isToDo(after.state) ? [...own('new', 'given', after.assigneeId), ...offered] : [];
  const ended = endedTurn(before, after);
  // Whoever had it is told where somebody else has finished it.
  if (ended === 'finished')
    return [
      ...own('hands', ended, before.assigneeId),
      ...others(after.doneByContact === null ? 'finished' : 'client', ended),
    ];
  if (ended === 'skipped') return [...own('hands', ended, before.assigneeId), ...others('finished', ended)];
  if (ended === 'signed') return own('check', ended, before.assigneeId);
  if (after.state === 'toCheck') return before.state === 'toCheck' ? [] : others('check', 'to check');
  if (isEnded(after.state)) return [];
  return [
    ...(after.sentBack > before.sentBack ? own('check', 'sent back', after.assigneeId) : []),
    ...offered,
    ...heardOfHands({ before, after, byId }, own, others),
    ...heardOfDay({ before, after }, own, others),
    ...heardOfHold({ before, after }, own, others),
  ];
}

/** Work that anyone of some may take: they hear of it when it is offered to them, not whenever something of it changes. */
function heardOfOffer(before: TaskFacts | null, after: TaskFacts): Heard[] {
  const groupOf = (facts: TaskFacts | null) =>
    facts === null || facts.assigneeId !== null || facts.offeredTo === null || facts.offeredTo.of === 'client'
      ? null
      : facts.offeredTo;
  const [was, is] = [groupOf(before), groupOf(after)];
  if (is === null || !isToDo(after.state) || (was !== null && groupKey(was) === groupKey(is))) return [];
  return [{ kind: 'new', turn: 'offered', side: 'mine', to: { anyOf: is } }];
}

type Own = (kind: MessageKind, turn: Turn, personId: string | null | undefined) => Heard[];
type Others = (kind: MessageKind, turn: Turn) => Heard[];
interface Both {
  readonly before: TaskFacts;
  readonly after: TaskFacts;
}

/** How work ended that had not; undefined where it goes on, or was over. */
function endedTurn(before: TaskFacts, after: TaskFacts): 'finished' | 'signed' | 'skipped' | undefined {
  if (isEnded(before.state)) return undefined;
  if (after.state === 'done') return before.state === 'toCheck' ? 'signed' : 'finished';
  return after.state === 'skipped' ? 'skipped' : undefined;
}

function heardOfHands({ before, after, byId }: Both & Pick<TaskTurn, 'byId'>, own: Own, others: Others): Heard[] {
  const [from, to] = [before.assigneeId, after.assigneeId];
  if (from === to) return [];
  const isByWhoeverHasIt = byId !== null && byId === (to ?? from);
  const turn: Turn = to === null ? 'given back' : isByWhoeverHasIt ? 'claimed' : 'handed on';
  return [
    ...own(from === null ? 'new' : 'hands', 'given', to),
    ...own('hands', 'taken', from),
    ...others('hands', turn),
  ];
}

/** Whoever is given work along with another day for it learns of the day by that. */
function heardOfDay({ before, after }: Both, own: Own, others: Others): Heard[] {
  if (before.dueOn === after.dueOn) return [];
  const hasItStill = before.assigneeId === after.assigneeId;
  return [...(hasItStill ? own('moved', 'moved', after.assigneeId) : []), ...others('moved', 'moved')];
}

function heardOfHold({ before, after }: Both, own: Own, others: Others): Heard[] {
  if (before.heldReason === after.heldReason && before.heldUntil === after.heldUntil) return [];
  const turn = after.heldReason === null ? 'goes on' : 'held up';
  return [...own('held', turn, after.assigneeId), ...others('held', turn)];
}

/** What became of something that somebody asked for. */
export type AskedTurn = 'asks' | 'given' | 'refused' | 'entered';

/** Who hears of it, as theirs or as what they decide on. */
export interface HeardAsked {
  readonly side: MessageSide;
  readonly turn: AskedTurn;
  readonly to: { readonly personId: string } | 'answering';
}

type LeaveState = 'asked' | 'given' | 'refused';

/** Who hears of leave that was asked for, entered for somebody, or decided on; never whoever did it. @param before null where it is new */
export function heardOfLeave(
  before: LeaveState | null,
  { state, personId }: { readonly state: LeaveState; readonly personId: string },
  byId: string | null,
): HeardAsked[] {
  if (before === state) return [];
  if (state === 'asked') return before === null ? [{ side: 'gave', turn: 'asks', to: 'answering' }] : [];
  if (personId === byId) return [];
  return [{ side: 'mine', turn: before === null ? 'entered' : state, to: { personId } }];
}

interface Swap {
  readonly state: 'asked' | 'agreed' | 'done' | 'refused' | 'withdrawn';
  readonly askedBy: string;
  readonly askedOf: string;
}

/** Who hears of a swap of turns: who is asked, who gives the nod, and both of how it ended; never whoever did it. */
export function heardOfSwap({ state, askedBy, askedOf }: Swap, byId: string | null): HeardAsked[] {
  if (state === 'asked') return [{ side: 'mine', turn: 'asks', to: { personId: askedOf } }];
  if (state === 'agreed') return [{ side: 'gave', turn: 'asks', to: 'answering' }];
  // Whoever is asked hears of no offer any more by its being gone.
  if (state === 'withdrawn') return [];
  const turn = state === 'done' ? 'given' : 'refused';
  return [askedBy, askedOf].flatMap((personId): HeardAsked[] =>
    personId === byId ? [] : [{ side: 'mine', turn, to: { personId } }],
  );
}
