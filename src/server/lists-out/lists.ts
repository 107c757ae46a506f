import { In, IsNull } from 'typeorm';
import {
  ASSET_OWN,
  type AssignmentRule,
  type BringField,
  bringFields,
  DEMAND_WORDS,
  groupBy,
  isoOfDay,
  minutesAWeek,
  OWN,
  type PlannedSchedule,
  type StepLine,
  writeScheduleLine,
  writeStepLine,
} from '../../core/index.ts';
import { LONGEST_CELL } from '../bring-in/index.ts';
import { Asset, Client, Contact } from '../clients/index.ts';
import { Person } from '../platform/identity/person.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { cellContext, keptLines, whoWords } from '../schedules/index.ts';
import { Template, wordsOfInstructions } from '../templates/stored/index.ts';

type Lines = readonly (readonly string[])[];

/** Clients that are told at a time. */
const AT_ONCE = 250;

const text = (value: string | number | null | undefined): string => String(value ?? '');

/**
 * Clients with their contacts and assets, in the columns by which they are brought in: a line for each contact and asset, the
 * client's own fields in the first of them.
 */
export async function* clientsOut(scope: Scope): AsyncGenerator<Lines> {
  const { clientFields, assetFields } = scope.workspace;
  const fields = bringFields('clients', { client: clientFields, asset: assetFields });
  yield [fields.map(({ name }) => name)];
  const people = await scope.peopleNames();
  for (let after = ['', '']; ; ) {
    const rows = await scope.sql<{ id: string; words: string }>(
      `select id, words from client where workspace_id = $1 and archived_at is null
         and ($2 = '' or (words, id) > ($2, nullif($3, '')::uuid)) order by words, id limit ${AT_ONCE}`,
      after,
    );
    const last = rows.at(-1);
    if (!last) return;
    const ids = rows.map(({ id }) => id);
    const clients = new Map((await scope.find(Client, { id: In(ids) })).map((client) => [client.id, client]));
    const contacts = groupBy(
      (await scope.find(Contact, { clientId: In(ids) })).sort((a, b) => a.position - b.position),
      ({ clientId }) => clientId,
    );
    const assets = groupBy(
      await scope.find(Asset, { clientId: In(ids), archivedAt: IsNull() }),
      ({ clientId }) => clientId,
    );
    const plans = new Map(
      (
        await scope.sql<{ id: string; plan: string }>(
          `select o.client_id as id, min(p.name) as plan from on_plan o
             join service_plan p on p.workspace_id = o.workspace_id and p.id = o.plan_id
           where o.workspace_id = $1 and o.client_id = any($2::uuid[]) and o.undone_at is null and o.off_on is null
             and (o.until_on is null or o.until_on >= $3) group by o.client_id`,
          [ids, scope.today],
        )
      ).map(({ id, plan }) => [id, plan]),
    );
    yield rows.flatMap(({ id }) => {
      const client = clients.get(id);
      if (!client) return [];
      const own = {
        contacts: contacts.get(id) ?? [],
        assets: assets.get(id) ?? [],
      };
      const count = Math.max(1, own.contacts.length, own.assets.length);
      return Array.from({ length: count }, (_, i) =>
        lineOf(fields, client, own.contacts[i], own.assets[i], i === 0 ? (plans.get(id) ?? '') : null, people),
      );
    });
    after = [last.words, last.id];
  }
}

function lineOf(
  fields: readonly BringField[],
  client: Client,
  contact: Contact | undefined,
  asset: Asset | undefined,
  /** The service plan that they are on, on the first of the lines of a client; null on the others. */
  plan: string | null,
  people: ReadonlyMap<string, string>,
): string[] {
  const values: Record<string, string> = {
    name: client.name,
    ...(plan !== null
      ? {
          plan,
          address: client.address,
          usualPerson: people.get(client.usualPersonId ?? '') ?? '',
          notes: client.notes,
          ...keyed(OWN, client.fields),
        }
      : {}),
    ...(contact
      ? {
          ...{ contact: contact.name, role: contact.role, email: contact.email, telephone: contact.telephone },
          prefers: text(contact.prefers),
        }
      : {}),
    ...(asset
      ? { asset: asset.name, tag: text(asset.tag), place: asset.place, ...keyed(ASSET_OWN, asset.fields) }
      : {}),
  };
  return fields.map(({ key }) => values[key] ?? '');
}

const keyed = (before: string, fields: Client['fields']): Record<string, string> =>
  Object.fromEntries(Object.entries(fields).map(([key, value]) => [before + key, text(value)]));

/** Everybody, in the columns by which people are brought in. */
export async function* peopleOut(scope: Scope): AsyncGenerator<Lines> {
  const fields = bringFields('people', { client: [], asset: [] });
  yield [fields.map(({ name }) => name)];
  const people = await scope.find(Person);
  const emails = new Map(
    (
      await scope.sql<{ id: string; email: string }>(
        'select p.id, a.email from person p join account a on a.id = p.account_id where p.workspace_id = $1',
      )
    ).map(({ id, email }) => [id, email]),
  );
  yield people
    .sort((a, b) => a.name.localeCompare(b.name))
    .map((person) => {
      const { name, telephone, roles, team, access, worksFrom, worksUntil } = person;
      const values: Record<string, string> = {
        ...{ name, telephone, access, roles: roles.join(', '), team: text(team) },
        email: emails.get(person.id) ?? text(person.email),
        // So exactly that it is the same number of minutes again.
        hours: text(Number((Math.round(minutesAWeek(person)) / 60).toFixed(4))),
        ...{ worksFrom: text(worksFrom), worksUntil: text(worksUntil) },
      };
      return fields.map(({ key }) => values[key] ?? '');
    });
}

