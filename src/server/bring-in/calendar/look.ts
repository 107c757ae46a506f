import { createHash } from 'node:crypto';
import {
  type CalendarAsked,
  type CellContext,
  type CivilDay,
  civilDay,
  ENTRY_FATES,
  type EntryWork,
  joinAnd,
  meaningOf,
  ONE_FOR_ANY,
  peopleOfEntry,
  readDaysOff,
  textOfValue,
  yearMonthDay,
  zonesOf,
} from '../../../core/index.ts';
import { Holiday } from '../../platform/identity/workspace.ts';
import { eachInTurn } from '../../platform/in-turn.ts';
import type { Scope } from '../../platform/scope.ts';
import { cellContext, peopleById } from '../../schedules/index.ts';
import { type Line, type ReadRow, type Told, UNREAD } from '../read-row.ts';
import type { Look, Looking } from '../ways.ts';
import { readEntry } from './entry.ts';
import { type MadeEntry, madeOf, problemOf, workOf } from './made.ts';
import { calendarPeople, calendarZones } from './meant.ts';
import { type Origin, OURS, originsOf } from './origins.ts';
import { diffsOf, sayEntry } from './words.ts';

/** Days off are told for so many years to come. */
const YEARS_AHEAD = 5;
const NO_WORK: EntryWork = {
  ...{ name: '', text: '', url: '', categories: [], priority: 'normal', minutes: null, people: [] },
};

/** What entries are held against. */
interface Around {
  readonly scope: Scope;
  readonly cells: CellContext;
  readonly people: Awaited<ReturnType<typeof peopleById>>;
  readonly meant: ReadonlyMap<string, string | null>;
  readonly zones: ReadonlyMap<string, string | null>;
  readonly asked: CalendarAsked;
  /** Days that are off already. */
  readonly off: ReadonlySet<string>;
}

/** Says of each entry what it would become, and whether it is here already. */
export async function lookAtEntries(scope: Scope, { bringIn }: Looking): Promise<Look> {
  const { calendar: asked } = bringIn.asked;
  if (!asked) throw new Error('A calendar is read with what was said of it.');
  const around: Around = {
    ...{ scope, asked, cells: await cellContext(scope), people: await peopleById(scope) },
    off: new Set((await scope.find(Holiday)).map(({ date }) => date)),
    ...{ meant: await calendarPeople(scope, bringIn), zones: calendarZones(bringIn) },
  };
  return async (lines) => {
    const there = await originsOf(
      scope,
      lines.map(({ values }) => textOfValue(values, 'uid')),
    );
    return eachInTurn(lines, (line) => lookAt(line, there, around));
  };
}

function lookAt(line: Line, there: ReadonlyMap<string, Origin>, around: Around): Told {
  const { scope, cells, zones, asked } = around;
  const { number, values } = line;
  const [uid, text] = [textOfValue(values, 'uid'), textOfValue(values, 'entry')];
  const told = (fate: Told['fate'], read: Partial<ReadRow>): Told => ({
    ...{ number, fate },
    read: { ...UNREAD, title: uid, ...read },
  });
  const reading = readEntry(uid, text);
  if ('problem' in reading) return told('left', { why: reading.problem });
  const { entry } = reading;
  const title = (entry.main ?? entry.changed[0])?.summary || uid;
  const left = (why: string) => told('left', { title, why });
  const unknown = zonesOf(entry).find((tzid) => (zones.get(tzid) ?? null) === null);
  if (unknown !== undefined) return left(`Its times are in “${unknown}”, which is no zone known here: say which it is`);
  const meaning = meaningOf(entry, ENTRY_FATES.find((one) => one === textOfValue(values, 'becomes')) ?? null, {
    ...{ today: cells.today, zone: scope.workspace.zone, calendar: cells.calendar, choices: asked.choices },
    zoneOf: (tzid) => zones.get(tzid) ?? null,
  });
  const origin = there.get(uid);
  if (meaning.becomes === 'left out')
    return left(`${capital(meaning.why)}${origin && origin.hash !== OURS ? '; what came of it here stays' : ''}`);
  const of = { uid, hash: hashOf(text) };
  if (meaning.becomes === 'days off') {
    if (!scope.mayAll('settings')) return left('Only a manager can set days off');
    const days = daysOff(text, meaning.name, cells.today);
    const all: MadeEntry = {
      ...of,
      work: workOf(scope, { ...NO_WORK, name: title }, []),
      of: { becomes: 'days off', days },
    };
    if (days.length === 0) return left('It is over, or lies more than five years ahead');
    const about = sayEntry(all, cells);
    const fresh = days.filter(({ date }) => !around.off.has(date));
    if (fresh.length === 0) return told('same', { title, about, why: 'off already' });
    return told('new', { title, about, made: { ...all, of: { becomes: 'days off', days: fresh } } });
  }
  const { ids, strangers } = peopleOfEntry(meaning.work.people, around.meant);
  const who = ids.length === 0 && asked.ownerId !== null ? [asked.ownerId] : ids;
  const made = madeOf({
    ...{ meaning, who, several: asked.several },
    of: { ...of, work: workOf(scope, meaning.work, strangers) },
  });
  const wrong = problemOf(scope, made, around);
  if (wrong !== null) return left(wrong);
  const notes = [
    ...meaning.unsaid,
    ...(strangers.length > 0
      ? [`With ${joinAnd(strangers)}, who ${strangers.length === 1 ? 'is' : 'are'} not here`]
      : []),
    ...(meaning.becomes === 'task' && who.length > 1 && asked.several === 'each of' ? [ONE_FOR_ANY] : []),
  ];
  return beside(made, origin, { told, cells, read: { title, about: sayEntry(made, cells), why: notes.join('; ') } });
}

interface Beside {
  readonly told: (fate: Told['fate'], read: Partial<ReadRow>) => Told;
  readonly cells: CellContext;
  readonly read: Pick<ReadRow, 'title' | 'about' | 'why'>;
}

/** An entry beside what came of it before. */
function beside(made: MadeEntry, origin: Origin | undefined, { told, cells, read }: Beside): Told {
  const same = (why: string) => told('same', { ...read, why });
  const { of } = made;
  if (!origin) return told('new', { ...read, made });
  if (origin.hash === OURS) return same('it was taken out of here, and is here still');
  if (origin.hash === made.hash) return same('it is here already, and unchanged since');
  if (of.becomes !== origin.is) return same(`it is here already, as a ${origin.is}`);
  if (of.becomes === 'template') return same('it is here already: a template is changed on its own page');
  if (origin.isOver) return same('it is here already, and over');
  return told('alike', {
    ...read,
    diffs: diffsOf(origin, made, cells),
    targetId: origin.id,
    made: { ...made, of: { ...of, version: origin.version } },
    why: ['the same entry, changed since it was brought in', read.why].filter(Boolean).join('; '),
  });
}

const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

/** The days of an entry from today on. */
const daysOff = (text: string, name: string, today: CivilDay) =>
  readDaysOff(`BEGIN:VCALENDAR\n${text}`, today, civilDay(yearMonthDay(today).year + YEARS_AHEAD, 12, 31)).days.map(
    ({ date }) => ({ date, name }),
  );

/** Of what an entry says, but for when it was written and sent. */
const hashOf = (text: string): string =>
  createHash('sha256')
    .update(text.replace(/^(DTSTAMP|LAST-MODIFIED|CREATED)[^\r\n]*\r?\n/gim, ''))
    .digest('hex');
