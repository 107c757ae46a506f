import { useState } from 'react';
import {
  asksWhy,
  MOST_WALL_MARKS,
  WALL_REACHES,
  type WallChange,
  type WallDeed,
  type WallReach,
} from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, NumberBlank } from '../../kit/blanks.tsx';
import { ChosenFoot, DeedSentence } from '../../kit/chosen-foot.tsx';
import type { Removal } from '../impact/impact-words.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { PersonBlank } from '../people/person-blank.tsx';
import { type Marks, useWallActions } from './api.ts';
import { countOf, REACH_WORDS, sayMarks } from './wall-words.ts';

export interface AskedMarks {
  readonly what: string;
  readonly removal: Removal;
  readonly body: WallChange;
  readonly said: string;
}

/** Changes of marks: each is looked at before it is saved. */
export function useMarksLookedAt(onSaved: () => void) {
  const { impactOfChange, change } = useWallActions();
  const { today } = useWorkspace();
  const { look, busy, dialog } = useLookedAt<AskedMarks>({
    impactOf: ({ body }) => impactOfChange(body),
    save: ({ body, said }) => change(body, said),
    hasReach: false,
    always: true,
    onSaved,
    onRefused: sayTrouble,
  });
  return {
    busy,
    dialog,
    /** @param done in words, after "3 tasks" */
    lookAt(marks: Marks, reach: WallReach, deed: WallDeed, done: string) {
      const beyond = reach === 'these' ? '' : reach === 'later' ? ', and all later ones' : ', and all that is not done';
      const what = `${sayMarks(marks, today)}${beyond}: ${done}`;
      look({
        what,
        removal: deed.kind === 'skip' ? 'skip' : 'take back',
        said: `${what}.`,
        body: {
          reach,
          deed,
          tasks: marks.tasks.map(({ id, version }) => ({ id, version })),
          dates: marks.dates.map(({ scheduleId, nominalDate, stepKey, head, version }) => ({
            ...{ scheduleId, nominalDate, stepKey, head, version },
          })),
        },
      });
    },
  };
}

type DeedKey = WallDeed['kind'] | 'show';

interface WallFootProps {
  readonly marks: Marks | undefined;
  readonly reach: WallReach;
  readonly onReach: (reach: WallReach) => void;
  readonly mayPlan: boolean;
  /** Null where there is no one sheet for them. */
  readonly onShow: (() => void) | null;
  readonly onClear: () => void;
}

/** What can be done with the chosen marks, and how far that goes. */
export function WallFoot({ marks, reach, onReach, mayPlan, onShow, onClear }: WallFootProps) {
  const { today, me } = useWorkspace();
  const [doing, setDoing] = useState<Exclude<DeedKey, 'show'> | null>(null);
  // Here and not in the form: it stays whatever else is chosen, and however far it is to go.
  const [written, setWritten] = useState<Written>({ personId: me.id, amount: 1, way: 'later', reason: '' });
  const { lookAt, busy, dialog } = useMarksLookedAt(onClear);
  const count = marks ? countOf(marks) : 0;
  const isMany = marks !== undefined && (marks.count.tasks > MOST_WALL_MARKS || marks.count.dates > MOST_WALL_MARKS);
  const canDo = mayPlan && count > 0 && !isMany;
  const deeds: readonly (readonly [DeedKey, string])[] = [
    ...(count > 0 && onShow ? [['show', 'Show'] as const] : []),
    ...(canDo
      ? ([
          ['move', 'Move …'],
          ['give', 'Give to …'],
          ['skip', reach === 'these' ? 'Skip …' : 'Pause …'],
        ] as const)
      : []),
  ];
  return (
    <>
      <ChosenFoot
        label="The chosen marks"
        words={
          marks === undefined ? 'Chosen' : count === 0 ? 'Nothing there' : `${count.toLocaleString('en-GB')} chosen`
        }
        deeds={deeds}
        doing={doing}
        busy={busy}
        note={isMany ? `More than ${MOST_WALL_MARKS}: choose fewer to change them.` : null}
        before={
          <>
            {marks && count > 0 && (
              <span className="min-w-[120px] flex-1 basis-0 truncate text-row text-ink-2">
                {sayMarks(marks, today)}
              </span>
            )}
            {canDo && (
              <fieldset className="flex overflow-hidden rounded-field border border-line-2 text-row leading-[26px]">
                <legend className="sr-only">How far it goes</legend>
                {WALL_REACHES.map((one) => (
                  <label
                    key={one}
                    className="cursor-pointer border-l border-line-2 px-2.5 first:border-l-0 has-checked:bg-accent has-checked:font-semibold has-checked:text-accent-content has-focus-visible:outline-2 has-focus-visible:-outline-offset-2 has-focus-visible:outline-primary"
                  >
                    <input
                      type="radio"
                      name="reach"
                      className="sr-only"
                      checked={reach === one}
                      onChange={() => onReach(one)}
                    />
                    {REACH_WORDS[one]}
                  </label>
                ))}
              </fieldset>
            )}
          </>
        }
        onDeed={(key) => (key === 'show' ? onShow?.() : setDoing(doing === key ? null : key))}
        onClear={onClear}
      >
        {doing && marks && canDo && (
          <DeedForm
            doing={doing}
            written={written}
            onWrite={setWritten}
            isWhyAsked={asksWhy({ tasks: marks.tasks, reach })}
            reach={reach}
            busy={busy}
            onLook={(deed, done) => lookAt(marks, reach, deed, done)}
          />
        )}
      </ChosenFoot>
      {dialog}
    </>
  );
}

