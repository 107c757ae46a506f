import { useMemo } from 'react';
import {
  NONE_OF_THEM,
  type Priority,
  TASK_GROUPINGS,
  TASK_ORDERS,
  TASKS_THAT_ARE,
  type TaskColumn,
  type TaskFilter,
  type TaskGrouping,
  type TaskOrder,
  type TaskView,
} from '../../../contract/index.ts';
import { DUE_SPANS, type DueSpan, isoOfDay, ownOf, tryDayOfIso } from '../../../core/index.ts';
import { type TideControl, useTide } from '../../app/shell/shell-context.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../kit/address-filter.ts';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { FilterOff } from '../../kit/filter-off.tsx';
import { FindWords } from '../../kit/find-words.tsx';
import { sayDay } from '../../kit/ways.ts';
import { WhoFilter } from '../people/who-filter.tsx';
import { columnsNamed, isPlain } from './columns.tsx';
import { MADE_WORDS, NARROWINGS, NarrowBy, OFFERED_WORDS } from './narrow-by.tsx';

type Are = (typeof TASKS_THAT_ARE)[number] | 'any';
const ARE_WORDS: Readonly<Record<Are, string>> = {
  unfinished: 'not done',
  late: 'late',
  open: 'not begun',
  underWay: 'under way',
  heldUp: 'held up',
  toCheck: 'to check',
  done: 'done',
  over: 'skipped or lapsed',
  any: 'in any state',
};
const ARES = [...TASKS_THAT_ARE, 'any'] as const satisfies readonly Are[];

type Due = DueSpan | 'any';
const DUES = [...DUE_SPANS, 'any'] as const satisfies readonly Due[];
const DUE_WORDS: Readonly<Record<Due, string>> = {
  byWeek: 'late or due this week',
  today: 'due today',
  week: 'due this week',
  nextWeek: 'due next week',
  month: 'due within 30 days',
  before: 'due in the last 30 days',
  any: 'due on any day',
};

const GROUP_WORDS: Readonly<Record<TaskGrouping, string>> = {
  client: 'grouped by client',
  asset: 'grouped by asset',
  person: 'grouped by person',
  template: 'grouped by template',
  category: 'grouped by category',
  day: 'grouped by day',
};
const NOT_GROUPED = 'no';
const PRIORITY_WORDS: Readonly<Record<Priority, string>> = {
  urgent: 'urgent',
  high: 'of high priority',
  normal: 'of normal priority',
  low: 'of low priority',
};

/** What is asked for by an id, with the name of it coming with the sums. */
const BY_NAME = ['client', 'asset', 'site', 'template', 'schedule'] as const;
type Named = Readonly<Record<(typeof BY_NAME)[number], { readonly name: string } | null>>;
const NAME_WORDS: Readonly<Record<(typeof BY_NAME)[number], string>> = {
  client: 'for',
  asset: 'for',
  site: 'at',
  template: 'of',
  schedule: 'of the schedule',
};

const ofKind = (name: (typeof BY_NAME)[number]) => (name === 'asset' ? 'an asset' : `a ${name}`);

/** What the address may ask besides, each told by its words. */
const BESIDE = {
  late: { no: 'not late' },
  offered: OFFERED_WORDS,
  made: MADE_WORDS,
} as const satisfies {
  readonly [Name in 'late' | 'offered' | 'made']: Readonly<Record<NonNullable<TaskFilter[Name]>, string>>;
};
const BESIDES = Object.keys(BESIDE) as (keyof typeof BESIDE)[];

const oneOf = <One extends string>(all: readonly One[], value: string | null): One | undefined =>
  all.find((one) => one === value);

/** What is shown, and in which order: kept in the address, so that it can be linked and reloaded. */
export function useTaskFilter() {
  const { search, set, clear } = useAddressFilter();
  const { today, categories } = useWorkspace();
  const are = oneOf(ARES, search.get('are')) ?? 'unfinished';
  const due = oneOf(DUES, search.get('due')) ?? 'byWeek';
  const order: TaskOrder = oneOf(TASK_ORDERS, search.get('order')) ?? 'due';
  const grouping = search.get('by') === NOT_GROUPED ? null : (oneOf(TASK_GROUPINGS, search.get('by')) ?? 'client');
  const named = search.get('columns');
  const columns = useMemo(() => columnsNamed(named), [named]);
  const [from, to] = [tryDayOfIso(search.get('from') ?? ''), tryDayOfIso(search.get('to') ?? '')];
  const span = useMemo(() => (from === null || to === null || to < from ? null : { from, to }), [from, to]);
  const tide = useMemo<TideControl>(
    () => ({
      chosen: span,
      spans: true,
      onChoose: (days) => {
        // The same day once more shows what was shown before.
        const same = span !== null && span.from === days.from && span.to === days.to && days.from === days.to;
        set(same ? { from: '', to: '' } : { from: isoOfDay(days.from), to: isoOfDay(days.to) });
      },
    }),
    [span, set],
  );
  useTide(tide);
  const asked = search.toString();
  const filter = useMemo<TaskFilter>(() => {
    const of = new URLSearchParams(asked);
    const words = of.get('find')?.trim();
    const texts = Object.fromEntries(
      ['category', 'priority', 'person', 'role', 'team', 'workType', ...BESIDES, ...BY_NAME].flatMap((name) => {
        const value = of.get(name);
        return value === null ? [] : [[name, value]];
      }),
    );
    return {
      ...texts,
      ...(are === 'any' ? {} : { are }),
      ...(span ? { from: isoOfDay(span.from), to: isoOfDay(span.to) } : due === 'any' ? {} : { due }),
      ...(words ? { find: words } : {}),
    };
  }, [asked, are, due, span]);
  const spanWords =
    span &&
    (span.from === span.to
      ? `due ${sayDay(span.from, today)}`
      : `due from ${sayDay(span.from, today)} to ${sayDay(span.to, today)}`);
  return {
    filter,
    /** The kept view that it was opened as; changed since, perhaps. */
    viewId: search.get('view'),
    /** Shows another question, as an address says it. */
    show: (address: string) => {
      const all = new URLSearchParams(address);
      set(Object.fromEntries(ADDRESS.map((name) => [name, all.get(name) ?? ''])));
    },
    grouping,
    order,
    columns,
    setColumns: (chosen: readonly TaskColumn[]) => set({ columns: isPlain(chosen) ? '' : chosen.join() }),
    values: {
      are,
      due,
      find: search.get('find') ?? '',
      category: search.get('category') ?? '',
      priority: search.get('priority') ?? '',
      who: {
        person: search.get('person') ?? '',
        role: search.get('role') ?? '',
        team: search.get('team') ?? '',
      },
      by: grouping ?? NOT_GROUPED,
    },
    byName: BY_NAME.filter((name) => search.get(name)),
    none: BY_NAME.filter((name) => search.get(name) === NONE_OF_THEM),
    beside: ([...BESIDES, 'workType'] as const).flatMap((name) => {
      const value = search.get(name);
      if (value === null) return [];
      return [{ name, words: name === 'workType' ? value : (ownOf<string>(BESIDE[name], value) ?? value) }];
    }),
    categories: categories.map(({ name }) => name),
    set,
    clear,
    spanWords,
  };
}

