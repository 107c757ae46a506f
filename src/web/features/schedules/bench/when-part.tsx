import {
  dayOfIso,
  type End,
  isoOfDay,
  MAX_COUNT,
  type PhraseTimes,
  readSeasonList,
  stretchAt,
  writeSeasons,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank, NumberBlank, Part, WordsBlank } from '../../../kit/blanks.tsx';
import { sayDate } from '../../../kit/ways.ts';
import { PhraseBox } from '../rule/phrase-box.tsx';
import { DAY_OFF_WORDS, DAYS_OFF_CHOICES, ruleOf } from '../rule/rule-choices.ts';
import { RuleSentence } from '../rule/rule-sentence.tsx';
import { type BenchDraft, withDaytime, withRecurrence } from './bench-draft.ts';
import { type StretchPartProps, Wrong } from './form-part.tsx';
import { letterOf } from './what-this-makes.tsx';

/** The rule: in words, as sentences with blanks, what happens on days off, and how long it runs. */
export function WhenPart({ draft, stretch, problem, onChange }: StretchPartProps) {
  const { recurrence } = stretchAt(draft, stretch);
  const revision = draft.revisions[stretch - 1];
  const put = (next: BenchDraft['recurrence'], times: PhraseTimes | null = null) =>
    onChange(withRecurrence(withDaytime(draft, stretch, times), stretch, next));
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
        on a <DaysOffBlank recurrence={recurrence} onChange={put} />,{' '}
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

interface RecurrenceBlankProps {
  readonly recurrence: BenchDraft['recurrence'];
  readonly onChange: (recurrence: BenchDraft['recurrence']) => void;
}

/** What counts as a day off, where one makes a difference. */
function DaysOffBlank({ recurrence, onChange }: RecurrenceBlankProps) {
  const { daysOff, ...both } = recurrence;
  if (recurrence.dayOff === 'none') return <>day off</>;
  return (
    <ChoiceBlank
      label="What counts as a day off"
      value={daysOff ?? 'both'}
      options={DAYS_OFF_CHOICES}
      onChange={(chosen) => onChange(chosen === 'both' ? both : { ...both, daysOff: chosen })}
    />
  );
}

/** "not in Jan, 15 Jul to 20 Aug": seasons without work, and what becomes of dates in them. */
function ClosedSeasonsBlank({ recurrence, onChange }: RecurrenceBlankProps) {
  const { closed, ...open } = recurrence;
  const named = useWorkspace().seasons;
  return (
    <>
      closed in{' '}
      <WordsBlank
        label="Closed seasons"
        shown={closed ? writeSeasons(closed.seasons) : ''}
        placeholder="no season"
        wrong="write months or days, like Jan, 15 Jul to 20 Aug"
        read={(text) => (text.trim() === '' ? [] : (readSeasonList(text, named) ?? undefined))}
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
