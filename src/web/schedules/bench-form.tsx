import type { Template } from '../../contract/index.ts';
import { dayOfIso, isoOfDay, MAX_COUNT, type Offset, sayDuration } from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';
import { ChoiceBlank, DateBlank, NumberBlank, Part, TimeBlank } from '../ui/blanks.tsx';
import { Picker, type PickerOption } from '../ui/picker.tsx';
import type { BenchDraft } from './bench-draft.ts';
import { DAY_OFF_WORDS, ruleOf } from './rule-choices.ts';
import { RuleSentence } from './rule-sentence.tsx';
import { letterOf } from './what-this-makes.tsx';

interface BenchFormProps {
  readonly draft: BenchDraft;
  readonly templates: readonly Template[];
  /** What keeps it from being planned, and where. */
  readonly problem: { readonly path: string; readonly message: string } | null;
  readonly title: string | null;
  readonly onChange: (draft: BenchDraft) => void;
}

/** The schedule as sentences with blanks, read from top to bottom. */
export function BenchForm({ draft, templates, problem, title, onChange }: BenchFormProps) {
  const { people } = useWorkspace();
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
          options={templates.map(({ id, name, category }) => ({ key: id, name, detail: category ?? '' }))}
          onChoose={(templateId) => onChange({ ...draft, templateId })}
        />{' '}
        {template && (
          <>
            about {sayDuration(template.estimateMinutes)}
            {template.checkLines.length > 0 && `, ${template.checkLines.length} steps`}
          </>
        )}
        {title && template && title !== template.name && (
          <p className="text-[13px] leading-5 text-ink-2">
            called <b className="font-semibold text-ink">{title}</b>
          </p>
        )}
      </Part>
      <ForWhom draft={draft} onChange={onChange} />
      <When draft={draft} problem={problem} onChange={onChange} />
      <EachTime draft={draft} problem={problem} onChange={onChange} />
      <Part name="Who">
        <Picker
          label="Who does it"
          chosen={draft.assigneeId ?? NOBODY}
          options={[
            { key: NOBODY, name: 'nobody yet' },
            ...people.map(({ id, name, role }) => ({ key: id, name, detail: role })),
          ]}
          onChoose={(key) => onChange({ ...draft, assigneeId: key === NOBODY ? null : key })}
        />{' '}
        {draft.assigneeId ? 'does it' : 'does it: give it to someone before the first date'}
      </Part>
    </form>
  );
}

const NOBODY = 'nobody';
const OURSELVES = 'ourselves';

type FormPartProps = Pick<BenchFormProps, 'draft' | 'onChange'>;

function ForWhom({ draft, onChange }: FormPartProps) {
  const { name, subjects } = useWorkspace();
  const key = (clientId: string | null, assetId: string | null) =>
    clientId === null && assetId === null ? OURSELVES : `${clientId ?? ''}/${assetId ?? ''}`;
  const options: PickerOption[] = [
    { key: OURSELVES, name: `${name} itself`, detail: 'no client' },
    ...subjects.map((subject) => ({
      key: key(subject.clientId, subject.assetId),
      name: subject.name,
      detail: subject.detail,
      group: subject.clientId === null ? 'our own' : 'clients and what is theirs',
    })),
  ];
  const chosen = key(draft.clientId, draft.assetId);
  const subject = subjects.find(({ clientId, assetId }) => key(clientId, assetId) === chosen);
  return (
    <Part name="For whom">
      <Picker
        label="For whom"
        chosen={chosen}
        options={options}
        onChoose={(next) => {
          const found = subjects.find(({ clientId, assetId }) => key(clientId, assetId) === next);
          onChange({ ...draft, clientId: found?.clientId ?? null, assetId: found?.assetId ?? null });
        }}
      />{' '}
      <span className="text-ink-2">{subject?.detail ?? 'no client'}</span>
    </Part>
  );
}

type ProblemPartProps = FormPartProps & Pick<BenchFormProps, 'problem'>;