/** All that the address may say, in its order. */
const ADDRESS = [
  ...['find', 'due', 'from', 'to', 'are', 'category', 'person', 'role', 'team', 'priority'],
  ...BY_NAME,
  ...BESIDES,
  ...['workType', 'by', 'order', 'columns', 'view'],
] as const;

/** A kept view as the address of it. */
export function searchOfView({
  id,
  filter,
  by,
  order,
  columns,
}: Pick<TaskView, 'id' | 'filter' | 'by' | 'order' | 'columns'>): string {
  const { are = 'any', due, from, to, ...rest } = filter;
  const all: Readonly<Partial<Record<string, string>>> = {
    ...rest,
    ...{ are: are === 'unfinished' ? '' : are, due: due === 'byWeek' ? '' : (due ?? (from && to ? '' : 'any')) },
    ...{ from: from ?? '', to: to ?? '', by: by === 'client' ? '' : (by ?? NOT_GROUPED) },
    ...{ order: order === 'due' ? '' : order, columns: columns?.join() ?? '', view: id },
  };
  const said = ADDRESS.flatMap((name) => (all[name] ? [[name, all[name]] as [string, string]] : []));
  return new URLSearchParams(said).toString();
}

export type TaskFilterView = ReturnType<typeof useTaskFilter>;

interface FilterWordsProps {
  readonly view: TaskFilterView;
  /** Of what is asked for by its id; undefined until they are known. */
  readonly names: Named | undefined;
}

/** What is shown, as words in a line. */
export function FilterWords({ view, names }: FilterWordsProps) {
  const { values, set } = view;
  return (
    <div className="flex min-w-0 flex-1 flex-wrap items-center gap-x-2 gap-y-1 text-row text-ink-2 max-[720px]:basis-full">
      <FindWords label="Find tasks" value={values.find} onChange={(find) => set({ find })} />·
      {view.spanWords ? (
        <FilterOff words={view.spanWords} then="show other days" onOff={() => set({ from: '', to: '' })} />
      ) : (
        <FilterChoice
          label="Due"
          value={values.due}
          onChange={(due) => set({ due: due === 'byWeek' ? '' : due })}
          options={DUES.map((due) => [due, DUE_WORDS[due]] as const)}
        />
      )}
      ·
      <FilterChoice
        label="State"
        value={values.are}
        onChange={(are) => set({ are: are === 'unfinished' ? '' : are })}
        options={ARES.map((are) => [are, ARE_WORDS[are]] as const)}
      />
      ·
      <FilterChoice
        label="Category"
        value={values.category}
        onChange={(category) => set({ category })}
        options={[['', 'every category'], ...view.categories.map((name) => [name, name] as const)]}
      />
      ·
      <WhoFilter asked={values.who} nobody={NONE_OF_THEM} onChange={set} />
      ·
      <FilterChoice
        label="Priority"
        value={values.priority}
        onChange={(priority) => set({ priority })}
        options={[['', 'any priority'], ...Object.entries(PRIORITY_WORDS)]}
      />
      ·
      <FilterChoice
        label="Grouping"
        value={values.by}
        onChange={(by) => set({ by: by === 'client' ? '' : by })}
        options={[...TASK_GROUPINGS.map((by) => [by, GROUP_WORDS[by]] as const), [NOT_GROUPED, 'not grouped'] as const]}
      />
      {view.beside.map(({ name, words }) => (
        <FilterOff key={name} words={words} onOff={() => set({ [name]: '' })} />
      ))}
      {view.byName.map((name) => (
        <FilterOff
          key={name}
          words={
            view.none.includes(name)
              ? `without ${ofKind(name)}`
              : `${NAME_WORDS[name]} ${names === undefined ? '…' : (names[name]?.name ?? 'what is not there')}`
          }
          onOff={() => set({ [name]: '' })}
        />
      ))}
      ·
      <NarrowBy by={NARROWINGS} onChoose={set} />
    </div>
  );
}
