import { retentionAddresses } from '../../../contract/addresses.ts';
import { MOST_KEPT_YEARS, type NextLettingGo } from '../../../contract/retention.ts';
import { dayOfIso, plural } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { ChoiceBlank, Part } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { sayDate, sayDay } from '../../kit/ways.ts';

interface RecordsPartProps {
  readonly years: number | null;
  /** As it is saved. */
  readonly saved: number | null;
  readonly wrong: string | undefined;
  readonly onChange: (years: number | null) => void;
}

const FOR_GOOD = 0;
const YEARS = Array.from({ length: MOST_KEPT_YEARS }, (_, i) => i + 1);
const OPTIONS = [
  [FOR_GOOD, 'for good'] as const,
  ...YEARS.map((years) => [years, `for ${plural(years, 'year')}`] as const),
];

/** For how long finished work is kept, and what goes by that: told before it does, and on record after. */
export function RecordsPart({ years, saved, wrong, onChange }: RecordsPartProps) {
  const asked = years === null || years === saved ? {} : { years: String(years) };
  const { data, error, isLoading } = useAnswer(retentionAddresses.next, years === null ? null : { query: asked });
  const { data: past } = useAnswer(retentionAddresses.past, {});
  const today = useToday();
  const [last] = past?.letGo ?? [];
  return (
    <Part name="Records">
      finished work is kept{' '}
      <ChoiceBlank
        label="For how long finished work is kept"
        value={years ?? FOR_GOOD}
        options={OPTIONS}
        onChange={(chosen) => onChange(chosen === FOR_GOOD ? null : chosen)}
      />
      {wrong !== undefined && <FieldError message={wrong} />}
      {years !== null && (
        <p className="mt-0.5 leading-5 text-ink-2" role="status">
          {error && !data
            ? `What goes next could not be told: ${error.message}`
            : // What another number of years takes is not what this one does.
              data?.next && !isLoading
              ? sayNext(data.next, today)
              : 'Looking at what goes next …'}
        </p>
      )}
      {last && (
        <p className="leading-5 text-ink-2">
          Let go last on {sayDate(dayOfIso(last.on))}: {plural(last.tasks, 'task')}
          {last.files > 0 && ` with ${plural(last.files, 'file')}`}
          {last.calls > 0 && ` and ${plural(last.calls, 'call')}`}, due before {sayDate(dayOfIso(last.before))}.
        </p>
      )}
    </Part>
  );
}

/** "On Tuesday 1 Dec 1,204 finished tasks due before 1 Dec 2023 are let go, with …" */
export function sayNext({ on, before, tasks, files, calls }: NextLettingGo, today: number): string {
  const day = sayDay(dayOfIso(on), today);
  if (tasks + calls === 0) return `Nothing is as old yet: on ${day} nothing goes.`;
  const along = files > 0 ? `their notes, history and ${plural(files, 'file')}` : 'their notes and history';
  const date = sayDate(dayOfIso(before));
  const going = [
    ...(tasks > 0 ? [`${plural(tasks, 'finished task')} due before ${date}`] : []),
    ...(calls > 0 ? [`${plural(calls, 'call')} of lists before ${tasks > 0 ? 'then' : date}`] : []),
  ].join(' and ');
  return `On ${day} ${going} ${tasks + calls === 1 ? 'is' : 'are'} let go, with ${along}, and each month those of a month more. That can’t be undone. The last one of each schedule stays.`;
}
