import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Template } from '../../../contract/index.ts';
import { type CivilDay, fillTitle, isoOfDay, onlyPersonOf, plural, sayRule, startedSet } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { DateBlank } from '../../kit/blanks.tsx';
import { Dialog } from '../../kit/dialog.tsx';
import { TEXT_FORM, useDraft } from '../../kit/draft.ts';
import { Picker } from '../../kit/picker.tsx';
import { CloseButton } from '../../kit/side-sheet.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { Tag } from '../../kit/tag.tsx';
import { goToUnread } from '../../kit/unread.ts';
import { useForWhom } from '../clients/api.ts';
import { SubjectPicker } from '../clients/subject-picker.tsx';
import { PersonBlank } from '../people/person-blank.tsx';
import { useHandMade } from '../tasks/api.ts';
import { useTemplate, useTemplates } from './api.ts';
import { type PartChange, partsOf, StartSet } from './start-set.tsx';

/** What is known already from the place where it is started. */
export interface StartPlace {
  readonly templateId?: string | undefined;
  readonly clientId?: string | null | undefined;
  readonly assetId?: string | null | undefined;
  readonly on?: CivilDay | undefined;
}

/** Starts a template by hand: the tasks it will make, what is special this time, and then the tasks. */
export default function StartNow({ place, onClose }: { readonly place: StartPlace; readonly onClose: () => void }) {
  const [templateId, setTemplateId] = useState(place.templateId ?? null);
  const { templates, error } = useTemplates();
  const { data: template } = useTemplate(templateId);
  return (
    <Dialog label="Start now" look="edge" onClose={onClose}>
      <div className="flex items-center gap-3 px-5 pt-3 text-row text-ink-2">
        Start now
        <span className="ml-auto" />
        {template && <Tag category={template.category} dot={template.dot} />}
        <CloseButton onClose={onClose} />
      </div>
      {error && !templates && <Trouble error={error} />}
      {templates?.length === 0 && (
        <p className="px-5 pb-6 pt-2">
          There is no template yet.{' '}
          <Link className="link-line" to="/templates" onClick={onClose}>
            Write the first one
          </Link>
          , or capture a task in one line.
        </p>
      )}
      {templateId === null && templates && templates.length > 0 && (
        <div className="px-5 pb-6 pt-2">
          <h2 className="mb-2 text-title leading-6.5">What is to be done</h2>
          <Picker
            label="Template"
            chosen=""
            placeholder="choose a template"
            options={templates
              .filter(({ archivedOn }) => archivedOn === null)
              .map(({ id, name, summary, category }) => ({ key: id, name, detail: summary || category || '' }))}
            onChoose={setTemplateId}
          />
        </div>
      )}
      {templateId !== null && template?.id !== templateId && <Skeleton rows={6} />}
      {template?.id === templateId && template && (
        <Start
          key={template.id}
          template={template}
          place={place}
          onClose={onClose}
          onOther={place.templateId ? null : () => setTemplateId(null)}
        />
      )}
    </Dialog>
  );
}

interface StartProps {
  readonly template: Template;
  readonly place: StartPlace;
  readonly onClose: () => void;
  readonly onOther: (() => void) | null;
}

