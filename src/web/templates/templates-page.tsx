import { useMemo } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Template } from '../../contract/index.ts';
import { dayOfIso, plural, sayDuration } from '../../core/index.ts';
import { useKeys } from '../shell/keys.tsx';
import { useWorkspace } from '../shell/workspace.tsx';
import { useAddressFilter } from '../ui/address-filter.ts';
import { moveThroughRows } from '../ui/arrow-rows.ts';
import { DateBlock } from '../ui/date-block.tsx';
import { Empty, Skeleton, Trouble } from '../ui/states.tsx';
import { Tag } from '../ui/tag.tsx';
import { useTemplates } from './api.ts';

/** The library of templates. */
export default function TemplatesPage() {
  const { me, categories } = useWorkspace();
  const navigate = useNavigate();
  const { search, set, clear } = useAddressFilter();
  const { templates, error, retry } = useTemplates();
  const category = search.get('category') ?? '';
  const words = search.get('find') ?? '';
  const newTemplate = () => void navigate('/templates/new');
  useKeys(me.isManager ? [{ key: 'n', says: 'New template', run: newTemplate }] : []);
  const shown = useMemo(
    () =>
      (templates ?? []).filter(
        (template) => (category === '' || template.category === category) && hasWords(template, words),
      ),
    [templates, category, words],
  );
  return (
    <>
      <title>Templates · Jolly Rota</title>
      <div className="page-head flex-wrap">
        <h1>Templates</h1>
        {templates && templates.length > 0 && (
          <div className="flex items-center gap-2 text-[14px] text-ink-2">
            <input
              className="filter-word !w-[92px] !cursor-text placeholder:text-ink-2"
              type="search"
              aria-label="Find templates"
              placeholder="any words"
              value={words}
              onChange={({ target }) => set({ find: target.value })}
            />
            ·
            <select
              className="filter-word"
              aria-label="Category"
              value={category}
              onChange={({ target }) => set({ category: target.value })}
            >
              <option value="">every category</option>
              {categories.map(({ name }) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          </div>
        )}
        <span className="ml-auto text-[14px] text-ink-2">
          {templates &&
            (templates.length === 0
              ? 'none yet'
              : shown.length === templates.length
                ? plural(shown.length, 'template')
                : `${shown.length} of ${templates.length}`)}
        </span>
        {me.isManager && (
          <button type="button" className="btn btn-primary" onClick={newTemplate}>
            New template
          </button>
        )}
      </div>
      {error && !templates && <Trouble error={error} retry={retry} />}
      {!error && !templates && <Skeleton rows={14} />}
      {templates?.length === 0 && <NoTemplates isManager={me.isManager} />}
      {templates && templates.length > 0 && shown.length === 0 && (
        <Empty title="No template fits.">
          <button type="button" className="link-line" onClick={clear}>
            Show all {templates.length}
          </button>
        </Empty>
      )}
      {shown.length > 0 && <TemplateTable templates={shown} />}
    </>
  );
}

function hasWords({ name, category, instructions }: Template, words: string): boolean {
  const text = `${name} ${category ?? ''} ${instructions}`.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

function NoTemplates({ isManager }: { readonly isManager: boolean }) {
  return (
    <div className="border-t border-line-2">
      <Empty title="A template says what is to be done: once, and the same way each time.">
        Its title is filled in with the date and the client of each task; its instructions and check lines go along with
        every one.
        {isManager ? (
          <p className="mt-4">
            <Link className="btn btn-primary" to="/templates/new">
              Write the first template
            </Link>
          </p>
        ) : (
          <p className="mt-3 text-ink-2">A manager of yours writes the first one.</p>
        )}
      </Empty>
    </div>
  );
}

function TemplateTable({ templates }: { readonly templates: readonly Template[] }) {
  return (
    <div className="min-h-0 flex-1 overflow-auto border-t border-line-2">
      <table className="tt min-w-[900px]" onKeyDown={moveThroughRows}>
        <colgroup>
          <col />
          <col style={{ width: '26%' }} />
          <col style={{ width: 130 }} />
          <col style={{ width: 90 }} />
          <col style={{ width: 90 }} />
          <col style={{ width: 130 }} />
          <col style={{ width: 150 }} />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">template</th>
            <th scope="col">title of its tasks</th>
            <th scope="col">category</th>
            <th scope="col" className="num">
              steps
            </th>
            <th scope="col" className="num">
              estimate
            </th>
            <th scope="col" className="num">
              used by
            </th>
            <th scope="col">next</th>
          </tr>
        </thead>
        <tbody>
          {templates.map((template) => (
            <Row key={template.id} template={template} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Row({ template }: { readonly template: Template }) {
  const navigate = useNavigate();
  const address = `/templates/${template.id}`;
  return (
    // The link in the first cell is what the keyboard uses; the row is only a larger target.
    <tr onClick={() => void navigate(address)}>
      <td>
        <Link to={address} data-row className="text-[15px] font-semibold" onClick={(event) => event.stopPropagation()}>
          {template.name}
        </Link>
      </td>
      <td className="font-mono !text-[13px] text-ink-2">{template.titlePattern}</td>
      <td>
        <Tag category={template.category} />
      </td>
      <td className="num">{template.checkLines.length || ''}</td>
      <td className="num">{sayDuration(template.estimateMinutes)}</td>
      <td className="num">
        {template.scheduleCount === 0 ? (
          <span className="text-ink-2">nothing yet</span>
        ) : (
          plural(template.scheduleCount, 'schedule')
        )}
      </td>
      <td className="date">{template.nextOn && <DateBlock day={dayOfIso(template.nextOn)} />}</td>
    </tr>
  );
}
