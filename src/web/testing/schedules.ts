import { LINES_A_PAGE, type ScheduleLine, type WholeSchedule } from '../../contract/index.ts';
import { givenTo, PLAIN_TIMING } from '../../core/index.ts';
import { NADIA } from './show.tsx';

const digits = (n: number) => n.toString(16).padStart(12, '0');

/** A line of a list: the nth round of every Tuesday, with what a test says otherwise. */
export function scheduleLine(n: number, other: Partial<ScheduleLine> = {}): ScheduleLine {
  return {
    id: `01937000-0000-7000-8000-${digits(n)}`,
    version: 1,
    template: { id: '01937000-0000-7000-8000-0000000000b1', name: `Round ${n}` },
    client: null,
    asset: null,
    assignment: givenTo(NADIA.id),
    who: NADIA.name,
    phrase: 'every week on Tue',
    nextPhrase: null,
    state: 'running',
    problem: null,
    next: '2026-11-24',
    timesAYear: 52,
    lastEight: [],
    lateCount: 0,
    waits: null,
    ...other,
  };
}

/** What the server answers about a list: its pages at an address, and all its ids. */
export function listAnswers(query: string, lines: readonly ScheduleLine[], all = lines.length) {
  const counts = { fitting: lines.length, all, problems: 0 };
  const pages = Array.from({ length: Math.max(1, Math.ceil(lines.length / LINES_A_PAGE)) }, (_, i) => {
    const start = i * LINES_A_PAGE;
    return [`/schedules?${query}&start=${start}`, { start, lines: lines.slice(start, start + LINES_A_PAGE), counts }];
  });
  return {
    ...Object.fromEntries(pages),
    [`/schedules/fitting?${query}`]: {
      ids: lines.map(({ id }) => id),
      versions: lines.map(({ version }) => version),
      more: null,
      mark: 'same',
      isAll: lines.length === all,
    },
  } as Readonly<Record<string, unknown>>;
}

/** The same schedule whole, for every Tuesday since the 3rd of November. */
export function wholeSchedule(n: number, other: Partial<WholeSchedule> = {}): WholeSchedule {
  const { template, ...line } = scheduleLine(n);
  return {
    ...line,
    template: { ...template, category: null, estimateMinutes: 30, titlePattern: template.name, isArchived: false },
    recurrence: {
      start: '2026-11-03',
      rules: [{ kind: 'weeks', every: 1, on: [2] }],
      end: { kind: 'never' },
      dayOff: 'none',
    },
    timing: PLAIN_TIMING,
    overlap: { kind: 'add' },
    pauses: [],
    exceptions: [],
    revisions: [],
    last: null,
    deletedOn: null,
    deleted: [],
    since: '2026-11-03',
    plans: null,
    ...other,
  };
}
