import { noticeAddresses } from '../../../contract/addresses.ts';
import type {
  LetterInput,
  NoticeDraft,
  NoticeLetter,
  NoticeLook,
  NoticesInput,
  VisitFilter,
} from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';
import { usePages } from '../../kit/pages.ts';

/** Visits that fit, as far down as they are looked at; null asks nothing. */
export function useVisits(filter: VisitFilter | null) {
  type Page = Answer<typeof noticeAddresses.visits>;
  const { pages, last, ...list } = usePages<Page>((before) =>
    filter === null || before?.more === null
      ? null
      : addressOf(noticeAddresses.visits, { query: { ...filter, ...(before?.more ? { after: before.more } : {}) } }),
  );
  return {
    ...list,
    lines: pages.flatMap(({ lines }) => lines),
    isHere: pages.length > 0,
    isMore: last !== undefined && last.more !== null,
  };
}

export const useVisitWeeks = (filter: VisitFilter | null) =>
  useAnswer(noticeAddresses.weeks, filter && { query: filter });
export const useLetters = () => useAnswer(noticeAddresses.letters, {});

export function useNoticesOf(of: { readonly task: string } | { readonly client: string } | null) {
  type Page = Answer<typeof noticeAddresses.list>;
  const { pages, last, ...list } = usePages<Page>((before) => {
    if (of === null || before?.isMore === false) return null;
    const after = before?.notices.at(-1)?.id;
    return addressOf(noticeAddresses.list, { query: { ...of, ...(after ? { after } : {}) } });
  });
  return {
    ...list,
    notices: pages.flatMap(({ notices }) => notices),
    isHere: pages.length > 0,
    isMore: last?.isMore ?? false,
  };
}

/** What can be done with letters and notices; each throws a ProblemError when it is refused. */
export function useNoticeActions() {
  const refresh = useRefresh();
  const after = () => refresh('/visits', '/notices', '/tasks/', '/overview');
  return {
    lookAt: async (look: NoticeLook): Promise<readonly NoticeDraft[]> =>
      (await ask(noticeAddresses.look, { body: look })).drafts,
    async write(input: NoticesInput) {
      const { batchId, count, mailed, changeId } = await ask(noticeAddresses.write, { body: input });
      await after();
      const words = `${plural(count, 'notice')} written${mailed > 0 ? `, ${mailed} on the way by mail` : ''}.`;
      // What has left is not taken back.
      sayDone(words, mailed === count ? null : changeId);
      return { batchId, count, mailed };
    },
    async send(notices: readonly string[], on: string) {
      const { count, changeId } = await ask(noticeAddresses.send, { body: { notices: [...notices], on } });
      await after();
      sayDone(`${plural(count, 'notice has', 'notices have')} gone.`, changeId);
    },
    async mail(notices: readonly string[], today: string) {
      const { count } = await ask(noticeAddresses.send, { body: { notices: [...notices], on: today } });
      await after();
      sayDone(`${plural(count, 'notice is', 'notices are')} on the way by mail.`);
    },
    async needNone(tasks: readonly string[], reason: string) {
      const { count, changeId } = await ask(noticeAddresses.needNone, { body: { tasks: [...tasks], reason } });
      await after();
      sayDone(`${plural(count, 'visit needs', 'visits need')} no notice.`, changeId);
    },
    async keepLetter(letter: Pick<NoticeLetter, 'id' | 'version'> | null, input: LetterInput): Promise<NoticeLetter> {
      const { letter: kept, changeId } = letter
        ? await ask(noticeAddresses.changeLetter, {
            params: { letterId: letter.id },
            body: { ...input, version: letter.version },
          })
        : await ask(noticeAddresses.addLetter, { body: input });
      await refresh('/letters');
      sayDone(`The letter “${kept.name}” is kept.`, changeId);
      return kept;
    },
    async dropLetter({ id, name }: NoticeLetter) {
      const { changeId } = await ask(noticeAddresses.dropLetter, { params: { letterId: id } });
      await refresh('/letters');
      sayDone(`The letter “${name}” is dropped.`, changeId);
    },
  };
}
