import type { AnswerTray, MailedAnswer } from '../../../contract/index.ts';
import { ANSWER_TRAYS } from '../../../contract/index.ts';
import { Band } from '../../kit/band.tsx';
import { useTrying } from '../../kit/use-trying.ts';
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
  const placeAt = (client: { readonly id: string; readonly name: string }) => void trying(() => place(answer, client));
  return (
    <>
      {answer.guesses.map((client) => (
        <button key={client.id} type="button" className="link-line" disabled={busy} onClick={() => placeAt(client)}>
          It is of {client.name}
        </button>
      ))}
      {answer.client === null && (
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