/** The workspace's own sites and assets. */
export async function* assetsOut(scope: Scope): AsyncGenerator<Lines> {
  const { assetFields } = scope.workspace;
  yield [
    ['asset', 'tag', 'place', 'site', 'in service from', 'in service until', ...assetFields.map(({ name }) => name)],
  ];
  for (let after = ['', '']; ; ) {
    const rows = await scope.sql<Asset & { site: string | null; from: string | null; until: string | null }>(
      `select a.id, a.name, a.words, a.tag, a.place, a.fields, site.name as site, a.serves_from::text as "from", a.serves_until::text as until
       from asset a left join asset site on site.workspace_id = a.workspace_id and site.id = a.site_id
       where a.workspace_id = $1 and a.client_id is null and a.archived_at is null
         and ($2 = '' or (a.words, a.id) > ($2, nullif($3, '')::uuid)) order by a.words, a.id limit ${AT_ONCE}`,
      after,
    );
    const last = rows.at(-1);
    if (!last) return;
    yield rows.map(({ name, tag, place, site, from, until, fields }) => [
      ...[name, tag, place, site, from, until].map(text),
      ...assetFields.map(({ key }) => text(fields[key])),
    ]);
    after = [last.words ?? '', last.id];
  }
}

/** Columns that stand beside those by which templates are brought in: read by people, and by nothing else. */
const BESIDE_TEMPLATES = ['proof', 'schedules'];

/** Templates that are not archived: a line for each step, the template's own words in the first of them. */
export async function* templatesOut(scope: Scope): AsyncGenerator<Lines> {
  const fields = bringFields('templates', { client: [], asset: [] });
  yield [[...fields.map(({ name }) => name), ...BESIDE_TEMPLATES]];
  const sayWho = await whoWords(scope);
  const uses = new Map(
    (
      await scope.sql<{ id: string; count: number }>(
        `select template_id as id, count(*)::int as count from schedule
         where workspace_id = $1 and deleted_at is null group by 1`,
      )
    ).map(({ id, count }) => [id, count]),
  );
  for (let after = ['', '']; ; ) {
    const rows = await scope.sql<{ id: string; key: string }>(
      `select id, lower(name) as key from template where workspace_id = $1 and archived_at is null
         and ($2 = '' or (lower(name), id) > ($2, nullif($3, '')::uuid)) order by lower(name), id limit ${AT_ONCE}`,
      after,
    );
    const last = rows.at(-1);
    if (!last) return;
    const found = await scope.find(Template, { id: In(rows.map(({ id }) => id)) });
    const templates = new Map(found.map((template) => [template.id, template]));
    yield rows.flatMap(({ id }) => {
      const template = templates.get(id);
      if (!template) return [];
      const own: Record<string, string> = {
        ...{ summary: template.summary, category: text(template.category), workType: text(template.workType) },
        ...{
          titlePattern: template.titlePattern,
          minutes: text(template.estimateMinutes),
          priority: template.priority,
        },
        who: template.assignment.kind === 'nobody' ? '' : sayWho(template.assignment),
        instructions: shortWords(template.instructions),
      };
      const beside = [
        template.demands.map(({ label, kind }) => label || DEMAND_WORDS[kind]).join('\n'),
        text(uses.get(id) ?? 0),
      ];
      return Array.from({ length: Math.max(1, template.steps.length) }, (_, i) => {
        const step = template.steps[i];
        const values: Record<string, string> = {
          name: template.name,
          ...(i === 0 ? own : {}),
          ...(step ? writeStepLine(stepLine(step)) : {}),
        };
        return [...fields.map(({ key }) => values[key] ?? ''), ...(i === 0 ? beside : beside.map(() => ''))];
      });
    });
    after = [last.key, last.id];
  }
}

/** What is longer than a cell of a file that is brought in stays out, as it would else be cut. */
function shortWords(html: string): string {
  const words = wordsOfInstructions(html);
  return words.length <= LONGEST_CELL ? words : '';
}

const stepLine = (step: Template['steps'][number]): StepLine =>
  step.kind === 'task'
    ? { text: step.titlePattern, note: step.note, own: { estimateMinutes: step.estimateMinutes, offset: step.offset } }
    : { text: step.text, note: step.note, own: null };

function cellsOf(
  { recurrence, timing, pauses = [], exceptions = [], revisions = [] }: PlannedSchedule,
  assignment: AssignmentRule,
) {
  return { recurrence, timing, pauses, exceptions, revisions, assignment, plans: null };
}

/** Columns that stand beside those by which schedules are brought in. */
const BESIDE_SCHEDULES = ['next', 'dates a year', 'state'];

/** Schedules in the columns by which they are brought in; of one that can't be read its rule stays out. */
export async function* schedulesOut(scope: Scope): AsyncGenerator<Lines> {
  const fields = bringFields('schedules', { client: [], asset: [] });
  yield [[...fields.map(({ name }) => name), ...BESIDE_SCHEDULES]];
  const context = await cellContext(scope);
  const lines = [...(await keptLines(scope)).values()].sort((a, b) => (a.name < b.name ? -1 : 1));
  for (let at = 0; at < lines.length; at += AT_ONCE)
    yield await eachInTurn(lines.slice(at, at + AT_ONCE), ({ row, planned, next, timesAYear, state }) => {
      const values: Record<string, string> = {
        ...{ template: row.templateName, client: text(row.clientName), asset: text(row.assetName) },
        ...(planned === null ? {} : writeScheduleLine(cellsOf(planned, row.assignment), context)),
      };
      return [...fields.map(({ key }) => values[key] ?? ''), text(next), String(timesAYear), state];
    });
}

export const nameOfList = (name: string, { workspace, now }: Scope): string =>
  `${workspace.name} ${name} ${isoOfDay(now.day)}`;
