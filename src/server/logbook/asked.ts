import type { LogFilter, LogKind } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { questionOf, type TaskQuestion } from '../task-list/index.ts';

/** What stands in the logbook: what is over, and what was finished and waits to be checked. */
const ENTRY = `t.state in ('toCheck', 'done', 'skipped', 'lapsed')`;

/** Tasks that were due in the time that is looked at. */
export async function askedOf(scope: Scope, { kind: _, from, to, ...filter }: LogFilter): Promise<TaskQuestion> {
  return questionOf(scope, { ...filter, from, to });
}

/** Words of the logbook that are asked of the days alone. */
const OF_DAYS: readonly string[] = ['kind', 'from', 'to'];
const COUNTED_KINDS: readonly LogKind[] = ['all', 'late', 'skipped', 'lapsed', 'toCheck'];

/**
 * What ended tasks are counted from, as a table `t` whose rows stand for `n` tasks: where no more is asked than days, the counts
 * that are kept by the day; else the tasks themselves.
 */
export function endedFrom(filter: LogFilter, kind: LogKind = 'all'): EndedFrom {
  const isOfDays = Object.entries(filter).every(([name, value]) => value === undefined || OF_DAYS.includes(name));
  const isKept = isOfDays && COUNTED_KINDS.includes(kind);
  return {
    isKept,
    table: isKept ? 'ended_count t' : 'task t',
    count: (which = 'true') => `(coalesce(${isKept ? 'sum(t.n)' : 'count(*)'} filter (where ${which}), 0))::int`,
  };
}

interface EndedFrom {
  readonly isKept: boolean;
  readonly table: string;
  /** How many tasks the rows stand for, or those of them. */
  readonly count: (which?: string) => string;
}

/** Those of them that are entries, of the kind that is looked at. */
export async function entriesOf(scope: Scope, filter: LogFilter): Promise<TaskQuestion> {
  const asked = await askedOf(scope, filter);
  asked.and(ENTRY);
  switch (filter.kind) {
    case 'all':
      break;
    case 'late':
      // Known of all that was finished, and of nothing else.
      asked.and('t.on_time = false');
      break;
    case 'skipped':
    case 'lapsed':
    case 'toCheck':
      asked.and(`t.state = ${asked.with(filter.kind)}`);
      break;
    case 'sentBack':
      asked.and(`t.sent_back <> '[]'`);
      break;
    case 'noted':
      asked.and(`t.note <> ''`);
      break;
  }
  return asked;
}
