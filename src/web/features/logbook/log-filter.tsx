import { useMemo } from 'react';
import {
  LOG_GROUPINGS,
  LOG_KIND_WORDS,
  LOG_KINDS,
  LOGGED_CHANGES,
  type LogFilter,
  type LogGrouping,
  NONE_OF_THEM,
} from '../../../contract/index.ts';
import { type CivilDay, DAYS_A_WEEK, dayOfIso, isoOfDay, mondayOf, tryDayOfIso } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../kit/address-filter.ts';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { FilterOff } from '../../kit/filter-off.tsx';
import { FindWords } from '../../kit/find-words.tsx';
import { sayDay } from '../../kit/ways.ts';
import { NarrowBy } from '../task-list/narrow-by.tsx';

/** Times that are looked at: whole weeks up to last Sunday, or this week up to today. */
const SPANS = ['26', '12', '52', '156', 'last', 'now'] as const;
type Span = (typeof SPANS)[number];

function daysOf(span: Span, today: CivilDay): { readonly from: CivilDay; readonly to: CivilDay } {
  const monday = mondayOf(today);
  if (span === 'now') return { from: monday, to: today };
  const weeks = span === 'last' ? 1 : Number(span);
  return { from: monday - weeks * DAYS_A_WEEK, to: monday - 1 };
}

function sayDays(span: Span, today: CivilDay): string {
  const { to } = daysOf(span, today);
  if (span === 'now') return 'this week so far';
  if (span === 'last') return 'last week';
  if (span === '156') return `3 years to ${sayDay(to, today)}`;
  return `${span} weeks to ${sayDay(to, today)}`;
}

const BY_WORDS: Readonly<Record<LogGrouping | 'day' | 'reading', string>> = {
  day: 'day by day',
  schedule: 'by schedule',
  client: 'by client',
  asset: 'by asset',
  person: 'by person',
  template: 'by template',
  category: 'by category',
  reading: 'readings over time',
};
const BYS = ['day', ...LOG_GROUPINGS, 'reading'] as const;

const CHANGE_WORDS: Readonly<Record<(typeof LOGGED_CHANGES)[number], string>> = {
  deleted: 'deleted',
  given: 'given to another',
  announced: 'announced',
};

/** What one row of figures stands for, in the address. */
const OPENS: Readonly<Record<LogGrouping, string>> = {
  schedule: 'schedule',
  client: 'client',
  asset: 'asset',
  person: 'person',
  template: 'template',
  category: 'category',
};
/** What the address may narrow it down to by an id, told by its name. */
const NARROW = ['client', 'asset', 'site', 'template', 'schedule'] as const;
const NARROW_BY = [...NARROW, 'workType'] as const;

const oneOf = <One extends string>(all: readonly One[], value: string | null): One | undefined =>
  all.find((one) => one === value);

