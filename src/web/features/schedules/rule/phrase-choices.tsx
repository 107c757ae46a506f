import { type KeyboardEvent, useMemo } from 'react';
import {
  type CivilDay,
  joinAnd,
  nextDated,
  type PhraseChoice,
  type PhraseQuestion,
  type PhraseTimes,
  PLAIN_TIMING,
  type Recurrence,
  TooMuchReckoningError,
  type WorkingCalendar,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { sayDay, sayTime } from '../../../kit/ways.ts';

interface PhraseChoicesProps {
  readonly id: string;
  readonly question: PhraseQuestion;
  readonly onChoose: (choice: PhraseChoice) => void;
}

const DATES_SHOWN = 3;

/** What a phrase may mean, each with its next dates; chosen by a press or by its figure. */
export function PhraseChoices({ id, question, onChoose }: PhraseChoicesProps) {
  const { choices, hasMore } = question;
  const { today, workingCalendar } = useWorkspace();
  const dates = useMemo(
    () => choices.map(({ recurrence }) => nextDatesOf(recurrence, today, workingCalendar)),
    [choices, today, workingCalendar],
  );
  const onKeyDown = (event: KeyboardEvent) => {
    const choice = choiceOf(event, choices);
    if (!choice) return;
    event.preventDefault();
    onChoose(choice);
  };
  return (
    <fieldset className="mt-1 text-note leading-5" aria-describedby={id} onKeyDown={onKeyDown}>
      <legend id={id} role="status">
        This can mean {choices.length === 2 ? 'two' : choices.length === 3 ? 'three' : 'four'} things
        {hasMore && ', perhaps more'}. Which one?
      </legend>
      <ol>
        {choices.map((choice, i) => (
          <li key={choice.phrase}>
            <button
              type="button"
              data-choice
              className="grid w-full cursor-pointer grid-cols-[24px_minmax(0,1fr)] items-baseline rounded-field px-1 py-1 text-left hover:bg-chosen focus-visible:bg-chosen"
              onClick={() => onChoose(choice)}
            >
              <kbd className="kbd justify-self-start">{i + 1}</kbd>
              <span className="pl-1.5">
                <b className="text-row font-semibold">{choice.phrase}</b>
                <span className="block text-ink-2">{sayDates(dates[i] ?? [], today)}</span>
              </span>
            </button>
          </li>
        ))}
      </ol>
      <p className="text-ink-2">
        <span className="max-[720px]:hidden">Alt and the figure choose one while you type. </span>The dates stay as they
        were until then.
      </p>
    </fieldset>
  );
}

/** The choice of a figure that is pressed, alone or with Alt. */
export function choiceOf(event: KeyboardEvent, choices: readonly PhraseChoice[]): PhraseChoice | undefined {
  return event.ctrlKey || event.metaKey
    ? undefined
    : choices[Number(/^(?:Digit|Numpad)(\d)$/.exec(event.code)?.[1]) - 1];
}

function sayDates(days: readonly CivilDay[], today: CivilDay): string {
  return days.length === 0 ? 'no date that is near' : `next ${joinAnd(days.map((day) => sayDay(day, today)))}`;
}

export function sayTimes({ startTime, dueTime }: PhraseTimes): string {
  return [startTime && `starts at ${sayTime(startTime)}`, dueTime && `due by ${sayTime(dueTime)}`]
    .filter(Boolean)
    .join(', ');
}

/** The next dates of a rule by itself, moved off days off as it says. */
function nextDatesOf(recurrence: Recurrence, today: CivilDay, calendar: WorkingCalendar): CivilDay[] {
  const schedule = { recurrence, timing: PLAIN_TIMING };
  const days: CivilDay[] = [];
  try {
    while (days.length < DATES_SHOWN) {
      const next = nextDated(schedule, calendar, (days.at(-1) ?? today - 1) + 1);
      if (!next) break;
      days.push(next.on);
    }
  } catch (error) {
    // A rule whose dates take too long to find is refused where it is saved, in words.
    if (!(error instanceof TooMuchReckoningError)) throw error;
  }
  return days;
}
