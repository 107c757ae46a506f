import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import type { MailedAnswer } from '../../../contract/index.ts';
import { useToday, useWorkspace } from '../../app/shell/workspace.tsx';
import { NotAll } from '../../kit/states.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayBytes } from '../files/upload.ts';
import { sayMoment } from '../tasks/task-words.ts';
import { type AnswersOf, useAnswerActions, useAnswersOf } from './api.ts';

interface AnswerLinesProps {
  readonly of: AnswersOf;
  /** What is around them: nothing of it is shown where there are none. */
  readonly children: (lines: ReactNode, count: number) => ReactNode;
  /** What else can be done with one. */
  readonly deeds?: (answer: MailedAnswer) => ReactNode;
}

/** What contacts wrote back by mail, as text alone, each with whose it is and what came with it. */
export function AnswerLines({ of, children, deeds }: AnswerLinesProps) {
  const { answers, count, isHere, isMore, more, error, again } = useAnswersOf(of);
  if (!isHere) return error ? <NotAll error={error} retry={again} /> : null;
  if (answers.length === 0) return null;
  const lines = (
    <>
      <ul>
        {answers.map((answer) => (
          <AnswerLine key={answer.id} answer={answer} of={of} deeds={deeds?.(answer)} />
        ))}
      </ul>
      {error && <NotAll error={error} retry={again} />}
      {isMore && (
        <button type="button" className="link-line my-1 text-note max-[720px]:ml-4" onClick={more}>
          Earlier ones
        </button>
      )}
    </>
  );
  return children(lines, count);
}

function AnswerLine({
  answer,
  of,
  deeds,
}: {
  readonly answer: MailedAnswer;
  readonly of: AnswersOf;
  readonly deeds: ReactNode;
}) {
  const { may } = useWorkspace();
  const today = useToday();
  const [isWhole, setWhole] = useState(false);
  const { at, from, subject, own, text, task, client, parts, mailId } = answer;
  const isByItself = 'tray' in of && client?.name === from.name;
  const isMoreToRead = text.trim() !== own;
  return (
    <li className="border-b border-line py-2 text-row leading-5 last:border-b-0">
      <div className="flex flex-wrap items-baseline gap-x-2.5">
        {isByItself ? (
          <Link className="font-semibold hover:underline" to={`/clients/${client.id}`}>
            {from.name}
          </Link>
        ) : (
          <b className="font-semibold">{from.name}</b>
        )}
        {!('task' in of) && task && (
          <Link className="link-line" to={`/tasks/task/${task.id}?due=any`}>
            {task.title}
          </Link>
        )}
        {'tray' in of && client && !isByItself && (
          <Link className="link-line" to={`/clients/${client.id}`}>
            {client.name}
          </Link>
        )}
        <span className="ml-auto text-note text-ink-2">{sayMoment(at, today)}</span>
      </div>
      <p className={`max-w-[72ch] break-words whitespace-pre-line ${own === '' ? 'text-ink-2' : ''}`}>
        {isWhole ? text : own || 'nothing of their own was written'}
      </p>
      {parts.length > 0 && (
        <ul>
          {parts.map((part) => (
            <Part key={part.id} part={part} isOfTask={task !== null} />
          ))}
        </ul>
      )}
      <div className="flex flex-wrap items-baseline gap-x-3.5 text-note leading-5 text-ink-2">
        <span title={from.email}>
          {'tray' in of ? `${from.email}, ${subject || 'no subject'}` : subject || 'no subject'}
        </span>
        {isMoreToRead && (
          <button type="button" className="link-line" aria-expanded={isWhole} onClick={() => setWhole(!isWhole)}>
            {isWhole ? 'Their words alone' : 'The whole mail'}
          </button>
        )}
        {mailId !== null && may('post') && (
          <Link className="link-line" to={`/post/${mailId}`}>
            The mail they answer
          </Link>
        )}
        {deeds}
      </div>
    </li>
  );
}

/** A file that came with it: nothing is made of it until it is taken. */
function Part({ part, isOfTask }: { readonly part: MailedAnswer['parts'][number]; readonly isOfTask: boolean }) {
  const { may } = useWorkspace();
  const { take } = useAnswerActions();
  const { busy, trying } = useTrying();
  const { id, name, bytes, state } = part;
  return (
    <li className="flex flex-wrap items-baseline gap-x-2.5">
      <span className="min-w-0 break-all">{name}</span>
      <span className="text-note text-ink-2">{sayBytes(bytes)}</span>
      {state === 'here' && isOfTask && may('work') && (
        <button
          type="button"
          className="link-line text-note"
          disabled={busy}
          aria-label={`Take ${name} into the task`}
          onClick={() => void trying(() => take(id, name))}
        >
          Take into the task
        </button>
      )}
      {state === 'here' && !isOfTask && <span className="text-note text-ink-2">can be taken once it has a task</span>}
      {state === 'taken' && <span className="text-note text-ink-2">with the task</span>}
      {state === 'gone' && <span className="text-note text-ink-2">not kept</span>}
    </li>
  );
}
