import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answerAddress, answerKey, deliveryFailure, isAutomatic, type MailSigns, ownWords } from './answer-mail.ts';

const MAILBOX = 'answers@rota.example';
const signs = (of: Partial<MailSigns> = {}): MailSigns => ({
  ...{ envelopeFrom: 'orla@sturt.example', autoSubmitted: null, precedence: null, listId: null },
  ...of,
});

describe('an answer', () => {
  it.each<[string, Partial<MailSigns>, boolean]>([
    ['somebody wrote it', {}, false],
    ['it says so itself', { autoSubmitted: 'No' }, false],
    ['somebody is away', { autoSubmitted: 'auto-replied; owner-email="orla@sturt.example"' }, true],
    ['a program wrote it', { autoSubmitted: 'auto-generated' }, true],
    ['it is a report', { envelopeFrom: '' }, true],
    ['it is from a list', { listId: '<boats.example>' }, true],
    ['it asks for no answer', { precedence: ' Bulk' }, true],
    ['it is urgent', { precedence: 'first-class' }, false],
  ])('is known for what it is where %s', (_, of, expected) => {
    expect(isAutomatic(signs(of))).toBe(expected);
  });

  it('finds its mail by the key in its address, whatever a mail server does with capitals', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[0-9a-f]{32}$/), (key) => {
        expect(answerKey(answerAddress(MAILBOX, key), MAILBOX)).toBe(key);
        expect(answerKey(answerAddress(MAILBOX, key).toUpperCase(), MAILBOX)).toBe(key);
      }),
    );
    expect(answerKey(MAILBOX, MAILBOX)).toBe('');
    for (const other of [
      'answers@other.example',
      'rota@rota.example',
      'answers+@rota.example',
      'xanswers+1@rota.example',
    ])
      expect(answerKey(other, MAILBOX)).toBeNull();
  });

  it.each<[string, string, string]>([
    [
      'above a quote',
      'Thursday suits me.\n\nOn Tue, 24 Nov 2026 at 10:00, Tern Quay wrote:\n> Dear Orla,\n> we come',
      'Thursday suits me.',
    ],
    [
      'with a lead of two lines',
      'Yes.\r\n\r\nOn Tue, 24 Nov 2026 at 10:00, Tern Quay <answers@rota.example>\r\nwrote:\r\n> Dear Orla',
      'Yes.',
    ],
    ['with a signature', 'Fine by me\n-- \nOrla Sturt\nGannet Two', 'Fine by me'],
    [
      'above a copied head',
      'See below\n\nFrom: Tern Quay <rota@ternquay.example>\nSent: Tuesday\nSubject: x',
      'See below',
    ],
    ['above an original', 'No\n\n-----Original Message-----\nDear', 'No'],
    ['below a quote', '> Does Thursday suit you?\n\nNot at all.', 'Not at all.'],
    ['within one', '> Thursday?\nYes\n> At nine?\nTen is better', 'Yes\nTen is better'],
    ['without a quote, ending in a colon', 'Here is the number:\n07700 900461', 'Here is the number:\n07700 900461'],
    ['that is empty', '', ''],
  ])('is told by its own words %s', (_, text, own) => {
    expect(ownWords(text)).toBe(own);
  });

  it('never tells more than was written, and all of it where nothing is quoted', () => {
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[a-z ,.]{0,20}$/)), (lines) => {
        const text = lines.join('\n');
        expect(ownWords(text)).toBe(text.replace(/\n{3,}/g, '\n\n').trim());
        const quoted = lines.map((line) => `> ${line}`).join('\n');
        expect(ownWords(`${text}\n\n${quoted}`)).toBe(ownWords(text));
      }),
    );
  });

  it('is a report of what does not arrive, in the words of whoever would not take it', () => {
    const report = (action: string, rest = '') =>
      `Reporting-MTA: dns; mx.example\r\n\r\nFinal-Recipient: rfc822; orla@sturt.example\r\nAction: ${action}\r\nStatus: 5.1.1\r\n${rest}`;
    expect(deliveryFailure(report('failed', 'Diagnostic-Code: smtp; 550 no\r\n such box\r\n'))).toBe('550 no such box');
    expect(deliveryFailure(report('failed'))).toBe('5.1.1');
    for (const action of ['delayed', 'delivered', 'relayed', 'expanded'])
      expect(deliveryFailure(report(action))).toBeNull();
    expect(deliveryFailure('')).toBeNull();
  });
});
