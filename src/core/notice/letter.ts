import type { CivilDay } from '../civil-date/civil-day.ts';
import { tokenProblems, tokensIn } from '../wording/tokens.ts';

/** Some letters of a paragraph, all in one form. */
export interface LetterRun {
  readonly text: string;
  readonly bold?: boolean | undefined;
  readonly italic?: boolean | undefined;
}

export const LETTER_BLOCKS = ['paragraph', 'heading', 'bullet', 'numbered'] as const;

/** A paragraph of a letter, or one entry of a list. */
export interface LetterBlock {
  readonly kind: (typeof LETTER_BLOCKS)[number];
  readonly runs: readonly LetterRun[];
}

/** A letter as it is kept: with tokens, to be filled in for each visit. */
export interface LetterText {
  /** What it is about, in a line above it. */
  readonly subject: string;
  readonly body: readonly LetterBlock[];
}

/** The tokens that a letter may hold, written in braces, with what they stand for. */
export const LETTER_TOKENS = {
  client: 'who the visit is for',
  contact: 'whom the letter is to',
  address: 'their address, on one line',
  asset: 'the vessel, crane or pontoon',
  place: 'where it lies or stands',
  date: 'the day of the visit',
  window: 'from when to when on that day',
  person: 'who comes',
  reason: 'what is done',
  rule: 'how often that is done',
  type: 'the type of work',
  issued: 'the date of the letter',
  answer: 'how they can answer',
  signed: 'who signs it',
} as const;
export type LetterToken = keyof typeof LETTER_TOKENS;
export const LETTER_TOKEN_NAMES = Object.keys(LETTER_TOKENS) as LetterToken[];

/** What a letter is filled in with; empty where it is not known. */
export type LetterValues = Readonly<Record<LetterToken, string>>;

/** A run of a letter that was filled in, or a part of one. */
export interface FilledRun extends LetterRun {
  /** The token it stands for; null for what is the same in every letter. */
  readonly token: LetterToken | null;
}

export interface FilledBlock {
  readonly kind: LetterBlock['kind'];
  readonly runs: readonly FilledRun[];
}

export interface FilledLetter {
  readonly subject: readonly FilledRun[];
  readonly body: readonly FilledBlock[];
  /** Tokens that nothing is known for, in the order in which they stand there. */
  readonly empty: readonly LetterToken[];
}

/** What is wrong with the braces of a text of a letter, in words. */
export const letterProblems = (text: string) => tokenProblems(text, LETTER_TOKEN_NAMES, 'client');

const TOKEN = /\{([^{}]*)\}/g;

const isToken = (name: string): name is LetterToken => Object.hasOwn(LETTER_TOKENS, name);

/** A letter for one visit. Braces around what is no token stay as they are. */
export function fillLetter({ subject, body }: LetterText, values: LetterValues): FilledLetter {
  const texts = [subject, ...body.flatMap(({ runs }) => runs.map(({ text }) => text))];
  const used = new Set(texts.flatMap(tokensIn).filter(isToken));
  return {
    subject: fillRun({ text: subject }, values),
    body: body.map(({ kind, runs }) => ({ kind, runs: runs.flatMap((run) => fillRun(run, values)) })),
    empty: [...used].filter((token) => values[token] === ''),
  };
}

function fillRun(run: LetterRun, values: LetterValues): FilledRun[] {
  const runs: FilledRun[] = [];
  let at = 0;
  const put = (text: string, token: LetterToken | null) => {
    if (text !== '') runs.push({ ...run, text, token });
  };
  for (const match of run.text.matchAll(TOKEN)) {
    const name = (match[1] ?? '').trim().toLowerCase();
    if (!isToken(name)) continue;
    put(run.text.slice(at, match.index), null);
    put(values[name], name);
    at = match.index + match[0].length;
  }
  put(run.text.slice(at), null);
  return runs;
}