/** What is looked at, kept in the address so that it can be linked and reloaded. */
export function useLogFilter() {
  const { search, set, clear } = useAddressFilter();
  const { today } = useWorkspace();
  const span = oneOf(SPANS, search.get('span')) ?? '26';
  const kind = oneOf(LOG_KINDS, search.get('kind')) ?? 'all';
  /** What was done with tasks is told instead of how they ended. */
  const changes = oneOf(LOGGED_CHANGES, search.get('kind')) ?? null;
  const by = oneOf(BYS, search.get('by')) ?? 'day';
  const week = tryDayOfIso(search.get('week') ?? '');
  const asked = search.toString();
  const filter = useMemo<LogFilter>(() => {
    const of = new URLSearchParams(asked);
    const { from, to } = daysOf(span, today);
    const words = of.get('find')?.trim();
    const texts = Object.fromEntries(
      ['category', 'person', 'role', 'team', ...NARROW_BY].flatMap((name) => {
        const value = of.get(name);
        return value === null ? [] : [[name, value]];
      }),
    );
    return { ...texts, ...(words ? { find: words } : {}), kind, from: isoOfDay(from), to: isoOfDay(to) };
  }, [asked, span, kind, today]);
  /** The same of the week that is chosen alone. */
  const shown = useMemo<LogFilter>(() => {
    if (week === null) return filter;
    const [from, to] = [
      Math.max(week, dayOfIso(filter.from)),
      Math.min(week + DAYS_A_WEEK - 1, dayOfIso(filter.to)),
    ] as const;
    return from > to ? filter : { ...filter, from: isoOfDay(from), to: isoOfDay(to) };
  }, [filter, week]);
  return {
    ...{ filter, shown, span, kind, changes, by, week, set, clear },
    find: search.get('find') ?? '',
    category: search.get('category') ?? '',
    person: search.get('person') ?? '',
    workType: search.get('workType') ?? '',
    narrowed: NARROW.flatMap((name) => {
      const value = search.get(name);
      return value === null ? [] : [{ name, isNone: value === NONE_OF_THEM }];
    }),
    /** Whether it is of one thing alone, of which there is a record. */
    isOfOne: NARROW.filter((name) => (search.get(name) ?? NONE_OF_THEM) !== NONE_OF_THEM).length === 1,
    /** Looks at one row of the figures alone, day by day. */
    open: (of: LogGrouping, key: string) => set({ [OPENS[of]]: key === '' ? NONE_OF_THEM : key, by: '', week: '' }),
  };
}
export type LogView = ReturnType<typeof useLogFilter>;

/** What is looked at, as words in a line. @param names of what it is narrowed down to; undefined until they are known */
export function LogWords({
  view,
  names,
}: {
  readonly view: LogView;
  readonly names: Readonly<Record<string, string>>;
}) {
  const { today, categories, people } = useWorkspace();
  const { set } = view;
  return (
    <div className="flex min-w-0 flex-1 flex-wrap items-center gap-x-2 gap-y-1 text-row text-ink-2 max-[720px]:basis-full">
      <FindWords label="Find entries" value={view.find} onChange={(find) => set({ find, week: '' })} />·
      <FilterChoice
        label="Time"
        value={view.span}
        onChange={(span) => set({ span: span === '26' ? '' : span, week: '' })}
        options={SPANS.map((span) => [span, sayDays(span, today)] as const)}
      />
      ·
      <FilterChoice
        label="What"
        value={view.changes ?? view.kind}
        onChange={(kind) => set({ kind: kind === 'all' ? '' : kind })}
        options={[
          ...LOG_KINDS.map((kind) => [kind, LOG_KIND_WORDS[kind]] as const),
          ...LOGGED_CHANGES.map((what) => [what, CHANGE_WORDS[what]] as const),
        ]}
      />
      ·
      <FilterChoice
        label="Category"
        value={view.category}
        onChange={(category) => set({ category })}
        options={[['', 'every category'], ...categories.map(({ name }) => [name, name] as const)]}
      />
      ·
      <FilterChoice
        label="Who"
        value={view.person}
        onChange={(person) => set({ person })}
        options={[['', 'any person'], ['none', 'nobody'], ...people.map(({ id, name }) => [id, name] as const)]}
      />
      {/* What was done with tasks stands in the order in which it was done. */}
      {view.changes === null && (
        <>
          ·
          <FilterChoice
            label="Shown"
            value={view.by}
            onChange={(by) => set({ by: by === 'day' ? '' : by })}
            options={BYS.map((by) => [by, BY_WORDS[by]] as const)}
          />
        </>
      )}
      {view.narrowed.map(({ name, isNone }) => (
        <FilterOff key={name} words={isNone ? `no ${name}` : (names[name] ?? '…')} onOff={() => set({ [name]: '' })} />
      ))}
      {view.workType && <FilterOff words={view.workType} onOff={() => set({ workType: '' })} />}
      ·
      <NarrowBy by={NARROW_BY} onChoose={(values) => set({ ...values, week: '' })} />
    </div>
  );
}
