import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useMemo } from 'react';
import { WALL_ROWS, type WallRows } from '../../../contract/index.ts';
import { isoOfDay, tryDayOfIso, WALL_SPANS, WALL_UNITS, type WallDays, wallTurned } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../kit/address-filter.ts';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { FilterOff } from '../../kit/filter-off.tsx';
import { FindWords } from '../../kit/find-words.tsx';
import { sayMonth } from '../../kit/ways.ts';
import { WhoFilter } from '../people/who-filter.tsx';
import { NarrowBy } from '../task-list/narrow-by.tsx';
import type { AskedChart, Chart } from './api.ts';
import { ROW_WORDS, SPAN_WORDS, UNIT_WORDS } from './wall-words.ts';

/** What is asked for by an id, with the name of it coming with the chart. */
const BY_NAME = ['client', 'site', 'template'] as const;
const NAME_WORDS = { client: 'for', site: 'at', template: 'of' } as const;

const oneOf = <One extends string>(all: readonly One[], value: string | null, otherwise: One): One =>
  all.find((one) => one === value) ?? otherwise;

/** What is shown: kept in the address, so that it can be linked and reloaded. */
export function useWallFilter() {
  const { search, set } = useAddressFilter();
  const address = search.toString();
  const asked = useMemo<AskedChart>(() => {
    const of = new URLSearchParams(address);
    const texts = Object.fromEntries(
      ['find', 'category', 'person', 'role', 'team', ...BY_NAME].flatMap((name) => {
        const value = of.get(name)?.trim();
        return value ? [[name, value]] : [];
      }),
    );
    const from = of.get('from');
    return {
      ...texts,
      rows: oneOf(WALL_ROWS, of.get('rows'), 'asset'),
      span: oneOf(WALL_SPANS, of.get('span'), 'year'),
      by: oneOf(WALL_UNITS, of.get('by'), 'week'),
      ...(from !== null && tryDayOfIso(from) !== null ? { from } : {}),
      ...(of.get('empty') === 'yes' ? { empty: 'yes' as const } : {}),
    };
  }, [address]);
  return { asked, search, set };
}

export type WallView = ReturnType<typeof useWallFilter>;

/** Which rows stand in the columns, and whose work. */
export function WallWords({ view, names }: { readonly view: WallView; readonly names: Chart['names'] | undefined }) {
  const { asked, set } = view;
  const { categories } = useWorkspace();
  return (
    <div className="flex min-w-0 flex-1 flex-wrap items-center gap-x-2 gap-y-1 text-row text-ink-2 max-[720px]:basis-full">
      <FilterChoice
        label="Rows"
        value={asked.rows}
        options={WALL_ROWS.map((rows) => [rows, ROW_WORDS[rows]] as const)}
        onChange={(rows: WallRows) => set({ rows: rows === 'asset' ? '' : rows, cell: '' })}
      />
      ·
      <FilterChoice
        label="Which rows"
        value={asked.empty ?? 'no'}
        options={[
          ['no', 'with work'],
          ['yes', 'all of them'],
        ]}
        onChange={(empty) => set({ empty: empty === 'yes' ? empty : '' })}
      />
      ·
      <FindWords label="Find rows" value={asked.find ?? ''} onChange={(find) => set({ find })} />·
      <FilterChoice
        label="Category"
        value={asked.category ?? ''}
        options={[['', 'every category'], ...categories.map(({ name }) => [name, name] as const)]}
        onChange={(category) => set({ category })}
      />
      ·
      <WhoFilter asked={asked} onChange={set} />
      ·
      <FilterChoice
        label="Columns"
        value={asked.by}
        options={WALL_UNITS.map((by) => [by, UNIT_WORDS[by]] as const)}
        onChange={(by) => set({ by: by === 'week' ? '' : by, cell: '' })}
      />
      ·
      <FilterChoice
        label="How long"
        value={asked.span}
        options={WALL_SPANS.map((span) => [span, SPAN_WORDS[span]] as const)}
        onChange={(span) => set({ span: span === 'year' ? '' : span, cell: '' })}
      />
      {BY_NAME.filter((name) => asked[name]).map((name) => (
        <FilterOff
          key={name}
          words={`${NAME_WORDS[name]} ${names === undefined ? '…' : (names[name]?.name ?? 'what is not there')}`}
          onOff={() => set({ [name]: '' })}
        />
      ))}
      ·
      <NarrowBy by={BY_NAME} hasNone={false} onChoose={(values) => set({ ...values, cell: '' })} />
    </div>
  );
}

/** From when to when, and the way to earlier and later. */
export function WallTime({ view, days }: { readonly view: WallView; readonly days: WallDays }) {
  const { asked, set } = view;
  const turn = (way: 1 | -1) => set({ from: isoOfDay(wallTurned(asked.span, days, way)), cell: '' });
  const arrow = 'btn btn-text h-7 min-h-7 w-7 min-w-7 p-0';
  return (
    <span className="flex items-center gap-1 whitespace-nowrap">
      <button type="button" className={arrow} aria-label="Earlier" onClick={() => turn(-1)}>
        <ChevronLeft size={16} aria-hidden />
      </button>
      {/* The first week may begin in the month before. */}
      {sayMonth(days.first + days.length - 1)} to {sayMonth(wallTurned(asked.span, days, 1) - 1)}
      <button type="button" className={arrow} aria-label="Later" onClick={() => turn(1)}>
        <ChevronRight size={16} aria-hidden />
      </button>
      {asked.from !== undefined && (
        <button type="button" className="link-line" onClick={() => set({ from: '', cell: '' })}>
          Around today
        </button>
      )}
    </span>
  );
}
