import type { BRING_HAS_IMPACT, Impact, Topic } from '../../contract/index.ts';
import type { BringField, BringKind } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { calendarWays } from './calendar/index.ts';
import { clientLines, SeenClients } from './client-lines.ts';
import type { BringIn } from './entity.ts';
import { historyWays, taskWays } from './finished-or-not.ts';
import { clientsOut, peopleOut } from './out.ts';
import { personLines, SeenPeople } from './person-lines.ts';
import type { Line, Told } from './read-row.ts';
import { scheduleWays } from './schedule-lines.ts';
import type { Sum } from './sum.ts';
import { templateWays } from './template-lines.ts';
import { writeClients } from './write-clients.ts';
import { writePeople } from './write-people.ts';

/** With what lines are held against what is here. */
export interface Looking {
  readonly bringIn: BringIn;
  readonly fields: ReadonlyMap<string, BringField>;
  /** What each column becomes, by its place. */
  readonly columns: readonly (string | null)[];
}

/** Holds a page of lines against what is here and against the lines before them. */
export type Look = (lines: readonly Line[]) => Promise<Told[]>;

/** What has to be known of a kind of list to bring it in; where it can be looked at what that does, it is told. */
export interface Ways<HasImpact extends boolean = boolean> {
  readonly look: (scope: Scope, looking: Looking) => Promise<Look>;
  /** What can be told only once all lines are read. */
  readonly finish?: (scope: Scope, bringIn: BringIn) => Promise<void>;
  /** Writes all lines; gives the changes that are to be undone with the file, besides that of the file itself. */
  readonly write: (scope: Scope, bringIn: BringIn) => Promise<readonly string[]>;
  /** What writing them would do to tasks and to the coming year, within a rehearsal; null where that is what the lines say. */
  readonly impact: HasImpact extends true ? (scope: Scope, bringIn: BringIn) => Promise<Impact> : null;
  /** Takes out what undoing those changes left. */
  readonly takeOut: (scope: Scope, bringIn: BringIn, sum: Sum) => Promise<void>;
  /** What may show something else by it. */
  readonly topics: readonly Topic[];
}

export const WAYS: { readonly [Kind in BringKind]: Ways<(typeof BRING_HAS_IMPACT)[Kind]> } = {
  clients: {
    look: async (scope, { bringIn: { asked }, fields }) => {
      const seen = new SeenClients();
      return (lines) => clientLines(scope, lines, asked.sameBy, fields, seen);
    },
    write: async (scope, bringIn) => {
      await writeClients(scope, bringIn);
      return [];
    },
    takeOut: clientsOut,
    impact: null,
    topics: ['clients', 'workspace'],
  },
  people: {
    look: async (scope, { bringIn: { asked }, fields }) => {
      const seen = new SeenPeople();
      return (lines) => personLines(scope, lines, asked.sameBy, fields, seen);
    },
    write: async (scope, bringIn) => {
      await writePeople(scope, bringIn);
      return [];
    },
    takeOut: peopleOut,
    impact: null,
    topics: ['workspace'],
  },
  schedules: scheduleWays,
  tasks: taskWays,
  templates: templateWays,
  history: historyWays,
  calendar: calendarWays,
};
