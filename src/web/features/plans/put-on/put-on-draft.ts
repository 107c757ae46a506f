import { z } from 'zod';
import { planEndpoints } from '../../../../contract/index.ts';

/** Who is to be put on a plan, and what is different for each; an empty plan is one that is not chosen yet. */
export const putOnDraftSchema = z.object({
  planId: z.string(),
  from: z.string(),
  start: z.nullable(z.object({ templateId: z.string(), on: z.string(), without: z.array(z.string()) })),
  clients: z.array(planEndpoints.putOn.body.shape.clients.element.extend({ name: z.string() })),
});
export type PutOnDraft = z.infer<typeof putOnDraftSchema>;
export type OwnDraft = PutOnDraft['clients'][number]['own'][number];

/** Clients that another page has chosen, as they come with the address. */
export interface ChosenClients {
  readonly clients: readonly { readonly id: string; readonly name: string }[];
}

export const isChosenClients = (state: unknown): state is ChosenClients =>
  typeof state === 'object' && state !== null && 'clients' in state && Array.isArray(state.clients);

/** Which cell is meant: an item of a client, of one of the assets where it is about those. */
export interface CellPlace {
  readonly clientId: string;
  readonly item: string;
  readonly assetId: string | null;
}

export const isAt = (own: OwnDraft, { item, assetId }: Pick<CellPlace, 'item' | 'assetId'>): boolean =>
  own.item === item && own.assetId === assetId;

export const ownAt = (draft: PutOnDraft, place: CellPlace): OwnDraft | undefined =>
  draft.clients.find(({ clientId }) => clientId === place.clientId)?.own.find((own) => isAt(own, place));

/** The same with something else in one cell; undefined makes it as the plan says. */
export function withOwn(
  draft: PutOnDraft,
  place: CellPlace,
  own: Omit<OwnDraft, 'item' | 'assetId'> | undefined,
): PutOnDraft {
  const { item, assetId } = place;
  return {
    ...draft,
    clients: draft.clients.map((client) =>
      client.clientId === place.clientId
        ? {
            ...client,
            own: [
              ...client.own.filter((one) => !isAt(one, place)),
              ...(own === undefined ? [] : [{ ...own, item, assetId }]),
            ],
          }
        : client,
    ),
  };
}

/** The same in the cells of that item of all of them: what is said of one asset goes for all assets of the others. */
export function withOwnForAll(draft: PutOnDraft, place: CellPlace): PutOnDraft {
  const own = ownAt(draft, place);
  return {
    ...draft,
    clients: draft.clients.map((client) => ({
      ...client,
      own: [
        ...client.own.filter(({ item }) => item !== place.item),
        ...(own === undefined ? [] : [{ ...own, assetId: null }]),
      ],
    })),
  };
}
