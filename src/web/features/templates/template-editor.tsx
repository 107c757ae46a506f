import { Star } from 'lucide-react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { scheduleAddresses } from '../../../contract/addresses.ts';
import { type StoredFile, type Template, type TemplateInput, templateInputSchema } from '../../../contract/index.ts';
import { dayOfIso, plural, sayDate, type TitleContext } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { useShell } from '../../app/shell/shell-context.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import type { ProblemError } from '../../kit/api.ts';
import { Part } from '../../kit/blanks.tsx';
import { useDraft } from '../../kit/draft.ts';
import { MeanwhileLine } from '../../kit/meanwhile-line.tsx';
import { Picker } from '../../kit/picker.tsx';
import { RichText } from '../../kit/rich-text.tsx';
import { Skeleton } from '../../kit/states.tsx';
import { goToUnread } from '../../kit/unread.ts';
import { useSubjects } from '../clients/api.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { type Like, useTemplateActions } from './api.ts';
import { BesidePart } from './beside-part.tsx';
import { DemandsField } from './demands-field.tsx';
import { FieldError } from './field-error.tsx';
import { NamePart } from './name-part.tsx';
import { SignOffBlank } from './sign-off-blank.tsx';
import { StepsField } from './steps-field.tsx';
import { type TemplateDraft, templateDraftSchema } from './template-draft.ts';
import { TemplateSide } from './template-side.tsx';
import { TitleField } from './title-field.tsx';

const RichTextEditor = lazy(() => import('../../kit/rich-text-editor.tsx'));

interface Asked {
  readonly what: string;
  readonly input: TemplateInput & { readonly version: number };
  /** Where to go from a new one. */
  readonly then: 'page' | 'schedule';
}

interface EditorProps {
  readonly template: Template | null;
  readonly initial: TemplateDraft;
  readonly like: Like;
  /** Files that may stand in the draft. */
  readonly known: readonly StoredFile[];
  readonly draftKey: string;
}

/** A template as it is written: the form on the left, what it does on the right. */
export function TemplateEditor({ template, initial, like, known, draftKey }: EditorProps) {
  const { me, people } = useWorkspace();
  const navigate = useNavigate();
  const { save, impact, favourite } = useTemplateActions();
  const { startNow } = useShell();
  const { draft, base, isChanged, change, rebase, forget } = useDraft(draftKey, initial, templateDraftSchema);
  const [refusal, setRefusal] = useState<ProblemError | null>(null);
  const [tried, setTried] = useState(false);
  const read = useMemo(() => templateInputSchema.safeParse(withTitle(draft)), [draft]);
  const problems = useMemo(() => {
    const found = new Map<string, string>();
    if (isChanged || tried)
      for (const { path, message } of read.error?.issues ?? [])
        if (!found.has(path.join('.'))) found.set(path.join('.'), message);
    for (const { path, message } of refusal?.problem.errors ?? []) found.set(path.replace(/^template\./, ''), message);
    return found;
  }, [read, isChanged, tried, refusal]);
  const at = (path: string) => problems.get(path);
  const set = <K extends keyof TemplateDraft>(field: K, value: TemplateDraft[K]) => {
    change({ ...draft, [field]: value });
    setRefusal(null);
  };
  /** A change is looked at before it is saved. */
  const { look, busy, dialog } = useLookedAt<Asked>({
    impactOf: template && (({ input }, reach) => impact(input, template.id, reach)),
    save: async ({ input, then }, reach) => {
      const saved = await save(input, template?.id ?? null, like, reach);
      forget();
      const ofTask = like && 'taskId' in like ? `&task=${like.taskId}` : '';
      if (then === 'schedule') void navigate(`/schedules/new?template=${saved.id}${ofTask}`);
      else if (!template) void navigate(`/templates/${saved.id}`);
    },
    hasReach: true,
    onRefused: (problem) => {
      setRefusal(problem);
      sayTrouble(problem);
    },
  });
  const submit = (then: Asked['then'] = 'page') => {
    setTried(true);
    if (!read.success || busy || goToUnread()) return;
    const what = template ? `${template.name}, a template used by ${plural(template.scheduleCount, 'schedule')}` : '';
    look({ what, input: { ...read.data, version: draft.version }, then });
  };
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: () => submit() }]);
  const isLocked = !me.isManager;
  const example = useExample(template, draft);
  const ofTask = like !== null && 'taskId' in like;
  return (
    <form
      className="flex min-h-0 flex-1 flex-col"
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
      noValidate
      aria-label="The template"
    >
      <title>{`${draft.name || 'New template'} · Templates · Jolly Rota`}</title>
      {dialog}
      {isChanged && (
        <MeanwhileLine
          base={base}
          mine={draft}
          now={initial}
          onMerge={(next) => {
            setRefusal(null);
            rebase(next);
          }}
        />
      )}
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
        {!template && ofTask && <span className="truncate text-note text-ink-2">begun from a task</span>}
        <span className={`ml-auto text-right text-note leading-4 ${refusal ? 'text-late' : ''}`} role="status">
          {refusal?.message ?? (isChanged && template ? 'Changed, not saved.' : '')}
        </span>
        {template && !isChanged && !template.archivedOn && (
          <button type="button" className="btn" onClick={() => startNow({ templateId: template.id })}>
            Start now
          </button>
        )}
        {me.isManager && (
          <>
            {isChanged && (
              <button
                type="button"
                className="btn"
                onClick={() => {
                  forget();
                  setRefusal(null);
                  setTried(false);
                }}
              >
                Put back
              </button>
            )}
            {template && !isChanged && !template.archivedOn && (
              <Link className="btn" to={`/schedules/new?template=${template.id}`}>
                Set a schedule
              </Link>
            )}
            {ofTask && (
              <button type="button" className="btn" disabled={busy} onClick={() => submit('schedule')}>
                Save and set a schedule
              </button>
            )}
            <button type="submit" className="btn btn-primary" disabled={busy || (template !== null && !isChanged)}>
              {template ? 'Save the change' : 'Save the template'}
            </button>
          </>
        )}
      </div>
      <div className="grid min-h-0 min-w-0 flex-1 grid-cols-[minmax(0,764px)_minmax(0,1fr)] border-t border-line-2 max-[1000px]:block max-[1000px]:overflow-y-auto">
        <fieldset disabled={isLocked} className="min-w-0 overflow-y-auto border-r border-line-2 pb-10">
          <NamePart draft={draft} at={at} set={set} />
          <TitleField
            pattern={draft.titlePattern}
            templateName={draft.name}
            example={example}
            message={at('titlePattern')}
            onChange={(pattern) => set('titlePattern', pattern)}
          />
          <Part name="Instructions" aside="go along with every task">
            {isLocked ? (
              <RichText html={draft.instructions} />
            ) : (
              <Suspense fallback={<Skeleton rows={3} />}>
                <RichTextEditor
                  label="Instructions"
                  html={draft.instructions}
                  onChange={(html) => set('instructions', html)}
                />
              </Suspense>
            )}
            <FieldError message={at('instructions')} />
          </Part>
          <BesidePart
            links={draft.links}
            fileIds={draft.fileIds}
            known={known}
            disabled={isLocked}
            onLinks={(links) => set('links', links)}
            onFiles={(fileIds) => set('fileIds', fileIds)}
          />
          <Part name="Steps" aside={sayCounts(draft)}>
            <p className="text-note leading-5 text-ink-2">
              A check line is ticked inside the task above it. A task of its own has a day, a person, and can be late.
            </p>
            <StepsField
              steps={draft.steps}
              numbered={draft.numbered}
              message={at('steps')}
              messageOf={(path) => at(`steps.${path}`)}
              onChange={(steps) => set('steps', steps)}
            />
            <div className="flex flex-wrap gap-x-6">
              <Check
                label="number the check lines"
                checked={draft.numbered}
                onChange={(numbered) => set('numbered', numbered)}
              />
              <Check
                label="the last tick finishes the task"
                checked={draft.finishWithLast}
                onChange={(finishWithLast) => set('finishWithLast', finishWithLast)}
              />
            </div>
          </Part>
          <Part name="Proof" aside="of the main task">
            <DemandsField
              demands={draft.demands}
              label="the task"
              messageOf={(i) =>
                ['label', 'most', 'options', 'unit'].map((part) => at(`demands.${i}.${part}`)).find(Boolean)
              }
              onChange={(demands) => set('demands', demands)}
            />
            <div>
              <SignOffBlank label="Sign-off" signOff={draft.signOff} onChange={(signOff) => set('signOff', signOff)} />
            </div>
            <FieldError message={at('signOff')} />
          </Part>
          <Part name="Who" aside="unless a schedule says otherwise">
            <Picker
              label="Who does it by default"
              chosen={draft.assigneeId ?? NOBODY}
              options={[
                { key: NOBODY, name: 'nobody yet' },
                ...people.map(({ id, name, role }) => ({ key: id, name, detail: role })),
              ]}
              onChoose={(key) => set('assigneeId', key === NOBODY ? null : key)}
            />
            <FieldError message={at('assigneeId')} />
          </Part>
        </fieldset>
        <TemplateSide template={template} draft={draft} example={example} />
      </div>
    </form>
  );
}

