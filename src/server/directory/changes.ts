import type { AssetInput, ClientInput } from '../../contract/index.ts';
import { sayWhoMayAll } from '../../core/index.ts';
import { Asset, Client } from '../clients/index.ts';
import { type FieldChanges, fieldsBefore } from '../platform/changes/entity.ts';
import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import { deleteUnlessNamed } from '../platform/db/unless-named.ts';
import { forbidden, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { writeAsset } from './assets.ts';
import { writeClient } from './changing.ts';
import { unmerge } from './merging.ts';
import { contactsOf } from './one-client.ts';

const CLIENT = {
  name: 'told',
  address: 'told',
  usualPersonId: 'told',
  notes: 'told',
  fields: 'told',
  version: 'silent',
  archivedAt: 'silent',
  words: 'silent',
} satisfies Telling<Client>;

const ASSET = {
  clientId: 'silent',
  name: 'told',
  place: 'told',
  tag: 'told',
  isSite: 'told',
  siteId: 'told',
  fields: 'told',
  servesFrom: 'told',
  servesUntil: 'told',
  version: 'silent',
  archivedAt: 'silent',
  words: 'silent',
  foundBy: 'silent',
} satisfies Telling<Asset>;

/** What is put back of each kind besides its own fields. */
interface Kind<Row extends Client | Asset> {
  readonly entity: new () => Row;
  readonly subject: 'client' | 'asset';
  readonly telling: SubjectOfChanges<never>['telling'];
  /** Puts back fields of its own; what else is kept of it is told apart first. */
  readonly putBack: (scope: Scope, row: Row, fields: FieldChanges) => Promise<void>;
}

function changesOf<Row extends Client | Asset>({
  entity,
  subject,
  telling,
  putBack,
}: Kind<Row>): SubjectOfChanges<never> {
  return {
    entity,
    telling,
    mayUndoOwn: () => false,
    reached: () => ({}),
    fieldsTaken: fieldsOf,
    async undo(scope, changes, rest) {
      if (!scope.mayAll('clients')) throw forbidden(`Only ${sayWhoMayAll('clients')} can change clients.`);
      await rest();
      const said: string[] = [];
      for (const { subjectId, action, fields } of changes) {
        const row = await scope.locked<Client | Asset>(entity, subjectId, subject);
        if (action === 'added') {
          if (!(await deleteUnlessNamed(scope, subject, subjectId)))
            throw notNow(`${row.name} has been given work or assets meanwhile: archive it instead.`);
          said.push(`${row.name} is not here any more`);
        } else {
          const { archivedAt, ...own } = fields;
          if (archivedAt) await archivedBefore(scope, entity, subject, row, { archivedAt });
          await putBack(scope, (await scope.locked<Client | Asset>(entity, subjectId, subject)) as Row, own);
          said.push(`${row.name} is as before`);
        }
      }
      await scope.tell('clients');
      return { said: `${said.join('; ')}.`, kept: [] };
    },
  };
}

async function archivedBefore(
  scope: Scope,
  entity: new () => Client | Asset,
  subject: 'client' | 'asset',
  now: Client | Asset,
  fields: FieldChanges,
): Promise<void> {
  const set = fieldsBefore<Pick<Client, 'archivedAt'>>(now, fields);
  await scope.save<Client | Asset>(entity, now.id, { ...set, version: now.version + 1 });
  await scope.record(subject, now.id, 'undone', fieldChanges(now, set));
}

export const clientChanges = changesOf<Client>({
  entity: Client,
  subject: 'client',
  // Contacts are rows of their own, and so is what was merged.
  telling: { ...CLIENT, contacts: 'told', moved: 'silent' },
  async putBack(scope, client, { moved, ...own }) {
    if (moved) await unmerge(scope, client.id, { moved });
    const now = { ...client, contacts: await contactsOf(scope, client.id) };
    await writeClient(scope, client, fieldsBefore(now, own) as Partial<ClientInput>, 'undone');
  },
});

export const assetChanges = changesOf<Asset>({
  entity: Asset,
  subject: 'asset',
  telling: ASSET,
  async putBack(scope, asset, own) {
    await writeAsset(scope, asset, fieldsBefore(asset, own) as Partial<AssetInput>, 'undone');
  },
});
