/** What a person may do in a workspace: everything; plan and give work; do their own; read. */
export const ACCESS_LEVELS = ['manager', 'planner', 'member', 'viewer'] as const;
export type Access = (typeof ACCESS_LEVELS)[number];

/** How far a right goes: over everything, over one's own alone, or nowhere. */
export type Reach = 'all' | 'own' | 'none';

type Reaches = Readonly<Record<Access, Reach>>;
const row = (manager: Reach, planner: Reach, member: Reach, viewer: Reach): Reaches => ({
  manager,
  planner,
  member,
  viewer,
});

/** Everything that may be done, and by whom: the server checks it on every route, the browser asks it before it offers. */
const RIGHTS = {
  // of the                 manager planner member  viewer
  read: /*               */ row('all', 'all', 'all', 'all'),
  /** One's own account, devices and favourites. */
  account: /*            */ row('own', 'own', 'own', 'own'),
  /** One-off tasks, captured or started from a template. */
  begin: /*              */ row('all', 'all', 'all', 'none'),
  /** Start, tick, answer, note, add files, finish. */
  work: /*               */ row('all', 'all', 'own', 'none'),
  /** To take what nobody has. */
  claim: /*              */ row('all', 'all', 'all', 'none'),
  skip: /*               */ row('all', 'all', 'own', 'none'),
  /** A task's words, times of day and estimate. */
  edit: /*               */ row('all', 'all', 'own', 'none'),
  /** A task to another day, or due on another. */
  move: /*               */ row('all', 'all', 'none', 'none'),
  /** A task to somebody else, or back to nobody. */
  give: /*               */ row('all', 'all', 'none', 'none'),
  prioritise: /*         */ row('all', 'all', 'none', 'none'),
  /** To remind whoever has a task of it. */
  nudge: /*              */ row('all', 'all', 'none', 'none'),
  /** To say something about a task, apart from what its record holds. */
  comment: /*            */ row('all', 'all', 'all', 'none'),
  delete: /*             */ row('all', 'all', 'none', 'none'),
  /** Later tasks of a series with one of them. */
  editSeries: /*         */ row('all', 'all', 'none', 'none'),
  /** Work that others have finished; 'own' is what names them or a role of theirs. */
  sign: /*               */ row('all', 'own', 'own', 'none'),
  /** What was changed; 'own' is what they changed themselves. */
  undo: /*               */ row('all', 'all', 'own', 'none'),
  /** Templates, schedules, fills, categories and types of work. */
  plan: /*               */ row('all', 'all', 'none', 'none'),
  /** Clients, their contacts, sites and assets. */
  clients: /*            */ row('all', 'all', 'none', 'none'),
  /** Leave: to enter and decide on anybody's, or to ask for one's own. */
  leave: /*              */ row('all', 'own', 'own', 'none'),
  /** To ask for a swap of turns and agree to one, or to give it where that takes a nod. */
  swap: /*               */ row('all', 'all', 'own', 'none'),
  /** To clock on and off: oneself, or anybody. */
  clock: /*              */ row('all', 'own', 'own', 'none'),
  /** People, their access, hours and invitations. */
  people: /*             */ row('all', 'none', 'none', 'none'),
  settings: /*           */ row('all', 'none', 'none', 'none'),
  /** What left by mail. */
  post: /*               */ row('all', 'none', 'none', 'none'),
} as const satisfies Record<string, Reaches>;

export type Right = keyof typeof RIGHTS;
export const RIGHT_NAMES = Object.keys(RIGHTS) as Right[];

/** How far a right goes for somebody with this access. */
export const reachOf = (access: Access, right: Right): Reach => RIGHTS[right][access];

/** Whether a right goes over everything: what is not one's own too. */
export const mayAll = (access: Access, right: Right): boolean => reachOf(access, right) === 'all';

/** The levels that have a right over everything, the highest first. */
export const whoMayAll = (right: Right): Access[] => ACCESS_LEVELS.filter((access) => mayAll(access, right));

/** Who may do it to anything: "a planner or a manager", "a manager". */
export function sayWhoMayAll(right: Right): string {
  return whoMayAll(right)
    .toReversed()
    .map((access) => `a ${access}`)
    .join(' or ');
}

export const ACCESS_WORDS: Readonly<Record<Access, string>> = {
  manager: 'everything',
  planner: 'all work and clients, not people or settings',
  member: 'own work, and what is shared',
  viewer: 'reads, and changes nothing',
};

/** How far a program goes that somebody lets in by a token: never further than whoever made it. */
export const TOKEN_SCOPES = ['read', 'work', 'plan'] as const;
export type TokenScope = (typeof TOKEN_SCOPES)[number];

const TO_WORK: readonly Right[] = ['read', 'begin', 'work', 'claim', 'skip', 'edit', 'comment', 'sign', 'undo'];

/** Accounts, people, settings and the post are for people alone. */
const TOKEN_RIGHTS: Readonly<Record<TokenScope, readonly Right[]>> = {
  read: ['read'],
  work: TO_WORK,
  plan: [
    ...TO_WORK,
    ...(['move', 'give', 'prioritise', 'nudge', 'delete', 'editSeries', 'plan', 'clients', 'leave', 'swap'] as const),
  ],
};

/** Whether a token of a scope lets a program use a right, as far as it goes for its owner. */
export const tokenMay = (scope: TokenScope, right: Right): boolean => TOKEN_RIGHTS[scope].includes(right);

export const TOKEN_SCOPE_WORDS: Readonly<Record<TokenScope, string>> = {
  read: 'reads, and changes nothing',
  work: 'reads, and does work as you may',
  plan: 'reads, works and plans as you may',
};
