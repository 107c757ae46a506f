import PDFDocument from 'pdfkit';
import type { NoticePage } from '../src/contract/index.ts';
import { NoticePaper } from '../src/server/notices/paper.ts';
import { bytesOf } from '../src/server/platform/pdf.ts';
import { longStep } from './measure.ts';

/**
 * npm run bench notices: 100 notices of a page as one PDF, as they are sent, beside a bare document of as many pages with as
 * many words in a font of its own, in the same run; and as 100 papers of their own, as mails have them.
 */

const COUNT = 100;
const AIM_SECONDS = 3;
const WORDS =
  'Your berth agreement asks for a check of gas and shore power. You need not be there. Please leave the gas locker and the socket free, and a key at the office if you lock the boat.';
const page = (n: number): NoticePage => ({
  ...{ v: 1, language: 'en-GB', issued: 'Tuesday 24 November 2026', replaces: null },
  from: { name: 'Tern Quay', lines: ['Harbour Office, Lee Quay', '01632 960 100'] },
  to: [`Holder ${n}`, `${n} Mill Lane`, 'Saltreath'],
  subject: `Coming aboard Craft ${n}, berth ${n}`,
  body: Array.from({ length: 10 }, (_, i) => ({
    kind: i === 4 || i === 5 ? 'bullet' : 'paragraph',
    runs: [{ text: `${i} ${WORDS.slice(0, 120)} ` }, { text: `Craft ${n}`, bold: true }, { text: ', Łódź' }],
  })),
});
const head = { title: 'Notices', by: 'Tern Quay', at: new Date('2026-11-24T10:40:00Z'), language: 'en-GB' };

const timed = async (what: string, work: () => Promise<number>): Promise<number> =>
  (await longStep(what, work, (bytes) => `${(bytes / 1024).toFixed(0)} kB`)).seconds;

const turn = () => new Promise((resolve) => setImmediate(resolve));

await timed('warm-up, one page', async () => {
  const paper = new NoticePaper(head);
  paper.add(page(0));
  return (await bytesOf(paper.finished())).length;
});
const bare = await timed(`bare document, ${COUNT} pages`, async () => {
  const paper = new PDFDocument({ size: 'A4' });
  for (let n = 0; n < COUNT; n++) {
    if (n > 0) paper.addPage();
    for (const { runs } of page(n).body) paper.fontSize(11).text(runs[0]?.text ?? '');
    await turn();
  }
  return (await bytesOf(paper)).length;
});
const one = await timed(`${COUNT} notices as one PDF`, async () => {
  const paper = new NoticePaper(head);
  for (let n = 0; n < COUNT; n++) {
    paper.add(page(n));
    await turn();
  }
  return (await bytesOf(paper.finished())).length;
});
await timed(`${COUNT} notices as papers of their own`, async () => {
  let bytes = 0;
  for (let n = 0; n < COUNT; n++) {
    const paper = new NoticePaper(head);
    paper.add(page(n));
    bytes += (await bytesOf(paper.finished())).length;
    await turn();
  }
  return bytes;
});
console.log(
  `  one PDF: ${(one / bare).toFixed(1)} times the bare document; aim ${AIM_SECONDS} s: ${one <= AIM_SECONDS ? 'kept' : 'MISSED'}`,
);
