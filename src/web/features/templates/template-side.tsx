import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Template } from '../../../contract/index.ts';
import {
  type DefaultRule,
  dayOfIso,
  fillTitle,
  type NamedPerson,
  NOBODY_YET,
  onlyPersonOf,
  partOffered,
  plural,
  type SetPart,
  sayDuration,
  sayGroup,
  sayOffer,
  sayOffset,
  setMinutes,
  startedSet,
  type TitleContext,
} from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { DateBlock } from '../../kit/date-block.tsx';
import { sayDate, sayDay, sayTime } from '../../kit/ways.ts';
import { LastChanged } from '../history/last-changed.tsx';
import { useTemplateActions } from './api.ts';
import { ArchiveDialog, DeleteDialog } from './end-dialogs.tsx';
import { type LinedTask, SetLine } from './set-line.tsx';
import type { TemplateDraft } from './template-draft.ts';
import { TemplateUse } from './template-use.tsx';

interface TemplateSideProps {
  readonly template: Template | null;
  readonly draft: TemplateDraft;
  readonly example: TitleContext;
}

/** What a template does, without opening anything: one set of it on its days, what uses it, and its last changes. */
export function TemplateSide({ template, draft, example }: TemplateSideProps) {
  return (
    <aside className="min-w-0 overflow-y-auto px-5 pb-10 pt-2.5" aria-label="What uses it">
      <OneSet draft={draft} example={example} />
      {template ? (
        <>
          <TemplateUse template={template} draft={draft} />
          <LastChanged of="template" id={template.id} />
          <Ends template={template} />
        </>
      ) : (
        <section className="mt-4 border-t border-line-2 pt-2.5">
          <h2 className="text-body leading-5.5 text-primary">What comes next</h2>
          <p className="mt-1 max-w-[380px] text-row text-ink-2">
            A template says what is to be done. Once it is saved, set a schedule for it: when it comes round, for whom,
            and who does it. Or start it by hand whenever it is needed.
          </p>
        </section>
      )}
    </aside>
  );
}

/** The tasks of one set, on a line and as a list. */
function OneSet({ draft, example }: Pick<TemplateSideProps, 'draft' | 'example'>) {
  const { today, workingCalendar, people } = useWorkspace();
  const set = startedSet(draft, example.on, workingCalendar, onlyPersonOf(draft.assignment));
  const order = [...set].sort((a, b) => a.on - b.on);
  const lined: LinedTask[] = order.map(({ part, on }, i) => ({
    key: part.key,
    number: i + 1,
    on,
    isMain: part.key === '',
  }));
  /** What a schedule finds out is no name yet. */
  const nameOf = ({ assignee }: SetPart, id: string | null) =>
    assignee.by === 'set' || assignee.by === 'person' ? people.find((one) => one.id === id)?.name : undefined;
  const forWhom = [example.asset, example.client].filter(Boolean).join(', ');
  return (
    <section>
      <h2 className="flex items-baseline justify-between text-body leading-5.5 text-primary">
        One set
        <span className="truncate pl-3 font-sans text-note font-normal text-ink-2">
          {forWhom ? `for ${forWhom}, ` : ''}
          {sayDay(example.on, today)}, {sayDuration(setMinutes(draft))} in all
        </span>
      </h2>
      {set.length > 1 && <SetLine tasks={lined} />}
      <ol className="mt-1">
        {order.slice(0, TASKS_SHOWN).map(({ part, on, assigneeId }, i) => (
          <li
            key={part.key}
            className="grid min-h-[29px] grid-cols-[18px_104px_minmax(0,1fr)_auto] items-center gap-2 border-b border-line py-0.5 text-row leading-4.5"
            title={sayOffset(part.offset)}
          >
            <b className="font-semibold">{i + 1}</b>
            <DateBlock day={on} />
            <span className="truncate">
              {fillTitle(part.titlePattern, example) || draft.name || 'untitled'}
              {part.dueTime && <span className="ml-1.5 text-note text-ink-2">by {sayTime(part.dueTime)}</span>}
            </span>
            <span className="text-note text-ink-2">
              {nameOf(part, assigneeId) ?? sayUnnamed(part, draft.assignment, example.person, people)},{' '}
              {sayDuration(part.estimateMinutes)}
            </span>
          </li>
        ))}
      </ol>
      {order.length > TASKS_SHOWN && (
        <p className="mt-1 text-note text-ink-2">and {plural(order.length - TASKS_SHOWN, 'task')} more</p>
      )}
    </section>
  );
}

/** Who does a task that nobody is named for. */
function sayUnnamed(
  part: Pick<SetPart, 'assignee'>,
  byDefault: DefaultRule,
  setPerson: string | null,
  people: readonly NamedPerson[],
): string {
  const offered = partOffered(part, byDefault);
  if (offered !== null) return sayOffer(offered, { people });
  if (part.assignee.by === 'leastToDo') return `least to do of ${sayGroup(part.assignee.group, { people })}`;
  if (part.assignee.by === 'usualPerson') return 'the client’s usual person';
  return (part.assignee.by === 'set' ? setPerson : null) ?? NOBODY_YET;
}

const TASKS_SHOWN = 12;

/** What else can be done with it. */
function Ends({ template }: { readonly template: Template }) {
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const { archive } = useTemplateActions();
  const [open, setOpen] = useState<'archive' | 'delete' | null>(null);
  if (!may('plan')) return null;
  return (
    <section className="mt-5 flex gap-5 border-t border-line-2 pt-3 text-row">
      <Link className="link-line" to={`/templates/new?like=${template.id}`}>
        Duplicate
      </Link>
      {template.archivedOn ? (
        <button type="button" className="link-line" onClick={() => void archive(template, false)}>
          Bring back into use
        </button>
      ) : (
        <button type="button" className="link-line" onClick={() => setOpen('archive')}>
          Archive
        </button>
      )}
      <button type="button" className="link-line" onClick={() => setOpen('delete')}>
        Delete
      </button>
      {template.archivedOn && <span className="text-ink-2">archived {sayDate(dayOfIso(template.archivedOn))}</span>}
      {open === 'archive' && <ArchiveDialog template={template} onClose={() => setOpen(null)} />}
      {open === 'delete' && (
        <DeleteDialog
          template={template}
          onClose={() => setOpen(null)}
          onArchive={() => setOpen('archive')}
          onDeleted={() => void navigate('/templates')}
        />
      )}
    </section>
  );
}
