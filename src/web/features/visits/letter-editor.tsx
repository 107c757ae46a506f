import { type Editor, EditorContent, type JSONContent, useEditor, useEditorState } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { type Ref, useEffect, useImperativeHandle, useRef } from 'react';
import type { LetterInput } from '../../../contract/index.ts';
import { EditorTool } from '../../kit/editor-tool.tsx';
import { blocksOf, documentOf } from './letter-document.ts';

type Body = LetterInput['body'];

export interface LetterEditorHandle {
  /** Puts words in at the cursor. */
  insert(words: string): void;
}

interface LetterEditorProps {
  readonly label: string;
  readonly body: Body;
  readonly onChange: (body: Body) => void;
  readonly ref?: Ref<LetterEditorHandle>;
}

const EXTENSIONS = [
  // What a page of paper can hold, and no more.
  StarterKit.configure({
    heading: { levels: [2] },
    ...{ link: false, blockquote: false, code: false, codeBlock: false, horizontalRule: false, strike: false },
    underline: false,
  }),
];

/** A letter as it is written: paragraphs, headings and lists, bold and italic, with tokens as they are typed. */
export default function LetterEditor({ label, body, onChange, ref }: LetterEditorProps) {
  const latest = useRef(onChange);
  latest.current = onChange;
  // What the editor gave last: only what comes from elsewhere is put into it.
  const own = useRef(JSON.stringify(body));
  const editor = useEditor({
    extensions: EXTENSIONS,
    content: documentOf(body),
    onUpdate: ({ editor: changed }) => {
      const next = blocksOf(changed.getJSON() as JSONContent);
      own.current = JSON.stringify(next);
      latest.current(next);
    },
    editorProps: {
      attributes: { 'aria-label': label, role: 'textbox', 'aria-multiline': 'true', class: 'rich-text' },
    },
  });
  useEffect(() => {
    if (!editor || JSON.stringify(body) === own.current) return;
    own.current = JSON.stringify(body);
    editor.commands.setContent(documentOf(body), { emitUpdate: false });
  }, [editor, body]);
  useImperativeHandle(ref, () => ({ insert: (words) => void editor?.chain().focus().insertContent(words).run() }), [
    editor,
  ]);
  if (!editor) return null;
  return (
    <div className="rich-editor rounded-field border border-line-2 focus-within:border-primary focus-within:shadow-[inset_0_-2px_0_var(--color-primary)]">
      <Tools editor={editor} />
      <EditorContent editor={editor} />
    </div>
  );
}

function Tools({ editor }: { readonly editor: Editor }) {
  const at = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      heading: now.isActive('heading'),
      bold: now.isActive('bold'),
      italic: now.isActive('italic'),
      bullets: now.isActive('bulletList'),
      numbers: now.isActive('orderedList'),
    }),
  });
  const run = () => editor.chain().focus();
  return (
    <div
      role="toolbar"
      aria-label="Form of the text"
      className="flex flex-wrap items-center gap-x-1 gap-y-0.5 border-b border-line px-2 py-1 text-row leading-5"
    >
      <EditorTool label="Heading" isOn={at.heading} onPress={() => run().toggleHeading({ level: 2 }).run()}>
        heading
      </EditorTool>
      <EditorTool label="Bold" isOn={at.bold} onPress={() => run().toggleBold().run()}>
        <b>B</b>
      </EditorTool>
      <EditorTool label="Italic" isOn={at.italic} onPress={() => run().toggleItalic().run()}>
        <i className="font-serif">I</i>
      </EditorTool>
      <EditorTool label="Bullets" isOn={at.bullets} onPress={() => run().toggleBulletList().run()}>
        bullets
      </EditorTool>
      <EditorTool label="Numbers" isOn={at.numbers} onPress={() => run().toggleOrderedList().run()}>
        numbers
      </EditorTool>
    </div>
  );
}
