import { callAddresses } from '../../../contract/addresses-later.ts';
import type {
  BeforeCall,
  ListedCall,
  QuotaInput,
  QuotaLook,
  SeveralQuotasLook,
  ShareLook,
} from '../../../contract/index.ts';
import type { QuotaDeed } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';
import { type Looked, useLook } from '../../kit/look.ts';

export const useCallDay = (person: string, on: string) => useAnswer(callAddresses.day, { query: { person, on } });
export const useBeforeCall = (callId: string, kind: BeforeKind | null) =>
  useAnswer(callAddresses.before, { params: { callId }, query: kind === null ? {} : { kind } });
export const useQuotas = () => useAnswer(callAddresses.quotas, {});

/** Contacts that have what is typed; null asks for none. */
export const useContactsFound = (typed: string | null) =>
  useAnswer(callAddresses.contacts, typed === null ? null : { query: { q: typed } });

export const useShareLook = (asked: { readonly person: string; readonly to: string[] | null }): Looked<ShareLook> =>
  useLook(asked, (body) => ask(callAddresses.shareLook, { body }));

export const useQuotaLook = (
  asked: (Omit<QuotaInput, 'name'> & { readonly quotaId: string | null }) | null,
  version: number | null,
): Looked<QuotaLook> => useLook(asked, (body) => ask(callAddresses.look, { body }), version);

export const useSeveralQuotasLook = (asked: {
  readonly ids: string[];
  readonly deed: QuotaDeed;
}): Looked<SeveralQuotasLook> => useLook(asked, (body) => ask(callAddresses.severalLook, { body }));

export type BeforeKind = BeforeCall['lines'][number]['kind'];

/** What can be done with calls and quotas; each throws a ProblemError when it is refused. */
export function useCallActions() {
  const again = useRefresh();
  const refresh = () => again('/calls', '/quotas');
  return {
    async later(call: ListedCall) {
      const { changeId } = await ask(callAddresses.later, {
        params: { callId: call.id },
        body: { version: call.version },
      });
      await refresh();
      sayDone(`${call.contact.name} stands at the end of the list.`, changeId);
    },
    async more(person: string, quotaId: string, contactId: string | null) {
      const { call, changeId } = await ask(callAddresses.more, { body: { person, quotaId, contactId } });
      await refresh();
      sayDone(`${call.contact.name} is on the list.`, changeId);
    },
    async off(call: ListedCall) {
      const { changeId } = await ask(callAddresses.off, {
        params: { callId: call.id },
        body: { version: call.version },
      });
      await refresh();
      sayDone(`${call.contact.name} is off the list.`, changeId);
    },
    async swap(call: ListedCall) {
      const { call: other, changeId } = await ask(callAddresses.swap, {
        params: { callId: call.id },
        body: { version: call.version },
      });
      await refresh();
      sayDone(`${other.contact.name} instead of ${call.contact.name}.`, changeId);
    },
    async share(person: string, moves: ShareLook['moves'], said: string) {
      const { changeId } = await ask(callAddresses.share, { body: { person, moves } });
      await refresh();
      sayDone(said, changeId);
    },
    async several(of: { id: string; version: number }[], deed: QuotaDeed, said: string) {
      const { changeId } = await ask(callAddresses.several, { body: { of, deed } });
      await refresh();
      sayDone(said, changeId);
    },
    async createQuota(body: QuotaInput): Promise<string> {
      const { quota, changeId } = await ask(callAddresses.createQuota, { body });
      await refresh();
      sayDone(`${quota.name} is saved.`, changeId);
      return quota.id;
    },
    async changeQuota(quotaId: string, version: number, body: QuotaInput) {
      const { quota, changeId } = await ask(callAddresses.changeQuota, {
        params: { quotaId },
        body: { ...body, version },
      });
      await refresh();
      sayDone(`${quota.name} is saved.`, changeId);
    },
  };
}
