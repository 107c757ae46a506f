import type { Settings } from '../../../contract/index.ts';
import { HABIT_WORDS, joinAnd, monthName, PHRASE_HABITS, weekWith, zoneCity } from '../../../core/index.ts';
import { ChoiceBlank, NumberBlank, Part, TimeBlank, WordsBlank } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { Picker } from '../../kit/picker.tsx';
import { CLOCK_WORDS, DATE_ORDER_WORDS, WEEK_START_WORDS } from '../../kit/ways-words.ts';
import { WeekHoursRow } from '../../kit/week-hours-row.tsx';
import { WeekdayToggles } from '../../kit/weekday-toggles.tsx';
import { AskingPart } from './asking-part.tsx';
import { DaysOffPart } from './days-off-part.tsx';
import { HearingPart } from './hearing-part.tsx';
import { LatePart } from './late-part.tsx';
import { RecordsPart } from './records-part.tsx';
import { SeasonsPart } from './seasons-part.tsx';
import { VisitsPart } from './visits-part.tsx';

interface SettingsFormProps {
  readonly draft: Settings;
  readonly saved: Settings;
  /** What is wrong with a field, by its path. */
  readonly at: (path: string) => string | undefined;
  readonly onChange: (draft: Settings) => void;
}

/** No habit: whoever says it is asked. */
const ASK = -1;

const MONTHS = Array.from({ length: 12 }, (_, i) => [i + 1, monthName(i + 1)] as const);
const ZONES = Intl.supportedValuesOf('timeZone').map((zone) => ({
  key: zone,
  name: zoneCity(zone),
  detail: zone.split('/')[0] ?? '',
}));

