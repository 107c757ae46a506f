import { useDeferredValue, useMemo } from 'react';
import { Link, useNavigate } from 'react-router';
import { plural } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../kit/address-filter.ts';
import { FilterChoice } from '../../kit/filter-choice.tsx';
import { Empty, Skeleton, Trouble } from '../../kit/states.tsx';
import { ListWays } from '../bring-in/list-ways.tsx';
import { useTemplates } from './api.ts';
import { DeletedTemplates } from './deleted-templates.tsx';
import { ordered, SORTS, type SortKey, type TemplateFilter } from './template-order.ts';
import { TemplateTable } from './template-table.tsx';

/** The library of templates. */
export default function TemplatesPage() {
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const { search, set, clear } = useAddressFilter();
  const { templates, error, retry } = useTemplates();
  const filter = useMemo(() => filterOf(search), [search]);
  // The field answers at once; two thousand lines follow as soon as there is time.
  const calm = useDeferredValue(filter);
  const newTemplate = () => void navigate('/templates/new');
  useKeys(may('plan') ? [{ key: 'n', says: 'New template', run: newTemplate }] : []);
  const shown = useMemo(() => ordered(templates ?? [], calm), [templates, calm]);
  const favourites = templates?.filter(({ isFavourite }) => isFavourite).length ?? 0;
  const archived = templates?.filter(({ archivedOn }) => archivedOn !== null).length ?? 0;
  const inUse = (templates?.length ?? 0) - archived;
  return (
    <>
      <title>Templates · Jolly Rota</title>
      <div className="page-head flex-wrap">
        <h1>Templates</h1>
        {templates && templates.length > 0 && <Filters filter={filter} hasArchived={archived > 0} set={set} />}
        <span className="ml-auto text-row text-ink-2">
          {templates &&
            (templates.length === 0
              ? 'none yet'
              : shown.length === inUse && filter.archived === ''
                ? `${plural(inUse, 'template')}${favourites > 0 ? `, ${plural(favourites, 'favourite')}` : ''}`
                : `${shown.length} of ${templates.length}`)}
        </span>
        {may('plan') && inUse > 0 && <ListWays list="templates" bring="templates" />}
        {may('plan') && (
          <button type="button" className="btn btn-primary" onClick={newTemplate}>
            New template
          </button>
        )}
      </div>
      {error && !templates && <Trouble error={error} retry={retry} />}
      {!error && !templates && <Skeleton rows={14} />}
      {templates?.length === 0 && <NoTemplates mayPlan={may('plan')} />}
      {templates && templates.length > 0 && shown.length === 0 && (
        <Empty title="No template fits.">
          <button type="button" className="link-line" onClick={clear}>
            Show all {inUse}
          </button>
        </Empty>
      )}
      {shown.length > 0 && (
        <TemplateTable
          templates={shown}
          sort={filter.sort}
          onSort={(sort) => set({ sort: sort === 'name' ? '' : sort })}
        />
      )}
      {may('plan') && <DeletedTemplates />}
    </>
  );
}

function filterOf(search: URLSearchParams): TemplateFilter {
  const oneOf = <T extends string>(name: string, values: readonly T[], otherwise: T): T =>
    values.find((value) => value === search.get(name)) ?? otherwise;
  return {
    category: search.get('category') ?? '',
    use: oneOf('use', ['schedule', 'hand'] as const, '' as never) || '',
    archived: oneOf('archived', ['yes', 'all'] as const, '' as never) || '',
    words: search.get('find') ?? '',
    sort: oneOf<SortKey>(
      'sort',
      SORTS.map(([key]) => key),
      'name',
    ),
    favouritesFirst: search.get('first') !== 'no',
  };
}

interface FiltersProps {
  readonly filter: TemplateFilter;
  readonly hasArchived: boolean;
  readonly set: (values: Readonly<Record<string, string>>) => void;
}

function Filters({ filter, hasArchived, set }: FiltersProps) {
  const { categories } = useWorkspace();
  const word = (label: string, name: string, value: string, options: readonly (readonly [string, string])[]) => (
    <FilterChoice label={label} value={value} options={options} onChange={(chosen) => set({ [name]: chosen })} />
  );
  return (
    <div className="flex flex-wrap items-center gap-2 text-row text-ink-2">
      <input
        className="filter-word w-[92px] cursor-text placeholder:text-ink-2"
        type="search"
        aria-label="Find templates"
        placeholder="any words"
        value={filter.words}
        onChange={({ target }) => set({ find: target.value })}
      />
      ·
      {word('Category', 'category', filter.category, [
        ['', 'every category'],
        ...categories.map(({ name }) => [name, name] as const),
      ])}
      ·
      {word('What uses it', 'use', filter.use, [
        ['', 'by schedule or by hand'],
        ['schedule', 'by schedule'],
        ['hand', 'by hand'],
      ])}
      {(hasArchived || filter.archived !== '') && (
        <>
          ·
          {word('Archived', 'archived', filter.archived, [
            ['', 'not archived'],
            ['yes', 'archived'],
            ['all', 'archived too'],
          ])}
        </>
      )}
      ·
      {word('Favourites', 'first', filter.favouritesFirst ? '' : 'no', [
        ['', 'favourites first'],
        ['no', 'favourites among the rest'],
      ])}
    </div>
  );
}

function NoTemplates({ mayPlan }: { readonly mayPlan: boolean }) {
  return (
    <div className="border-t border-line-2">
      <Empty title="A template says what is to be done: once, and the same way each time.">
        Its title is filled in with the date and the client of each task; its instructions, steps and proof go along
        with every one.
        {mayPlan ? (
          <p className="mt-4">
            <Link className="btn btn-primary" to="/templates/new">
              Write the first template
            </Link>
          </p>
        ) : (
          <p className="mt-3 text-ink-2">A planner or a manager of yours writes the first one.</p>
        )}
      </Empty>
    </div>
  );
}
