import type { JSONContent } from '@tiptap/react';
import type { LetterInput } from '../../../contract/index.ts';
import type { LetterBlock, LetterRun } from '../../../core/index.ts';

type Body = LetterInput['body'];

const marksOf = ({ bold, italic }: LetterRun) => [
  ...(bold ? [{ type: 'bold' }] : []),
  ...(italic ? [{ type: 'italic' }] : []),
];

/** Runs as the editor has them: a line that ends within a paragraph is a node of its own there. */
const inlineOf = (runs: readonly LetterRun[]): JSONContent[] =>
  runs.flatMap((run) =>
    run.text
      .split('\n')
      .flatMap((text, i): JSONContent[] => [
        ...(i > 0 ? [{ type: 'hardBreak' }] : []),
        ...(text === '' ? [] : [{ type: 'text', text, marks: marksOf(run) }]),
      ]),
  );

const LISTS = { bullet: 'bulletList', numbered: 'orderedList' } as const;

/** A letter as the editor has it: entries that follow each other are one list there. */
export function documentOf(body: readonly LetterBlock[]): JSONContent {
  const content: JSONContent[] = [];
  for (const { kind, runs } of body) {
    const inline = inlineOf(runs);
    if (kind === 'paragraph' || kind === 'heading') {
      content.push({ type: kind, ...(kind === 'heading' ? { attrs: { level: 2 } } : {}), content: inline });
      continue;
    }
    const entry = { type: 'listItem', content: [{ type: 'paragraph', content: inline }] };
    const last = content.at(-1);
    if (last?.type === LISTS[kind]) last.content?.push(entry);
    else content.push({ type: LISTS[kind], content: [entry] });
  }
  return { type: 'doc', content: content.length === 0 ? [{ type: 'paragraph' }] : content };
}

/** What the editor has, as a letter is kept: lists within lists are entries like the others. */
export function blocksOf(document: JSONContent): Body {
  const blocks: Body = [];
  const walk = (node: JSONContent, kind: LetterBlock['kind']): void => {
    switch (node.type) {
      case 'paragraph':
        blocks.push({ kind, runs: runsOf(node.content ?? []) });
        return;
      case 'heading':
        blocks.push({ kind: 'heading', runs: runsOf(node.content ?? []) });
        return;
      case 'bulletList':
      case 'orderedList':
        for (const child of node.content ?? []) walk(child, node.type === 'bulletList' ? 'bullet' : 'numbered');
        return;
      default:
        for (const child of node.content ?? []) walk(child, kind);
    }
  };
  walk(document, 'paragraph');
  return blocks;
}

function runsOf(inline: readonly JSONContent[]): Body[number]['runs'] {
  const runs: Body[number]['runs'] = [];
  for (const node of inline) {
    const has = (mark: string) => node.marks?.some(({ type }) => type === mark) ?? false;
    const last = runs.at(-1);
    if (node.type === 'hardBreak') {
      if (last) last.text += '\n';
      else runs.push({ text: '\n' });
    } else
      runs.push({
        text: node.text ?? '',
        ...(has('bold') ? { bold: true } : {}),
        ...(has('italic') ? { italic: true } : {}),
      });
  }
  return runs;
}
