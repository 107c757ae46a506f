import { type Access, mayAll, type Right } from '../people/access.ts';

/** What there is to hear of. Their keys are stored and stay the same for good. */
export const MESSAGE_KINDS = [
  'new',
  'reminder',
  'soon',
  'late',
  'hands',
  'moved',
  'held',
  'check',
  'finished',
  'comment',
  'answer',
  'client',
  'notice',
  'nobody',
  'shift',
  'calls',
  'pool',
  'asked',
  'named',
  'run',
  'import',
  'mail',
] as const;
export type MessageKind = (typeof MESSAGE_KINDS)[number];

/** Of work that somebody has themselves, or that they gave or answer for. */
export const MESSAGE_SIDES = ['mine', 'gave'] as const;
export type MessageSide = (typeof MESSAGE_SIDES)[number];

interface KindWords {
  readonly name: string;
  /** What else there is to say of it. */
  readonly note: string;
  /** Beside how many there are: "2 late". */
  readonly short: string;
}

export const KIND_WORDS: Readonly<Record<MessageKind, KindWords>> = {
  new: { name: 'New work', note: 'given to me', short: 'new' },
  reminder: { name: 'Reminders', note: 'as schedules plan them', short: 'reminded' },
  soon: { name: 'Due soon', note: 'the working day before', short: 'due soon' },
  late: { name: 'Late', note: 'once it has been for a while', short: 'late' },
  hands: { name: 'Changed hands', note: 'or taken out', short: 'changed hands' },
  moved: { name: 'Another day', note: 'due sooner or later', short: 'moved' },
  held: { name: 'Held up', note: 'and free again', short: 'held up' },
  check: { name: 'To check', note: 'signed and sent back', short: 'to check' },
  finished: { name: 'Finished', note: 'by others, or skipped', short: 'finished' },
  comment: { name: 'Comments', note: 'on a task', short: 'said' },
  answer: { name: 'Answers by mail', note: 'from clients', short: 'answered' },
  client: { name: 'What clients do', note: 'opened, finished, late', short: 'by clients' },
  notice: { name: 'Notices to send', note: 'before it is too late', short: 'to send' },
  nobody: { name: 'Nobody yet', note: 'within 7 days', short: 'nobody yet' },
  shift: { name: 'Nobody on shift', note: 'within 7 days', short: 'nobody on shift' },
  calls: { name: 'A list of calls is ready', note: 'for the day', short: 'ready to ring' },
  pool: { name: 'A pool runs dry', note: 'within a week, or today', short: 'run dry' },
  asked: { name: 'Leave and swaps', note: 'asked and decided', short: 'asked' },
  named: { name: 'Named or nudged', note: 'by somebody here', short: 'named' },
  run: { name: 'A run left work out', note: 'or failed', short: 'run' },
  import: { name: 'A file was brought in', note: 'by somebody else', short: 'brought in' },
  mail: { name: 'A mail was refused', note: 'by its server', short: 'refused' },
};

/** Whose work each kind can be about: of one's own, of that of others, or of both. */
const SIDES: Readonly<Record<MessageKind, readonly MessageSide[]>> = {
  new: ['mine'],
  reminder: ['mine'],
  soon: ['mine', 'gave'],
  late: ['mine', 'gave'],
  hands: ['mine', 'gave'],
  moved: ['mine', 'gave'],
  held: ['mine', 'gave'],
  check: ['mine', 'gave'],
  finished: ['gave'],
  comment: ['mine', 'gave'],
  answer: ['mine', 'gave'],
  client: ['gave'],
  notice: ['gave'],
  nobody: ['gave'],
  shift: ['gave'],
  calls: ['mine'],
  pool: ['gave'],
  asked: ['mine', 'gave'],
  named: ['mine'],
  run: ['gave'],
  import: ['gave'],
  mail: ['mine', 'gave'],
};

/** Of work of others these concern whoever answers for all of it, and nobody else. */
const OF_WHOEVER_ANSWERS: readonly MessageKind[] = [
  ...(['soon', 'nobody', 'run', 'mail', 'client', 'notice', 'pool', 'shift', 'import'] as const),
];

/** By which right somebody answers for work of others, for each kind of thing; nearly always by planning it. */
const ANSWERS_BY: Readonly<Partial<Record<MessageKind, Right>>> = { check: 'sign', asked: 'leave', mail: 'post' };

/** Whether somebody of this access hears of such a thing of anybody's work. @param by the right, where it is not that of the kind */
export const answersFor = (access: Access, kind: MessageKind, by: Right = ANSWERS_BY[kind] ?? 'plan'): boolean =>
  mayAll(access, by);

/** Where somebody can hear of a thing: on the bell, by a mail of its own, on a device that shows it though nobody looks. */
export const HEARD_BY = ['here', 'mail', 'phone'] as const;
export type HeardBy = (typeof HEARD_BY)[number];
export const HEARD_BY_WORDS: Readonly<Record<HeardBy, string>> = {
  here: 'here',
  mail: 'by mail',
  phone: 'on the phone',
};

/** Where somebody hears of one kind of thing. */
export type HearWish = Readonly<Record<HeardBy, boolean>>;

const byEach = <T>(of: (by: HeardBy) => T): Readonly<Record<HeardBy, T>> => ({
  ...{ here: of('here'), mail: of('mail'), phone: of('phone') },
});

/** What somebody has chosen themselves; the rest is as usual. */
export type HearChoices = Readonly<
  Partial<Record<MessageSide, Readonly<Partial<Record<MessageKind, Readonly<Partial<HearWish>>>>>>>
>;

