import { z } from 'zod';
import {
  type ROWS_WITH_SCHEDULES,
  recurrenceSchema,
  timingSchema,
  WALL_ROWS_AT_ONCE,
  type WallRow,
} from '../../../contract/index.ts';
import {
  FRESH_TIMING,
  isoOfDay,
  parsePhrase,
  plural,
  recurrenceProblems,
  withTimes,
  writePhrase,
} from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useDraft } from '../../kit/draft.ts';
import { Picker } from '../../kit/picker.tsx';
import { CloseButton, SECTION, SectionTitle, SideSheet } from '../../kit/side-sheet.tsx';
import { goToUnread } from '../../kit/unread.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { PhraseBox } from '../schedules/rule/phrase-box.tsx';
import { sayTimes } from '../schedules/rule/phrase-choices.tsx';
import { useTemplates } from '../templates/api.ts';
import { useWallActions } from './api.ts';

type Addable = (typeof ROWS_WITH_SCHEDULES)[number];

interface AddSheetProps {
  readonly rows: Addable;
  readonly picked: readonly WallRow[];
  readonly onClose: () => void;
  readonly onSaved: () => void;
}

interface Asked {
  readonly what: string;
}

/** What is written here outlives a closed sheet. */
const form = z.object({ templateId: z.string(), recurrence: recurrenceSchema, timing: timingSchema });
type Written = z.infer<typeof form>;

const NAMED = 6;

/** The same schedule for each of the rows that are ticked: looked at, saved and undone in one go. */
export function AddSheet({ rows, picked, onClose, onSaved }: AddSheetProps) {
  const { today, yearStarts, workingCalendar } = useWorkspace();
  const { templates } = useTemplates();
  const { impactOfAdding, add } = useWallActions();
  const { draft, change, forget } = useDraft<Written>(
    'wallchart.add',
    { templateId: '', recurrence: parsePhrase('every week on Mon', { start: isoOfDay(today) }), timing: FRESH_TIMING },
    form,
  );
  const { templateId, recurrence, timing } = draft;
  const template = templates?.find(({ id }) => id === templateId);
  const body = { rows, templateId, recurrence, timing, keys: picked.map(({ key }) => key) };
  const phrase = writePhrase(recurrence, { start: 'unsaid', yearStarts });
  const what = `${template?.name ?? 'A schedule'}, ${phrase}, for ${plural(picked.length, 'row')}`;
  const { look, busy, dialog } = useLookedAt<Asked>({
    impactOf: () => impactOfAdding(body),
    save: () => add(body, `${template?.name}, ${phrase}`),
    hasReach: false,
    always: true,
    onSaved: () => {
      forget();
      onSaved();
    },
    onRefused: sayTrouble,
  });
  const [fault] = recurrenceProblems(recurrence, workingCalendar);
  const problem =
    template === undefined
      ? 'Choose a template.'
      : picked.length === 0
        ? 'Tick the rows it is for.'
        : picked.length > WALL_ROWS_AT_ONCE
          ? `${WALL_ROWS_AT_ONCE} rows at once, at most.`
          : (fault?.message ?? null);
  return (
    <SideSheet label="Add a schedule to rows" onClose={onClose}>
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">Add a schedule to rows</h2>
          <p className="text-row text-ink-2">One schedule for each of them, alike in what and when.</p>
        </div>
        <CloseButton onClose={onClose} />
      </header>
      <form
        className="text-row"
        onSubmit={(event) => {
          event.preventDefault();
          // What can't be read is not what would be saved.
          if (problem === null && !goToUnread()) look({ what });
        }}
      >
        <div className={SECTION}>
          <SectionTitle>What</SectionTitle>
          <Picker
            label="Template"
            chosen={templateId}
            placeholder="choose a template"
            options={(templates ?? [])
              .filter(({ archivedOn }) => archivedOn === null)
              .map(({ id, name, category }) => ({ key: id, name, ...(category ? { detail: category } : {}) }))}
            onChoose={(id) => change({ ...draft, templateId: id })}
          />
        </div>
        <div className={SECTION}>
          <SectionTitle>When</SectionTitle>
          <PhraseBox
            recurrence={recurrence}
            onChange={(next, times) => change({ ...draft, recurrence: next, timing: withTimes(timing, times) })}
          />
        </div>
        {(timing.startTime !== null || timing.dueTime !== null) && (
          <div className={SECTION}>
            <SectionTitle>Each time</SectionTitle>
            <p>{sayTimes(timing)}</p>
          </div>
        )}
        <div className={SECTION}>
          <SectionTitle aside={plural(picked.length, 'row')}>For</SectionTitle>
          {picked.length === 0 ? (
            <p className="text-ink-2">Tick them in the chart.</p>
          ) : (
            <p>
              {picked
                .slice(0, NAMED)
                .map(({ name }) => name)
                .join(', ')}
              {picked.length > NAMED && ` and ${picked.length - NAMED} more`}
            </p>
          )}
        </div>
        <div className={SECTION}>
          <SectionTitle>Who</SectionTitle>
          <p>{rows === 'person' ? 'Each of them has their own.' : 'As the template says.'}</p>
        </div>
        <div className="flex flex-wrap items-center gap-3 px-5 py-3">
          <button type="submit" className="btn btn-primary" disabled={busy || problem !== null}>
            Look at what it makes
          </button>
          {problem && (
            <span className="text-note text-ink-2" role="status">
              {problem}
            </span>
          )}
        </div>
      </form>
      {dialog}
    </SideSheet>
  );
}
