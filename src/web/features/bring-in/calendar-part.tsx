import type { BringIn } from '../../../contract/index.ts';
import { isZone, plural } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, WordsBlank } from '../../kit/blanks.tsx';
import { PersonBlank } from '../people/person-blank.tsx';
import type { Settling } from './api.ts';
import { Part, PeopleMeant, UsualTime } from './mapping.tsx';

type Calendar = NonNullable<BringIn['calendar']>;

interface CalendarPartProps {
  readonly bringIn: BringIn;
  readonly calendar: Calendar;
  readonly onSettle: (input: Settling) => Promise<boolean>;
}

/** What becomes of the entries of a calendar, whose it is, and what its names mean. */
export function CalendarPart({ bringIn, calendar, onSettle }: CalendarPartProps) {
  const maySet = useWorkspace().may('settings');
  const set = (said: Partial<Omit<Calendar, 'zones' | 'mended' | 'others'>>) => void onSettle({ calendar: said });
  const { repeating, single, wholeDays, toDos, several, ownerId, mended, others, zones } = calendar;
  return (
    <>
      <Part name="Becomes">
        <p>
          What repeats:{' '}
          <ChoiceBlank
            label="What becomes of what repeats"
            value={repeating}
            options={[
              ['schedule', 'schedules'],
              ['left out', 'left out'],
            ]}
            onChange={(next) => set({ repeating: next })}
          />
        </p>
        <p>
          What stands on one day:{' '}
          <ChoiceBlank
            label="What becomes of what stands on one day"
            value={single}
            options={[
              ['task', 'tasks'],
              ['left out', 'left out'],
            ]}
            onChange={(next) => set({ single: next })}
          />
        </p>
        <p>
          Whole days that ask nobody to come:{' '}
          <ChoiceBlank
            label="What becomes of whole days"
            value={wholeDays}
            options={[
              ['as work', 'work, like all else'],
              ['days off', maySet ? 'days off for all' : 'days off (a manager’s to set)'],
              ['left out', 'left out'],
            ]}
            onChange={(next) => set({ wholeDays: next })}
          />
        </p>
        <p>
          To-dos without a day:{' '}
          <ChoiceBlank
            label="What becomes of to-dos without a day"
            value={toDos === 'task' ? 'template' : toDos}
            options={[
              ['template', 'templates'],
              ['left out', 'left out'],
            ]}
            onChange={(next) => set({ toDos: next })}
          />
        </p>
      </Part>
      <Part name="Whose">
        <p>
          What names nobody is for{' '}
          <PersonBlank
            label="Whose it is where nobody is named"
            personId={ownerId}
            onChange={(id) => set({ ownerId: id })}
          />
        </p>
        <p>
          Where several are named,{' '}
          <ChoiceBlank
            label="What several people have who are named"
            value={several}
            options={[
              ['each of', 'each has a task of their own'],
              ['any of', 'any one of them takes it'],
            ]}
            onChange={(next) => set({ several: next })}
          />
        </p>
      </Part>
      <PeopleMeant people={bringIn.people} onSettle={onSettle} />
      {zones.length > 0 && (
        <Part name="Zones">
          <ul>
            {zones.map(({ tzid, count, zone }) => (
              <li key={tzid} className="flex flex-wrap items-baseline gap-2">
                <b className="flex-none font-head font-[650]">{count}</b>
                <span className="min-w-0 truncate">{tzid}</span>
                <span aria-hidden>→</span>
                <WordsBlank
                  label={`The zone that “${tzid}” is`}
                  shown={zone ?? ''}
                  placeholder="Europe/London"
                  wrong="a zone, like Europe/London"
                  width={15}
                  read={(text) => (isZone(text.trim()) ? text.trim() : undefined)}
                  onChange={(next) => void onSettle({ zones: { [tzid]: next } })}
                />
              </li>
            ))}
          </ul>
        </Part>
      )}
      <UsualTime bringIn={bringIn} onSettle={onSettle} />
      {(mended > 0 || others > 0) && (
        <Part name="Besides">
          {mended > 0 && (
            <p>
              {plural(mended, 'line')} {mended === 1 ? 'was' : 'were'} broken in the wrong place, and{' '}
              {mended === 1 ? 'is' : 'are'} read as one with the line before.
            </p>
          )}
          {others > 0 && (
            <p>
              {plural(others, 'journal or free time', 'journals or free times')} {others === 1 ? 'is' : 'are'} no work,
              and left out.
            </p>
          )}
        </Part>
      )}
    </>
  );
}
