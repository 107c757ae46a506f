/** What the head of a mail tells of how it came to be written. Null where a line is missing. */
export interface MailSigns {
  /** Of the envelope; empty for mails that must not be answered (RFC 5321, section 4.5.5). */
  readonly envelopeFrom: string;
  readonly autoSubmitted: string | null;
  readonly precedence: string | null;
  readonly listId: string | null;
}

const BULK = new Set(['bulk', 'list', 'junk']);

/**
 * Whether a mail was written by a machine: an answer while somebody is away, a report, a list. By RFC 3834, section 5, all that
 * says of itself “Auto-Submitted” and not “no”; by section 2 all from nobody, from lists, and of a precedence that asks for none.
 */
export function isAutomatic({ envelopeFrom, autoSubmitted, precedence, listId }: MailSigns): boolean {
  const submitted = autoSubmitted?.split(';')[0]?.trim().toLowerCase() ?? 'no';
  return (
    envelopeFrom.trim() === '' ||
    submitted !== 'no' ||
    listId !== null ||
    BULK.has(precedence?.trim().toLowerCase() ?? '')
  );
}

/** A mail that has been handed on so often goes in a circle (RFC 5321, section 6.3, asks for a hundred at least). */
export const MOST_HANDED_ON = 100;

/** The address to answer a mail at: that of the mailbox with the key of the mail after a plus (RFC 5233, section 4). @param mailbox "answers@rota.example" */
export function answerAddress(mailbox: string, key: string): string {
  const at = mailbox.lastIndexOf('@');
  return `${mailbox.slice(0, at)}+${key}${mailbox.slice(at)}`;
}

/** The key in an address to answer at: empty for the mailbox itself, null for an address that is none of ours. */
export function answerKey(address: string, mailbox: string): string | null {
  const [given, own] = [address.trim().toLowerCase(), mailbox.trim().toLowerCase()];
  if (given === own) return '';
  const at = own.lastIndexOf('@');
  const [head, tail] = [`${own.slice(0, at)}+`, own.slice(at)];
  if (!given.startsWith(head) || !given.endsWith(tail) || given.length <= head.length + tail.length) return null;
  return given.slice(head.length, given.length - tail.length);
}

/** Where what is quoted begins, in the ways that programs begin it. */
const QUOTED = /^(>|-{2,} ?(original message|forwarded message)|_{10,}$|\*?from: .+@)/i;
const SIGNATURE = /^-- ?$/;

/**
 * What somebody wrote themselves: without what they quote (RFC 3676, section 4.5), the line that leads to it, and their
 * signature (section 4.3). Where they wrote below or within what they quote, all that is not quoted.
 */
export function ownWords(text: string): string {
  const lines = text.replace(/\r\n?/g, '\n').split('\n');
  const first = lines.findIndex((line) => QUOTED.test(line));
  const above = trimmed(
    withoutSignature(withoutLead(lines.slice(0, first === -1 ? lines.length : first), first !== -1)),
  );
  if (above !== '' || first === -1) return above;
  return trimmed(withoutSignature(lines.filter((line) => !QUOTED.test(line))));
}

/** "On Tue, 24 Nov 2026, Tern Quay wrote:", which may take two lines. */
function withoutLead(lines: readonly string[], isQuoting: boolean): readonly string[] {
  const last = lines.findLastIndex((line) => line.trim() !== '');
  if (!isQuoting || last === -1 || !/:\s*$/.test(lines[last] ?? '')) return lines;
  const before = lines[last - 1]?.trim() ?? '';
  return lines.slice(0, before !== '' && /\d{4}|@/.test(before) ? last - 1 : last);
}

function withoutSignature(lines: readonly string[]): readonly string[] {
  const at = lines.findIndex((line) => SIGNATURE.test(line));
  return at === -1 ? lines : lines.slice(0, at);
}

const trimmed = (lines: readonly string[]): string =>
  lines
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();

/**
 * What a report says of a mail that does not arrive, in the words of the server that would not take it; null where it tells of
 * none that is given up (RFC 3464, sections 2.3.3 and 2.3.6). @param status the text of the part `message/delivery-status`
 */
export function deliveryFailure(status: string): string | null {
  // A field goes on in lines that begin with a space (RFC 5322, section 2.2.3).
  const unfolded = status.replace(/\r\n?/g, '\n').replace(/\n[ \t]+/g, ' ');
  const failed = unfolded.split(/\n{2,}/).find((part) => /^action:\s*failed\b/im.test(part));
  if (failed === undefined) return null;
  const field = (name: string) => new RegExp(`^${name}:\\s*(.+)$`, 'im').exec(failed)?.[1]?.trim();
  return field('diagnostic-code')?.replace(/^[a-z0-9-]+;\s*/i, '') ?? field('status') ?? 'it could not be delivered';
}
