import { useCallback } from 'react';
import { useSWRConfig } from 'swr';
import { subjectAddresses } from '../../../contract/addresses.ts';
import type { Subject } from '../../../contract/index.ts';
import { subjectsSaid } from '../../../core/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { addressOf, ask } from '../../kit/api.ts';

const NONE: readonly Subject[] = [];
const OURSELVES = { client: null, asset: null };

/** A client, an asset, or neither: the workspace itself. */
export interface ForWhom {
  readonly clientId: string | null;
  readonly assetId: string | null;
}

/** Clients and assets found by what is typed; null asks nothing. */
export function useSubjects(typed: string | null) {
  return useAnswer(subjectAddresses.find, typed === null ? null : { query: { q: typed.slice(0, 100) } });
}

const namedInput = ({ clientId, assetId }: ForWhom) => ({
  query: { ...(clientId ? { clientId } : {}), ...(assetId ? { assetId } : {}) },
});

/** What work is for, by name, with the client of an asset; undefined until it is known. */
export function useForWhom(forWhom: ForWhom): { client: Subject | null; asset: Subject | null } | undefined {
  const isNobody = forWhom.clientId === null && forWhom.assetId === null;
  const { data } = useAnswer(subjectAddresses.named, isNobody ? null : namedInput(forWhom));
  if (isNobody) return OURSELVES;
  const isOfThese =
    (forWhom.clientId === null || data?.client?.clientId === forWhom.clientId) &&
    (data?.asset?.assetId ?? null) === forWhom.assetId;
  return isOfThese ? data : undefined;
}

/** Names that a captured line may mean: as far as known now, and asked for anew. */
export function useSubjectsSaid(line: string) {
  const { cache, mutate } = useSWRConfig();
  const isAsked = subjectsSaid(line).length > 0;
  const known = useAnswer(subjectAddresses.said, isAsked ? { query: { line } } : null).data?.subjects ?? NONE;
  const ofLine = useCallback(
    async (of: string): Promise<readonly Subject[]> => {
      if (subjectsSaid(of).length === 0) return NONE;
      const address = addressOf(subjectAddresses.said, { query: { line: of } });
      const kept = cache.get(address)?.data as { subjects: Subject[] } | undefined;
      if (kept) return kept.subjects;
      const asked = await ask(subjectAddresses.said, { query: { line: of } });
      void mutate(address, asked, { revalidate: false });
      return asked.subjects;
    },
    [cache, mutate],
  );
  return { known, ofLine };
}