/** The settings as sentences. */
export function SettingsForm({ draft, saved, at, onChange }: SettingsFormProps) {
  const set = (change: Partial<Settings>) => onChange({ ...draft, ...change });
  return (
    <section className="min-h-0 overflow-y-auto border-r border-line-2 max-[1000px]:border-r-0" aria-label="Settings">
      <Part name="Workspace">
        called{' '}
        <WordsBlank
          label="Name of the workspace"
          shown={draft.name}
          wrong="give it a name of 80 characters at most"
          read={(text) => (text.trim() === '' || text.trim().length > 80 ? undefined : text.trim())}
          onChange={(name) => set({ name })}
        />
        , by the clock of{' '}
        <Picker
          label="Clock of the workspace"
          chosen={draft.zone}
          chosenName={zoneCity(draft.zone)}
          options={ZONES}
          onChoose={(zone) => set({ zone })}
        />
        <Problem message={at('name') ?? at('zone')} />
      </Part>
      <Part name="Working week">
        we work on{' '}
        <WeekdayToggles
          name="Days that are worked"
          chosen={draft.workingWeekdays}
          least={1}
          most={7}
          onChange={(workingWeekdays) =>
            set({ workingWeekdays, weekMinutes: weekWith(draft.weekMinutes, workingWeekdays) })
          }
        />
        <br />
        hours{' '}
        <WeekHoursRow
          weekdays={draft.workingWeekdays}
          minutes={draft.weekMinutes}
          onChange={(weekMinutes) => set({ weekMinutes })}
        />
        <Problem message={at('workingWeekdays') ?? at('weekMinutes')} />
      </Part>
      <DaysOffPart holidays={draft.holidays} wrong={at('holidays')} onChange={(holidays) => set({ holidays })} />
      <Part name="Year">
        the financial year begins in{' '}
        <ChoiceBlank
          label="Month in which the financial year begins"
          value={draft.yearStarts}
          options={MONTHS}
          onChange={(yearStarts) => set({ yearStarts })}
        />
        <br />
        <span className="text-ink-2">
          Its quarters end in {quarterEnds(draft.yearStarts)}: so “quarter end” and “year end” are read.
        </span>
      </Part>
      <SeasonsPart seasons={draft.seasons} wrong={at('seasons')} onChange={(seasons) => set({ seasons })} />
      <Part name="Dates">
        a week begins on a{' '}
        <ChoiceBlank
          label="Day on which a week begins"
          value={draft.ways.weekStarts}
          options={WEEK_START_WORDS}
          onChange={(weekStarts) => set({ ways: { ...draft.ways, weekStarts } })}
        />
        , dates are shown as{' '}
        <ChoiceBlank
          label="How dates are shown"
          value={draft.ways.dateOrder}
          options={DATE_ORDER_WORDS}
          onChange={(dateOrder) => set({ ways: { ...draft.ways, dateOrder } })}
        />
        , times as{' '}
        <ChoiceBlank
          label="How times are shown"
          value={draft.ways.clock}
          options={CLOCK_WORDS}
          onChange={(clock) => set({ ways: { ...draft.ways, clock } })}
        />
        <br />
        <span className="text-ink-2">Each person may choose otherwise, on the page of their account.</span>
        <Problem message={at('ways')} />
      </Part>
      <Part name="Words">
        {PHRASE_HABITS.map((habit) => (
          <div key={habit}>
            “{HABIT_WORDS[habit].said}” is{' '}
            <ChoiceBlank
              label={`What ${HABIT_WORDS[habit].said} means`}
              value={draft.phraseHabits[habit] ?? ASK}
              options={[[ASK, 'asked each time'], ...HABIT_WORDS[habit].means.map((words, i) => [i, words] as const)]}
              onChange={(meant) => {
                const { [habit]: _, ...others } = draft.phraseHabits;
                set({ phraseHabits: meant === ASK ? others : { ...others, [habit]: meant } });
              }}
            />
          </div>
        ))}
      </Part>
      <Part name="Tasks">
        made{' '}
        <NumberBlank
          label="How many days ahead tasks are made"
          value={draft.horizonDays}
          least={1}
          most={366}
          onChange={(horizonDays) => set({ horizonDays })}
        />{' '}
        days ahead, daily at{' '}
        <TimeBlank
          label="Time of the daily run"
          value={draft.makeTime}
          placeholder="04:00"
          when="left"
          onChange={(makeTime) => set({ makeTime: makeTime ?? draft.makeTime })}
        />{' '}
        and when the server starts
        <Problem message={at('horizonDays') ?? at('makeTime')} />
        <br />
        finished work stays on the day sheet for{' '}
        <NumberBlank
          label="For how many days finished work stays on the day sheet"
          value={draft.doneStaysDays}
          least={1}
          most={14}
          onChange={(doneStaysDays) => set({ doneStaysDays })}
        />{' '}
        {draft.doneStaysDays === 1 ? 'day, its own' : 'days, its own among them'}
        <Problem message={at('doneStaysDays')} />
        <br />
        two who swap turns{' '}
        <ChoiceBlank
          label="What a swap of turns needs"
          value={draft.swapsNeedNod ? 'nod' : 'agree'}
          options={[
            ['agree', 'need only agree'],
            ['nod', 'need a planner’s nod as well'],
          ]}
          onChange={(value) => set({ swapsNeedNod: value === 'nod' })}
        />
      </Part>
      <VisitsPart visits={draft.visits} wrong={at('visits')} onChange={(visits) => set({ visits })} />
      <AskingPart asking={draft.asking} wrong={at('asking')} onChange={(asking) => set({ asking })} />
      <LatePart escalation={draft.escalation} wrong={at('escalation')} onChange={(escalation) => set({ escalation })} />
      <HearingPart hearing={draft.hearing} onChange={(hearing) => set({ hearing })} />
      <RecordsPart
        years={draft.keepYears}
        saved={saved.keepYears}
        wrong={at('keepYears')}
        onChange={(keepYears) => set({ keepYears })}
      />
    </section>
  );
}

function quarterEnds(yearStarts: number): string {
  return joinAnd([2, 5, 8, 11].map((after) => monthName(((yearStarts - 1 + after) % 12) + 1)));
}

function Problem({ message }: { readonly message: string | undefined }) {
  return message === undefined ? null : <FieldError message={message} />;
}
