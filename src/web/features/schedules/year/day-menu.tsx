import type { KeyboardEvent, ReactNode, RefObject } from 'react';
import {
  type Assigner,
  addDate,
  type CivilDay,
  changeDate,
  changeOf,
  isDated,
  moveDate,
  type PlannedOccurrence,
  pauseFrom,
  pauseOn,
  putBack,
  resumeFrom,
  skipDate,
} from '../../../../core/index.ts';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank, TimeBlank } from '../../../kit/blanks.tsx';
import { Popover } from '../../../kit/popover.tsx';
import { sayDay } from '../../../kit/ways.ts';
import type { BenchDraft } from '../bench/bench-draft.ts';

interface DayMenuProps {
  readonly day: CivilDay;
  /** The occurrences that are worked on that day, or would be. */
  readonly occurrences: readonly PlannedOccurrence[];
  readonly draft: BenchDraft;
  readonly whose: Assigner;
  /** Where the day stands, and what has the focus after Esc. */
  readonly anchor: RefObject<{ getBoundingClientRect(): DOMRect } | null>;
  readonly backTo: RefObject<HTMLElement | null>;
  readonly onChange: (draft: BenchDraft) => void;
  readonly onRevise: (day: CivilDay) => void;
  readonly onClose: () => void;
}

/** What can be done with one day of the year: skip, move, add, change one; pause; another rule from here on. */
export function DayMenu({ day, occurrences, draft, whose, anchor, backTo, onChange, onRevise, onClose }: DayMenuProps) {
  const today = useToday();
  const here = occurrences.find((one) => isDated(one) && one.on === day);
  const left = occurrences.find((one) => !isDated(one) && one.nominal === day);
  const leave = () => {
    onClose();
    backTo.current?.focus();
  };
  const act = (next: BenchDraft) => {
    onChange(next);
    leave();
  };
  const pause = pauseOn(draft, day);
  return (
    <Popover
      label={`${sayDay(day, today)}: what to change`}
      anchor={anchor}
      backTo={backTo}
      className="w-[268px] py-1.5 text-row leading-5"
      onClose={onClose}
      onKeyDown={moveThroughActs}
    >
      <h3 className="px-3 pt-0.5 pb-1.5 text-body">
        {sayDay(day, today)}{' '}
        <span className="font-sans text-note font-normal text-ink-2">{statusOf(here, left, today)}</span>
      </h3>
      {here && isDated(here) && !here.isForeseen && <OneActs occurrence={here} draft={draft} whose={whose} act={act} />}
      {left && !isDated(left) && left.because === 'skipped' && (
        <Act run={() => act(putBack(draft, day))}>Don’t skip it</Act>
      )}
      {!here && <Act run={() => act(addDate(draft, day))}>Add one on this day</Act>}
      {pause ? (
        <Act run={() => act(resumeFrom(draft, day))}>Run again from here</Act>
      ) : (
        <Act run={() => act(pauseFrom(draft, day))}>Pause from here</Act>
      )}
      <Act
        run={() => {
          onRevise(day);
          leave();
        }}
      >
        Another rule from here on
      </Act>
    </Popover>
  );
}

function statusOf(here: PlannedOccurrence | undefined, left: PlannedOccurrence | undefined, today: CivilDay): string {
  if (here && isDated(here)) {
    if (here.isForeseen) return 'foreseen: known when the one before is done';
    if (here.isAdded) return 'added by hand';
    return here.nominal === here.on ? 'due' : `due, moved from ${sayDay(here.nominal, today)}`;
  }
  if (left && !isDated(left)) {
    return {
      'day off': 'a day off, skipped',
      closed: 'closed season',
      skipped: 'skipped by hand',
      paused: 'paused',
      'same day as another': 'falls together with another',
      deleted: 'its task was deleted; the history below brings it back',
    }[left.because];
  }
  return 'nothing due';
}

/** A line of blanks between the acts. */
const ROW = 'px-3 py-[5px] leading-6.5';

interface OneActsProps {
  readonly occurrence: Extract<PlannedOccurrence, { kind: 'dated' }>;
  readonly draft: BenchDraft;
  readonly whose: Assigner;
  readonly act: (draft: BenchDraft) => void;
}

/** What can be done with one occurrence. */
function OneActs({ occurrence, draft, whose, act }: OneActsProps) {
  const today = useToday();
  const { staffWith } = useWorkspace();
  const { nominal, on, moved, isAdded, timing } = occurrence;
  const change = changeOf(draft, nominal);
  const given = whose(occurrence);
  const assignee = given.kind === 'one' ? given.personId : null;
  const set = (next: typeof change) => act(changeDate(draft, nominal, { ...change, ...next }));
  return (
    <>
      {isAdded ? (
        <Act run={() => act(putBack(draft, nominal))}>Take it out again</Act>
      ) : (
        <Act run={() => act(skipDate(draft, nominal))}>Skip this one</Act>
      )}
      {moved === 'by hand' && (
        <Act run={() => act(putBack(draft, nominal))}>Put it back to {sayDay(nominal, today)}</Act>
      )}
      {Object.keys(change).length > 0 && (
        <Act run={() => act(changeDate(draft, nominal, {}))}>Like the others again</Act>
      )}
      {!isAdded && (
        <div className={ROW}>
          move it to{' '}
          <DateBlank label="Move it to" value={on} when="left" onChange={(to) => act(moveDate(draft, nominal, to))} />
        </div>
      )}
      <div className={ROW}>
        this time at{' '}
        <TimeBlank
          label="Start time this time"
          value={timing.startTime}
          placeholder="any time"
          when="left"
          onChange={(startTime) => set({ startTime })}
        />
        <br />
        due by{' '}
        <TimeBlank
          label="Due time this time"
          value={timing.dueTime}
          placeholder="end of day"
          when="left"
          onChange={(dueTime) => set({ dueTime })}
        />
        <br />
        <ChoiceBlank
          label="Who does it this time"
          value={assignee ?? ''}
          options={[['', 'nobody yet'], ...staffWith(assignee).map(({ id, name }) => [id, name] as const)]}
          onChange={(id) => set({ assigneeId: id === '' ? null : id })}
        />{' '}
        does it
      </div>
    </>
  );
}

function Act({ run, children }: { readonly run: () => void; readonly children: ReactNode }) {
  return (
    <button
      type="button"
      data-act
      className="block w-full cursor-pointer px-3 py-[5px] text-left hover:bg-chosen hover:shadow-[inset_3px_0_0_var(--color-accent)] focus-visible:bg-chosen focus-visible:shadow-[inset_3px_0_0_var(--color-accent)] focus-visible:outline-none"
      onClick={run}
    >
      {children}
    </button>
  );
}

function moveThroughActs(event: KeyboardEvent<HTMLElement>): void {
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (step === undefined || !(event.target instanceof HTMLButtonElement)) return;
  const acts = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-act]')];
  event.preventDefault();
  acts[acts.indexOf(event.target) + step]?.focus();
}
