import { type AskKind, type CivilDay, dayOfIso, sayDate, sayDay, sayDuration, type Ways } from '../../core/index.ts';
import type { Letter } from '../post/index.ts';
import type { Rings } from './asking.ts';

/** What a mail asks for. */
export interface AskedFor {
  readonly kind: AskKind;
  readonly title: string;
  readonly dueOn: string;
  readonly estimateMinutes: number;
  /** What is to be sent or answered, in the words of the task. */
  readonly asks: readonly string[];
  /** Why it came back, where it did. */
  readonly sentBack: string | null;
}

interface AskLetter {
  readonly from: string;
  readonly contact: string;
  readonly tasks: readonly AskedFor[];
  readonly url: string;
  readonly endsOn: string;
  readonly today: CivilDay;
  readonly ways: Ways;
  readonly rings: Rings | null;
}

/** The mail that asks a client to do something, or reminds of it. */
export function letterOf({ from, contact, tasks, url, endsOn, rings, ...seen }: AskLetter): Letter {
  const [only] = tasks;
  const isOne = tasks.length === 1 && only !== undefined;
  return {
    subject: isOne ? subjectOf(only, from, seen) : `${tasks.length} things to do for ${from}`,
    from,
    greeting: `Dear ${contact},`,
    paragraphs: isOne
      ? [...opening(only, from, seen), ...asksFor(only)]
      : [`${from} asks you for ${tasks.length} things:`, ...tasks.map((task) => `• ${lineOf(task, seen)}`)],
    deed: { words: isOne ? 'Open it and answer' : 'Open them and answer', url },
    after: [
      `The link is only for you: no account is needed. It works until ${sayDate(dayOfIso(endsOn), seen.ways)}.`,
      ...(rings === null ? [] : [sayRings(rings)]),
    ],
  };
}

type Seen = Pick<AskLetter, 'today' | 'ways'>;

const byWhen = ({ dueOn }: AskedFor, { today, ways }: Seen): string => {
  const due = dayOfIso(dueOn);
  return due < today ? `it was due on ${sayDay(due, today, ways)}` : `by ${sayDay(due, today, ways)}`;
};

function subjectOf(task: AskedFor, from: string, seen: Seen): string {
  const { title, kind } = task;
  switch (kind) {
    case 'asked':
    case 'again':
      return `${title}, ${byWhen(task, seen)}`;
    case 'before':
      return `Reminder: ${title}, ${byWhen(task, seen)}`;
    case 'after':
      return `Still missing: ${title}`;
    case 'sentBack':
      return `${from} has a question: ${title}`;
  }
}

function opening(task: AskedFor, from: string, seen: Seen): string[] {
  const { title, kind, sentBack, estimateMinutes } = task;
  const takes = `It takes about ${sayDuration(estimateMinutes)}.`;
  switch (kind) {
    case 'asked':
    case 'again':
      return [`${from} asks you for this: ${title}, ${byWhen(task, seen)}. ${takes}`];
    case 'before':
      return [`${from} waits for this from you: ${title}, ${byWhen(task, seen)}. ${takes}`];
    case 'after':
      return [`${from} has not had this from you yet: ${title}; ${byWhen(task, seen)}. ${takes}`];
    case 'sentBack':
      return [
        `thank you for what you sent: ${title}. Something is to be done again: “${sentBack ?? ''}”`,
        'What you sent is still there, to be changed.',
      ];
  }
}

const asksFor = ({ asks, kind }: AskedFor): string[] =>
  asks.length === 0 || kind === 'sentBack' ? [] : ['What is asked:', ...asks.map((one) => `• ${one}`)];

const lineOf = (task: AskedFor, seen: Seen): string =>
  task.sentBack !== null && task.kind === 'sentBack'
    ? `${task.title}, once more: “${task.sentBack}”`
    : `${task.title}, ${byWhen(task, seen)}`;

/** "Not sure? Ring Rhona, 01632 960 118, weekdays 09:00 to 14:00." */
export function sayRings({ name, telephone, answered }: Rings): string {
  return `Not sure? Ring ${[name, telephone, answered].filter(Boolean).join(', ')}.`;
}

interface CopyLetter {
  readonly from: string;
  readonly contact: string;
  readonly title: string;
  /** Each thing asked, with what was answered. */
  readonly sent: readonly (readonly [asked: string, answer: string])[];
  readonly today: CivilDay;
  readonly ways: Ways;
}

/** What a contact has sent, for them to keep. */
export function copyOf({ from, contact, title, sent, today, ways }: CopyLetter): Letter {
  return {
    subject: `What you sent to ${from}: ${title}`,
    from,
    greeting: `Dear ${contact},`,
    paragraphs: [
      `thank you. This is what you sent on ${sayDate(today, ways)}:`,
      ...sent.map(([asked, answer]) => `• ${asked}: ${answer}`),
    ],
    deed: null,
    after: ['Nothing else is asked of you in this.'],
  };
}

/** A code by which a link is opened on a device. */
export function codeLetter(from: string, contact: string, code: string, minutes: number): Letter {
  return {
    subject: `${code} opens your page at ${from}`,
    from,
    greeting: `Dear ${contact},`,
    paragraphs: [`the code for your page is ${code}. It works for ${minutes} minutes.`],
    deed: null,
    after: ['If you did not ask for it, leave it: without the link that you were sent it opens nothing.'],
  };
}