const NOBODY = 'nobody';

/** Without a title of their own its tasks are called as it is, as the field shows. */
function withTitle(draft: TemplateDraft): TemplateDraft {
  return draft.titlePattern.trim() === '' ? { ...draft, titlePattern: draft.name } : draft;
}

function sayCounts({ steps }: TemplateDraft): string {
  const tasks = steps.filter(({ kind }) => kind === 'task').length;
  const lines = steps.length - tasks;
  if (steps.length === 0) return 'none yet';
  return [tasks > 0 ? plural(tasks + 1, 'task') : '', lines > 0 ? plural(lines, 'check line') : '']
    .filter(Boolean)
    .join(', ');
}

/** For whom and when the title is filled in as an example: as the next of its schedules will be, else for today. */
function useExample(template: Template | null, draft: TemplateDraft): TitleContext {
  const { today, people } = useWorkspace();
  const subjects = useSubjects('').data?.subjects;
  const { data } = useAnswer(scheduleAddresses.list, template ? { query: { templateId: template.id } } : null);
  return useMemo(() => {
    // By next date, those without one last.
    const next = data?.lines.find((schedule) => schedule.next !== null);
    const vessel = subjects?.find(({ clientId, assetId }) => clientId !== null && assetId !== null);
    const client = subjects?.find(({ clientId, assetId }) => clientId === vessel?.clientId && assetId === null);
    const by = people.find(({ id }) => id === draft.assigneeId);
    return {
      on: next?.next ? dayOfIso(next.next) : today,
      client: next ? (next.client?.name ?? null) : (client?.name ?? 'the client'),
      asset: next ? (next.asset?.name ?? null) : (vessel?.name ?? 'the asset'),
      person: next?.assignee?.name ?? by?.name ?? 'nobody yet',
      number: 1,
      type: draft.workType,
    };
  }, [data, today, people, subjects, draft.assigneeId, draft.workType]);
}

function Check({
  label,
  checked,
  onChange,
}: {
  readonly label: string;
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <input type="checkbox" className="check" checked={checked} onChange={({ target }) => onChange(target.checked)} />
      {label}
    </label>
  );
}
