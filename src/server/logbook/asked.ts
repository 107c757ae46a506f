import type { LogFilter } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { questionOf, type TaskQuestion } from '../task-list/index.ts';
import { WAS_ON_TIME } from '../tasks/stored/index.ts';

/** What stands in the logbook: what is over, and what was finished and waits to be checked. */
const ENTRY = `t.state in ('toCheck', 'done', 'skipped', 'lapsed')`;

/** Tasks that were due in the time that is looked at. */
export async function askedOf(scope: Scope, { kind: _, from, to, ...filter }: LogFilter): Promise<TaskQuestion> {
  return questionOf(scope, { ...filter, from, to });
}

/** Those of them that are entries, of the kind that is looked at. */
export async function entriesOf(scope: Scope, filter: LogFilter): Promise<TaskQuestion> {
  const asked = await askedOf(scope, filter);
  asked.and(ENTRY);
  switch (filter.kind) {
    case 'all':
      break;
    case 'late':
      asked.and(`t.done_at is not null and not ${WAS_ON_TIME}`);
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
