import { useMemo } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { templateAddresses } from '../../../contract/addresses.ts';
import type { Template } from '../../../contract/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { useTask } from '../tasks/api.ts';
import { useTemplate } from './api.ts';
import { draftOf, FRESH } from './template-draft.ts';
import { TemplateEditor } from './template-editor.tsx';

/** A template's page and its editor in one: all that it says, and what uses it. */
export default function TemplatePage() {
  const { templateId = 'new' } = useParams();
  const [search] = useSearchParams();
  const { may } = useWorkspace();
  if (templateId !== 'new') return <Standing key={templateId} templateId={templateId} />;
  if (!may('plan')) return <NotAllowed right="plan" what="write a template" to="/templates" back="The templates" />;
  const like = search.get('like');
  const task = search.get('task');
  if (like !== null) return <LikeTemplate key={like} templateId={like} />;
  if (task !== null) return <LikeTask key={task} taskId={task} />;
  return <TemplateEditor template={null} initial={FRESH} like={null} known={[]} draftKey="new-template" />;
}

function Standing({ templateId }: { readonly templateId: string }) {
  const { data, error, mutate } = useTemplate(templateId);
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (data?.id !== templateId) return <Skeleton rows={12} />;
  return <StandingEditor template={data} />;
}

function StandingEditor({ template }: { readonly template: Template }) {
  const initial = useMemo(() => draftOf(template), [template]);
  return (
    <TemplateEditor template={template} initial={initial} like={null} known={template.files} draftKey={template.id} />
  );
}

/** A new one begun from another. */
function LikeTemplate({ templateId }: { readonly templateId: string }) {
  const { data, error, mutate } = useTemplate(templateId);
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (data?.id !== templateId) return <Skeleton rows={12} />;
  const initial = { ...draftOf(data), version: 0, name: `${data.name}, copy`.slice(0, 120) };
  return (
    <TemplateEditor
      template={null}
      initial={initial}
      like={{ templateId }}
      known={data.files}
      draftKey={`like-${templateId}`}
    />
  );
}

/** A new one begun from a task. */
function LikeTask({ taskId }: { readonly taskId: string }) {
  const { data, error, mutate } = useAnswer(templateAddresses.ofTask, { params: { taskId } });
  const { data: task } = useTask(taskId);
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data || !task) return <Skeleton rows={12} />;
  return (
    <TemplateEditor
      template={null}
      initial={{ ...data, version: 0 }}
      like={{ taskId }}
      known={[...task.files, ...task.templateFiles]}
      draftKey={`of-${taskId}`}
    />
  );
}
