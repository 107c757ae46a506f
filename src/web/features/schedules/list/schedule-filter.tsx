import { useEffect, useMemo, useState } from 'react';
import type { Schedule } from '../../../../contract/index.ts';
import { isDated, isoOfDay, sayDay, shownDays, tryDayOfIso, type WorkingCalendar } from '../../../../core/index.ts';
import { type TideControl, useTide } from '../../../app/shell/shell-context.ts';
import type { DaySpan } from '../../../app/shell/tide-words.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../../kit/address-filter.ts';

const STATES = [
  ['', 'in any state'],
  ['running', 'running'],
  ['paused', 'paused'],
  ['late', 'with late work'],
  ['nobody', 'with nobody'],
  ['ended', 'ended'],
  ['problem', 'with a problem'],
] as const;
const ORDERS = [
  ['next', 'by next date'],
  ['name', 'by name'],
  ['who', 'by person'],
] as const;

/** What is shown, and in which order: kept in the address, so that it can be linked and reloaded. */
export function useScheduleFilter(schedules: readonly Schedule[]) {
  const { search, set, clear } = useAddressFilter();
  const { today, workingCalendar, people, categories } = useWorkspace();
  const state = search.get('state') ?? '';
  const category = search.get('category') ?? '';
  const person = search.get('person') ?? '';
  const order = search.get('order') ?? 'next';
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
  const shown = useMemo(() => {
    const kept = schedules.filter(
      (schedule) =>
        inState(schedule, state) &&
        (category === '' || schedule.template.category === category) &&
        (person === '' || schedule.assignee?.id === person) &&
        hasWords(schedule, words) &&
        (span === null || fallsWithin(schedule, span, workingCalendar)),
    );
    return kept.sort(orderOf(order));
  }, [schedules, state, category, person, order, words, span, workingCalendar]);
  const spanWords =
    span &&
    (span.from === span.to
      ? `on ${sayDay(span.from, today)}`
      : `from ${sayDay(span.from, today)} to ${sayDay(span.to, today)}`);
  const inWords = [
    words && `called “${words}”`,
    category,
    STATES.find(([key]) => key === state && key !== '')?.[1],
    person && `of ${people.find(({ id }) => id === person)?.name ?? 'that person'}`,
    spanWords,
  ]
    .filter(Boolean)
    .join(', ');
  return {
    shown,
    /** As it stands in the address. */
    search: search.toString(),
    values: { state, category, person, order, find: words },
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

function inState(schedule: Schedule, state: string): boolean {
  if (state === '') return true;
  if (state === 'late') return schedule.lateCount > 0;
  if (state === 'nobody') return schedule.assignee === null;
  return schedule.state === state;
}

function hasWords(schedule: Schedule, words: string): boolean {
  const text = [
    schedule.template.name,
    schedule.client?.name,
    schedule.asset?.name,
    schedule.phrase,
    schedule.assignee?.name,
  ]
    .join(' ')
    .toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

function fallsWithin(schedule: Schedule, { from, to }: DaySpan, calendar: WorkingCalendar): boolean {
  return schedule.state !== 'problem' && shownDays(schedule, calendar, from, to).some(isDated);
}

function orderOf(order: string): (a: Schedule, b: Schedule) => number {
  const name = (a: Schedule, b: Schedule) =>
    a.template.name.localeCompare(b.template.name) || (a.asset?.name ?? '').localeCompare(b.asset?.name ?? '');
  if (order === 'name') return name;
  if (order === 'who') return (a, b) => (a.assignee?.name ?? '').localeCompare(b.assignee?.name ?? '') || name(a, b);
  return (a, b) => (a.next ?? '9999').localeCompare(b.next ?? '9999') || name(a, b);
}

/** What is shown, as words in a line. */
export function FilterWords({ filter }: { readonly filter: ReturnType<typeof useScheduleFilter> }) {
  const { values, set } = filter;
  const [words, setWords] = useState(values.find);
  useEffect(() => setWords(values.find), [values.find]);
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 text-[14px] text-ink-2">
      <input
        className="filter-word !w-[92px] !cursor-text !text-ink placeholder:text-ink-2"
        type="search"
        aria-label="Find schedules"
        placeholder="any words"
        value={words}
        onChange={({ target }) => {
          setWords(target.value);
          set({ find: target.value });
        }}
      />
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
            className="filter-word !border-accent"
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

interface FilterChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [string, string])[];
  readonly onChange: (value: string) => void;
}

function FilterChoice({ label, value, options, onChange }: FilterChoiceProps) {
  return (
    <select className="filter-word" aria-label={label} value={value} onChange={({ target }) => onChange(target.value)}>
      {options.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </select>
  );
}
