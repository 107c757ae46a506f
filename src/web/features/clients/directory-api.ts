import { directoryAddresses } from '../../../contract/addresses.ts';
import type { AssetInput, AssetRecord, ClientInput, ClientRecord, Impact } from '../../../contract/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';
import { usePages } from '../../kit/pages.ts';

interface Asked {
  readonly q: string;
  readonly person: string;
  /** Of one plan, or "none"; empty for any. */
  readonly plan: string;
  readonly by: 'name' | 'plan';
  readonly archived: 'no' | 'yes';
}

type ClientsPage = Answer<typeof directoryAddresses.clients>;
type AssetsPage = Answer<typeof directoryAddresses.ownAssets>;

/** Clients by name, as far as they are looked at. */
export function useClients({ q, person, plan, by, archived }: Asked) {
  const { pages, ...list } = usePages<ClientsPage>((before) =>
    before && before.more === null
      ? null
      : addressOf(directoryAddresses.clients, {
          query: {
            ...{ q, archived, by },
            ...(plan ? { plan } : {}),
            ...(person ? { person } : {}),
            ...(before?.more ? { after: before.more } : {}),
          },
        }),
  );
  return { ...list, clients: pages.flatMap(({ clients }) => clients) };
}

/** The workspace's own assets by name, as far as they are looked at. */
export function useOwnAssets(q: string, which: 'all' | 'sites' | 'archived') {
  const { pages, ...list } = usePages<AssetsPage>((before) =>
    before && before.more === null
      ? null
      : addressOf(directoryAddresses.ownAssets, {
          query: { q, which, ...(before?.more ? { after: before.more } : {}) },
        }),
  );
  return { ...list, assets: pages.flatMap(({ assets }) => assets) };
}

/** Sites found by what is typed; null asks nothing. */
export const useSites = (typed: string | null) =>
  useAnswer(
    directoryAddresses.ownAssets,
    typed === null ? null : { query: { q: typed.slice(0, 100), which: 'sites' } },
  );

export const useClient = (clientId: string | null) =>
  useAnswer(directoryAddresses.client, clientId === null ? null : { params: { clientId } });

export const useClientWork = (clientId: string) => useAnswer(directoryAddresses.work, { params: { clientId } });

/** Ways to change clients and assets; each throws a ProblemError when it is refused. */
export function useDirectoryActions() {
  const refresh = useRefresh();
  const afterwards = () => refresh('/clients', '/assets', '/subjects');
  const throughout = () =>
    refresh('/clients', '/assets', '/subjects', '/schedules', '/tasks/', '/people/', '/tideline', '/team');
  return {
    addClient: async (input: ClientInput): Promise<ClientRecord> => {
      const { client, changeId } = await ask(directoryAddresses.addClient, { body: input });
      await afterwards();
      sayDone(`${client.name} is a client now.`, changeId);
      return client;
    },
    changeClient: async (clientId: string, input: ClientInput & { version: number }): Promise<void> => {
      const { client, changeId } = await ask(directoryAddresses.changeClient, { params: { clientId }, body: input });
      await throughout();
      sayDone(`Saved what is known of ${client.name}.`, changeId);
    },
    archiveClient: async (clientId: string, archived: boolean): Promise<void> => {
      const { client, changeId } = await ask(directoryAddresses.archiveClient, {
        params: { clientId },
        body: { archived },
      });
      await throughout();
      sayDone(archived ? `${client.name} is in the archive.` : `${client.name} is back.`, changeId);
    },
    impactOfArchivingClient: (clientId: string, archived: boolean): Promise<Impact> =>
      ask(directoryAddresses.impactOfArchivingClient, { params: { clientId }, body: { archived } }),
    lookAtMerging: (clientId: string, otherId: string) =>
      ask(directoryAddresses.lookAtMerging, { params: { clientId }, body: { otherId } }),
    merge: async (clientId: string, otherId: string, version: number): Promise<void> => {
      const { client, changeId } = await ask(directoryAddresses.merge, {
        params: { clientId },
        body: { otherId, version },
      });
      await throughout();
      sayDone(`Both are ${client.name} now.`, changeId);
    },
    addAsset: async (input: AssetInput): Promise<AssetRecord> => {
      const { asset, changeId } = await ask(directoryAddresses.addAsset, { body: input });
      await afterwards();
      sayDone(`${asset.name} is here.`, changeId);
      return asset;
    },
    changeAsset: async (assetId: string, input: AssetInput & { version: number }): Promise<void> => {
      const { asset, changeId } = await ask(directoryAddresses.changeAsset, { params: { assetId }, body: input });
      await throughout();
      sayDone(`Saved what is known of ${asset.name}.`, changeId);
    },
    archiveAsset: async (assetId: string, archived: boolean): Promise<void> => {
      const { asset, changeId } = await ask(directoryAddresses.archiveAsset, {
        params: { assetId },
        body: { archived },
      });
      await throughout();
      sayDone(archived ? `${asset.name} is in the archive.` : `${asset.name} is back.`, changeId);
    },
    impactOfArchivingAsset: (assetId: string, archived: boolean): Promise<Impact> =>
      ask(directoryAddresses.impactOfArchivingAsset, { params: { assetId }, body: { archived } }),
  };
}
