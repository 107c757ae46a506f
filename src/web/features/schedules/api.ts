import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { runAddresses, scheduleAddresses } from '../../../contract/addresses.ts';
import {
  LINES_A_PAGE,
  MOST_WHOLE,
  type Reach,
  type Schedule,
  type ScheduleFilter,
  type ScheduleInput,
  type ScheduleLine,
  type SchedulePatch,
  type Sync,
  type WholeSchedule,
} from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { type Answer, ask, ProblemError } from '../../kit/api.ts';
import { useFitting } from './fitting.ts';

/** Schedules that fit, of which those in view are fetched. */
export interface LinesView {
  readonly counts: Answer<typeof scheduleAddresses.list>['counts'];
  /** Those that are here. */
  readonly lines: readonly ScheduleLine[];
  /** Undefined for one that is not here yet. */
  readonly at: (index: number) => ScheduleLine | undefined;
  readonly onView: (first: number, last: number) => void;
  /** Why some of those in view are not here. */
  readonly trouble: ProblemError | undefined;
  readonly retry: () => void;
}

/** Pages that can be in view at once. */
const PAGES_IN_VIEW = [0, 1, 2] as const;

/** The lines of the schedules that fit: any place of the list can be looked at without what stands before it. */
export function useScheduleLines(filter: ScheduleFilter) {
  const [pages, setPages] = useState({ first: 0, last: 0 });
  const inView = PAGES_IN_VIEW.map((n) => {
    const page = pages.first + n;
    // biome-ignore lint/correctness/useHookAtTopLevel: as many times at every draw
    return useAnswer(
      scheduleAddresses.list,
      n > 0 && page > pages.last ? null : { query: { ...filter, start: page * LINES_A_PAGE } },
    );
  });
  const [first] = inView;
  const onView = useCallback((from: number, to: number) => {
    const [a, b] = [Math.floor(from / LINES_A_PAGE), Math.floor(to / LINES_A_PAGE)];
    setPages((was) => (was.first === a && was.last === b ? was : { first: a, last: b }));
  }, []);
  const at = (index: number) => {
    for (const { data } of inView)
      if (data && index >= data.start && index < data.start + data.lines.length) return data.lines[index - data.start];
    return undefined;
  };
  const retry = () => {
    for (const { error, mutate } of inView) if (error) void mutate();
  };
  const view: LinesView | undefined = first?.data && {
    counts: first.data.counts,
    lines: inView.flatMap(({ data }) => data?.lines ?? []),
    at,
    onView,
    trouble: inView.find(({ error }) => error)?.error,
    retry,
  };
  return { view, error: first?.error, retry };
}

/** Some schedules whole, as many at once as are told at once; those that are gone are left out. @throws ProblemError */
export async function wholeSchedules(
  ids: readonly string[],
  onSome: (asked: readonly string[], schedules: readonly WholeSchedule[]) => void = () => undefined,
): Promise<WholeSchedule[]> {
  const all: WholeSchedule[] = [];
  for (let at = 0; at < ids.length; at += MOST_WHOLE) {
    const asked = ids.slice(at, at + MOST_WHOLE);
    const { schedules } = await ask(scheduleAddresses.whole, { body: { ids: asked } });
    all.push(...schedules);
    onSome(asked, schedules);
  }
  return all;
}

interface WholeOptions {
  /** The first so many of those that fit. */
  readonly most?: number;
  /** Wanted as well, whether they fit or not. */
  readonly also?: readonly string[];
}

const NO_IDS: readonly string[] = [];

