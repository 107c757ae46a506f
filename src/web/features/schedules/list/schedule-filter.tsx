import { useMemo } from 'react';
import { SCHEDULE_ORDERS, SCHEDULE_STATES, type ScheduleFilter } from '../../../../contract/index.ts';
import { isoOfDay, tryDayOfIso } from '../../../../core/index.ts';
import { type TideControl, useTide } from '../../../app/shell/shell-context.ts';
import type { DaySpan } from '../../../app/shell/tide-words.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../../kit/address-filter.ts';
import { FilterChoice } from '../../../kit/filter-choice.tsx';
import { FindWords } from '../../../kit/find-words.tsx';
import { sayDay } from '../../../kit/ways.ts';

const STATE_WORDS: Readonly<Record<(typeof SCHEDULE_STATES)[number], string>> = {
  running: 'running',
  paused: 'paused',
  late: 'with late work',
  nobody: 'with nobody',
  ended: 'ended',
  problem: 'with a problem',
};
const STATES = [['', 'in any state'], ...SCHEDULE_STATES.map((state) => [state, STATE_WORDS[state]] as const)] as const;
const ORDER_WORDS: Readonly<Record<(typeof SCHEDULE_ORDERS)[number], string>> = {
  next: 'by next date',
  name: 'by name',
  who: 'by person',
};
const ORDERS = SCHEDULE_ORDERS.map((order) => [order, ORDER_WORDS[order]] as const);

/** What is shown, and in which order: kept in the address, so that it can be linked and reloaded. */
export function useScheduleFilter() {
  const { search, set, clear } = useAddressFilter();
  const { today, people, categories } = useWorkspace();
  const state = SCHEDULE_STATES.find((one) => one === search.get('state'));
  const order = SCHEDULE_ORDERS.find((one) => one === search.get('order')) ?? 'next';
  const category = search.get('category') ?? '';
  const person = people.find(({ id }) => id === search.get('person'));
  const words = search.get('find') ?? '';
  const span = useMemo(() => spanFrom(search), [search]);
  const tide = useMemo<TideControl>(
    () => ({
      chosen: span,
      spans: true,
      onChoose: ({ from, to }) => {
        // The same day once more shows all days again.
        const same = span !== null && span.from === from && span.to === to && from === to;
        set(same ? { from: '', to: '' } : { from: isoOfDay(from), to: isoOfDay(to) });
      },
    }),
    [span, set],
  );
  useTide(tide);
  const filter = useMemo<ScheduleFilter>(
    () => ({
      order,
      ...(state ? { state } : {}),
      ...(category ? { category } : {}),
      ...(person ? { person: person.id } : {}),
      ...(words.trim() ? { find: words } : {}),
      ...(span ? { from: isoOfDay(span.from), to: isoOfDay(span.to) } : {}),
    }),
    [order, state, category, person, words, span],
  );
  const spanWords =
    span &&
    (span.from === span.to
      ? `on ${sayDay(span.from, today)}`
      : `from ${sayDay(span.from, today)} to ${sayDay(span.to, today)}`);
  const inWords = [
    words && `called “${words}”`,
    category,
    state && STATE_WORDS[state],
    person && `of ${person.name}`,
    spanWords,
  ]
    .filter(Boolean)
    .join(', ');
  return {
    filter,
    /** As it stands in the address. */
    search: search.toString(),
    values: { state: state ?? '', category, person: person?.id ?? '', order, find: words },
    categories: categories.map(({ name }) => name),
    people,
    set,
    spanWords,
    inWords,
    clear,
    clearSpan: () => set({ from: '', to: '' }),
  };
}

function spanFrom(search: URLSearchParams): DaySpan | null {
  const from = tryDayOfIso(search.get('from') ?? '');
  const to = tryDayOfIso(search.get('to') ?? '');
  return from === null || to === null || to < from ? null : { from, to };
}

/** What is shown, as words in a line. */
export function FilterWords({ filter }: { readonly filter: ReturnType<typeof useScheduleFilter> }) {
  const { values, set } = filter;
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 text-row text-ink-2">
      <FindWords label="Find schedules" value={values.find} onChange={(find) => set({ find })} />
      ·
      <FilterChoice
        label="Category"
        value={values.category}
        onChange={(value) => set({ category: value })}
        options={[['', 'every category'], ...filter.categories.map((name) => [name, name] as const)]}
      />
      ·
      <FilterChoice label="State" value={values.state} onChange={(value) => set({ state: value })} options={STATES} />
      ·
      <FilterChoice
        label="Person"
        value={values.person}
        onChange={(value) => set({ person: value })}
        options={[['', 'any person'], ...filter.people.map(({ id, name }) => [id, name] as const)]}
      />
      ·
      <FilterChoice
        label="Order"
        value={values.order}
        onChange={(value) => set({ order: value === 'next' ? '' : value })}
        options={ORDERS}
      />
      {filter.spanWords && (
        <>
          ·
          <button
            type="button"
            className="filter-word border-accent"
            onClick={filter.clearSpan}
            aria-label={`${filter.spanWords}: show all days`}
          >
            {filter.spanWords} ×
          </button>
        </>
      )}
    </div>
  );
}
