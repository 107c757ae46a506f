import { type ReactNode, useState } from 'react';
import { plural } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DateBlank, NumberBlank } from '../../../kit/blanks.tsx';
import { ChosenFoot, DeedSentence } from '../../../kit/chosen-foot.tsx';
import { PersonBlank } from '../../people/person-blank.tsx';
import type { Deed } from './chosen-changes.ts';
import { GatherForm } from './gather-form.tsx';

interface ChosenBarProps {
  readonly ids: readonly string[];
  readonly mayBePaused: boolean;
  readonly busy: boolean;
  /** False where none of them changes by the deed. */
  readonly onLook: (deed: Deed) => Promise<boolean>;
  readonly onClear: () => void;
}

const DEEDS = [
  ['give', 'Give to …'],
  ['pause', 'Pause …'],
  ['resume', 'Resume'],
  ['dates', 'Skip or move dates …'],
  ['end', 'End …'],
  ['gather', 'Gather under a plan …'],
  ['delete', 'Delete …'],
] as const;
type DeedKey = (typeof DEEDS)[number][0];
/** Those that are a sentence with a look before it. */
type SentenceKey = Exclude<DeedKey, 'gather'>;

/** What can be done with the chosen schedules, at the foot of the table. */
export function ChosenBar({ ids, mayBePaused, busy, onLook, onClear }: ChosenBarProps) {
  const { today } = useWorkspace();
  const [doing, setDoing] = useState<DeedKey | null>(null);
  const [nothing, setNothing] = useState<string | null>(null);
  const look = async (deed: Deed) => {
    if (!(await onLook(deed))) setNothing('None of them changes by that.');
  };
  const choose = (key: DeedKey) => {
    setNothing(null);
    if (key === 'resume') void look({ kind: 'resume', on: today });
    else setDoing(doing === key ? null : key);
  };
  const shown = mayBePaused ? DEEDS : DEEDS.filter(([key]) => key !== 'resume');
  return (
    <ChosenFoot
      label="The chosen schedules"
      words={`${plural(ids.length, 'schedule')} chosen`}
      deeds={shown}
      doing={doing}
      busy={busy}
      note={nothing}
      onDeed={choose}
      onClear={onClear}
    >
      {doing === 'gather' && <GatherForm ids={ids} onDone={onClear} />}
      {doing && doing !== 'gather' && (
        <DeedForm key={doing} doing={doing} many={ids.length > 1} busy={busy} onLook={(deed) => void look(deed)} />
      )}
    </ChosenFoot>
  );
}

interface DeedFormProps {
  readonly doing: SentenceKey;
  readonly many: boolean;
  readonly busy: boolean;
  readonly onLook: (deed: Deed) => void;
}

function DeedForm({ doing, many, busy, onLook }: DeedFormProps) {
  const { today, people, me } = useWorkspace();
  const [personId, setPerson] = useState<string | null>(me.id);
  const [from, setFrom] = useState(today);
  const [to, setTo] = useState(today + 6);
  const [isOpen, setOpen] = useState('open');
  const [how, setHow] = useState<'skip' | 'later' | 'earlier'>('skip');
  const [amount, setAmount] = useState(1);
  const [unit, setUnit] = useState<'day' | 'workingDay'>('workingDay');
  const them = many ? 'them' : 'it';
  const span = (
    <>
      from <DateBlank label="First day" value={from} onChange={setFrom} /> to{' '}
      <DateBlank label="Last day" value={to} onChange={setTo} />
    </>
  );
  const forms: Readonly<Record<SentenceKey, { words: ReactNode; deed: Deed; problem: string | null }>> = {
    give: {
      words: (
        <>
          Give {them} to <PersonBlank label="Who does it" personId={personId} onChange={setPerson} /> from the next one
          that nobody has seen.
        </>
      ),
      deed: {
        kind: 'give',
        personId,
        name: people.find(({ id }) => id === personId)?.name ?? 'nobody yet',
      },
      problem: null,
    },
    pause: {
      words: (
        <>
          Pause {them} from <DateBlank label="Paused from" value={from} onChange={setFrom} />{' '}
          <ChoiceBlank
            label="For how long"
            value={isOpen}
            options={[
              ['open', 'until somebody resumes'],
              ['until', 'until'],
            ]}
            onChange={setOpen}
          />{' '}
          {isOpen === 'until' && <DateBlank label="Runs again on" value={to} onChange={setTo} />}
        </>
      ),
      deed: { kind: 'pause', from, until: isOpen === 'until' ? to : null },
      problem: isOpen === 'until' && to <= from ? 'It would run again before it pauses.' : null,
    },
    resume: { words: null, deed: { kind: 'resume', on: today }, problem: null },
    dates: {
      words: (
        <>
          <ChoiceBlank
            label="What becomes of the dates"
            value={how}
            options={[
              ['skip', 'Skip'],
              ['later', 'Move later'],
              ['earlier', 'Move earlier'],
            ]}
            onChange={setHow}
          />{' '}
          all dates {span}
          {how !== 'skip' && (
            <>
              {' '}
              by <NumberBlank label="By how many" value={amount} least={1} most={366} onChange={setAmount} />{' '}
              <ChoiceBlank
                label="Days or working days"
                value={unit}
                options={[
                  ['workingDay', amount === 1 ? 'working day' : 'working days'],
                  ['day', amount === 1 ? 'day' : 'days'],
                ]}
                onChange={setUnit}
              />
            </>
          )}
        </>
      ),
      deed:
        how === 'skip'
          ? { kind: 'skip', from, to }
          : { kind: 'move', from, to, by: { amount: how === 'later' ? amount : -amount, unit } },
      problem: to < from ? 'The last day lies before the first.' : null,
    },
    end: {
      words: (
        <>
          The last day of {many ? 'each' : 'it'} is <DateBlank label="Last day" value={from} onChange={setFrom} />.
        </>
      ),
      deed: { kind: 'end', lastOn: from },
      problem: null,
    },
    delete: {
      words: (
        <>
          Delete {them}: nothing more is made, what nobody has seen goes. What shows or was done stays, with its
          history.
        </>
      ),
      deed: { kind: 'delete' },
      problem: null,
    },
  };
  const { words, deed, problem } = forms[doing];
  return (
    <DeedSentence problem={problem} busy={busy} onLook={() => onLook(deed)}>
      {words}
    </DeedSentence>
  );
}
