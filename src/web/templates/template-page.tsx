import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useMemo, useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link, useNavigate, useParams } from 'react-router';
import { type Template, type TemplateInput, templateInputSchema } from '../../contract/index.ts';
import { dayOfIso, plural, readDuration, sayDate, sayDuration } from '../../core/index.ts';
import { ProblemError } from '../api.ts';
import { useKeys } from '../shell/keys.tsx';
import { sayTrouble } from '../shell/toast.tsx';
import { useWorkspace } from '../shell/workspace.tsx';
import { Part } from '../ui/blanks.tsx';
import { useDraft } from '../ui/draft.ts';
import { Skeleton, Trouble } from '../ui/states.tsx';
import { useSaveTemplate, useTemplate } from './api.ts';
import { CheckLinesField } from './check-lines-field.tsx';
import { TemplateUse } from './template-use.tsx';
import { TitleField } from './title-field.tsx';

/** A template's page and its editor in one: all that it says, and what uses it. */
export default function TemplatePage() {
  const { templateId = 'new' } = useParams();
  const isNew = templateId === 'new';
  const { data, error, mutate } = useTemplate(isNew ? null : templateId);
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!isNew && data?.id !== templateId) return <Skeleton rows={12} />;
  return <Editor key={templateId} template={isNew ? null : (data ?? null)} />;
}

/** What stands in the editor, and the version it was begun from, so that nobody's change is written over unseen. */
interface TemplateDraft extends TemplateInput {
  readonly version: number;
}

const FRESH: TemplateDraft = {
  version: 0,
  name: '',
  titlePattern: '',
  category: null,
  instructions: '',
  checkLines: [],
  estimateMinutes: 30,
};

function inputOf({
  name,
  titlePattern,
  category,
  instructions,
  checkLines,
  estimateMinutes,
  version,
}: Template): TemplateDraft {
  return { version, name, titlePattern, category, instructions, checkLines, estimateMinutes };
}

