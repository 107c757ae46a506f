import { answerAddresses } from '../../../contract/addresses-later.ts';
import type { AnswerTray, MailedAnswer } from '../../../contract/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useRefresh } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';
import { usePages } from '../../kit/pages.ts';

type Page = Answer<typeof answerAddresses.tray>;

/** Which answers are told: of a task, of a client, or of a part of the Post tray. */
export type AnswersOf = { readonly task: string } | { readonly client: string } | { readonly tray: AnswerTray };

/** Answers, newest first, as far down as is looked at. */
export function useAnswersOf(of: AnswersOf) {
  const { pages, first, last, ...list } = usePages<Page>((before) => {
    if (before && !before.more) return null;
    const end = before?.answers.at(-1)?.id;
    const query = end ? { before: end } : {};
    if ('task' in of) return addressOf(answerAddresses.ofTask, { params: { taskId: of.task }, query });
    if ('client' in of) return addressOf(answerAddresses.ofClient, { params: { clientId: of.client }, query });
    return addressOf(answerAddresses.tray, { query: { ...query, tray: of.tray } });
  });
  return {
    ...list,
    answers: pages.flatMap((page) => page.answers),
    count: first?.count ?? 0,
    isHere: first !== undefined,
    isMore: last?.more === true,
  };
}

/** What can be done with an answer; each throws a ProblemError where it is refused. */
export function useAnswerActions() {
  const refresh = useRefresh();
  // Wherever it stands: with its task, its client and in the tray.
  const after = () => refresh('/answers', '/clients', '/tasks/', '/post');
  return {
    /** @param task of the client, where it is known which */
    async place(
      answer: MailedAnswer,
      client: { readonly id: string; readonly name: string },
      task: { readonly id: string; readonly title: string } | null = null,
    ): Promise<void> {
      const body = { clientId: client.id, taskId: task?.id ?? null };
      await ask(answerAddresses.place, { params: { answerId: answer.id }, body });
      await after();
      sayDone(`The answer of ${answer.from.name} stands with ${task ? `“${task.title}”` : client.name}.`);
    },
    async putAway({ id, from }: MailedAnswer, away: boolean): Promise<void> {
      await ask(answerAddresses.putAway, { params: { answerId: id }, body: { away } });
      await after();
      sayDone(away ? `The mail of ${from.name} is put away.` : `The mail of ${from.name} is back.`);
    },
    async take(partId: string, name: string): Promise<void> {
      const { changeId } = await ask(answerAddresses.take, { params: { partId } });
      await after();
      sayDone(`“${name}” is with the task now.`, changeId);
    },
    async tryOut(mailId: string, text: string, automatic: boolean): Promise<void> {
      await ask(answerAddresses.tryOut, { params: { mailId }, body: { text, automatic } });
      sayDone('It is on its way, as a mail of theirs.');
    },
    async mailAgain(email: string): Promise<void> {
      await ask(answerAddresses.mailAgain, { body: { email } });
      await after();
      sayDone(`Mails go to ${email} again.`);
    },
  };
}