/** Those that fit, whole; null fits nothing. What is here already is not fetched again until it changes. */
export function useWholeSchedules(
  filter: ScheduleFilter | null,
  { most = Number.POSITIVE_INFINITY, also = NO_IDS }: WholeOptions = {},
) {
  const [known, setKnown] = useState<ReadonlyMap<string, WholeSchedule | null>>(new Map());
  const [failed, setFailed] = useState<ProblemError | undefined>(undefined);
  const [tries, setTries] = useState(0);
  const { data, error, mutate } = useFitting(filter);
  const ids = useMemo(() => data?.ids.slice(0, most), [data, most]);
  const latest = useRef(known);
  latest.current = known;
  const wanted = also.join(' ');
  // biome-ignore lint/correctness/useExhaustiveDependencies: tried again when it is asked for
  useEffect(() => {
    if (!data || !ids) return;
    let isOld = false;
    const fitting = new Map(ids.map((id, i) => [id, data.versions[i]]));
    const missing = [...new Set([...ids, ...wanted.split(' ').filter(Boolean)])].filter((id) => {
      const one = latest.current.get(id);
      return fitting.has(id) ? one?.version !== fitting.get(id) : one === undefined;
    });
    const keep = (asked: readonly string[], some: readonly WholeSchedule[]) => {
      if (isOld) return;
      const here = new Map(some.map((one) => [one.id, one]));
      setKnown((was) => new Map([...was, ...asked.map((id) => [id, here.get(id) ?? null] as const)]));
    };
    wholeSchedules(missing, keep).then(
      () => {
        if (!isOld) setFailed(undefined);
      },
      (problem: unknown) => {
        if (!(problem instanceof ProblemError)) throw problem;
        if (!isOld) setFailed(problem);
      },
    );
    return () => {
      isOld = true;
    };
  }, [data, ids, wanted, tries]);
  const schedules = useMemo(() => ids?.flatMap((id) => known.get(id) ?? []), [ids, known]);
  return {
    /** Those that fit and are here so far, in their order. */
    schedules,
    /** Of all that was ever wanted: null for what is gone. */
    known,
    count: ids?.length ?? 0,
    isAll: data?.isAll ?? true,
    error: failed ?? error,
    retry: () => {
      void mutate();
      setTries((n) => n + 1);
    },
  };
}

export function useSchedule(scheduleId: string | null) {
  return useAnswer(scheduleAddresses.one, scheduleId === null ? null : { params: { scheduleId } });
}

export function useLastRun() {
  return useAnswer(runAddresses.last, {});
}

type Saved = Answer<typeof scheduleAddresses.create>;

export function useScheduleActions() {
  const refresh = useRefresh();
  const keep = async (asked: Promise<Saved>, said: (saved: Saved) => string): Promise<Schedule> => {
    const saved = await asked;
    sayDone(said(saved), saved.changeId);
    // Not waited for: whoever has saved may be on the way to another page already.
    void refresh('/schedules', '/tideline', '/templates', '/people/');
    return saved.schedule;
  };
  return {
    /** @throws ProblemError when it is refused */
    impact: (input: ScheduleInput & { version: number }, scheduleId: string, reach: Reach) =>
      ask(scheduleAddresses.impact, { params: { scheduleId }, body: { ...input, reach } }),
    /** @throws ProblemError when it is refused */
    save: (input: ScheduleInput & { version: number }, scheduleId: string | null, reach?: Reach) =>
      scheduleId === null
        ? keep(
            ask(scheduleAddresses.create, { body: input }),
            ({ schedule, tasks }) => `“${schedule.template.name}” is scheduled. ${saySync(tasks)}`,
          )
        : keep(
            ask(scheduleAddresses.change, { params: { scheduleId }, body: { ...input, ...(reach ? { reach } : {}) } }),
            ({ tasks }) => `Saved. ${saySync(tasks)}`,
          ),
    /** @throws ProblemError when it is refused */
    impactOfSeveral: (changes: readonly SchedulePatch[], reach: Reach) =>
      ask(scheduleAddresses.impactOfSeveral, { body: { changes: [...changes], reach } }),
    /** @throws ProblemError when it is refused */
    async saveSeveral(changes: readonly SchedulePatch[], said: string, reach?: Reach): Promise<void> {
      const { tasks, changeId } = await ask(scheduleAddresses.changeSeveral, {
        body: { changes: [...changes], ...(reach ? { reach } : {}) },
      });
      sayDone(`${said} ${saySync(tasks)}`, changeId);
      void refresh('/schedules', '/tideline', '/templates', '/people/');
    },
    async runNow(): Promise<void> {
      try {
        const { run } = await ask(runAddresses.runNow);
        await refresh('/schedules', '/tideline', '/people/', '/runs');
        const problems = run.problemCount > 0 ? ` ${plural(run.problemCount, 'schedule')} could not be planned.` : '';
        sayDone(
          `${run.made === 0 ? 'Nothing was missing' : `Made ${plural(run.made, 'task')}`}; ${plural(run.already, 'was there already', 'were there already')}.${problems}`,
        );
      } catch (error) {
        sayTrouble(error);
      }
    },
  };
}

/** What a save did to tasks, in a sentence. */
export function saySync({ made, changed, removed, kept }: Sync): string {
  const parts = [
    made > 0 && `${plural(made, 'task')} made`,
    changed > 0 && `${changed} changed`,
    removed > 0 && `${removed} taken back`,
    kept > 0 && `${kept} left alone as ${kept === 1 ? 'it shows' : 'they show'} already`,
  ].filter((part): part is string => part !== false);
  return parts.length > 0 ? `${parts.join(', ')}.` : 'No task changes for now.';
}