/** What is worth a mail at once is worth a sign on the phone. */
const wish = (here: boolean, mail = false): HearWish => ({ here, mail, phone: mail });

/** As each begins: what asks for something of them rings; the rest stands in the lists and in the summary. */
const USUAL: Readonly<Record<MessageSide, (access: Access) => Readonly<Partial<Record<MessageKind, HearWish>>>>> = {
  mine: () => ({
    ...{ new: wish(true), reminder: wish(true, true), soon: wish(true), late: wish(true, true) },
    ...{ hands: wish(true, true), moved: wish(true), held: wish(true), check: wish(true) },
    ...{ asked: wish(true, true), named: wish(true, true), comment: wish(true), calls: wish(true) },
    ...{ answer: wish(true), mail: wish(true) },
  }),
  // Whoever answers for all of it would hear of everything; others gave little, and want to know what becomes of it.
  gave: (access) =>
    mayAll(access, 'plan')
      ? {
          ...{ soon: wish(false), late: wish(true), hands: wish(false), moved: wish(false), held: wish(true) },
          ...{ check: wish(true), finished: wish(false), nobody: wish(true), asked: wish(true, true) },
          ...{
            run: wish(true, true),
            mail: wish(true),
            client: wish(true),
            notice: wish(true, true),
            answer: wish(true),
          },
          ...{ pool: wish(true), shift: wish(true), import: wish(true), comment: wish(false) },
        }
      : {
          ...{ late: wish(true), hands: wish(true), moved: wish(false), held: wish(true) },
          ...{ check: wish(true), finished: wish(true), asked: wish(true), comment: wish(true), answer: wish(true) },
        },
};

/** Whether somebody of this access hears of such a thing at all. */
export function canHear(access: Access, side: MessageSide, kind: MessageKind): boolean {
  if (!SIDES[kind].includes(side)) return false;
  if (access === 'viewer') return kind === 'named';
  return side === 'mine' || !OF_WHOEVER_ANSWERS.includes(kind) || answersFor(access, kind);
}

/** For whom a workspace says what they usually hear: those who answer for work of others, and everybody else. */
export const HEAR_GROUPS = ['planners', 'others'] as const;
export type HearGroup = (typeof HEAR_GROUPS)[number];

export const groupOf = (access: Access): HearGroup => (mayAll(access, 'plan') ? 'planners' : 'others');
/** The access by which a group is told from the rights, where one has to stand for all of it. */
export const ACCESS_OF_GROUP: Readonly<Record<HearGroup, Access>> = { planners: 'manager', others: 'member' };

/** Whether something is heard of unless they choose otherwise, not unless they choose so, or whatever they choose. */
export const HEAR_SAYS = ['on', 'off', 'always'] as const;
export type HearSays = (typeof HEAR_SAYS)[number];

export type HearRule = Readonly<Record<HeardBy, HearSays>>;

/** What a workspace says of it; the rest is as usual. */
export type HearRules = Readonly<
  Partial<
    Record<
      HearGroup,
      Readonly<Partial<Record<MessageSide, Readonly<Partial<Record<MessageKind, Readonly<Partial<HearRule>>>>>>>>
    >
  >
>;

/** How one kind of thing is heard of where somebody chose nothing: as the workspace says, else as usual. */
export function hearRule(rules: HearRules, access: Access, side: MessageSide, kind: MessageKind): HearRule {
  const said = rules[groupOf(access)]?.[side]?.[kind] ?? {};
  const usual = USUAL[side](access)[kind] ?? wish(false);
  const rule = byEach((by): HearSays => said[by] ?? (usual[by] ? 'on' : 'off'));
  // That somebody else wants a word is always told.
  return kind === 'named' ? { ...rule, here: 'always' } : rule;
}

/** Where somebody hears of it, by what they chose, or as is usual; null where it is none of theirs. */
export function hearWish(
  access: Access,
  choices: HearChoices,
  side: MessageSide,
  kind: MessageKind,
  rules: HearRules = {},
): HearWish | null {
  if (!canHear(access, side, kind)) return null;
  const rule = hearRule(rules, access, side, kind);
  const chosen = choices[side]?.[kind];
  return byEach((by) => rule[by] === 'always' || (chosen?.[by] ?? rule[by] === 'on'));
}

export const HEAR_SAYS_WORDS: Readonly<Record<HearSays, string>> = { on: 'yes', off: 'no', always: 'always' };
export const HEAR_GROUP_WORDS: Readonly<Record<HearGroup, string>> = {
  planners: 'planners and managers',
  others: 'everybody else',
};
export const HEAR_SIDE_WORDS: Readonly<Record<MessageSide, string>> = {
  mine: 'their own work',
  gave: 'work of others',
};

/** What is otherwise in what people usually hear of, a line each. */
export function sayHearing(before: HearRules, after: HearRules): string[] {
  return HEAR_GROUPS.flatMap((group) =>
    MESSAGE_SIDES.flatMap((side) =>
      MESSAGE_KINDS.flatMap((kind) => {
        const access = ACCESS_OF_GROUP[group];
        const [was, is] = [hearRule(before, access, side, kind), hearRule(after, access, side, kind)];
        if (HEARD_BY.every((by) => was[by] === is[by])) return [];
        const says = HEARD_BY.map((by) => `${HEARD_BY_WORDS[by]} ${HEAR_SAYS_WORDS[is[by]]}`).join(', ');
        return [`${KIND_WORDS[kind].name}, ${HEAR_SIDE_WORDS[side]}, for ${HEAR_GROUP_WORDS[group]}: ${says}`];
      }),
    ),
  );
}
