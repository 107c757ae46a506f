import { tryDayOfIso } from '../civil-date/iso-date.ts';

interface DemandBase {
  /** Stays the same while the words change, so that answers find their demand. */
  readonly key: string;
  /** What is asked, in a few words; empty where the check line above it says so already. */
  readonly label: string;
}

/** Something that must be there before a task can be finished: a file, a note, or an answer of a certain form. */
export type Demand = DemandBase &
  (
    | { readonly kind: 'file' | 'note' | 'yesNo' | 'date' | 'text' | 'longText' }
    /** `atStart`: of a task as a whole, it is read before anything else is done. */
    | { readonly kind: 'tag'; readonly atStart?: true | undefined }
    | { readonly kind: 'number'; readonly unit: string; readonly least: number | null; readonly most: number | null }
    | { readonly kind: 'choice' | 'choices'; readonly options: readonly string[] }
  );

export type DemandKind = Demand['kind'];
export type NumberDemand = Extract<Demand, { kind: 'number' }>;
export type TagDemand = Extract<Demand, { kind: 'tag' }>;

/** What was answered: a text, a number, yes or no, or the chosen ones of several. */
export type AnswerValue = string | number | boolean | readonly string[];

export interface Answer {
  readonly value: AnswerValue;
  /** Why a number outside its limits is right all the same; empty where there is nothing to say. */
  readonly remark: string;
}

/** Longest text that an answer may hold, in characters. */
export const MAX_ANSWER = 2000;

/**
 * Why a value is no answer to a demand, in words; null when it is one. A number outside its limits is an answer:
 * `outsideBy` tells, and a remark is then missing.
 * @param assetTag the tag of the asset that the task is about, which a reading must match; null where it has none
 */
export function answerProblem(demand: Demand, value: AnswerValue, assetTag: string | null): string | null {
  switch (demand.kind) {
    case 'file':
    case 'note':
      return 'That is shown by a file or a note, not answered.';
    case 'yesNo':
      return typeof value === 'boolean' ? null : 'Answer yes or no.';
    case 'number':
      return typeof value === 'number' && Number.isFinite(value) && Math.abs(value) <= 1e12 ? null : 'Give a number.';
    case 'date':
      return typeof value === 'string' && tryDayOfIso(value) !== null ? null : 'Give a date.';
    case 'choice':
      return typeof value === 'string' && demand.options.includes(value)
        ? null
        : `Choose one of ${demand.options.join(', ')}.`;
    case 'choices':
      return isChoices(value, demand.options) ? null : `Choose from ${demand.options.join(', ')}.`;
    case 'tag':
      if (typeof value !== 'string' || value.trim() === '') return 'Read the tag, or type what stands on it.';
      return assetTag === null || sameTag(value, assetTag)
        ? null
        : `“${value.trim()}” is not the tag of what this task is about.`;
    case 'text':
    case 'longText':
      if (typeof value !== 'string' || value.trim() === '') return 'Write something.';
      return value.length <= MAX_ANSWER ? null : `Write at most ${MAX_ANSWER} characters.`;
  }
}

function isChoices(value: AnswerValue, options: readonly string[]): boolean {
  return (
    Array.isArray(value) &&
    value.length > 0 &&
    new Set(value).size === value.length &&
    value.every((one) => options.includes(one))
  );
}

/** A tag without what makes no difference, as it is read by machines and typed by hand: case, spaces and dashes. */
export const plainTag = (tag: string): string => tag.toLowerCase().replace(/[\s-]/g, '');

export const sameTag = (a: string, b: string): boolean => plainTag(a) === plainTag(b);

/**
 * What is wrong with a tag that was read, and where it belongs.
 * @param owner whose tag it is, by name and place; null where nothing has such a tag
 */
export function sayWrongTag(read: string, about: string, owner: string | null): string {
  const whose = owner === null ? 'no tag that is known here' : `the tag of ${owner}`;
  return `“${read.trim()}” is ${whose}. This task is about ${about}.`;
}

/** How far a value lies outside the limits of a number: above (positive) or below (negative) the nearer one; 0 within them. */
export function outsideBy(demand: Pick<NumberDemand, 'least' | 'most'>, value: number): number {
  // Limits are decimal figures: 1.12 over 0.80 is 0.32, not 0.31999999999999995.
  const decimal = (difference: number) => Number(difference.toPrecision(12));
  if (demand.most !== null && value > demand.most) return decimal(value - demand.most);
  if (demand.least !== null && value < demand.least) return decimal(value - demand.least);
  return 0;
}