function Start({ template, place, onClose, onOther }: StartProps) {
  const { may, me, people, today, workingCalendar } = useWorkspace();
  const { startTemplate } = useHandMade();
  const [on, setOn] = useState(place.on ?? today);
  const [subject, setSubject] = useState({ clientId: place.clientId ?? null, assetId: place.assetId ?? null });
  const [assigneeId, setAssignee] = useState(
    template.assignment.kind === 'anyOf' ? null : (onlyPersonOf(template.assignment) ?? me.id),
  );
  // Kept over a closed sheet, until it is used.
  const { draft: special, change: setSpecial, forget } = useDraft(`start.${template.id}`, '', TEXT_FORM);
  const [changes, setChanges] = useState<Readonly<Record<string, PartChange>>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const nameOf = (id: string | null) => people.find((person) => person.id === id)?.name ?? null;
  const forWhom = useForWhom(subject);
  const parts = useMemo(
    () => partsOf(startedSet(template, on, workingCalendar, assigneeId), template.assignment, changes),
    [template, on, workingCalendar, assigneeId, changes],
  );
  const chosen = parts.filter(({ isLeftOut }) => !isLeftOut);
  const titleOf = (pattern: string, who: string | null) =>
    fillTitle(pattern, {
      on,
      client: forWhom?.client?.name ?? null,
      asset: forWhom?.asset?.name ?? null,
      person: nameOf(who),
      type: template.workType,
    }) || template.name;
  const change = (key: string, next: PartChange) => setChanges((all) => ({ ...all, [key]: { ...all[key], ...next } }));

  const make = async () => {
    setBusy(true);
    try {
      const made = await startTemplate(template.id, {
        on: isoOfDay(on),
        ...subject,
        assigneeId,
        special,
        parts: chosen.map((part) => ({
          step: part.key,
          on: isoOfDay(part.on),
          startTime: part.startTime,
          dueTime: part.dueTime,
          assigneeId: part.assigneeId,
        })),
      });
      sayDone(
        `Made ${plural(made.tasks.length, 'task')}: ${titleOf(template.titlePattern, assigneeId)}.`,
        made.changeId,
      );
      forget();
      onClose();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      className="flex min-h-0 flex-1 flex-col"
      aria-label={`Start ${template.name}`}
      onSubmit={(event) => {
        event.preventDefault();
        if (chosen.length > 0 && !busy && !goToUnread()) void make();
      }}
    >
      <div className="min-h-0 flex-1 overflow-y-auto">
        <div className="border-b border-line px-5 pb-3 text-row leading-7.5">
          <h2 className="text-title leading-7">
            {template.name}
            {onOther && (
              <button type="button" className="link-line ml-3 font-sans text-note font-normal" onClick={onOther}>
                another
              </button>
            )}
          </h2>
          for <SubjectPicker chosen={subject} onChoose={setSubject} />{' '}
          <span className="text-ink-2">{forWhom?.asset?.detail}</span>
          <br />
          on <DateBlank label="The set’s date" value={on} onChange={setOn} />, by{' '}
          <PersonBlank
            label="Who has the set"
            personId={assigneeId}
            {...(template.assignment.kind === 'anyOf'
              ? { nobody: sayRule(template.assignment, { today, people }) }
              : {})}
            onChange={setAssignee}
          />
          <p className="mt-1 font-head text-[17px] font-semibold leading-5.5">
            {titleOf(template.titlePattern, assigneeId)}
          </p>
        </div>
        <StartSet parts={parts} titleOf={titleOf} onChange={change} />
        <section className="px-5 py-2.5">
          <label className="font-head text-row font-semibold leading-4.5 text-primary" htmlFor="special">
            Special this time
          </label>
          <textarea
            id="special"
            className="mt-1 writing"
            style={{ fieldSizing: 'content', minHeight: 44 } as React.CSSProperties}
            placeholder="stands on every task of this set"
            maxLength={2000}
            value={special}
            onChange={({ target }) => setSpecial(target.value)}
          />
        </section>
      </div>
      <p role="alert" className="field-error px-5">
        {problem}
      </p>
      <div className="flex items-center gap-3 border-t border-line-2 px-5 py-3">
        <button type="submit" className="btn btn-primary" disabled={chosen.length === 0 || busy}>
          {chosen.length === 0 ? 'Nothing to make' : `Make ${plural(chosen.length, 'task')}`}
        </button>
        {may('plan') && (
          <Link
            className="btn"
            to={`/schedules/new?template=${template.id}&client=${subject.clientId ?? ''}&asset=${subject.assetId ?? ''}`}
            onClick={onClose}
          >
            Make it a schedule
          </Link>
        )}
        <span className="ml-auto text-right text-note leading-4 text-ink-2">nothing changes in the template</span>
      </div>
    </form>
  );
}