/** What runs say, without their form. */
export const textOfRuns = (runs: readonly Pick<LetterRun, 'text'>[]): string => runs.map(({ text }) => text).join('');

/** What we say ourselves in a letter, in its language. */
interface LetterWords {
  /** How the language is called in English. */
  readonly name: string;
  /** Before a time from which, and one until which. */
  readonly from: string;
  readonly until: string;
  /** That it takes the place of the letter of a date. */
  readonly replaces: (date: string) => string;
}

/** The languages that a letter may be in, by their tag (BCP 47). */
export const LETTER_LANGUAGES = {
  'en-GB': {
    ...{ name: 'English', from: 'from', until: 'until' },
    replaces: (date) => `This letter takes the place of ours of ${date}.`,
  },
  'da-DK': {
    ...{ name: 'Danish', from: 'fra kl.', until: 'til kl.' },
    replaces: (date) => `Dette brev træder i stedet for vores af ${date}.`,
  },
  'de-DE': {
    ...{ name: 'German', from: 'ab', until: 'bis' },
    replaces: (date) => `Dieser Brief ersetzt unseren vom ${date}.`,
  },
  'es-ES': {
    ...{ name: 'Spanish', from: 'desde las', until: 'hasta las' },
    replaces: (date) => `Esta carta sustituye a la nuestra del ${date}.`,
  },
  'fr-FR': {
    ...{ name: 'French', from: 'à partir de', until: 'jusqu’à' },
    replaces: (date) => `Cette lettre remplace la nôtre du ${date}.`,
  },
  'it-IT': {
    ...{ name: 'Italian', from: 'dalle', until: 'fino alle' },
    replaces: (date) => `Questa lettera sostituisce la nostra del ${date}.`,
  },
  'nb-NO': {
    ...{ name: 'Norwegian', from: 'fra kl.', until: 'til kl.' },
    replaces: (date) => `Dette brevet erstatter vårt av ${date}.`,
  },
  'nl-NL': {
    ...{ name: 'Dutch', from: 'vanaf', until: 'tot' },
    replaces: (date) => `Deze brief vervangt onze brief van ${date}.`,
  },
  'pl-PL': {
    ...{ name: 'Polish', from: 'od', until: 'do' },
    replaces: (date) => `Ten list zastępuje nasz list z dnia ${date}.`,
  },
  'pt-PT': {
    ...{ name: 'Portuguese', from: 'a partir das', until: 'até às' },
    replaces: (date) => `Esta carta substitui a nossa de ${date}.`,
  },
  'sv-SE': {
    ...{ name: 'Swedish', from: 'från kl.', until: 'till kl.' },
    replaces: (date) => `Detta brev ersätter vårt av den ${date}.`,
  },
} as const satisfies Record<string, LetterWords>;
export type LetterLanguage = keyof typeof LETTER_LANGUAGES;
export const LETTER_LANGUAGE_TAGS = Object.keys(LETTER_LANGUAGES) as LetterLanguage[];

const MS_A_DAY = 86_400_000;

/** A day in full as a letter in a language says it: "Tuesday 24 November 2026" (forms of the CLDR, by way of ECMA-402). */
export function sayDayIn(day: CivilDay, language: LetterLanguage): string {
  const words = new Intl.DateTimeFormat(language, {
    ...{ weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' },
    timeZone: 'UTC',
  }).format(day * MS_A_DAY);
  // After the English weekday some versions of the CLDR have a comma and others none: a letter says it one way.
  return language === 'en-GB' ? words.replace(',', '') : words;
}

/** The hours of a visit: "11:00–12:00", "from 11:00", "until 12:00"; empty where none are said. */
export function sayWindow(from: string | null, until: string | null, language: LetterLanguage): string {
  const words = LETTER_LANGUAGES[language];
  if (from !== null && until !== null) return from === until ? from : `${from}–${until}`;
  if (from !== null) return `${words.from} ${from}`;
  return until === null ? '' : `${words.until} ${until}`;
}
