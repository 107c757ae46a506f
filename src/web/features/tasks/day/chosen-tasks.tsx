import { useState } from 'react';
import { PRIORITIES, type Priority, type TaskDeed } from '../../../../contract/index.ts';
import { isoOfDay, plural } from '../../../../core/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank, NumberBlank } from '../../../kit/blanks.tsx';
import { ChosenFoot, DeedSentence } from '../../../kit/chosen-foot.tsx';
import { useSteps } from '../../../kit/steps.ts';
import { sayDay } from '../../../kit/ways.ts';
import type { Removal } from '../../impact/impact-words.ts';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { PersonBlank } from '../../people/person-blank.tsx';
import { type Seen, useTaskActions } from '../api.ts';
import { ChaseList } from './chase-list.tsx';
import { NudgeSentence } from './nudge-sentence.tsx';

const DEEDS = [
  ['give', 'Give to …'],
  ['move', 'Move …'],
  ['prioritise', 'Priority …'],
  ['finish', 'Finish …'],
  ['nudge', 'Nudge …'],
  ['skip', 'Skip …'],
  ['delete', 'Delete …'],
] as const;
export type DeedKey = (typeof DEEDS)[number][0];

interface Asked {
  readonly what: string;
  readonly removal: Removal;
  readonly deed: TaskDeed;
  /** In words, after "3 tasks". */
  readonly done: string;
}

interface ChosenTasksProps {
  readonly chosen: readonly Seen[];
  /** Said of them besides how many there are. */
  readonly detail?: string | undefined;
  readonly onClear: () => void;
}

/** What can be done with the chosen tasks of a list, at its foot. */
export function ChosenTasks({ chosen, detail, onClear }: ChosenTasksProps) {
  const { impactOfSeveral, changeSeveral, nudge } = useTaskActions();
  const [doing, setDoing] = useState<DeedKey | null>(null);
  const { follow, percent } = useSteps();
  const { look, busy, dialog } = useLookedAt<Asked>({
    impactOf: ({ deed }) => follow((key) => impactOfSeveral(chosen, deed, key)),
    save: ({ deed, done }) =>
      follow((key) => changeSeveral(chosen, deed, (changed) => `${plural(changed, 'task')} ${done}.`, key)),
    percent,
    hasReach: false,
    onSaved: onClear,
    onRefused: sayTrouble,
  });
  return (
    <>
      <ChosenFoot
        label="The chosen tasks"
        words={[`${plural(chosen.length, 'task')} chosen`, detail].filter(Boolean).join(', ')}
        deeds={DEEDS}
        doing={doing}
        busy={busy}
        note={percent === null ? null : `${percent} % so far`}
        onDeed={(key) => setDoing(doing === key ? null : key)}
        onClear={onClear}
      >
        {doing && (
          <DeedForm
            key={doing}
            doing={doing}
            busy={busy}
            count={chosen.length}
            nudged={chosen.map(({ id }) => id)}
            onNudge={(text) =>
              void nudge(
                chosen.map(({ id }) => id),
                { text },
              ).then((isDone) => isDone && onClear())
            }
            onLook={(deed, done) =>
              look({ what: `${plural(chosen.length, 'task')} ${done}`, removal: removalOf(deed), deed, done })
            }
          />
        )}
      </ChosenFoot>
      {dialog}
    </>
  );
}

const removalOf = ({ kind }: TaskDeed): Removal => (kind === 'skip' || kind === 'delete' ? kind : 'take back');

interface DeedFormProps {
  readonly doing: DeedKey;
  readonly count: number;
  readonly busy: boolean;
  /** @param done in words, after "3 tasks" */
  readonly onLook: (deed: TaskDeed, done: string) => void;
  /** Whom a nudge is about; left out where nobody is nudged from. */
  readonly nudged?: readonly string[];
  readonly onNudge?: (text: string) => void;
}

