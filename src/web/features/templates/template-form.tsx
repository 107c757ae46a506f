import { lazy, Suspense } from 'react';
import type { StoredFile } from '../../../contract/index.ts';
import { onlyPersonOf, plural, type TitleContext, USUAL_ESCALATION } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, Part } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { RichText } from '../../kit/rich-text.tsx';
import { Skeleton } from '../../kit/states.tsx';
import { BesidePart } from './beside-part.tsx';
import { DefaultWho } from './default-who.tsx';
import { DemandsField } from './demands-field.tsx';
import { LateLines } from './late-lines.tsx';
import { NamePart } from './name-part.tsx';
import { SignOffBlank } from './sign-off-blank.tsx';
import { StepsField } from './steps-field.tsx';
import type { TemplateDraft } from './template-draft.ts';
import { TicketsAsked } from './tickets-asked.tsx';
import { TitleField } from './title-field.tsx';

const RichTextEditor = lazy(() => import('../../kit/rich-text-editor.tsx'));

interface PartProps {
  readonly draft: TemplateDraft;
  /** What is wrong with a field, by its path. */
  readonly at: (path: string) => string | undefined;
  readonly set: <K extends keyof TemplateDraft>(field: K, value: TemplateDraft[K]) => void;
}

interface TemplateFormProps extends PartProps {
  readonly example: TitleContext;
  /** Files that may stand in the draft. */
  readonly known: readonly StoredFile[];
}

/** All that a template says, from top to bottom; for a manager to change. */
export function TemplateForm({ draft, example, known, at, set }: TemplateFormProps) {
  const { may } = useWorkspace();
  const isLocked = !may('plan');
  return (
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
      <StepsPart draft={draft} at={at} set={set} />
      <ProofPart draft={draft} at={at} set={set} />
      <Part name="Who" aside="unless a schedule says otherwise">
        <DefaultWho rule={draft.assignment} onChange={(rule) => set('assignment', rule)} />
        <FieldError message={at('assignment')} />
        <TicketsAsked
          tickets={draft.tickets}
          personId={onlyPersonOf(draft.assignment)}
          onChange={(tickets) => set('tickets', tickets)}
        />
        <FieldError message={at('tickets')} />
      </Part>
      <Part name="Late" aside="who is told">
        <ChoiceBlank
          label="Who is told when it is late"
          value={draft.escalation === null ? 'usual' : 'own'}
          options={[
            ['usual', 'as the settings say'],
            ['own', 'as it says here'],
          ]}
          onChange={(value) => set('escalation', value === 'usual' ? null : USUAL_ESCALATION)}
        />
        {draft.escalation && <LateLines escalation={draft.escalation} onChange={(next) => set('escalation', next)} />}
        <FieldError message={at('escalation')} />
      </Part>
    </fieldset>
  );
}

function StepsPart({ draft, at, set }: PartProps) {
  return (
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
  );
}

function ProofPart({ draft, at, set }: PartProps) {
  return (
    <Part name="Proof" aside="of the main task">
      <DemandsField
        demands={draft.demands}
        label="the task"
        startsByTag
        messageOf={(i) => ['label', 'most', 'options', 'unit'].map((part) => at(`demands.${i}.${part}`)).find(Boolean)}
        onChange={(demands) => set('demands', demands)}
      />
      <div>
        <SignOffBlank label="Sign-off" signOff={draft.signOff} onChange={(signOff) => set('signOff', signOff)} />
      </div>
      <FieldError message={at('signOff')} />
    </Part>
  );
}

function sayCounts({ steps }: TemplateDraft): string {
  const tasks = steps.filter(({ kind }) => kind === 'task').length;
  const lines = steps.length - tasks;
  if (steps.length === 0) return 'none yet';
  return [tasks > 0 ? plural(tasks + 1, 'task') : '', lines > 0 ? plural(lines, 'check line') : '']
    .filter(Boolean)
    .join(', ');
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