function When({ draft, problem, onChange }: ProblemPartProps) {
  const { recurrence } = draft;
  const set = (change: Partial<BenchDraft['recurrence']>) =>
    onChange({ ...draft, recurrence: { ...recurrence, ...change } });
  const start = dayOfIso(recurrence.start);
  const several = recurrence.rules.length > 1;
  return (
    <Part name="When">
      {recurrence.rules.map((rule, index) => (
        <RuleSentence
          // biome-ignore lint/suspicious/noArrayIndexKey: a rule is its place in the list
          key={index}
          rule={rule}
          letter={several ? letterOf(index) : null}
          start={start}
          onChange={(next) => set({ rules: recurrence.rules.map((other, i) => (i === index ? next : other)) })}
          onRemove={several ? () => set({ rules: recurrence.rules.filter((_, i) => i !== index) }) : null}
        />
      ))}
      <div className="pl-[18px]">
        on a day off,{' '}
        <ChoiceBlank
          label="On a day off"
          value={recurrence.dayOff}
          options={DAY_OFF_WORDS}
          onChange={(dayOff) => set({ dayOff })}
        />
        <br />
        from <DateBlank label="Starts on" value={start} onChange={(day) => set({ start: isoOfDay(day) })} /> until{' '}
        <EndBlank recurrence={recurrence} onChange={(end) => set({ end })} />
        {recurrence.rules.length < 12 && (
          <>
            {' · '}
            <button
              type="button"
              className="link-line leading-5"
              onClick={() => set({ rules: [...recurrence.rules, ruleOf('months', start)] })}
            >
              Add a rule
            </button>
          </>
        )}
        <Wrong problem={problem} under="recurrence" />
      </div>
    </Part>
  );
}

const ENDS = [
  ['never', 'stopped'],
  ['on', 'a date'],
  ['after', 'so many times'],
] as const;

function EndBlank({
  recurrence,
  onChange,
}: {
  readonly recurrence: BenchDraft['recurrence'];
  readonly onChange: (end: BenchDraft['recurrence']['end']) => void;
}) {
  const { end } = recurrence;
  const choose = (kind: 'never' | 'on' | 'after') => {
    if (kind === 'never') onChange({ kind });
    else if (kind === 'on') onChange({ kind, date: isoOfDay(dayOfIso(recurrence.start) + 365) });
    else onChange({ kind, count: 12 });
  };
  return (
    <>
      <ChoiceBlank label="Ends" value={end.kind} options={ENDS} onChange={choose} />{' '}
      {end.kind === 'on' && (
        <DateBlank
          label="Ends on"
          value={dayOfIso(end.date)}
          onChange={(day) => onChange({ kind: 'on', date: isoOfDay(day) })}
        />
      )}
      {end.kind === 'after' && (
        <>
          <NumberBlank
            label="Number of times"
            value={end.count}
            least={1}
            most={MAX_COUNT}
            onChange={(count) => onChange({ kind: 'after', count })}
          />{' '}
          times
        </>
      )}
    </>
  );
}

function EachTime({ draft, problem, onChange }: ProblemPartProps) {
  const { timing } = draft;
  const set = (change: Partial<BenchDraft['timing']>) => onChange({ ...draft, timing: { ...timing, ...change } });
  return (
    <Part name="Each time">
      appears{' '}
      <OffsetBlank label="Appears" offset={timing.appears} direction={-1} onChange={(appears) => set({ appears })} />{' '}
      before,
      <br />
      starts <OffsetBlank label="Starts" offset={timing.starts} direction={-1} onChange={(starts) => set({ starts })} />{' '}
      before, at{' '}
      <TimeBlank
        label="Start time"
        value={timing.startTime}
        placeholder="any time"
        onChange={(startTime) => set({ startTime })}
      />
      <br />
      due <OffsetBlank label="Due" offset={timing.due} direction={1} onChange={(due) => set({ due })} /> after, by{' '}
      <TimeBlank
        label="Due time"
        value={timing.dueTime}
        placeholder="end of day"
        onChange={(dueTime) => set({ dueTime })}
      />
      <Wrong problem={problem} under="timing" />
    </Part>
  );
}

interface OffsetBlankProps {
  readonly label: string;
  readonly offset: Offset;
  /** Before the day (-1) or after it (1); the blank shows the bare number. */
  readonly direction: -1 | 1;
  readonly onChange: (offset: Offset) => void;
}

function OffsetBlank({ label, offset, direction, onChange }: OffsetBlankProps) {
  const shown = Math.abs(offset.amount);
  const s = shown === 1 ? '' : 's';
  return (
    <>
      <NumberBlank
        label={`${label}, how many days`}
        value={shown}
        least={0}
        most={366}
        onChange={(days) => onChange({ ...offset, amount: days === 0 ? 0 : days * direction })}
      />{' '}
      <ChoiceBlank
        label={`${label}, which days`}
        value={offset.unit}
        options={[
          ['day', `day${s}`],
          ['workingDay', `working day${s}`],
        ]}
        onChange={(unit) => onChange({ ...offset, unit })}
      />
    </>
  );
}

function Wrong({ problem, under }: { readonly problem: BenchFormProps['problem']; readonly under: string }) {
  if (!problem?.path.startsWith(under)) return null;
  return (
    <p role="alert" className="field-error">
      {problem.message}
    </p>
  );
}
