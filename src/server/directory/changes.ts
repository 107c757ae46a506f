import type { AssetInput, ClientInput } from '../../contract/index.ts';
import { Asset, Client } from '../clients/index.ts';
import { type FieldChanges, fieldsBefore } from '../platform/changes/entity.ts';
import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
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

export const clientChanges: SubjectOfChanges<never> = {
  entity: Client,
  // Contacts are rows of their own, and so is what was merged.
  telling: { ...CLIENT, contacts: 'told', moved: 'silent' },
  mayUndoOwn: () => false,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    mustBeAllowed(scope);
    await rest();
    const said: string[] = [];
    for (const { subjectId, action, fields } of changes) {
      const client = await scope.locked(Client, subjectId, 'client');
      if (action === 'added') said.push(await takeOut(scope, 'client', client));
      else {
        const { archivedAt, moved, ...own } = fields;
        if (archivedAt) await archivedBefore(scope, 'client', client, { archivedAt });
        if (moved) await unmerge(scope, subjectId, fields);
        const now = { ...client, contacts: await contactsOf(scope, subjectId) };
        await writeClient(
          scope,
          await scope.locked(Client, subjectId, 'client'),
          fieldsBefore(now, own) as Partial<ClientInput>,
          'undone',
        );
        said.push(`${client.name} is as before`);
      }
    }
    await scope.tell('clients');
    return { said: `${said.join('; ')}.`, kept: [] };
  },
};

export const assetChanges: SubjectOfChanges<never> = {
  entity: Asset,
  telling: ASSET,
  mayUndoOwn: () => false,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    mustBeAllowed(scope);
    await rest();
    const said: string[] = [];
    for (const { subjectId, action, fields } of changes) {
      const asset = await scope.locked(Asset, subjectId, 'asset');
      if (action === 'added') said.push(await takeOut(scope, 'asset', asset));
      else {
        const { archivedAt, ...own } = fields;
        if (archivedAt) await archivedBefore(scope, 'asset', asset, { archivedAt });
        await writeAsset(
          scope,
          await scope.locked(Asset, subjectId, 'asset'),
          fieldsBefore(asset, own) as Partial<AssetInput>,
          'undone',
        );
        said.push(`${asset.name} is as before`);
      }
    }
    await scope.tell('clients');
    return { said: `${said.join('; ')}.`, kept: [] };
  },
};

function mustBeAllowed(scope: Scope): void {
  if (!scope.mayAll('clients')) throw forbidden('Only a planner or a manager can change clients.');
}

async function archivedBefore(
  scope: Scope,
  subject: 'client' | 'asset',
  now: Client | Asset,
  fields: FieldChanges,
): Promise<void> {
  const set = fieldsBefore<Pick<Client, 'archivedAt'>>(now, fields);
  await scope.save<Client | Asset>(subject === 'client' ? Client : Asset, now.id, { ...set, version: now.version + 1 });
  await scope.record(subject, now.id, 'undone', fieldChanges(now, set));
}

/** What was added and is named by nothing yet is gone again. */
async function takeOut(scope: Scope, table: 'client' | 'asset', { id, name }: Client | Asset): Promise<string> {
  try {
    await scope.transaction((tx) => tx.sql(`delete from ${table} where workspace_id = $1 and id = $2`, [id]));
  } catch (error) {
    if ((error as { code?: string }).code === '23503')
      throw notNow(`${name} has been given work or assets meanwhile: archive it instead.`);
    throw error;
  }
  return `${name} is not here any more`;
}
