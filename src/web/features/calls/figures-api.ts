import { callFigureAddresses } from '../../../contract/addresses-later.ts';
import type { CallFigureQuery, CallListQuery } from '../../../contract/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { type Answer, addressOf } from '../../kit/api.ts';
import { usePages } from '../../kit/pages.ts';

export const useCallFigures = (query: CallFigureQuery) => useAnswer(callFigureAddresses.figures, { query });

/** The calls behind a figure, page by page. */
export function useCallsBehind(query: CallListQuery) {
  const { pages, last, ...list } = usePages<Answer<typeof callFigureAddresses.calls>>((before) =>
    before?.next === null
      ? null
      : addressOf(callFigureAddresses.calls, { query: { ...query, ...(before ? { after: before.next } : {}) } }),
  );
  return {
    ...list,
    lines: pages.flatMap(({ lines }) => lines),
    isHere: pages.length > 0,
    isMore: last !== undefined && last.next !== null,
  };
}

export const addressOfCallsCsv = (query: CallListQuery): string => addressOf(callFigureAddresses.csv, { query });
