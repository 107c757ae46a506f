import { randomInt, timingSafeEqual } from 'node:crypto';
import type { Request } from 'express';
import type { DataSource } from 'typeorm';
import { LINK_HEADER, type OpenedLink, PASS_HEADER } from '../../contract/index.ts';
import { dayOfIso, isoOfDay, linkWorksUntil } from '../../core/index.ts';
import { Client, Contact } from '../clients/index.ts';
import type { Clock } from '../platform/clock.ts';
import { digestOf, newToken } from '../platform/digest.ts';
import type { Asker } from '../platform/http/route.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { forbidden, invalid, notNow, Refusal } from '../platform/refusal.ts';
import { type ByLink, Scope } from '../platform/scope.ts';
import { post } from '../post/index.ts';
import { ringsOf } from './asking.ts';
import { ClientLink } from './entity.ts';
import { codeLetter } from './letter.ts';
import { contactOf, linkedLines } from './page.ts';

const MINUTE_MS = 60_000;
/** For how long a code works, how often it may be tried, and how many of them one link may send. */
const CODE_MINUTES = 15;
const MOST_TRIES = 5;
const MOST_CODES = 12;
/** Devices on which one link may be open with a code; the oldest is let go. */
const MOST_PASSES = 5;

const OVER = (why: string) =>
  notNow(`This link ${why}. Write to whoever sent it, or ring them: another one takes them one click.`);

const headerOf = (request: Request, name: string): string => request.header(name) ?? '';

/** What a link opens. @throws Refusal where it is unknown, was withdrawn, has run out, or its contact is gone */
async function foundBy(
  request: Request,
  source: DataSource,
  clock: Clock,
): Promise<{ scope: Scope; link: ClientLink }> {
  const token = headerOf(request, LINK_HEADER);
  const link = token === '' ? null : await source.getRepository(ClientLink).findOneBy({ digest: digestOf(token) });
  if (link === null) throw OVER('is not known here: it may be cut short');
  const { workspaceId, clientId: of } = link;
  const workspace = await source.getRepository(Workspace).findOneByOrFail({ id: workspaceId });
  const scope = Scope.on(source, workspace, null, clock);
  const row = await source.getRepository(Contact).findOneBy({ workspaceId, id: link.contactId });
  const client = await source.getRepository(Client).findOneBy({ workspaceId, id: row?.clientId ?? of });
  const isTheirs = row !== null && row.email.toLowerCase() === link.email.toLowerCase();
  if (link.withdrawnAt !== null || !isTheirs || client === null || client.archivedAt !== null)
    throw OVER('was withdrawn');
  if (scope.today > (await endOf(scope, link))) throw OVER('has run out');
  const { id: linkId, contactId, email, taskId } = link;
  const contact: ByLink = { linkId, contactId, name: row.name, email, clientId: client.id, taskId };
  return { scope: scope.by(contact), link };
}

/** Its last day by now. */
async function endOf(scope: Scope, { taskId, endsOn }: ClientLink): Promise<string> {
  if (taskId === null) return endsOn;
  const [task] = await scope.sql<{ dueOn: string }>(
    'select due_on as "dueOn" from task where workspace_id = $1 and id = $2',
    [taskId],
  );
  return isoOfDay(linkWorksUntil(dayOfIso(endsOn), task ? dayOfIso(task.dueOn) : null, scope.workspace.asking));
}

/** Whether a link asks for a code that this device has not been given in for. */
const lacksPass = ({ needsCode, passes }: ClientLink, request: Request): boolean =>
  needsCode && !passes.includes(digestOf(headerOf(request, PASS_HEADER)));

/** By what the share of whoever comes by a link is counted. */
function whoOf(request: Request): string {
  const token = headerOf(request, LINK_HEADER);
  if (token === '') throw OVER('is not known here: it may be cut short');
  return `link ${digestOf(token)}`;
}

/** Whoever shows a link, and has entered its code where it asks for one. */
export const byLink = (clock: Clock): Asker => ({
  who: whoOf,
  async scope(request, source) {
    const { scope, link } = await foundBy(request, source, clock);
    if (lacksPass(link, request)) throw forbidden('Enter the code first that goes to your address.');
    return scope;
  },
});

/** The same before a code was entered: only what opens it can be asked. */
export const byLinkAlone = (clock: Clock): Asker => ({
  who: whoOf,
  scope: async (request, source) => (await foundBy(request, source, clock)).scope,
});