/** The sentence of what is to be done with some tasks. */
export function DeedForm({ doing, count, busy, onLook, nudged, onNudge }: DeedFormProps) {
  const { me, people, today } = useWorkspace();
  const [personId, setPerson] = useState<string | null>(me.id);
  const [amount, setAmount] = useState(1);
  const [unit, setUnit] = useState<'day' | 'workingDay'>('workingDay');
  const [way, setWay] = useState<'later' | 'earlier' | 'to'>('later');
  const [reason, setReason] = useState('');
  const [on, setOn] = useState(today);
  const [priority, setPriority] = useState<Priority>('high');
  if (doing === 'give') {
    const name = people.find(({ id }) => id === personId)?.name ?? 'nobody yet';
    return (
      <DeedSentence problem={null} busy={busy} onLook={() => onLook({ kind: 'give', personId }, `given to ${name}`)}>
        Give them to <PersonBlank label="Who does them" personId={personId} onChange={setPerson} />
      </DeedSentence>
    );
  }
  if (doing === 'move') {
    const days = plural(amount, unit === 'workingDay' ? 'working day' : 'day');
    const wayBlank = (
      <ChoiceBlank
        label="Later, earlier or to one day"
        value={way}
        options={[
          ['later', 'later'],
          ['earlier', 'earlier'],
          ['to', 'to'],
        ]}
        onChange={setWay}
      />
    );
    if (way === 'to')
      return (
        <DeedSentence
          problem={null}
          busy={busy}
          onLook={() => onLook({ kind: 'moveTo', on: isoOfDay(on) }, `moved to ${sayDay(on, today)}`)}
        >
          Move them {wayBlank} <DateBlank label="The day of all of them" value={on} onChange={setOn} />
        </DeedSentence>
      );
    return (
      <DeedSentence
        problem={null}
        busy={busy}
        onLook={() =>
          onLook({ kind: 'move', by: { amount: way === 'later' ? amount : -amount, unit } }, `moved ${days} ${way}`)
        }
      >
        Move them <NumberBlank label="By how many" value={amount} least={1} most={366} onChange={setAmount} />{' '}
        <ChoiceBlank
          label="Days or working days"
          value={unit}
          options={[
            ['workingDay', amount === 1 ? 'working day' : 'working days'],
            ['day', amount === 1 ? 'day' : 'days'],
          ]}
          onChange={setUnit}
        />{' '}
        {wayBlank}
      </DeedSentence>
    );
  }
  if (doing === 'prioritise')
    return (
      <DeedSentence
        problem={null}
        busy={busy}
        onLook={() => onLook({ kind: 'prioritise', priority }, `made ${priority} in priority`)}
      >
        Their priority is{' '}
        <ChoiceBlank
          label="Their priority"
          value={priority}
          options={PRIORITIES.map((one) => [one, one] as const)}
          onChange={setPriority}
        />
      </DeedSentence>
    );
  if (doing === 'finish')
    return (
      <DeedSentence
        problem={null}
        busy={busy}
        onLook={() => onLook({ kind: 'finish', note: reason.trim() }, 'finished')}
      >
        They are done, with this note:{' '}
        <input
          className="blank w-[320px]"
          aria-label="The note of all of them"
          placeholder="none"
          maxLength={500}
          value={reason}
          onChange={({ target }) => setReason(target.value)}
        />
      </DeedSentence>
    );
  if (doing === 'nudge')
    return (
      <>
        <ChaseList tasks={nudged ?? []} />
        <NudgeSentence count={count} busy={busy} onNudge={(text) => onNudge?.(text)} />
      </>
    );
  if (doing === 'skip') {
    return (
      <DeedSentence
        problem={reason.trim() === '' ? 'Say why.' : null}
        busy={busy}
        onLook={() => onLook({ kind: 'skip', reason: reason.trim() }, 'skipped')}
      >
        They are not done this time, because{' '}
        <input
          className="blank w-[320px]"
          aria-label="Why they are not done this time"
          maxLength={500}
          value={reason}
          onChange={({ target }) => setReason(target.value)}
        />
      </DeedSentence>
    );
  }
  return (
    <DeedSentence problem={null} busy={busy} onLook={() => onLook({ kind: 'delete' }, 'deleted')}>
      Delete them: no run makes them again. What is under way or done stays.
    </DeedSentence>
  );
}