function Editor({ template }: { readonly template: Template | null }) {
  const { me, categories } = useWorkspace();
  const navigate = useNavigate();
  const save = useSaveTemplate();
  const initial = useMemo(() => (template ? inputOf(template) : FRESH), [template]);
  const { draft, isChanged, change, forget } = useDraft(template ? template.id : 'new-template', initial);
  const [refusal, setRefusal] = useState<string | null>(null);
  const form = useForm<TemplateInput>({ resolver: zodResolver(templateInputSchema), values: draft, mode: 'onChange' });
  const { errors, isSubmitting } = form.formState;
  const set = <K extends keyof TemplateInput>(field: K, value: TemplateInput[K]) => {
    change({ ...draft, [field]: value });
    setRefusal(null);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: the draft is the form's values, judged anew at each change of it
  useEffect(() => {
    if (isChanged) void form.trigger();
  }, [form, isChanged, draft]);
  const submit = form.handleSubmit(async (input) => {
    try {
      const saved = await save({ ...input, version: draft.version }, template?.id ?? null);
      forget();
      if (!template) void navigate(`/templates/${saved.id}`);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setRefusal(error.message);
      sayTrouble(error);
    }
  });
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: () => void submit() }]);
  const isLocked = !me.isManager;
  return (
    <form className="flex min-h-0 flex-1 flex-col" onSubmit={submit} noValidate aria-label="The template">
      <title>{`${draft.name || 'New template'} · Templates · Jolly Rota`}</title>
      <div className="page-head !min-h-[52px]">
        <h1 className="truncate">{template?.name ?? 'New template'}</h1>
        {template && (
          <span className="truncate text-[13px] text-ink-2">
            last changed {sayDate(dayOfIso(template.changedOn))}
            {template.changedBy ? ` by ${template.changedBy}` : ''}
          </span>
        )}
        <span className={`ml-auto text-right text-[13px] leading-4 ${refusal ? 'text-late' : ''}`} role="status">
          {refusal ?? (isChanged ? 'Changed, not saved.' : '')}
        </span>
        {me.isManager && (
          <>
            {isChanged && (
              <button
                type="button"
                className="btn"
                onClick={() => {
                  forget();
                  setRefusal(null);
                  form.clearErrors();
                }}
              >
                Put back
              </button>
            )}
            {template && !isChanged && (
              <Link className="btn" to={`/schedules/new?template=${template.id}`}>
                Set a schedule
              </Link>
            )}
            <button
              type="submit"
              className="btn btn-primary"
              disabled={isSubmitting || (template !== null && !isChanged)}
            >
              {template ? 'Save the change' : 'Save the template'}
            </button>
          </>
        )}
      </div>
      <fieldset
        disabled={isLocked}
        className="grid min-h-0 min-w-0 flex-1 grid-cols-[minmax(0,764px)_minmax(0,1fr)] border-t border-line-2 max-[1000px]:block max-[1000px]:overflow-y-auto"
      >
        <div className="overflow-y-auto border-r border-line-2 pb-10">
          <Part name="Name">
            <input
              className="blank !h-8 w-full max-w-[420px] !text-[16px]"
              aria-label="Name"
              placeholder="what your people call this work"
              aria-invalid={errors.name !== undefined}
              aria-describedby="name-error"
              value={draft.name}
              onChange={({ target }) => set('name', target.value)}
            />
            <FieldError id="name-error" message={errors.name?.message} />
            <div>
              a piece of{' '}
              <select
                className="blank"
                aria-label="Category"
                value={draft.category ?? ''}
                onChange={({ target }) => set('category', target.value === '' ? null : target.value)}
              >
                <option value="">no category</option>
                {categories.map(({ name }) => (
                  <option key={name}>{name}</option>
                ))}
              </select>{' '}
              work, about{' '}
              <EstimateBlank
                minutes={draft.estimateMinutes}
                message={errors.estimateMinutes?.message}
                onChange={(minutes) => set('estimateMinutes', minutes)}
              />{' '}
              each time
            </div>
          </Part>
          <TitleField
            pattern={draft.titlePattern}
            templateName={draft.name}
            message={errors.titlePattern?.message}
            onChange={(pattern) => set('titlePattern', pattern)}
          />
          <Part name="Instructions" aside="go along with every task">
            <textarea
              className="blank !h-auto w-full !whitespace-pre-wrap !px-2.5 !py-1.5 !text-[15px] !leading-[21px]"
              style={{ minHeight: 108, fieldSizing: 'content' } as React.CSSProperties}
              aria-label="Instructions"
              aria-invalid={errors.instructions !== undefined}
              aria-describedby="instructions-error"
              placeholder="how it is done, for someone who does it for the first time"
              value={draft.instructions}
              onChange={({ target }) => set('instructions', target.value)}
            />
            <FieldError id="instructions-error" message={errors.instructions?.message} />
          </Part>
          <Part
            name="Steps"
            aside={
              draft.checkLines.length > 0 ? plural(draft.checkLines.length, 'check line') : 'ticked inside the task'
            }
          >
            <CheckLinesField
              lines={draft.checkLines}
              message={errors.checkLines?.root?.message ?? errors.checkLines?.message}
              messageOf={(index) => errors.checkLines?.[index]?.text?.message}
              onChange={(lines) => set('checkLines', lines)}
            />
          </Part>
        </div>
        <TemplateUse template={template} draft={draft} />
      </fieldset>
    </form>
  );
}

export function FieldError({ id, message }: { readonly id: string; readonly message: string | undefined }) {
  return (
    <p id={id} role="alert" className="field-error">
      {message}
    </p>
  );
}

interface EstimateBlankProps {
  readonly minutes: number;
  readonly message: string | undefined;
  readonly onChange: (minutes: number) => void;
}

/** How long it takes: "45 min", "1 h 30"; a bare number is minutes. */
function EstimateBlank({ minutes, message, onChange }: EstimateBlankProps) {
  const [text, setText] = useState(Number.isFinite(minutes) ? sayDuration(minutes) : '');
  const [typing, setTyping] = useState(false);
  useEffect(() => {
    if (!typing && Number.isFinite(minutes)) setText(sayDuration(minutes));
  }, [minutes, typing]);
  const unread = readDuration(text) === null;
  return (
    <>
      <input
        className="blank !w-[88px]"
        aria-label="Estimate"
        aria-invalid={unread || message !== undefined}
        aria-describedby="estimate-error"
        value={text}
        onFocus={() => setTyping(true)}
        onBlur={() => setTyping(false)}
        onChange={({ target }) => {
          setText(target.value);
          // What can't be read is refused like an estimate of nothing, so that the old one is not saved in its place.
          onChange(readDuration(target.value) ?? 0);
        }}
      />
      <span id="estimate-error" role="alert" className="field-error">
        {unread ? ' write it like 45 min or 1 h 30' : message ? ` ${message}` : ''}
      </span>
    </>
  );
}
