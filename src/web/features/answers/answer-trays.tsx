import { useState } from 'react';
import { taskListAddresses } from '../../../contract/addresses-later.ts';
import type { AnswerTray, MailedAnswer } from '../../../contract/index.ts';
import { ANSWER_TRAYS } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { Band } from '../../kit/band.tsx';
import { Picker } from '../../kit/picker.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayDay } from '../../kit/ways.ts';
import { ClientPicker } from '../clients/client-picker.tsx';
import { AnswerLines } from './answer-lines.tsx';
import { useAnswerActions } from './api.ts';

const NAMES: Readonly<Record<AnswerTray, string>> = {
  toPlace: 'to place',
  placed: 'answered',
  automatic: 'by machines',
};

/** What came in by mail: what nobody is known for, what has its place, and what machines wrote. */
export function AnswerTrays() {
  return ANSWER_TRAYS.map((tray) => (
    <AnswerLines key={tray} of={{ tray }} deeds={(answer) => <Deeds answer={answer} tray={tray} />}>
      {(lines, count) => (
        <Band name={NAMES[tray]} count={count} isLate={tray === 'toPlace'}>
          <div className="pr-5 max-[720px]:px-4">{lines}</div>
        </Band>
      )}
    </AnswerLines>
  ));
}

function Deeds({ answer, tray }: { readonly answer: MailedAnswer; readonly tray: AnswerTray }) {
  const { place, putAway } = useAnswerActions();
  const { busy, trying } = useTrying();
  if (tray === 'automatic') return null;
  const { client } = answer;
  const placeAt = (whose: { readonly id: string; readonly name: string }) => void trying(() => place(answer, whose));
  return (
    <>
      {answer.guesses.map((guess) => (
        <button key={guess.id} type="button" className="link-line" disabled={busy} onClick={() => placeAt(guess)}>
          It is of {guess.name}
        </button>
      ))}
      {client !== null && answer.task === null && (
        <OfTask client={client} onChoose={(task) => void trying(() => place(answer, client, task))} />
      )}
      {client !== null && <ClientPicker label="It is of somebody else" look="word" onChoose={placeAt} />}
      {client === null && (
        <>
          <ClientPicker label="Say whose it is" look="deed" onChoose={placeAt} />
          <button
            type="button"
            className="link-line"
            disabled={busy}
            onClick={() => void trying(() => putAway(answer, !answer.isAway))}
          >
            {answer.isAway ? 'Back to those to place' : 'Put away'}
          </button>
        </>
      )}
    </>
  );
}

/** Which of a client's tasks it is about: those that are not done, asked for once somebody chooses. */
function OfTask({
  client,
  onChoose,
}: {
  readonly client: NonNullable<MailedAnswer['client']>;
  readonly onChoose: (task: { readonly id: string; readonly title: string }) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const { data, error, isLoading } = useAnswer(
    taskListAddresses.lines,
    typed === null
      ? null
      : { query: { client: client.id, are: 'unfinished', order: 'due', ...(typed === '' ? {} : { find: typed }) } },
  );
  const today = useToday();
  const lines = data?.lines ?? [];
  return (
    <Picker
      label="Say which task"
      look="deed"
      placeholder="Say which task"
      chosen=""
      options={lines.map(({ id, title, dueOn }) => ({ key: id, name: title, detail: sayDay(dayOfIso(dueOn), today) }))}
      onType={setTyped}
      isLooking={isLoading}
      trouble={error?.message}
      onChoose={(id) => onChoose({ id, title: lines.find((one) => one.id === id)?.title ?? '' })}
    />
  );
}
