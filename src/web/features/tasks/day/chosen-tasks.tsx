import { useState } from 'react';
import type { TaskDeed, TaskLine } from '../../../../contract/index.ts';
import { plural } from '../../../../core/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, NumberBlank } from '../../../kit/blanks.tsx';
import { ChosenFoot, DeedSentence } from '../../../kit/chosen-foot.tsx';
import type { Removal } from '../../impact/impact-words.ts';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { PersonBlank } from '../../people/person-blank.tsx';
import { useTaskActions } from '../api.ts';

const DEEDS = [
  ['give', 'Give to …'],
  ['move', 'Move …'],
  ['skip', 'Skip …'],
  ['delete', 'Delete …'],
] as const;
type DeedKey = (typeof DEEDS)[number][0];

interface Asked {
  readonly what: string;
  readonly removal: Removal;
  readonly deed: TaskDeed;
  /** In words, after "3 tasks". */
  readonly done: string;
}

interface ChosenTasksProps {
  readonly chosen: readonly TaskLine[];
  readonly onClear: () => void;
}

/** What can be done with the chosen tasks of a day, at the foot of the sheet. */
export function ChosenTasks({ chosen, onClear }: ChosenTasksProps) {
  const { impactOfSeveral, changeSeveral } = useTaskActions();
  const [doing, setDoing] = useState<DeedKey | null>(null);
  const { look, busy, dialog } = useLookedAt<Asked>({
    impactOf: ({ deed }) => impactOfSeveral(chosen, deed),
    save: ({ deed, done }) => changeSeveral(chosen, deed, (changed) => `${plural(changed, 'task')} ${done}.`),
    hasReach: false,
    onSaved: onClear,
    onRefused: sayTrouble,
  });
  return (
    <>
      <ChosenFoot
        label="The chosen tasks"
        words={`${plural(chosen.length, 'task')} chosen`}
        deeds={DEEDS}
        doing={doing}
        busy={busy}
        note={null}
        onDeed={(key) => setDoing(doing === key ? null : key)}
        onClear={onClear}
      >
        {doing && (
          <DeedForm
            key={doing}
            doing={doing}
            busy={busy}
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
  readonly busy: boolean;
  /** @param done in words, after "3 tasks" */
  readonly onLook: (deed: TaskDeed, done: string) => void;
}

function DeedForm({ doing, busy, onLook }: DeedFormProps) {
  const { me, people } = useWorkspace();
  const [personId, setPerson] = useState<string | null>(me.id);
  const [amount, setAmount] = useState(1);
  const [unit, setUnit] = useState<'day' | 'workingDay'>('workingDay');
  const [way, setWay] = useState<'later' | 'earlier'>('later');
  const [reason, setReason] = useState('');
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
        <ChoiceBlank
          label="Later or earlier"
          value={way}
          options={[
            ['later', 'later'],
            ['earlier', 'earlier'],
          ]}
          onChange={setWay}
        />
      </DeedSentence>
    );
  }
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
