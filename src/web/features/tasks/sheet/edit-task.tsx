import { lazy, Suspense, useMemo, useState } from 'react';
import { z } from 'zod';
import { INTO_TEMPLATE, type Task, type TaskEdit, taskEditSchema } from '../../../../contract/index.ts';
import { dayOfIso, isoOfDay, sayDate } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ProblemError } from '../../../kit/api.ts';
import { ChoiceBlank, DateBlank, EstimateBlank, TimeBlank } from '../../../kit/blanks.tsx';
import { useDraft } from '../../../kit/draft.ts';
import { MeanwhileLine } from '../../../kit/meanwhile-line.tsx';
import { meanwhileOf } from '../../../kit/merge.ts';
import { SECTION, SectionTitle } from '../../../kit/side-sheet.tsx';
import { Skeleton } from '../../../kit/states.tsx';
import { goToUnread } from '../../../kit/unread.ts';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { PersonBlank } from '../../people/person-blank.tsx';
import { type EditReach, useTaskActions } from '../api.ts';

const RichTextEditor = lazy(() => import('../../../kit/rich-text-editor.tsx'));

const INTO_WORDS = {
  instructions: 'the instructions',
  estimateMinutes: 'the estimate',
  priority: 'the priority',
} as const;

const REACH_WORDS: Readonly<Record<EditReach, string>> = {
  one: 'only this one',
  later: 'this one and later ones',
  open: 'all open ones',
};
const REACH_EFFECT: Readonly<Record<EditReach, string>> = {
  one: 'Later ones of its schedule stay as they are.',
  later:
    'Its schedule says so from this date on; earlier ones stay. Days move by as many for those that are made: later dates stay the rule’s.',
  open: 'Every task of its schedule that nobody has begun. What is made later is as the schedule says.',
};

interface EditTaskProps {
  readonly task: Task;
  readonly onClose: () => void;
}

/** What is written of a task, and the version of it that was seen. */
type SeenEdit = TaskEdit & { readonly version: number };
const seenEditSchema = taskEditSchema.and(z.object({ version: z.number() }));

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
  const { me } = useWorkspace();
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
      <p className="mt-1">
        on{' '}
        {task.mayPlan ? (
          <DateBlank
            label="Day"
            value={dayOfIso(edit.workOn)}
            onChange={(day) => {
              const on = isoOfDay(day);
              change({
                ...edit,
                workOn: on,
                dueOn: edit.dueOn < on || edit.dueOn === edit.workOn ? on : edit.dueOn,
              });
            }}
          />
        ) : (
          sayDate(dayOfIso(edit.workOn))
        )}{' '}
        from{' '}
        <TimeBlank
          label="Starts at"
          value={edit.startTime}
          placeholder="any time"
          onChange={(time) => set('startTime', time)}
        />
        , due{' '}
        {task.mayPlan ? (
          <DateBlank label="Due on" value={dayOfIso(edit.dueOn)} onChange={(day) => set('dueOn', isoOfDay(day))} />
        ) : (
          sayDate(dayOfIso(edit.dueOn))
        )}{' '}
        by{' '}
        <TimeBlank
          label="Due at"
          value={edit.dueTime}
          placeholder="end of day"
          onChange={(time) => set('dueTime', time)}
        />
      </p>
      <p>
        {task.mayPlan ? (
          <PersonBlank label="Who does it" personId={edit.assigneeId} onChange={(id) => set('assigneeId', id)} />
        ) : (
          (task.assignee?.name ?? 'nobody yet')
        )}
        , about{' '}
        <EstimateBlank
          minutes={edit.estimateMinutes}
          message={undefined}
          onChange={(minutes) => set('estimateMinutes', minutes)}
        />
        , priority{' '}
        {task.mayPlan ? (
          <ChoiceBlank
            label="Priority"
            value={edit.priority}
            options={[
              ['low', 'low'],
              ['normal', 'normal'],
              ['high', 'high'],
              ['urgent', 'urgent'],
            ]}
            onChange={(priority) => set('priority', priority)}
          />
        ) : (
          edit.priority
        )}
      </p>
      {!task.mayPlan && (
        <p className="text-note leading-4.25 text-ink-2">Its day, its person and its priority are for a manager.</p>
      )}
      <Suspense fallback={<Skeleton rows={3} />}>
        <RichTextEditor
          key={base.version}
          label="Instructions of this task"
          html={edit.instructions}
          target={{ taskId: task.id }}
          onChange={(html) => set('instructions', html)}
        />
      </Suspense>
      <p role="alert" className="field-error">
        {problem}
      </p>
      {task.schedule && me.isManager ? (
        <fieldset className="relative mt-1 leading-5.5">
          <legend className="sr-only">How far it goes</legend>
          {(['one', 'later', 'open'] as const).map((key) => (
            <label key={key} className="flex items-center gap-2">
              <input
                type="radio"
                name="reach"
                className="check !rounded-full"
                checked={reach === key}
                onChange={() => setReach(key)}
              />
              {REACH_WORDS[key]}
            </label>
          ))}
          <p className="text-note leading-4.25 text-ink-2">{REACH_EFFECT[reach]}</p>
        </fieldset>
      ) : (
        <p className="mt-1 text-note leading-4.25 text-ink-2">
          Only this one changes. {task.schedule ? 'Later ones of its schedule stay as they are.' : ''}
        </p>
      )}
      {dialog}
      <div className="mt-2 flex gap-3">
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
  const { me } = useWorkspace();
  const { intoTemplate } = useTaskActions();
  const words = fields.map((field) => INTO_WORDS[field]).join(' and ');
  return (
    <div className={`${SECTION} text-row leading-4.75`} role="status">
      <p>
        Changed here. Later ones still have {words} of <b className="font-semibold">{task.template?.name}</b>.
      </p>
      <div className="mt-2 flex flex-wrap gap-3">
        {me.isManager && (
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
