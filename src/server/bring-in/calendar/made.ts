import { linkSchema, type ScheduleInput, scheduleInputSchema } from '../../../contract/index.ts';
import {
  type CellContext,
  type EntryMeaning,
  type EntryWork,
  holderOfEntry,
  joinAnd,
  type Offer,
  ruleOfEntry,
} from '../../../core/index.ts';
import type { Scope } from '../../platform/scope.ts';
import { type peopleById, problemsOfPeople, rulesOf } from '../../schedules/index.ts';
import { farDay, type NewTask } from '../../tasks/stored/index.ts';
import { instructionsOfWords, type Template } from '../../templates/stored/index.ts';

/** What is written of an entry. */
export interface MadeEntry {
  readonly uid: string;
  /** Of what the calendar says of it: the same where nothing has changed there. */
  readonly hash: string;
  readonly work: {
    readonly name: string;
    readonly instructions: string;
    readonly links: Template['links'];
    readonly category: string | null;
    readonly priority: NewTask['priority'];
    /** Null where it does not say how long it takes. */
    readonly minutes: number | null;
  };
  readonly of:
    | {
        readonly becomes: 'schedule';
        readonly input: Omit<ScheduleInput, 'templateId'>;
        readonly version: number | null;
      }
    | {
        readonly becomes: 'task';
        readonly on: string;
        readonly dueOn: string;
        readonly startTime: string | null;
        readonly dueTime: string | null;
        readonly assigneeId: string | null;
        readonly offeredTo: Offer | null;
        readonly version: number | null;
      }
    | { readonly becomes: 'template' }
    | { readonly becomes: 'days off'; readonly days: readonly { readonly date: string; readonly name: string }[] };
}

/** What a schedule is checked with before its template is there. */
const NO_TEMPLATE = '00000000-0000-4000-8000-000000000000';

/** What work of an entry is about here: a link, a category and a priority in their places, all else as text. */
export function workOf(scope: Scope, work: EntryWork, strangers: readonly string[]): MadeEntry['work'] {
  const link = linkSchema.safeParse({ title: '', url: work.url });
  const category = scope.workspace.categories.find(({ name }) =>
    work.categories.some((one) => one.toLowerCase() === name.toLowerCase()),
  );
  const others = work.categories.filter((one) => one.toLowerCase() !== category?.name.toLowerCase());
  const text = [
    work.text,
    strangers.length > 0 ? `With ${joinAnd(strangers)}` : '',
    others.length > 0 ? `Filed under: ${others.join(', ')}` : '',
    work.url !== '' && !link.success ? work.url : '',
  ]
    .filter(Boolean)
    .join('\n\n');
  return {
    name: work.name,
    instructions: text === '' ? '' : instructionsOfWords(text),
    links: link.success ? [link.data] : [],
    category: category?.name ?? null,
    ...{ priority: work.priority, minutes: work.minutes },
  };
}

interface Making {
  readonly meaning: Exclude<EntryMeaning, { becomes: 'left out' | 'days off' }>;
  readonly of: Pick<MadeEntry, 'uid' | 'hash' | 'work'>;
  /** People here who are to do it. */
  readonly who: readonly string[];
  readonly several: 'each of' | 'any of';
}

/** An entry as it would be written. */
export function madeOf({ meaning, of, who, several }: Making): MadeEntry {
  if (meaning.becomes === 'template') return { ...of, of: { becomes: 'template' } };
  if (meaning.becomes === 'task') {
    const { on, dueOn, startTime, dueTime } = meaning;
    return { ...of, of: { becomes: 'task', on, dueOn, startTime, dueTime, version: null, ...holderOfEntry(who) } };
  }
  const { recurrence, timing, exceptions, revisions } = meaning;
  const input = {
    ...{ clientId: null, assetId: null, assignment: ruleOfEntry(who, several), recurrence, timing },
    ...{ overlap: { kind: 'add' as const }, pauses: [], exceptions: [...exceptions], revisions: [...revisions] },
  };
  return { ...of, of: { becomes: 'schedule', version: null, input } };
}

/** Why it can't be written, by the limits that there are on the pages for it; null where it can. */
export function problemOf(
  scope: Scope,
  { of, work }: MadeEntry,
  { people, cells }: { readonly people: Awaited<ReturnType<typeof peopleById>>; readonly cells: CellContext },
): string | null {
  if (of.becomes === 'task') return farDay(scope, { on: of.on, dueOn: of.dueOn })?.message ?? null;
  if (work.name.replace(/[{}]/g, '').trim() === '') return 'Its name is made of braces alone';
  if (of.becomes !== 'schedule') return null;
  const input = { ...of.input, templateId: NO_TEMPLATE };
  const parsed = scheduleInputSchema.safeParse(input);
  if (!parsed.success) return parsed.error.issues[0]?.message ?? 'It is more than a schedule can hold';
  return (
    problemsOfPeople(scope, input, people, null)[0]?.message ??
    rulesOf(input, cells.calendar, cells.today)[0]?.message ??
    null
  );
}
