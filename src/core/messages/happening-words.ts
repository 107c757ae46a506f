import { BRING_WORDS, type BringKind } from '../bring-in/fields.ts';
import { dayOfIso, type IsoDate } from '../civil-date/iso-date.ts';
import { plural, sayDay } from '../wording/date-words.ts';
import type { AskedTurn } from './hearing.ts';
import { type MessageWords, sayFirstOf, type Telling } from './message-words.ts';

const ASKED_WORDS: Readonly<Record<AskedTurn, string>> = {
  asks: 'asked for',
  given: 'given',
  refused: 'refused',
  entered: 'entered',
};

const dayIn =
  ({ today, ways }: Telling) =>
  (on: IsoDate): string =>
    sayDay(dayOfIso(on), today, ways);

/** What is told of leave: to those who decide on it, and to whoever it is theirs. */
export function sayLeave(
  turn: AskedTurn,
  { personId, fromOn, toOn }: { readonly personId: string; readonly fromOn: IsoDate; readonly toOn: IsoDate },
  byId: string | null,
  telling: Telling,
): MessageWords {
  const day = dayIn(telling);
  const days = fromOn === toOn ? day(fromOn) : `${day(fromOn)} to ${day(toOn)}`;
  if (turn === 'asks')
    return {
      title: `${telling.nameOf(personId) ?? 'Somebody'} asks for ${days} off`,
      text: 'See what it would change before you decide',
    };
  const by = byId === null ? null : telling.nameOf(byId);
  return { title: `Your leave, ${days}`, text: `${ASKED_WORDS[turn]}${by === null ? '' : ` by ${by}`}` };
}

interface AskedSwap {
  readonly askedBy: string;
  readonly askedOf: string;
  readonly gives: IsoDate;
  readonly takes: IsoDate;
  readonly note: string;
}

/** What is told of a swap of turns. */
export function saySwap(
  turn: AskedTurn,
  { askedBy, askedOf, gives, takes, note }: AskedSwap,
  telling: Telling,
): MessageWords {
  const day = dayIn(telling);
  if (turn !== 'asks') return { title: `The swap of ${day(gives)} for ${day(takes)}`, text: ASKED_WORDS[turn] };
  const [asker, other] = [telling.nameOf(askedBy) ?? 'Somebody', telling.nameOf(askedOf) ?? 'somebody'];
  return {
    title: `${asker} asks to swap ${day(gives)} for ${day(takes)}`,
    text: [`with ${other}`, note].filter(Boolean).join(': '),
  };
}

/** What a run left out. @param problems schedules that could not be followed @param leftOut dates */
export function sayRun({ problems, leftOut }: { readonly problems: number; readonly leftOut: number }): MessageWords {
  const left = [
    problems > 0 ? `${plural(problems, 'schedule')} could not be followed` : '',
    leftOut > 0 ? `${plural(leftOut, 'date')} left out` : '',
  ].filter(Boolean);
  return { title: 'A run left work out', text: left.join(', ') };
}

/** What the server does by itself, and may fail to do. */
export const SERVER_JOBS = [
  'make',
  'ask',
  'lists',
  'summaries',
  'hear',
  'tell',
  'push',
  'fill',
  'letGo',
  'tryOut',
  'backup',
  'webhooks',
] as const;
export type ServerJob = (typeof SERVER_JOBS)[number];

const JOBS: Readonly<Record<ServerJob, { readonly fails: string; readonly todo: string; readonly path: string }>> = {
  make: {
    ...{ fails: 'Tasks of the day can’t be made', path: '/schedules' },
    todo: 'make them by hand with Fill, or look for a schedule that was changed lately',
  },
  fill: { fails: 'A period can’t be filled', todo: 'try a shorter one, or fewer schedules', path: '/fill' },
  ask: {
    fails: 'Clients can’t be asked by mail',
    todo: 'ask them by telephone meanwhile',
    path: '/tasks?offered=client',
  },
  lists: {
    fails: 'Lists of calls can’t be made',
    todo: 'ring from the client’s pages meanwhile',
    path: '/calls/quotas',
  },
  summaries: { fails: 'Summaries can’t be sent', todo: 'the page of messages shows yours', path: '/messages' },
  hear: { fails: 'What comes with the time can’t be told', todo: 'look at the morning page for it', path: '/overview' },
  tell: { fails: 'What happens can’t be told', todo: 'look at the morning page for it', path: '/overview' },
  push: { fails: 'Devices can’t be told', todo: 'bells and mails are not concerned', path: '/messages' },
  letGo: { fails: 'Old work can’t be let go', todo: 'nothing is lost by that', path: '/settings' },
  backup: {
    ...{ fails: 'A backup can’t be written', path: '/settings/backups' },
    todo: 'look whether the disk is full; npm run backup writes one elsewhere',
  },
  webhooks: {
    ...{ fails: 'Programs can’t be told', path: '/settings/webhooks' },
    todo: 'what they were to be told waits, and goes once it works again',
  },
  tryOut: { fails: 'An answer can’t be tried out', todo: 'try it once more', path: '/post' },
};

