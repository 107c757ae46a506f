import type { ComponentProps } from 'react';
import { Link } from 'react-router';
import type { TemplateLine } from '../../../../contract/index.ts';
import { givenTo, plural, sayDuration } from '../../../../core/index.ts';
import { Part } from '../../../kit/blanks.tsx';
import { Picker } from '../../../kit/picker.tsx';
import { useForWhom } from '../../clients/api.ts';
import { SubjectPicker } from '../../clients/subject-picker.tsx';
import { ByHandPart } from './by-hand-part.tsx';
import { EachTimePart } from './each-time-part.tsx';
import type { FormPartProps, StretchPartProps } from './form-part.tsx';
import { OverlapPart } from './overlap-part.tsx';
import { StretchesPart } from './stretches-part.tsx';
import { WhenPart } from './when-part.tsx';
import { WhoPart } from './who-part.tsx';

interface BenchFormProps extends StretchPartProps {
  readonly templates: readonly TemplateLine[];
  readonly title: string | null;
  readonly onStretch: (stretch: number) => void;
  /** What the part on who does it is told beside the draft. */
  readonly who: Omit<ComponentProps<typeof WhoPart>, keyof FormPartProps | 'problem'>;
}

/** The schedule as sentences with blanks, read from top to bottom. */
export function BenchForm({ draft, stretch, templates, problem, title, who, onChange, onStretch }: BenchFormProps) {
  const template = templates.find(({ id }) => id === draft.templateId);
  return (
    <form
      className="overflow-y-auto border-r border-line-2 pb-10 max-[1000px]:border-r-0"
      aria-label="The schedule"
      onSubmit={(event) => event.preventDefault()}
    >
      <Part name="What">
        <Picker
          label="Template"
          chosen={draft.templateId}
          placeholder="choose a template"
          options={templates
            .filter(({ id, archivedOn }) => archivedOn === null || id === draft.templateId)
            .map(({ id, name, category }) => ({ key: id, name, detail: category ?? '' }))}
          onChoose={(templateId) => {
            const chosen = templates.find(({ id }) => id === templateId);
            const { assignment } = draft;
            onChange({
              ...draft,
              templateId,
              assignment: assignment.kind === 'nobody' ? (chosen?.assignment ?? givenTo(null)) : assignment,
            });
          }}
        />{' '}
        {templates.length === 0 && (
          <span className="text-ink-2">
            There is none yet:{' '}
            <Link className="link-line text-ink" to="/templates/new">
              write the first template
            </Link>
          </span>
        )}
        {template && (
          <>
            about {sayDuration(template.minutes)}
            {template.makes > 1 && `, ${template.makes} tasks`}
            {template.checkLines > 0 && `, ${plural(template.checkLines, 'check line')}`}
          </>
        )}
        {title && template && title !== template.name && (
          <p className="text-note leading-5 text-ink-2">
            called <b className="font-semibold text-ink">{title}</b>
          </p>
        )}
      </Part>
      <ForWhom draft={draft} onChange={onChange} />
      {draft.revisions.length > 0 && (
        <StretchesPart draft={draft} stretch={stretch} onChange={onChange} onStretch={onStretch} />
      )}
      <WhenPart draft={draft} stretch={stretch} problem={problem} onChange={onChange} />
      <EachTimePart draft={draft} stretch={stretch} problem={problem} onChange={onChange} />
      <WhoPart draft={draft} problem={problem} onChange={onChange} {...who} />
      <OverlapPart overlap={draft.overlap} onChange={(overlap) => onChange({ ...draft, overlap })} />
      <ByHandPart draft={draft} onChange={onChange} />
    </form>
  );
}

function ForWhom({ draft, onChange }: FormPartProps) {
  const names = useForWhom(draft);
  return (
    <Part name="For whom">
      <SubjectPicker chosen={draft} onChoose={(forWhom) => onChange({ ...draft, ...forWhom })} />{' '}
      <span className="text-ink-2">{names && ((names.asset ?? names.client)?.detail ?? 'no client')}</span>
    </Part>
  );
}
