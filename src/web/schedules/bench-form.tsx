import { X } from 'lucide-react';
import type { Template } from '../../contract/index.ts';
import {
  dayOfIso,
  type End,
  isoOfDay,
  MAX_COUNT,
  type Offset,
  type Reminder,
  readSeasonList,
  sayDate,
  sayDay,
  sayDuration,
  type Timing,
  writePhrase,
  writeSeasons,
  zoneCity,
} from '../../core/index.ts';
import { useToday, useWorkspace } from '../shell/workspace.tsx';
import { ChoiceBlank, DateBlank, NumberBlank, Part, TimeBlank, WordsBlank } from '../ui/blanks.tsx';
import { Picker, type PickerOption } from '../ui/picker.tsx';
import { type BenchDraft, stretchAt, withRecurrence, withStretch } from './bench-draft.ts';
import { dropRevision } from './by-hand.ts';
import { PhraseBox } from './phrase-box.tsx';
import { DAY_OFF_WORDS, ruleOf } from './rule-choices.ts';
import { RuleSentence } from './rule-sentence.tsx';
import { letterOf } from './what-this-makes.tsx';

interface BenchFormProps {
  readonly draft: BenchDraft;
  /** Which of its rules is being edited: 0 is the first, then each revision. */
  readonly stretch: number;
  readonly templates: readonly Template[];
  /** What keeps it from being planned, and where. */
  readonly problem: { readonly path: string; readonly message: string } | null;
  readonly title: string | null;
  readonly onChange: (draft: BenchDraft) => void;
  readonly onStretch: (stretch: number) => void;
}

