import { X } from 'lucide-react';
import { type Offset, type Reminder, stretchAt, type Timing, zoneCity } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, NumberBlank, Part, TimeBlank } from '../../../kit/blanks.tsx';
import { Picker } from '../../../kit/picker.tsx';
import { withStretch } from './bench-draft.ts';
import { type StretchPartProps, Wrong } from './form-part.tsx';

/** When each task appears, starts, is due and reminds, and by whose clock. */
export function EachTimePart({ draft, stretch, problem, onChange }: StretchPartProps) {
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
      {reminders.length > 0 && (
        <p className="text-note leading-4.25 text-ink-2">
          Reminders are kept and shown, but nothing sends them yet: whoever has the task sees it on the day sheet only.
        </p>
      )}
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
