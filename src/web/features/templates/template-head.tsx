import { Star } from 'lucide-react';
import { Link } from 'react-router';
import type { Template } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useShell } from '../../app/shell/shell-context.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { sayDate } from '../../kit/ways.ts';
import { useTemplateActions } from './api.ts';

interface TemplateHeadProps {
  readonly template: Template | null;
  /** A new one that begins from a task. */
  readonly isOfTask: boolean;
  readonly isChanged: boolean;
  readonly refusal: string | null;
  readonly busy: boolean;
  readonly onPutBack: () => void;
  readonly onSetSchedule: () => void;
}

/** Which template it is, how far it is from being saved, and what is done with it. */
export function TemplateHead(props: TemplateHeadProps) {
  const { template, isOfTask, isChanged, refusal } = props;
  const { may } = useWorkspace();
  const { favourite } = useTemplateActions();
  const { startNow } = useShell();
  return (
    <div className="page-head min-h-[52px]">
      <h1 className="truncate">{template?.name ?? 'New template'}</h1>
      {template && (
        <>
          <button
            type="button"
            className="cursor-pointer p-1 text-primary"
            aria-pressed={template.isFavourite}
            aria-label={template.isFavourite ? 'A favourite of yours' : 'Make it a favourite of yours'}
            onClick={() => void favourite(template)}
          >
            <Star size={18} fill={template.isFavourite ? 'currentColor' : 'none'} aria-hidden />
          </button>
          <span className="truncate text-note text-ink-2">
            {template.archivedOn
              ? `archived since ${sayDate(dayOfIso(template.archivedOn))}: makes nothing`
              : `last changed ${sayDate(dayOfIso(template.changedOn))}${template.changedBy ? ` by ${template.changedBy}` : ''}`}
          </span>
        </>
      )}
      {!template && isOfTask && <span className="truncate text-note text-ink-2">begun from a task</span>}
      <span className={`ml-auto text-right text-note leading-4 ${refusal === null ? '' : 'text-late'}`} role="status">
        {refusal ?? (isChanged && template ? 'Changed, not saved.' : '')}
      </span>
      {template && !isChanged && !template.archivedOn && (
        <>
          <Link className="btn" to={`/tasks?template=${template.id}&due=any&by=no`}>
            Its tasks
          </Link>
          <button type="button" className="btn" onClick={() => startNow({ templateId: template.id })}>
            Start now
          </button>
        </>
      )}
      {may('plan') && <Deeds {...props} />}
    </div>
  );
}

function Deeds({ template, isOfTask, isChanged, busy, onPutBack, onSetSchedule }: TemplateHeadProps) {
  return (
    <>
      {isChanged && (
        <button type="button" className="btn" onClick={onPutBack}>
          Put back
        </button>
      )}
      {template && !isChanged && !template.archivedOn && (
        <Link className="btn" to={`/schedules/new?template=${template.id}`}>
          Set a schedule
        </Link>
      )}
      {isOfTask && (
        <button type="button" className="btn" disabled={busy} onClick={onSetSchedule}>
          Save and set a schedule
        </button>
      )}
      <button type="submit" className="btn btn-primary" disabled={busy || (template !== null && !isChanged)}>
        {template ? 'Save the change' : 'Save the template'}
      </button>
    </>
  );
}
