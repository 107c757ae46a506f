import { lazy, Suspense, useMemo, useState } from 'react';
import { INTO_TEMPLATE, type Task, type TaskEdit, taskEditSchema } from '../../../../contract/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ProblemError } from '../../../kit/api.ts';
import { useDraft } from '../../../kit/draft.ts';
import { MeanwhileLine } from '../../../kit/meanwhile-line.tsx';
import { meanwhileOf } from '../../../kit/merge.ts';
import { SECTION, SectionTitle } from '../../../kit/side-sheet.tsx';
import { Skeleton } from '../../../kit/states.tsx';
import { goToUnread } from '../../../kit/unread.ts';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { type EditReach, useTaskActions } from '../api.ts';
import { EditBlanks, REACH_WORDS, ReachChoice, type SeenEdit, seenEditSchema } from './edit-blanks.tsx';

const RichTextEditor = lazy(() => import('../../../kit/rich-text-editor.tsx'));

const INTO_WORDS = {
  instructions: 'the instructions',
  estimateMinutes: 'the estimate',
  priority: 'the priority',
} as const;

interface EditTaskProps {
  readonly task: Task;
  readonly onClose: () => void;
}

function editOf(task: Task): SeenEdit {
  return {
    title: task.title,
    instructions: task.instructions,
    workOn: task.on,
    dueOn: task.dueOn,
    startTime: task.startTime,
    dueTime: task.dueTime,
    assigneeId: task.assignee?.id ?? null,
    estimateMinutes: task.estimateMinutes,
    priority: task.priority,
    version: task.version,
  };
}

/** Changes this one task. What the template could have as well is offered to it afterwards. */
export function EditTask({ task, onClose }: EditTaskProps) {
  const { edit: save, impactOfEdit } = useTaskActions();
  const [reach, setReach] = useState<EditReach>('one');
  const now = useMemo(() => editOf(task), [task]);
  const { draft: edit, base, change, rebase, forget } = useDraft(`task.${task.id}`, now, seenEditSchema);
  const isOthers = (meanwhileOf(base, edit, now)?.theirs ?? []).length > 0;
  const [problem, setProblem] = useState<string | null>(null);
  const [offered, setOffered] = useState<(typeof INTO_TEMPLATE)[number][] | null>(null);
  const set = <K extends keyof TaskEdit>(field: K, value: TaskEdit[K]) => change({ ...edit, [field]: value });
  const read = taskEditSchema.safeParse(edit);
  const close = () => {
    forget();
    onClose();
  };
  const { look, busy, dialog } = useLookedAt<{ readonly what: string; readonly edit: SeenEdit }>({
    impactOf: ({ edit: asked }) => impactOfEdit(task, asked, reach),
    save: async ({ edit: asked }) => void (await save(task, asked, reach)),
    hasReach: false,
    onSaved: close,
    onRefused: ({ message }) => setProblem(message),
  });
  const submit = async () => {
    if (busy || goToUnread()) return;
    if (!read.success) return setProblem(read.error.issues[0]?.message ?? 'Something is missing.');
    // What somebody else has changed of other things, as a tick or the note, does not get in the way.
    const seen = { ...read.data, version: isOthers ? base.version : now.version };
    if (reach !== 'one') return look({ what: `${base.title}: ${REACH_WORDS[reach]}`, edit: seen });
    try {
      await save(task, seen);
      const changed = INTO_TEMPLATE.filter((field) => read.data[field] !== base[field]);
      forget();
      if (task.template === null || changed.length === 0) onClose();
      else setOffered(changed);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.message);
    }
  };
  if (offered) return <Offer task={task} fields={offered} onClose={onClose} />;
  return (
    <form
      className={`${SECTION} text-row leading-7.5`}
      aria-label="Change this task"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <SectionTitle>Change it</SectionTitle>
      {isOthers && (
        <div className="-mx-5 mb-2 max-[720px]:-mx-4">
          <MeanwhileLine
            base={base}
            mine={edit}
            now={now}
            onMerge={(next) => {
              setProblem(null);
              rebase(next);
            }}
          />
        </div>
      )}
      <input
        className="blank h-8 w-full text-touch"
        aria-label="Title of this task"
        value={edit.title}
        onChange={({ target }) => set('title', target.value)}
      />
      <EditBlanks task={task} edit={edit} change={change} />
      <div className="mt-1">
        <Suspense fallback={<Skeleton rows={3} />}>
          <RichTextEditor
            key={base.version}
            label="Instructions of this task"
            html={edit.instructions}
            target={{ taskId: task.id }}
            onChange={(html) => set('instructions', html)}
          />
        </Suspense>
      </div>
      <p role="alert" className="field-error">
        {problem}
      </p>
      <ReachChoice isOfSchedule={task.schedule !== null} reach={reach} onReach={setReach} />
      {dialog}
      <div className="mt-1.5 flex gap-3">
        <button type="submit" className="btn btn-primary">
          {reach === 'one' ? 'Keep the change' : 'Look at what it changes'}
        </button>
        <button type="button" className="btn" onClick={close}>
          Leave it as it was
        </button>
      </div>
    </form>
  );
}

/** The later ones keep what the template says, unless it is told. */
function Offer({ task, fields, onClose }: EditTaskProps & { readonly fields: (typeof INTO_TEMPLATE)[number][] }) {
  const { may } = useWorkspace();
  const { intoTemplate } = useTaskActions();
  const words = fields.map((field) => INTO_WORDS[field]).join(' and ');
  return (
    <div className={`${SECTION} text-row leading-4.75`} role="status">
      <p>
        Changed here. Later ones still have {words} of <b className="font-semibold">{task.template?.name}</b>.
      </p>
      <div className="mt-2 flex flex-wrap gap-3">
        {may('plan') && (
          <button
            type="button"
            className="btn btn-primary"
            onClick={() => void intoTemplate(task.id, fields).then((done) => done && onClose())}
          >
            Put {words} into the template
          </button>
        )}
        <button type="button" className="btn" onClick={onClose}>
          Only this one
        </button>
      </div>
    </div>
  );
}
