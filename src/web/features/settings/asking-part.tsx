import { MOST_LINK_DAYS, MOST_REMIND_DAYS } from '../../../contract/asking.ts';
import type { AskingRules } from '../../../core/index.ts';
import { ChoiceBlank, NumberBlank, Part, TimeBlank } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { sayTimeSpan } from '../../kit/ways.ts';

interface AskingPartProps {
  readonly asking: AskingRules;
  readonly wrong: string | undefined;
  readonly onChange: (asking: AskingRules) => void;
}

const BEGINS_WITH = 3;

/** How clients are asked to do what is theirs: when mails go, what a link opens, and whom they ring. */
export function AskingPart({ asking, wrong, onChange }: AskingPartProps) {
  const set = (change: Partial<AskingRules>) => onChange({ ...asking, ...change });
  const reminder = (field: 'remindBefore' | 'remindAfter', words: string, label: string) => (
    <>
      <ChoiceBlank
        label={`Whether clients are reminded ${label}`}
        value={asking[field] === null ? 'no' : 'yes'}
        options={[
          ['yes', 'reminded'],
          ['no', 'not reminded'],
        ]}
        onChange={(value) => set({ [field]: value === 'no' ? null : (asking[field] ?? BEGINS_WITH) })}
      />
      {asking[field] !== null && (
        <>
          {' '}
          <NumberBlank
            label={`Days of the reminder ${label}`}
            value={asking[field]}
            least={1}
            most={MOST_REMIND_DAYS}
            onChange={(days) => set({ [field]: days })}
          />{' '}
          {asking[field] === 1 ? 'day' : 'days'} {words}
        </>
      )}
    </>
  );
  return (
    <Part name="Tasks for clients">
      mails leave from{' '}
      <TimeBlank
        label="From when mails to clients leave"
        value={asking.sendFrom}
        placeholder="08:00"
        when="left"
        onChange={(sendFrom) => set({ sendFrom: sendFrom ?? asking.sendFrom })}
      />{' '}
      on, with a link that opens{' '}
      <ChoiceBlank
        label="What a link opens"
        value={asking.opens}
        options={[
          ['one', 'the one task'],
          ['all', 'all that the client is asked for'],
        ]}
        onChange={(opens) => set({ opens })}
      />
      ,{' '}
      <ChoiceBlank
        label="Whether links ask for a code"
        value={asking.needsCode ? 'code' : 'none'}
        options={[
          ['none', 'at once'],
          ['code', 'after a code that goes to the same address'],
        ]}
        onChange={(value) => set({ needsCode: value === 'code' })}
      />
      <br />
      it works until{' '}
      <NumberBlank
        label="Days that a link works beyond the day it is due"
        value={asking.worksAfter}
        least={1}
        most={MOST_LINK_DAYS}
        onChange={(worksAfter) => set({ worksAfter })}
      />{' '}
      {asking.worksAfter === 1 ? 'day' : 'days'} after the day it is due
      <br />
      before it is due they are {reminder('remindBefore', 'ahead', 'before it is due')}
      <br />
      once it is late they are {reminder('remindAfter', 'later', 'after it is due')}
      <br />
      who is not sure rings{' '}
      <input
        className="blank w-[150px]"
        aria-label="Whom clients ring"
        placeholder="nobody"
        maxLength={40}
        value={asking.telephone}
        onChange={({ target }) => set({ telephone: target.value })}
      />
      ,{' '}
      <input
        className="blank w-[210px]"
        aria-label="When somebody answers"
        placeholder={`weekdays ${sayTimeSpan('09:00', '14:00')}`}
        maxLength={80}
        value={asking.answered}
        onChange={({ target }) => set({ answered: target.value })}
      />
      {wrong !== undefined && <FieldError message={wrong} />}
    </Part>
  );
}