/** That the server fails at something again and again, what to do meanwhile, and where. @param times how often it has failed */
export function sayServerTrouble(job: ServerJob, times: number): MessageWords & { readonly path: string } {
  const { fails, todo, path } = JOBS[job];
  return {
    title: fails,
    text: `it failed ${times} times and is tried again by itself; ${todo}. Whoever runs Jolly Rota finds the cause in its log`,
    path,
  };
}

/** The list of calls that somebody has for a day. @param wanted how many were asked for */
export function sayCallList(
  quota: string,
  { calls, wanted }: { readonly calls: number; readonly wanted: number },
): MessageWords {
  const short = Math.max(0, wanted - calls);
  return {
    title: `${quota}: ${plural(calls, 'call')} today`,
    text: short > 0 ? `${wanted} were asked for, the pool has no more` : 'your list is ready',
  };
}

/** A pool that has too few for the lists of a day. @param names whose lists are short; empty where it is still to come */
export function sayPool(
  quota: string,
  { on, short, names }: { readonly on: IsoDate; readonly short: number; readonly names: readonly string[] },
  telling: Telling,
): MessageWords {
  if (dayOfIso(on) <= telling.today && short > 0)
    return {
      title: `${quota}: ${plural(short, 'call')} short today`,
      text: `the pool has run dry${names.length > 0 ? ` for ${sayFirstOf(names)}` : ''}`,
    };
  return { title: `${quota}: the pool runs dry`, text: `there are too few to ring from ${dayIn(telling)(on)}` };
}

/** Notices that have to go soon. @param sendBy the day by which the first of them must have gone */
export function sayNoticesDue(
  clients: readonly string[],
  { count, tooLate, sendBy }: { readonly count: number; readonly tooLate: number; readonly sendBy: IsoDate | null },
  telling: Telling,
): MessageWords {
  const by = sendBy === null ? '' : `, ${count === 1 ? 'by' : 'first by'} ${dayIn(telling)(sendBy)}`;
  const late = tooLate === 0 ? '' : `${tooLate === count ? '' : `${tooLate} of them `}too late already: `;
  return { title: `${plural(count, 'notice')} to send${by}`, text: `${late}${sayFirstOf(clients, count)}` };
}

/** Work that wants somebody on shift, on days of which nobody is. */
export function sayShiftGaps(
  gaps: readonly { readonly work: string; readonly about: string | null; readonly days: readonly IsoDate[] }[],
  telling: Telling,
): MessageWords {
  const days = [...new Set(gaps.flatMap((gap) => gap.days))].sort();
  const [first, ...rest] = days;
  const on =
    first === undefined
      ? ''
      : ` on ${dayIn(telling)(first)}${rest.length > 0 ? ` and ${plural(rest.length, 'more day')}` : ''}`;
  return {
    title: `Nobody is on shift${on}`,
    text: sayFirstOf(gaps.map(({ work, about }) => (about === null ? work : `${work}, ${about}`))),
  };
}

/** A link that a client's contact has opened. @param title the task that it opens; null for all that is open of theirs */
export function sayOpened(
  title: string | null,
  { contact, client }: { readonly contact: string; readonly client: string },
): MessageWords {
  const who = contact === client ? client : `${contact} of ${client}`;
  return title === null
    ? { title: client, text: `${who} opened what is asked of them` }
    : { title, text: `opened by ${who}` };
}

/** A list that somebody brought in. @param rows lines of the file */
export function sayBroughtIn(
  {
    kind,
    fileName,
    rows,
    byId,
  }: {
    readonly kind: BringKind;
    readonly fileName: string;
    readonly rows: number;
    readonly byId: string | null;
  },
  { nameOf }: Pick<Telling, 'nameOf'>,
): MessageWords {
  const who = (byId === null ? null : nameOf(byId)) ?? 'Somebody';
  return { title: `${who} brought in ${BRING_WORDS[kind].many}`, text: `${fileName}, ${plural(rows, 'line')}` };
}

/** A comment on work, without a name before it where nobody here said it. */
export function sayComment(
  title: string,
  text: string,
  byId: string | null,
  { nameOf }: Pick<Telling, 'nameOf'>,
): MessageWords {
  const by = byId === null ? null : nameOf(byId);
  return { title, text: by === null ? text : `${by}: ${text}` };
}

/** How much of an answer is told; the rest stands where it leads. */
const ANSWER_TOLD = 160;

/** What a contact answered by mail. @param own what they wrote themselves */
export function sayAnswered(
  title: string,
  { name, own }: { readonly name: string; readonly own: string },
): MessageWords {
  const flat = own.replace(/\s+/g, ' ').trim();
  const told = flat.length > ANSWER_TOLD ? `${flat.slice(0, ANSWER_TOLD).trimEnd()} …` : flat;
  return { title, text: told === '' ? `${name} answered by mail` : `${name} answered: ${told}` };
}

/** That an address takes no more mails. */
export const sayStopped = ({ name, email }: { readonly name: string; readonly email: string }): MessageWords => ({
  title: `${name} wants no more mails`,
  text: `none goes to ${email} any more: ring, or write on paper`,
});

/** Whether a text names somebody, as "@Rowan Blythe" does: they hear of that as being named. */
export const namesIn = (text: string, name: string): boolean => text.includes(`@${name}`);
