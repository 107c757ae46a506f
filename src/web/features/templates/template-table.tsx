import { Star } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import type { TemplateLine } from '../../../contract/index.ts';
import { dayOfIso, plural, sayDuration } from '../../../core/index.ts';
import { useShell } from '../../app/shell/shell-context.ts';
import { DateBlock } from '../../kit/date-block.tsx';
import { LongTable } from '../../kit/long-table.tsx';
import { Tag } from '../../kit/tag.tsx';
import { useTemplateActions } from './api.ts';
import { SORTS, type SortKey } from './template-order.ts';

interface TemplateTableProps {
  readonly templates: readonly TemplateLine[];
  readonly sort: SortKey;
  readonly onSort: (sort: SortKey) => void;
}

/** The library as lines. */
export function TemplateTable({ templates, sort, onSort }: TemplateTableProps) {
  return (
    <LongTable
      count={templates.length}
      columns={[48, null, 130, 170, 90, 130, 132, 142]}
      minWidth={1100}
      head={
        <>
          <th scope="col">
            <span className="sr-only">favourite</span>
          </th>
          {SORTS.map(([key, words, isNumber]) => (
            <th
              key={key}
              scope="col"
              className={isNumber ? 'num' : ''}
              aria-sort={sort === key ? 'ascending' : undefined}
            >
              <button
                type="button"
                className={`cursor-pointer ${sort === key ? 'text-ink underline decoration-primary decoration-2 underline-offset-4' : 'hover:text-ink'}`}
                onClick={() => onSort(key)}
              >
                {words}
              </button>
            </th>
          ))}
        </>
      }
      row={(index) => {
        const template = templates[index];
        return template ? <Row key={template.id} template={template} index={index} /> : null;
      }}
    />
  );
}

function Row({ template, index }: { readonly template: TemplateLine; readonly index: number }) {
  const navigate = useNavigate();
  const { favourite } = useTemplateActions();
  const { startNow } = useShell();
  const address = `/templates/${template.id}`;
  const { isFavourite, name } = template;
  return (
    // The link in the line is what the keyboard uses; the row is only a larger target.
    <tr aria-rowindex={index + 2} className="group" onClick={() => void navigate(address)}>
      <td className="date">
        <button
          type="button"
          className={`cursor-pointer p-1 align-middle ${isFavourite ? 'text-primary' : 'text-line-2 hover:text-primary'}`}
          aria-pressed={isFavourite}
          aria-label={`Favourite: ${name}`}
          onClick={(event) => {
            event.stopPropagation();
            void favourite(template);
          }}
        >
          <Star size={16} fill={isFavourite ? 'currentColor' : 'none'} aria-hidden />
        </button>
      </td>
      <td>
        <Link to={address} data-row className="text-body font-semibold" onClick={(event) => event.stopPropagation()}>
          {name}
        </Link>
        <span className="ml-2 text-ink-2">{template.archivedOn ? 'archived' : template.summary}</span>
        {!template.archivedOn && (
          <button
            type="button"
            className="link-line ml-4 font-semibold text-primary opacity-0 focus-visible:opacity-100 group-focus-within:opacity-100 group-hover:opacity-100"
            aria-label={`Start now: ${name}`}
            onClick={(event) => {
              event.stopPropagation();
              startNow({ templateId: template.id });
            }}
          >
            Start now
          </button>
        )}
      </td>
      <td>
        <Tag category={template.category} dot={template.dot} />
      </td>
      <td>
        {plural(template.makes, 'task')}
        {template.checkLines > 0 && <span className="text-ink-2">, {plural(template.checkLines, 'line')}</span>}
      </td>
      <td className="num">{sayDuration(template.minutes)}</td>
      <td className="num">
        {template.scheduleCount === 0 ? (
          <span className="text-ink-2">by hand</span>
        ) : (
          plural(template.scheduleCount, 'schedule')
        )}
      </td>
      <td className="date">{template.lastOn && <DateBlock day={dayOfIso(template.lastOn)} />}</td>
      <td className="date">{template.nextOn && <DateBlock day={dayOfIso(template.nextOn)} />}</td>
    </tr>
  );
}
