import fc from 'fast-check';
import { expect, it } from 'vitest';
import { LETTER_BLOCKS, type LetterBlock } from '../../../core/index.ts';
import { blocksOf, documentOf } from './letter-document.ts';

const text = fc.stringMatching(/^[a-z{} ]{1,8}$/);
const run = fc
  .record({ text })
  .chain(({ text: said }) =>
    fc.constantFrom(
      { text: said },
      { text: said, bold: true },
      { text: said, italic: true },
      { text: said, bold: true, italic: true },
    ),
  );
const block: fc.Arbitrary<LetterBlock> = fc.record({
  kind: fc.constantFrom(...LETTER_BLOCKS),
  runs: fc.array(run, { maxLength: 3 }),
});

it('gives back what was put into the editor', () => {
  fc.assert(
    fc.property(fc.array(block, { minLength: 1, maxLength: 6 }), (body) => {
      expect(blocksOf(documentOf(body))).toEqual(body);
    }),
  );
});

it('has lines that end within a paragraph, and a paragraph where there is nothing', () => {
  const signed: LetterBlock[] = [{ kind: 'paragraph', runs: [{ text: '{signed}\nHarbour Office' }] }];
  const document = documentOf(signed);
  expect(document.content?.[0]?.content?.map(({ type }) => type)).toEqual(['text', 'hardBreak', 'text']);
  expect(
    blocksOf(document)[0]
      ?.runs.map(({ text: said }) => said)
      .join(''),
  ).toBe('{signed}\nHarbour Office');
  expect(blocksOf(documentOf([]))).toEqual([{ kind: 'paragraph', runs: [] }]);
});
