import { Link } from 'react-router';
import { templateAddresses } from '../../../contract/addresses.ts';
import type { Template, TemplateUses } from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { Dialog } from '../../kit/dialog.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { useTemplateActions } from './api.ts';

interface EndDialogProps {
  readonly template: Template;
  readonly onClose: () => void;
}

function useUses({ id: templateId }: Template) {
  return useAnswer(templateAddresses.uses, { params: { templateId } });
}

/** What archiving does to its schedules and tasks, before it is done. */
export function ArchiveDialog({ template, onClose }: EndDialogProps) {
  const { data, error } = useUses(template);
  const { archive } = useTemplateActions();
  return (
    <Dialog label={`Archive ${template.name}`} className="w-[520px] p-6" onClose={onClose}>
      <h2 className="text-title leading-7">Archive “{template.name}”</h2>
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Skeleton rows={3} />}
      {data && (
        <ul className="mt-2 list-disc pl-5 text-row leading-6">
          <li>
            {data.count === 0
              ? 'No schedule uses it.'
              : `${plural(data.count, 'schedule')} ${data.count === 1 ? 'makes' : 'make'} nothing more, from today until it is brought back.`}
          </li>
          {data.unseen > 0 && <li>{plural(data.unseen, 'task')} that nobody has seen yet: taken back.</li>}
          {data.open > 0 && <li>{plural(data.open, 'open task')}: stay, and can be finished.</li>}
          <li>What was done stays on record.</li>
        </ul>
      )}
      <Buttons
        words="Archive it"
        disabled={!data}
        onDo={() => void archive(template, true).then((done) => done && onClose())}
        onClose={onClose}
      />
    </Dialog>
  );
}

/** Only what nothing uses can be deleted; else it is said what does, and archiving is offered. */
export function DeleteDialog({
  template,
  onClose,
  onArchive,
  onDeleted,
}: EndDialogProps & { readonly onArchive: () => void; readonly onDeleted: () => void }) {
  const { data, error } = useUses(template);
  const { remove } = useTemplateActions();
  const isUsed = data !== undefined && (data.count > 0 || data.tasks > 0);
  return (
    <Dialog label={`Delete ${template.name}`} className="w-[520px] p-6" onClose={onClose}>
      <h2 className="text-title leading-7">{isUsed ? `“${template.name}” is in use` : `Delete “${template.name}”`}</h2>
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Skeleton rows={3} />}
      {data && !isUsed && <p className="mt-2 text-row">Nothing uses it: no schedule, and no task was made from it.</p>}
      {isUsed && <Uses uses={data} onClose={onClose} />}
      {isUsed && !template.archivedOn ? (
        <Buttons words="Archive it instead" disabled={false} onDo={onArchive} onClose={onClose} />
      ) : (
        <Buttons
          words="Delete it"
          disabled={!data || isUsed}
          onDo={() => void remove(template).then((done) => done && onDeleted())}
          onClose={onClose}
        />
      )}
    </Dialog>
  );
}

function Uses({ uses, onClose }: { readonly uses: TemplateUses; readonly onClose: () => void }) {
  const more = uses.count - uses.schedules.length;
  return (
    <div className="mt-2 text-row leading-6">
      <p>So it can’t be deleted: what was done with it has to stay readable.</p>
      <ul className="mt-1 list-disc pl-5">
        {uses.schedules.map(({ id, name, phrase }) => (
          <li key={id}>
            <Link className="link-line leading-5" to={`/schedules/${id}`} onClick={onClose}>
              {name}
            </Link>{' '}
            <span className="text-ink-2">{phrase}</span>
          </li>
        ))}
        {more > 0 && <li>{plural(more, 'more schedule')}</li>}
        {uses.tasks > 0 && (
          <li>{`${uses.hasMoreTasks ? 'more than ' : ''}${plural(uses.tasks, 'task')} made from it`}</li>
        )}
      </ul>
    </div>
  );
}

function Buttons({
  words,
  disabled,
  onDo,
  onClose,
}: {
  readonly words: string;
  readonly disabled: boolean;
  readonly onDo: () => void;
  readonly onClose: () => void;
}) {
  return (
    <div className="mt-4 flex gap-3">
      <button type="button" className="btn btn-primary" disabled={disabled} onClick={onDo}>
        {words}
      </button>
      <button type="button" className="btn" onClick={onClose}>
        Not now
      </button>
    </div>
  );
}
