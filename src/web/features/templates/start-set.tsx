import {
  type CivilDay,
  type DefaultRule,
  type Offer,
  partOffered,
  plural,
  sayDuration,
  sayOffer,
  type startedSet,
} from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { DateBlank, TimeBlank } from '../../kit/blanks.tsx';
import { sayDay } from '../../kit/ways.ts';
import { PersonBlank } from '../people/person-blank.tsx';
import { SetLine } from './set-line.tsx';

/** What was changed about one task of the set, this once. */
export interface PartChange {
  readonly isLeftOut?: boolean;
  readonly on?: CivilDay;
  readonly startTime?: string | null;
  readonly dueTime?: string | null;
  readonly assigneeId?: string | null;
}

/** A task of the set as it will be made, or left out. */
export interface StartPart {
  readonly key: string;
  readonly pattern: string;
  readonly minutes: number;
  readonly on: CivilDay;
  readonly assigneeId: string | null;
  /** Any one of whom may take it while nobody is named. */
  readonly offeredTo: Offer | null;
  readonly startTime: string | null;
  readonly dueTime: string | null;
  readonly isLeftOut: boolean;
}

/** The set with what was changed this once, by day. */
export function partsOf(
  set: ReturnType<typeof startedSet>,
  byDefault: DefaultRule,
  changes: Readonly<Record<string, PartChange>>,
): StartPart[] {
  const parts = set.map(({ part, on, assigneeId }) => {
    const change = changes[part.key] ?? {};
    return {
      key: part.key,
      pattern: part.titlePattern,
      minutes: part.estimateMinutes,
      on: change.on ?? on,
      assigneeId: change.assigneeId === undefined ? assigneeId : change.assigneeId,
      offeredTo: partOffered(part, byDefault),
      startTime: change.startTime === undefined ? part.startTime : change.startTime,
      dueTime: change.dueTime === undefined ? part.dueTime : change.dueTime,
      isLeftOut: change.isLeftOut ?? false,
    };
  });
  return parts.sort((a, b) => a.on - b.on);
}

interface StartSetProps {
  readonly parts: readonly StartPart[];
  readonly titleOf: (pattern: string, assigneeId: string | null) => string;
  readonly onChange: (key: string, change: PartChange) => void;
}

/** The tasks that will be made, each to be changed or left out. */
export function StartSet({ parts, titleOf, onChange }: StartSetProps) {
  const { today } = useWorkspace();
  const chosen = parts.filter(({ isLeftOut }) => !isLeftOut);
  const early = chosen.filter((part) => part.on < today).length;
  return (
    <section className="border-b border-line px-5 py-2.5">
      <h3 className="flex justify-between text-row leading-4.5 text-primary">
        The set
        <span className="font-sans text-note font-normal text-ink-2">
          {chosen.length === parts.length
            ? plural(parts.length, 'task')
            : `${chosen.length} of ${plural(parts.length, 'task')}`}
          , {sayDuration(chosen.reduce((sum, { minutes }) => sum + minutes, 0))} in all
        </span>
      </h3>
      {chosen.length > 1 && (
        <SetLine
          tasks={chosen.map((part) => ({
            key: part.key,
            number: parts.indexOf(part) + 1,
            on: part.on,
            isMain: part.key === '',
          }))}
        />
      )}
      <ol>
        {parts.map((part, i) => (
          <Line
            key={part.key}
            part={part}
            number={i + 1}
            title={titleOf(part.pattern, part.assigneeId)}
            onChange={onChange}
          />
        ))}
      </ol>
      {early > 0 && (
        <p className="mt-1 text-note leading-4.25 text-ink-2">
          {plural(early, 'task')} {early === 1 ? 'lies' : 'lie'} before {sayDay(today, today)}: late from the start.
        </p>
      )}
    </section>
  );
}

interface LineProps extends Pick<StartSetProps, 'onChange'> {
  readonly part: StartPart;
  readonly number: number;
  readonly title: string;
}

function Line({ part, number, title, onChange }: LineProps) {
  const { people } = useWorkspace();
  return (
    <li className="border-b border-line py-1.5 text-row leading-6.5 last:border-0">
      <label className={`flex items-center gap-2.5 ${part.isLeftOut ? 'text-ink-2 line-through' : ''}`}>
        <input
          type="checkbox"
          className="check"
          checked={!part.isLeftOut}
          onChange={({ target }) => onChange(part.key, { isLeftOut: !target.checked })}
        />
        <b className="font-semibold">{number}</b>
        <span className="min-w-0 flex-1 truncate font-semibold">{title}</span>
        <span className="text-note text-ink-2">{sayDuration(part.minutes)}</span>
      </label>
      {!part.isLeftOut && (
        <div className="flex flex-wrap items-baseline gap-x-1.5 pl-[26px]">
          <DateBlank label={`Day of ${title}`} value={part.on} onChange={(day) => onChange(part.key, { on: day })} />
          by
          <TimeBlank
            label={`${title}, due at`}
            value={part.dueTime}
            placeholder="end of day"
            onChange={(dueTime) => onChange(part.key, { dueTime })}
          />
          <PersonBlank
            label={`Who does ${title}`}
            personId={part.assigneeId}
            {...(part.offeredTo ? { nobody: sayOffer(part.offeredTo, { people }) } : {})}
            onChange={(who) => onChange(part.key, { assigneeId: who })}
          />
        </div>
      )}
    </li>
  );
}
