import { fieldsOf, type SubjectOfChanges, type Telling, type Undone } from '../platform/changes/subject.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { forbidden } from '../platform/refusal.ts';
import type { Task } from '../tasks/stored/index.ts';
import { undoSettings } from './service.ts';

const TELLING = {
  name: 'told',
  tagline: 'silent',
  zone: 'told',
  workingWeekdays: 'told',
  weekMinutes: 'told',
  categories: 'silent',
  workTypes: 'silent',
  clientFields: 'told',
  assetFields: 'told',
  skipReasons: 'told',
  roles: 'told',
  teams: 'told',
  tickets: 'told',
  horizonDays: 'told',
  makeTime: 'told',
  madeOn: 'silent',
  isDemo: 'silent',
  version: 'silent',
  yearStarts: 'told',
  phraseHabits: 'told',
  ways: 'told',
  seasons: 'told',
  doneStaysDays: 'told',
  swapsNeedNod: 'told',
  visits: 'told',
  asking: 'told',
  escalation: 'told',
  hearing: 'told',
  outcomes: 'told',
  askedOn: 'silent',
  keepYears: 'told',
  keepSince: 'silent',
} satisfies Telling<Workspace>;

export const settingsChanges: SubjectOfChanges<Task> = {
  entity: Workspace,
  telling: {
    ...TELLING,
    // Rows of their own.
    holidays: 'told',
    // Carried over to whoever has them.
    renamed: 'silent',
  },
  mayUndoOwn: () => false,
  reached: (changes) => ({ watchIds: changes.flatMap(({ watchId }) => watchId ?? []) }),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    if (!scope.mayAll('settings')) throw forbidden('Only a manager can change the settings.');
    await rest();
    const undone: Undone<Task>[] = [];
    for (const change of changes) undone.push(await undoSettings(scope, change));
    return { said: undone.map(({ said }) => said).join(' '), kept: undone.flatMap(({ kept }) => kept) };
  },
};
