import type { Task, TaskLine } from '../../contract/index.ts';

/** A line of a day sheet: an opening walk of today, with what a test says otherwise. */
export function lineOf(other: Partial<TaskLine> = {}): TaskLine {
  return {
    id: '01937000-0000-7000-8000-000000000f01',
    version: 1,
    title: 'Opening walk',
    category: null,
    client: null,
    asset: null,
    assignee: null,
    state: 'open',
    late: false,
    daysLate: 0,
    on: '2026-11-24',
    startsOn: '2026-11-24',
    dueOn: '2026-11-24',
    startTime: null,
    dueTime: null,
    zone: null,
    estimateMinutes: 30,
    priority: 'normal',
    proofMissing: [],
    signsOff: null,
    setSize: 1,
    stepsDone: 0,
    stepsTotal: 0,
    startedAt: null,
    doneAt: null,
    ...other,
  };
}

/** A task with all there is to know, written down by hand. */
export function taskOf(other: Partial<Task> = {}): Task {
  return {
    ...lineOf(),
    instructions: '',
    brief: '',
    links: [],
    files: [],
    templateFiles: [],
    demands: [],
    steps: [],
    numbered: false,
    finishWithLast: false,
    workType: null,
    signOff: null,
    answers: {},
    assetTag: null,
    note: '',
    notePinned: false,
    doneBy: null,
    signed: null,
    sentBack: null,
    template: null,
    schedule: null,
    set: [],
    series: { lastEight: [], count: 1, since: null, earlier: [], next: null },
    mayWork: true,
    mayPlan: true,
    maySign: false,
    mayChooseNext: true,
    finishedBy: null,
    ...other,
  };
}
