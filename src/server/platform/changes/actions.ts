/**
 * How the history says that something was done: in these words; by the fields that were changed; by those that were put
 * back; or, of what is gone, by what it was.
 */
type Says = { readonly words: string } | 'fields' | 'put back' | 'what is gone';

interface ActionKind {
  readonly says: Says;
  /**
   * Whether it is undone by a click where the history tells of it; else where it was done, or by what makes it again. What was
   * done in one go with others that say the same is undone with all of them, never by itself.
   */
  readonly isUndoneThere: boolean | 'together';
  /** Left out of the history: something else tells of it. */
  readonly isSilent?: true;
}

const words = (text: string): ActionKind => ({ says: { words: text }, isUndoneThere: true });
const onlySaid = (text: string): ActionKind => ({ says: { words: text }, isUndoneThere: false });
const together = (text: string): ActionKind => ({ says: { words: text }, isUndoneThere: 'together' });
const FIELDS: ActionKind = { says: 'fields', isUndoneThere: true };
const PUT_BACK: ActionKind = { says: 'put back', isUndoneThere: false };
const GONE: ActionKind = { says: 'what is gone', isUndoneThere: true };

/** All that can be done with each subject of a change, by the key that is stored: keys stay the same for good. */
export const ACTIONS = {
  task: {
    'made by hand': onlySaid('made by hand'),
    'brought in': onlySaid('brought in from a file'),
    started: words('started'),
    claimed: words('claimed'),
    'given back': words('gave it back'),
    ticked: onlySaid('ticked a check line'),
    unticked: onlySaid('unticked a check line'),
    answered: onlySaid('answered'),
    'took an answer back': onlySaid('took an answer back'),
    noted: words('wrote the note'),
    pinned: words('pinned'),
    proof: { ...words('proof'), isSilent: true },
    finished: words('finished'),
    signed: words('signed'),
    'sent back': words('sent back'),
    'held up': words('said what holds it up'),
    'goes on': words('said that it can go on'),
    nudged: onlySaid('sent a nudge'),
    asked: onlySaid('asked the client by mail'),
    wrote: onlySaid('answered by mail'),
    'link withdrawn': onlySaid('withdrew the client’s link'),
    'taken back': onlySaid('took back what was sent, to change something'),
    skipped: words('skipped'),
    lapsed: onlySaid('lapsed'),
    edited: FIELDS,
    deleted: GONE,
    undone: PUT_BACK,
  },
  schedule: {
    created: onlySaid('made'),
    changed: FIELDS,
    deleted: words('deleted'),
    'brought back': words('brought back'),
    'next date chosen': words('next date chosen'),
    'turns swapped': words('turns swapped'),
    undone: PUT_BACK,
  },
  template: {
    created: onlySaid('made'),
    'brought in': onlySaid('brought in from a file'),
    changed: FIELDS,
    archived: words('archived'),
    'brought back': words('brought back'),
    removed: words('removed'),
    undone: PUT_BACK,
  },
  workspace: {
    changed: FIELDS,
    undone: PUT_BACK,
  },
  person: {
    added: words('added'),
    accepted: onlySaid('accepted the invitation'),
    'brought in': onlySaid('brought in from a file'),
    'brought up to date': onlySaid('brought up to date from a file'),
    changed: FIELDS,
    erased: onlySaid('erased: name, contact, notes and pictures, for good'),
    undone: PUT_BACK,
  },
  leave: {
    asked: words('asked for leave'),
    entered: words('entered leave'),
    given: words('gave leave'),
    refused: words('refused leave'),
    'taken back': words('took leave back'),
    undone: PUT_BACK,
  },
  client: {
    added: words('added'),
    changed: FIELDS,
    merged: words('merged with another'),
    'brought in': onlySaid('brought in from a file'),
    'brought up to date': onlySaid('brought up to date from a file'),
    archived: words('archived'),
    'brought back': words('brought back'),
    erased: onlySaid('erased: name, contacts, notes and pictures, for good'),
    undone: PUT_BACK,
  },
  asset: {
    added: words('added'),
    changed: FIELDS,
    archived: words('archived'),
    'brought back': words('brought back'),
    undone: PUT_BACK,
  },
  bringIn: {
    // What it wrote besides was written in the same go.
    'brought in': together('brought in'),
    undone: PUT_BACK,
  },
  file: {
    added: words('added'),
    removed: words('removed'),
    undone: PUT_BACK,
  },
  letter: {
    added: words('added'),
    changed: FIELDS,
    dropped: words('dropped'),
    undone: PUT_BACK,
  },
  notice: {
    written: words('wrote the notice'),
    sent: words('said that the notice has gone'),
    mailed: onlySaid('sent the notice by mail'),
    'not needed': words('said that no notice is needed'),
    undone: PUT_BACK,
  },
  plan: {
    created: words('made'),
    // Its clients' schedules were written in the same go.
    changed: { ...FIELDS, isUndoneThere: 'together' },
    archived: words('archived'),
    'brought back': words('brought back'),
    undone: PUT_BACK,
  },
  /** The time of a client on a plan, with the schedules that came, changed or went by it. */
  onPlan: {
    'put on': together('put on the plan'),
    'taken off': together('taken off the plan'),
    'left out': together('left an item of the plan out'),
    'taken in': together('took an item of the plan in'),
    'rolled on': together('rolled on'),
    undone: PUT_BACK,
  },
  quota: {
    created: words('made'),
    changed: FIELDS,
    undone: PUT_BACK,
  },
  call: {
    rung: words('said how the call went'),
    'said again': words('said once more how the call went'),
    'put off': words('put the call to the end of the list'),
    'put on': words('put them on the list'),
    'taken off': words('took them off the list'),
    'given on': together('gave the call to somebody else'),
    undone: PUT_BACK,
  },
  /** Holds changes of many things together. */
  several: {
    together: onlySaid('together'),
  },
} as const satisfies Record<string, Record<string, ActionKind>>;

export type Subject = keyof typeof ACTIONS;
export type Action<S extends Subject = Subject> = S extends Subject ? keyof (typeof ACTIONS)[S] & string : never;

/** What is known of an action that is stored. @throws Error for one that nobody knows */
export function actionKind(subject: Subject, action: string): ActionKind {
  const kind = (ACTIONS[subject] as Readonly<Record<string, ActionKind>>)[action];
  if (!kind) throw new Error(`Nothing is known of “${action}” of a ${subject}.`);
  return kind;
}

/** By which change one is undone that may have been made together with others: by that of all of them, where it can't be by itself. */
export function undoneBy({ id, subject, action, joinedId }: Undoable): string {
  return actionKind(subject, action).isUndoneThere === 'together' ? (joinedId ?? id) : id;
}
interface Undoable {
  readonly id: string;
  readonly subject: Subject;
  readonly action: string;
  readonly joinedId: string | null;
}

/** Actions of a subject that the history leaves out. */
export function silentActions(subject: Subject): string[] {
  const kinds: Readonly<Record<string, ActionKind>> = ACTIONS[subject];
  return Object.keys(kinds).filter((action) => kinds[action]?.isSilent);
}
