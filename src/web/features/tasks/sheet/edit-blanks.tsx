import { z } from 'zod';
import { type Task, type TaskEdit, taskEditSchema } from '../../../../contract/index.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank, EstimateBlank, TimeBlank } from '../../../kit/blanks.tsx';
import { sayDate } from '../../../kit/ways.ts';
import { PersonBlank } from '../../people/person-blank.tsx';
import type { EditReach } from '../api.ts';

/** What is written of a task, and the version of it that was seen. */
export type SeenEdit = TaskEdit & { readonly version: number };
export const seenEditSchema = taskEditSchema.and(z.object({ version: z.number() }));

interface EditBlanksProps {
  readonly task: Task;
  readonly edit: SeenEdit;
  readonly change: (edit: SeenEdit) => void;
}

/** Days, times, person, estimate and priority as sentences; what only a manager may change stands there as words. */
export function EditBlanks({ task, edit, change }: EditBlanksProps) {
  const set = <K extends keyof TaskEdit>(field: K, value: TaskEdit[K]) => change({ ...edit, [field]: value });
  return (
    <>
      <WhenBlanks task={task} edit={edit} change={change} />
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
        <p className="text-note leading-4.25 text-ink-2">
          Its day, its person and its priority are for planners and managers.
        </p>
      )}
    </>
  );
}

function WhenBlanks({ task, edit, change }: EditBlanksProps) {
  const set = <K extends keyof TaskEdit>(field: K, value: TaskEdit[K]) => change({ ...edit, [field]: value });
  return (
    <p className="mt-1">
      on{' '}
      <PlannedDay
        label="Day"
        mayPlan={task.mayPlan}
        on={edit.workOn}
        onChange={(workOn) => change({ ...edit, workOn, dueOn: dueAfterMove(edit, workOn) })}
      />{' '}
      from{' '}
      <TimeBlank
        label="Starts at"
        value={edit.startTime}
        placeholder="any time"
        onChange={(time) => set('startTime', time)}
      />
      , due{' '}
      <PlannedDay label="Due on" mayPlan={task.mayPlan} on={edit.dueOn} onChange={(dueOn) => set('dueOn', dueOn)} /> by{' '}
      <TimeBlank
        label="Due at"
        value={edit.dueTime}
        placeholder="end of day"
        onChange={(time) => set('dueTime', time)}
      />
    </p>
  );
}

interface PlannedDayProps {
  readonly label: string;
  readonly mayPlan: boolean;
  readonly on: IsoDate;
  readonly onChange: (on: IsoDate) => void;
}

function PlannedDay({ label, mayPlan, on, onChange }: PlannedDayProps) {
  const day = dayOfIso(on);
  return mayPlan ? (
    <DateBlank label={label} value={day} onChange={(chosen) => onChange(isoOfDay(chosen))} />
  ) : (
    sayDate(day)
  );
}

/** Due on its own day, it stays so; it is never due before its day. */
function dueAfterMove({ workOn, dueOn }: SeenEdit, to: IsoDate): IsoDate {
  return dueOn === workOn || dueOn < to ? to : dueOn;
}

export const REACH_WORDS: Readonly<Record<EditReach, string>> = {
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

interface ReachChoiceProps {
  readonly isOfSchedule: boolean;
  readonly reach: EditReach;
  readonly onReach: (reach: EditReach) => void;
}

/** How far a change goes. */
export function ReachChoice({ isOfSchedule, reach, onReach }: ReachChoiceProps) {
  const { may } = useWorkspace();
  if (!isOfSchedule || !may('editSeries'))
    return (
      <p className="mt-1 text-note leading-4.25 text-ink-2">
        Only this one changes. {isOfSchedule ? 'Later ones of its schedule stay as they are.' : ''}
      </p>
    );
  return (
    <fieldset className="relative mt-1 leading-5.5">
      <legend className="sr-only">How far it goes</legend>
      {(['one', 'later', 'open'] as const).map((key) => (
        <label key={key} className="flex items-center gap-2">
          <input
            type="radio"
            name="reach"
            className="check !rounded-full"
            checked={reach === key}
            onChange={() => onReach(key)}
          />
          {REACH_WORDS[key]}
        </label>
      ))}
      <p className="text-note leading-4.25 text-ink-2">{REACH_EFFECT[reach]}</p>
    </fieldset>
  );
}
