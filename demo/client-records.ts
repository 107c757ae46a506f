import { isoOfDay, type OwnField } from '../src/core/index.ts';
import { Asset, Client, Contact } from '../src/server/clients/index.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { berthHolders } from './berth-holders.ts';
import { SeededRandom } from './random.ts';
import { OWN_ASSETS } from './schedules.ts';

export const CLIENT_FIELDS: readonly OwnField[] = [
  { key: 'insured', name: 'insured until', kind: 'date', choices: [] },
  { key: 'agreement', name: 'agreement to', kind: 'date', choices: [] },
  { key: 'notices', name: 'notices go by', kind: 'choice', choices: ['mail', 'post', 'both'] },
  { key: 'deposit', name: 'deposit, £', kind: 'number', choices: [] },
];
export const ASSET_FIELDS: readonly OwnField[] = [
  { key: 'length', name: 'length, m', kind: 'number', choices: [] },
  { key: 'rig', name: 'rig', kind: 'choice', choices: ['sloop', 'ketch', 'cutter', 'motor', 'gaff'] },
  { key: 'maker', name: 'maker’s plate', kind: 'text', choices: [] },
];

const USUAL = ['kit', 'tamsin', 'joss', 'nadia', 'selwyn', 'bram'] as const;
const TOWNS = ['Saltreath', 'Penvoss', 'Low Harne', 'Carrick Green', 'Nine Wells'];
const STREETS = ['Chandlers Row', 'Mill Lane', 'Upper Strand', 'Pilot Street', 'Orchard Hill'];
const KIN = ['Maren', 'Tobias', 'Elowen', 'Gerrit', 'Sunniva', 'Caspar'];
const CREW = ['Aldous', 'Birgit', 'Corin', 'Dorte', 'Evander', 'Frida', 'Gwilym', 'Hesper', 'Ingram', 'Jorun'];
/** Numbers that no exchange gives out. */
const telephone = (random: SeededRandom) => `01632 960 ${random.whole(100, 999)}`;

/** What is kept of the berth holders and of the marina's own things, told last so that nothing else depends on it. */
export async function addRecords(scope: Scope, people: ReadonlyMap<string, string>): Promise<void> {
  const random = new SeededRandom('client records');
  const crew = new SeededRandom('crew');
  const clients = new Map((await scope.find(Client)).map((client) => [client.name, client]));
  const assets = await scope.find(Asset);
  for (const [i, { name }] of berthHolders().entries()) {
    const client = clients.get(name);
    if (!client) throw new Error(`${name} is no client.`);
    const usual = i % 9 === 7 ? null : people.get(random.pick(USUAL));
    const [first = '', last = ''] = name.split(' ');
    await scope.save(Client, client.id, {
      address: `${random.whole(1, 64)} ${random.pick(STREETS)}\n${random.pick(TOWNS)}`,
      usualPersonId: usual ?? null,
      notes: i % 8 === 0 ? 'Keeps the berth lines aboard in winter; ring before going on board.' : '',
      fields: {
        ...(random.chance(0.9) ? { insured: isoOfDay(scope.now.day + random.whole(-5, 330)) } : {}),
        ...(random.chance(0.8) ? { agreement: `${2027 + (i % 3)}-03-31` } : {}),
        notices: random.pick(['mail', 'mail', 'mail', 'post', 'both']),
        ...(random.chance(0.5) ? { deposit: random.whole(4, 24) * 50 } : {}),
      },
    });
    const contacts = [
      {
        ...{ name, role: 'berth holder', email: `${first}.${last}@berth.example`.toLowerCase() },
        ...{ telephone: telephone(random), prefers: random.pick(['mail', 'telephone', null] as const) },
      },
      ...(i % 3 === 0
        ? [
            {
              ...{ name: `${random.pick(KIN)} ${last}`, role: 'keeps a key', email: '' },
              ...{ telephone: telephone(random), prefers: 'telephone' as const },
            },
          ]
        : []),
      {
        ...{ name: `${crew.pick(CREW)} ${last}`, role: crew.pick(['sails along', 'shares the boat']), email: '' },
        ...{ telephone: telephone(crew), prefers: null },
      },
    ];
    for (const [position, contact] of contacts.entries())
      await scope.insert(Contact, { ...contact, id: scope.newId(), clientId: client.id, position });
    for (const [n, vessel] of assets.filter(({ clientId }) => clientId === client.id).entries())
      await scope.save(Asset, vessel.id, {
        tag: `${initials(vessel.name)}-${i + 1}${n === 0 ? '' : n + 1}`,
        fields: {
          length: random.whole(58, 148) / 10,
          rig: random.pick(['sloop', 'ketch', 'cutter', 'motor', 'gaff']),
        },
      });
  }
  await addSites(scope, assets);
}

const initials = (name: string) =>
  name
    .split(' ')
    .map((word) => word.charAt(0))
    .join('')
    .toUpperCase();

/** The quays, and what stands at them. */
async function addSites(scope: Scope, assets: readonly Asset[]): Promise<void> {
  const own = new Map(assets.filter(({ clientId }) => clientId === null).map((asset) => [asset.name, asset]));
  for (const [name, place] of OWN_ASSETS) {
    const asset = own.get(name);
    const site = own.get(place);
    if (!asset) throw new Error(`${name} is no asset.`);
    await scope.save(Asset, asset.id, {
      isSite: name.endsWith('Quay'),
      siteId: site?.id ?? null,
      ...(name.startsWith('Crane')
        ? { servesFrom: '2019-04-01', fields: { maker: `Hallbeck ${name.slice(-1)}40` } }
        : {}),
    });
  }
}