/** The schedule as sentences with blanks, read from top to bottom. */
export function BenchForm({ draft, stretch, templates, problem, title, onChange, onStretch }: BenchFormProps) {
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
      {draft.revisions.length > 0 && (
        <Stretches draft={draft} stretch={stretch} onChange={onChange} onStretch={onStretch} />
      )}
      <When draft={draft} stretch={stretch} problem={problem} onChange={onChange} />
      <EachTime draft={draft} stretch={stretch} problem={problem} onChange={onChange} />
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
      <ByHand draft={draft} onChange={onChange} />
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

type ProblemPartProps = FormPartProps & Pick<BenchFormProps, 'problem' | 'stretch'>;

/** Which of several rules, one after the other in time, the form shows. */
function Stretches({
  draft,
  stretch,
  onChange,
  onStretch,
}: FormPartProps & Pick<BenchFormProps, 'stretch' | 'onStretch'>) {
  const froms = [draft.recurrence.start, ...draft.revisions.map(({ from }) => from)];
  return (
    <Part name="Which rule">
      <ul className="leading-6">
        {froms.map((from, index) => (
          <li key={from} className="flex items-baseline gap-2">
            <button
              type="button"
              aria-pressed={index === stretch}
              className={`cursor-pointer text-left ${index === stretch ? 'font-semibold' : 'text-ink-2 hover:text-ink'}`}
              onClick={() => onStretch(index)}
            >
              <span className={index === stretch ? 'border-b-2 border-accent' : ''}>
                from {sayDate(dayOfIso(from))}
              </span>
              : {writePhrase(stretchAt(draft, index).recurrence, { start: 'unsaid' })}
            </button>
            {index > 0 && (
              <button
                type="button"
                className="ml-auto cursor-pointer px-1 text-ink-2 hover:text-ink"
                aria-label={`Take out the rule from ${sayDate(dayOfIso(from))}`}
                onClick={() => {
                  onStretch(0);
                  onChange(dropRevision(draft, index));
                }}
              >
                <X size={13} aria-hidden />
              </button>
            )}
          </li>
        ))}
      </ul>
    </Part>
  );
}

function When({ draft, stretch, problem, onChange }: ProblemPartProps) {
  const { recurrence } = stretchAt(draft, stretch);
  const revision = draft.revisions[stretch - 1];
  const put = (next: BenchDraft['recurrence']) => onChange(withRecurrence(draft, stretch, next));
  const set = (change: Partial<BenchDraft['recurrence']>) => put({ ...recurrence, ...change });
  const start = dayOfIso(recurrence.start);
  const several = recurrence.rules.length > 1;
  const follows = recurrence.rules[0]?.kind === 'follows';
  return (
    <Part name="When">
      <PhraseBox key={stretch} recurrence={recurrence} onChange={put} />
      {recurrence.rules.map((rule, index) => (
        <RuleSentence
          // biome-ignore lint/suspicious/noArrayIndexKey: a rule is its place in the list
          key={index}
          rule={rule}
          letter={several ? letterOf(index) : null}
          start={start}
          onChange={(next) =>
            set({
              // A rule that waits for the last one stands alone.
              rules:
                next.kind === 'follows' ? [next] : recurrence.rules.map((other, i) => (i === index ? next : other)),
            })
          }
          onRemove={several ? () => set({ rules: recurrence.rules.filter((_, i) => i !== index) }) : null}
        />
      ))}
      {!follows && recurrence.rules.length < 12 && (
        <div className="pl-[18px]">
          <button
            type="button"
            className="link-line leading-5"
            onClick={() => set({ rules: [...recurrence.rules, ruleOf('months', start)] })}
          >
            Add a rule
          </button>
        </div>
      )}
      <div className="pl-[18px]">
        on a day off,{' '}
        <ChoiceBlank
          label="On a day off"
          value={recurrence.dayOff}
          options={DAY_OFF_WORDS}
          onChange={(dayOff) => set({ dayOff })}
        />
        <br />
        <ClosedSeasonsBlank recurrence={recurrence} onChange={put} />
        <br />
        from{' '}
        <DateBlank
          label="Starts on"
          value={revision ? dayOfIso(revision.from) : start}
          onChange={(day) => set({ start: isoOfDay(day) })}
        />{' '}
        until <EndBlank recurrence={recurrence} onChange={(end) => set({ end })} />
        {recurrence.except && recurrence.except.length > 0 && (
          <>
            <br />
            except{' '}
            <button
              type="button"
              className="link-line leading-5"
              title="Let them count again"
              onClick={() => set({ except: [] })}
            >
              {recurrence.except.map((date) => sayDate(dayOfIso(date))).join(', ')}
            </button>
          </>
        )}
        <Wrong problem={problem} under={stretch === 0 ? 'recurrence' : `revisions.${stretch - 1}.recurrence`} />
      </div>
    </Part>
  );
}

/** "not in Jan, 15 Jul to 20 Aug": seasons without work, and what becomes of dates in them. */
function ClosedSeasonsBlank({
  recurrence,
  onChange,
}: {
  readonly recurrence: BenchDraft['recurrence'];
  readonly onChange: (recurrence: BenchDraft['recurrence']) => void;
}) {
  const { closed, ...open } = recurrence;
  return (
    <>
      closed in{' '}
      <WordsBlank
        label="Closed seasons"
        shown={closed ? writeSeasons(closed.seasons) : ''}
        placeholder="no season"
        wrong="write months or days, like Jan, 15 Jul to 20 Aug"
        read={(text) => (text.trim() === '' ? [] : (readSeasonList(text) ?? undefined))}
        onChange={(seasons) =>
          onChange(seasons.length === 0 ? open : { ...open, closed: { seasons, dates: closed?.dates ?? 'omit' } })
        }
      />
      {closed && (
        <>
          , dates then are{' '}
          <ChoiceBlank
            label="Dates in a closed season"
            value={closed.dates}
            options={[
              ['omit', 'left out'],
              ['move', 'moved like off a day off'],
            ]}
            onChange={(dates) => onChange({ ...open, closed: { ...closed, dates } })}
          />
        </>
      )}
    </>
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
  readonly onChange: (end: End) => void;
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

function EachTime({ draft, stretch, problem, onChange }: ProblemPartProps) {
  const { timing } = stretchAt(draft, stretch);
  const set = (change: Partial<Timing>) => onChange(withStretch(draft, stretch, { timing: { ...timing, ...change } }));
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
      <Reminders reminders={timing.reminders} onChange={(reminders) => set({ reminders })} />
      <ZoneBlank zone={timing.zone} onChange={(zone) => set({ zone })} />
      <Wrong problem={problem} under={stretch === 0 ? 'timing' : `revisions.${stretch - 1}.timing`} />
    </Part>
  );
}

const MOST_REMINDERS = 8;
const DAY_BEFORE: Reminder = { offset: { amount: -1, unit: 'workingDay' }, time: '09:00' };

function Reminders({
  reminders,
  onChange,
}: {
  readonly reminders: readonly Reminder[];
  readonly onChange: (reminders: readonly Reminder[]) => void;
}) {
  const set = (index: number, change: Partial<Reminder>) =>
    onChange(reminders.map((other, i) => (i === index ? { ...other, ...change } : other)));
  return (
    <>
      {reminders.map((reminder, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a reminder is its place in the list
        <div key={index}>
          remind{' '}
          <OffsetBlank
            label={`Reminder ${index + 1}`}
            offset={reminder.offset}
            direction={-1}
            onChange={(offset) => set(index, { offset })}
          />{' '}
          before, at{' '}
          <TimeBlank
            label={`Reminder ${index + 1}, time`}
            value={reminder.time}
            placeholder="09:00"
            onChange={(time) => {
              if (time !== null) set(index, { time });
            }}
          />
          <button
            type="button"
            className="cursor-pointer px-1.5 align-middle text-ink-2 hover:text-ink"
            aria-label={`Take out reminder ${index + 1}`}
            onClick={() => onChange(reminders.filter((_, i) => i !== index))}
          >
            <X size={12} aria-hidden />
          </button>
        </div>
      ))}
      {reminders.length < MOST_REMINDERS && (
        <div>
          <button type="button" className="link-line leading-5" onClick={() => onChange([...reminders, DAY_BEFORE])}>
            Add a reminder
          </button>
        </div>
      )}
    </>
  );
}

const WORKSPACE_ZONE = 'workspace';
const ZONES: readonly string[] = Intl.supportedValuesOf('timeZone');

/** The zone in which its dates and times are meant. */
function ZoneBlank({
  zone,
  onChange,
}: {
  readonly zone: string | null;
  readonly onChange: (zone: string | null) => void;
}) {
  const { name, zone: workspaceZone } = useWorkspace();
  return (
    <div>
      by the clock of{' '}
      <Picker
        label="Time zone"
        chosen={zone ?? WORKSPACE_ZONE}
        options={[
          { key: WORKSPACE_ZONE, name: zoneCity(workspaceZone), detail: `${name}’s own` },
          ...ZONES.filter((other) => other !== workspaceZone).map((other) => ({
            key: other,
            name: zoneCity(other),
            detail: other.split('/')[0] ?? '',
          })),
        ]}
        onChoose={(key) => onChange(key === WORKSPACE_ZONE ? null : key)}
      />
    </div>
  );
}

/** Single dates and pauses that were changed by hand, each to be taken back. */
function ByHand({ draft, onChange }: FormPartProps) {
  const today = useToday();
  const { people } = useWorkspace();
  const say = (date: string) => sayDay(dayOfIso(date), today);
  const lines = [
    ...draft.exceptions.map((exception) => {
      const { date } = exception;
      const words = {
        skip: () => 'skipped',
        move: () => `moved to ${exception.kind === 'move' ? say(exception.to) : ''}`,
        add: () => 'added',
        change: () => {
          const change = exception.kind === 'change' ? exception.change : {};
          const parts = [
            change.startTime !== undefined &&
              (change.startTime === null ? 'at any time' : `starts ${change.startTime}`),
            change.dueTime !== undefined &&
              (change.dueTime === null ? 'due by the end of the day' : `due by ${change.dueTime}`),
            change.assigneeId !== undefined &&
              `${people.find(({ id }) => id === change.assigneeId)?.name ?? 'nobody yet'} does it`,
          ].filter((part): part is string => part !== false);
          return parts.join(', ');
        },
      }[exception.kind]();
      return {
        key: `${date} ${exception.kind}`,
        words: `${say(date)} ${words}`,
        drop: { ...draft, exceptions: draft.exceptions.filter((other) => other !== exception) },
      };
    }),
    ...draft.pauses.map((pause) => ({
      key: `pause ${pause.from}`,
      words: `paused from ${say(pause.from)}${pause.to === null ? '' : ` until ${say(pause.to)}`}`,
      drop: { ...draft, pauses: draft.pauses.filter((other) => other !== pause) },
    })),
  ];
  if (lines.length === 0) return null;
  return (
    <Part name="By hand">
      <ul className="leading-6">
        {lines.map(({ key, words, drop }) => (
          <li key={key} className="flex items-baseline gap-2">
            {words}
            <button
              type="button"
              className="ml-auto cursor-pointer px-1 text-ink-2 hover:text-ink"
              aria-label={`Take back: ${words}`}
              onClick={() => onChange(drop)}
            >
              <X size={13} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
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