/** What whoever has come by a link sees first; that it was opened is written down once. */
export async function openLink(scope: Scope, request: Request): Promise<OpenedLink> {
  const contact = contactOf(scope);
  const link = await scope.one(ClientLink, contact.linkId, 'link');
  if (lacksPass(link, request)) return codeAsked(scope, link);
  if (link.openedAt === null) {
    await scope.save(ClientLink, link.id, { openedAt: scope.instant });
    await scope.tell('tasks');
  }
  return {
    kind: 'open',
    workspace: scope.workspace.name,
    today: scope.today,
    ways: scope.workspace.ways,
    contact: contact.name,
    email: contact.email,
    worksUntil: await endOf(scope, link),
    ring: await ringsOf(scope, contact.clientId),
    tasks: await linkedLines(scope, contact, link),
  };
}

const codeAsked = (scope: Scope, { email, codeAt }: Pick<ClientLink, 'email' | 'codeAt'>): OpenedLink => ({
  kind: 'code',
  workspace: scope.workspace.name,
  to: hidden(email),
  isSent: codeAt !== null && scope.instant.getTime() - codeAt.getTime() < CODE_MINUTES * MINUTE_MS,
});

/** "q…@brindle.example": enough to know it by for whoever has it. */
function hidden(email: string): string {
  const [name = '', host = ''] = email.split('@');
  return `${name.slice(0, 1)}…@${host}`;
}

/** Sends a code to the address of a link; a code that was sent before opens nothing from then on. */
export async function sendCode(scope: Scope): Promise<OpenedLink> {
  const contact = contactOf(scope);
  return scope.transaction(async (tx) => {
    const link = await tx.locked(ClientLink, contact.linkId, 'link');
    if (!link.needsCode) throw notNow('This link asks for no code.');
    const waits = link.codeAt === null ? 0 : link.codeAt.getTime() + MINUTE_MS - tx.instant.getTime();
    if (waits > 0) throw new Refusal('too-many', 'A code went out just now: wait a minute before you ask for another.');
    if (link.codesSent >= MOST_CODES)
      throw new Refusal('too-many', 'Too many codes were asked for. Write to whoever sent the link, or ring them.');
    const code = String(randomInt(1_000_000)).padStart(6, '0');
    const codesSent = link.codesSent + 1;
    await tx.save(ClientLink, link.id, {
      ...{ codeDigest: digestOf(`${link.id} ${code}`), codeAt: tx.instant, codeTries: 0, codesSent },
    });
    await post(tx, {
      reason: `code ${link.id} ${codesSent}`,
      kind: 'code',
      to: { name: contact.name, email: contact.email },
      isPrivate: true,
      letter: codeLetter(tx.workspace.name, contact.name, code, CODE_MINUTES),
    });
    return codeAsked(tx, { email: link.email, codeAt: tx.instant });
  });
}

/** Gives what this device shows from then on. A wrong code counts, also where the request is refused by it. */
export async function enterCode(scope: Scope, code: string): Promise<{ pass: string }> {
  const { linkId } = contactOf(scope);
  const outcome = await scope.transaction(async (tx) => {
    const link = await tx.locked(ClientLink, linkId, 'link');
    const isOld = link.codeAt === null || tx.instant.getTime() - link.codeAt.getTime() > CODE_MINUTES * MINUTE_MS;
    if (link.codeDigest === null || isOld) return 'old' as const;
    if (link.codeTries >= MOST_TRIES) return 'tried' as const;
    if (!sameDigest(link.codeDigest, digestOf(`${link.id} ${code.replace(/\s/g, '')}`))) {
      await tx.save(ClientLink, link.id, { codeTries: link.codeTries + 1 });
      return link.codeTries + 1 >= MOST_TRIES ? ('tried' as const) : ('wrong' as const);
    }
    const { token, digest } = newToken();
    await tx.save(ClientLink, link.id, {
      ...{ codeDigest: null, codeTries: 0 },
      passes: [...link.passes, digest].slice(-MOST_PASSES),
    });
    return { pass: token };
  });
  if (typeof outcome === 'object') return outcome;
  const SAID = {
    old: 'This code works no longer. Ask for another.',
    tried: 'That was tried too often. Ask for another code.',
    wrong: 'That is not the code. Look at the newest mail.',
  } as const;
  throw invalid([{ path: 'code', message: SAID[outcome] }]);
}

function sameDigest(a: string, b: string): boolean {
  const [one, other] = [Buffer.from(a), Buffer.from(b)];
  return one.length === other.length && timingSafeEqual(one, other);
}
