import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { scheduleAddresses } from '../../../contract/addresses.ts';
import { type StoredFile, type Template, type TemplateInput, templateInputSchema } from '../../../contract/index.ts';
import { dayOfIso, NOBODY_YET, onlyPersonOf, plural, type TitleContext } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import type { ProblemError } from '../../kit/api.ts';
import { useDraft } from '../../kit/draft.ts';
import { MeanwhileLine } from '../../kit/meanwhile-line.tsx';
import { goToUnread } from '../../kit/unread.ts';
import { useSubjects } from '../clients/api.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { type Like, useTemplateActions } from './api.ts';
import { type TemplateDraft, templateDraftSchema } from './template-draft.ts';
import { TemplateForm } from './template-form.tsx';
import { TemplateHead } from './template-head.tsx';
import { TemplateSide } from './template-side.tsx';

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
  const navigate = useNavigate();
  const { save, impact } = useTemplateActions();
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
      <TemplateHead
        template={template}
        isOfTask={ofTask}
        isChanged={isChanged}
        refusal={refusal?.message ?? null}
        busy={busy}
        onPutBack={() => {
          forget();
          setRefusal(null);
          setTried(false);
        }}
        onSetSchedule={() => submit('schedule')}
      />
      <div className="grid min-h-0 min-w-0 flex-1 grid-cols-[minmax(0,764px)_minmax(0,1fr)] border-t border-line-2 max-[1000px]:block max-[1000px]:overflow-y-auto">
        <TemplateForm draft={draft} example={example} known={known} at={at} set={set} />
        <TemplateSide template={template} draft={draft} example={example} />
      </div>
    </form>
  );
}

/** Without a title of their own its tasks are called as it is, as the field shows. */
function withTitle(draft: TemplateDraft): TemplateDraft {
  return draft.titlePattern.trim() === '' ? { ...draft, titlePattern: draft.name } : draft;
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
    const nameOf = (of: string | null) => people.find(({ id }) => id === of)?.name;
    return {
      on: next?.next ? dayOfIso(next.next) : today,
      client: next ? (next.client?.name ?? null) : (client?.name ?? 'the client'),
      asset: next ? (next.asset?.name ?? null) : (vessel?.name ?? 'the asset'),
      person: (next && nameOf(onlyPersonOf(next.assignment))) ?? nameOf(onlyPersonOf(draft.assignment)) ?? NOBODY_YET,
      number: 1,
      type: draft.workType,
    };
  }, [data, today, people, subjects, draft.assignment, draft.workType]);
}