/** What is written in the blanks. */
interface Written {
  readonly personId: string | null;
  readonly amount: number;
  readonly way: 'later' | 'earlier';
  readonly reason: string;
}

interface DeedFormProps {
  readonly written: Written;
  readonly onWrite: (written: Written) => void;
  readonly doing: WallDeed['kind'];
  readonly isWhyAsked: boolean;
  readonly reach: WallReach;
  readonly busy: boolean;
  readonly onLook: (deed: WallDeed, done: string) => void;
}

function DeedForm({ doing, isWhyAsked, reach, busy, written, onWrite, onLook }: DeedFormProps) {
  const { people } = useWorkspace();
  const { personId, amount, way, reason } = written;
  const write = (part: Partial<Written>) => onWrite({ ...written, ...part });
  if (doing === 'give') {
    const name = people.find(({ id }) => id === personId)?.name ?? 'nobody yet';
    return (
      <DeedSentence problem={null} busy={busy} onLook={() => onLook({ kind: 'give', personId }, `given to ${name}`)}>
        Give them to{' '}
        <PersonBlank label="Who does them" personId={personId} onChange={(id) => write({ personId: id })} />
        {reach !== 'these' && ', whoever their schedules mean otherwise'}
      </DeedSentence>
    );
  }
  if (doing === 'move')
    return (
      <DeedSentence
        problem={null}
        busy={busy}
        onLook={() =>
          onLook({ kind: 'move', days: way === 'later' ? amount : -amount }, `moved ${plural(amount, 'day')} ${way}`)
        }
      >
        Move them{' '}
        <NumberBlank
          label="By how many days"
          value={amount}
          least={1}
          most={366}
          onChange={(days) => write({ amount: days })}
        />{' '}
        {amount === 1 ? 'day' : 'days'}{' '}
        <ChoiceBlank
          label="Later or earlier"
          value={way}
          options={[
            ['later', 'later'],
            ['earlier', 'earlier'],
          ]}
          onChange={(next) => write({ way: next })}
        />
        {reach !== 'these' && ', with the rules of their schedules'}
      </DeedSentence>
    );
  if (!isWhyAsked)
    return (
      <DeedSentence problem={null} busy={busy} onLook={() => onLook({ kind: 'skip', reason: '' }, 'left out')}>
        Leave them out: no task is made of them.
      </DeedSentence>
    );
  return (
    <DeedSentence
      problem={reason.trim() === '' ? 'Say why.' : null}
      busy={busy}
      onLook={() =>
        onLook(
          { kind: 'skip', reason: reason.trim() },
          reach === 'these' ? 'skipped' : 'skipped, and paused from there on',
        )
      }
    >
      {reach === 'these'
        ? 'They are not done this time, because '
        : 'They are not done, and their schedules pause until somebody resumes them, because '}
      <input
        className="blank w-[320px]"
        aria-label="Why they are not done"
        maxLength={500}
        value={reason}
        onChange={({ target }) => write({ reason: target.value })}
      />
    </DeedSentence>
  );
}
