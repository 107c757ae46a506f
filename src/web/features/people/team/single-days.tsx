import type { PersonInput } from '../../../../contract/index.ts';
import { dayOfIso, isoOfDay, plural, type Shift } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank } from '../../../kit/blanks.tsx';
import { ShiftSentence } from './shift-lines.tsx';
import { AT_FIRST } from './shift-words.ts';

type Changes = PersonInput['shiftChanges'];

interface SingleDaysProps {
  readonly changes: Changes;
  readonly roles: readonly string[];
  readonly onChange: (changes: Changes) => void;
}

/** Single days on which somebody works other hours, or none; those that are over stay as they are. */
export function SingleDays({ changes, roles, onChange }: SingleDaysProps) {
  const today = useToday();
  const isOver = ({ on }: Changes[number]) => dayOfIso(on) < today;
  const over = changes.filter(isOver);
  const coming = changes.filter((one) => !isOver(one));
  const set = (next: Changes) => onChange([...over, ...next]);
  const taken = new Set(coming.map(({ on }) => dayOfIso(on)));
  let free = today + 1;
  while (taken.has(free)) free++;
  return (
    <>
      {coming.map(({ on, shifts }, i) => {
        const put = (of: Partial<Changes[number]>) => set(coming.map((one, n) => (n === i ? { ...one, ...of } : one)));
        const takeOut = () => set(coming.filter((_, n) => n !== i));
        const day = (
          <>
            on{' '}
            <DateBlank
              label={`Day of other hours ${i + 1}`}
              value={dayOfIso(on)}
              when="left"
              onChange={(next) => put({ on: isoOfDay(next) })}
            />{' '}
            <ChoiceBlank
              label={`What is other on day ${i + 1}`}
              value={shifts.length === 0 ? 'off' : 'on'}
              options={[
                ['off', 'no work'],
                ['on', 'works from'],
              ]}
              onChange={(value) => put({ shifts: value === 'off' ? [] : [AT_FIRST] })}
            />
          </>
        );
        const others = (next: readonly Shift[]) => put({ shifts: [...next] });
        return shifts.length === 0 ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other name, and are only added at the end
          <div key={i} className="mb-1 leading-7.5">
            {day}{' '}
            <button type="button" className="link-line ml-1 text-note" onClick={takeOut}>
              as usual
            </button>
          </div>
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: see above
          <div key={i}>
            {shifts.map((shift, n) => (
              <ShiftSentence
                // biome-ignore lint/suspicious/noArrayIndexKey: see above
                key={n}
                name={`${n === 0 ? '' : `stretch ${n + 1} of `}day ${i + 1}`}
                shift={shift}
                roles={roles}
                onChange={(next) => others(shifts.map((one, at) => (at === n ? next : one)))}
                onTakeOut={n === 0 ? takeOut : () => others(shifts.filter((_, at) => at !== n))}
              >
                {n === 0 ? day : 'and from'}
              </ShiftSentence>
            ))}
            {shifts.length < 4 && (
              <button
                type="button"
                className="link-line mb-1 text-note"
                onClick={() => others([...shifts, { ...AT_FIRST, ...afterwards(shifts) }])}
              >
                and again later that day
              </button>
            )}
          </div>
        );
      })}
      <button
        type="button"
        className="link-line text-note"
        onClick={() => set([...coming, { on: isoOfDay(free), shifts: [] }])}
      >
        {coming.length === 0 ? 'Other hours on a single day' : 'Another day'}
      </button>
      {over.length > 0 && <span className="ml-3 text-note text-ink-2">{plural(over.length, 'day')} before today</span>}
    </>
  );
}

/** An hour from the end of the last one on. */
function afterwards(shifts: readonly Shift[]): Pick<Shift, 'from' | 'to'> {
  const from = shifts.at(-1)?.to ?? AT_FIRST.from;
  const hour = (Number(from.slice(0, 2)) + 1) % 24;
  return { from, to: `${String(hour).padStart(2, '0')}${from.slice(2)}` };
}