/** Whether an answer lies outside the limits of its demand. */
export function isOutside(demand: Demand, answer: Answer | undefined): boolean {
  return (
    demand.kind === 'number' && typeof answer?.value === 'number' && outsideBy(demand, answer.value as number) !== 0
  );
}

/** A line of a task that is ticked, with what it asks for. */
export interface CheckLine {
  readonly key: string;
  readonly text: string;
  /** How it is done; empty where the text says it all. */
  readonly note: string;
  readonly demands: readonly Demand[];
}

/** As much of a task as tells whether it can be finished. */
export interface Doing {
  readonly demands: readonly Demand[];
  readonly checkLines: readonly CheckLine[];
  /** Keys of the lines that are ticked. */
  readonly ticked: ReadonlySet<string>;
  readonly answers: Readonly<Record<string, Answer>>;
  /** How many files there are for each demand, by its key. */
  readonly files: Readonly<Record<string, number>>;
  readonly note: string;
}

export interface Missing {
  /** Where it is missing: the key of a check line, or null for the task as a whole. */
  readonly line: string | null;
  /** Of the demand; null where a line only needs its tick. */
  readonly demand: string | null;
  /** What is missing, as it reads in a list: "the remark on Earth loop". */
  readonly words: string;
}

/** What stands under a key; nothing that every object has from its kind, like `constructor`. */
export function ownOf<T>(record: Readonly<Record<string, T>>, key: string): T | undefined {
  return Object.hasOwn(record, key) ? record[key] : undefined;
}

/**
 * The tag that has to be read before anything else is done with a task: the reading starts it. Null where it asks for
 * none, has been read, or what the task is about has no tag: then the reading is asked for like any other proof.
 * @param isBegun whether it is under way, or further
 */
export function tagToStart(
  { demands, answers }: Pick<Doing, 'demands' | 'answers'>,
  isBegun: boolean,
  assetTag: string | null,
): TagDemand | null {
  if (isBegun || assetTag === null) return null;
  return (
    demands.find(
      (demand): demand is TagDemand =>
        demand.kind === 'tag' && demand.atStart === true && ownOf(answers, demand.key) === undefined,
    ) ?? null
  );
}

/** All that is missing before a task can be finished, in the order in which it is shown. */
export function stillMissing(doing: Doing): Missing[] {
  return [
    ...doing.checkLines.flatMap((line) => missingOnLine(line, doing)),
    ...doing.demands.flatMap((demand) => missingFor(demand, doing, null)),
  ];
}

/** What a check line lacks: what it asks for, else its tick. */
export function missingOnLine(line: CheckLine, doing: Doing): Missing[] {
  const asked = line.demands.flatMap((demand) => missingFor(demand, doing, line));
  if (asked.length > 0 || doing.ticked.has(line.key)) return asked;
  return [{ line: line.key, demand: null, words: line.text }];
}

/** Whether a line that asks for something has all of it: then it is ticked by that. */
export function isTickedByProof(line: CheckLine, doing: Doing): boolean {
  return line.demands.length > 0 && missingOnLine(line, doing).every(({ demand }) => demand === null);
}

/**
 * Whether what was done last finishes a task whose template says so: one line more is ticked by it, and nothing is missing.
 * @param before keys of the lines that were ticked
 */
export function isFinishedByLast(before: ReadonlySet<string>, after: Doing): boolean {
  return after.ticked.size > before.size && stillMissing(after).length === 0;
}

function missingFor(demand: Demand, doing: Doing, line: CheckLine | null): Missing[] {
  const name = demand.label || line?.text || DEMAND_WORDS[demand.kind];
  const missing = (words: string) => [{ line: line?.key ?? null, demand: demand.key, words }];
  switch (demand.kind) {
    case 'file':
      if ((ownOf(doing.files, demand.key) ?? 0) > 0) return [];
      return missing(demand.label === '' && line === null ? 'a photo or file' : `the photo or file for ${name}`);
    case 'note':
      return doing.note.trim() === '' ? missing('a note') : [];
    default: {
      const answer = ownOf(doing.answers, demand.key);
      if (answer === undefined) return missing(name);
      return isOutside(demand, answer) && answer.remark.trim() === '' ? missing(`the remark on ${name}`) : [];
    }
  }
}

/** What kinds of proof are called where nobody has named them. */
export const DEMAND_WORDS: Readonly<Record<DemandKind, string>> = {
  file: 'photo or file',
  note: 'note',
  text: 'a few words',
  longText: 'longer text',
  number: 'number',
  choice: 'one of several',
  choices: 'some of several',
  yesNo: 'yes or no',
  date: 'date',
  tag: 'tag reading',
};
