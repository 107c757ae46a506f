import Image from '@tiptap/extension-image';
import { TaskItem, TaskList } from '@tiptap/extension-list';
import { TableKit } from '@tiptap/extension-table';
import { type Editor, EditorContent, useEditor, useEditorState } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { useEffect, useRef, useState } from 'react';
import { MAX_FILE_BYTES } from '../../contract/index.ts';
import { addressOfFile, type UploadTarget, upload } from '../features/files/upload.ts';
import { ProblemError } from './api.ts';
import { EditorTool } from './editor-tool.tsx';

interface RichTextEditorProps {
  readonly label: string;
  readonly html: string;
  readonly onChange: (html: string) => void;
  /** What its pictures belong to; nothing yet while a template is being written. */
  readonly target?: UploadTarget;
  readonly disabled?: boolean;
}

const EXTENSIONS = [
  StarterKit.configure({
    heading: { levels: [2, 3, 4] },
    link: { openOnClick: false, protocols: ['mailto', 'tel'], defaultProtocol: 'https' },
  }),
  TaskList,
  TaskItem.configure({ nested: true }),
  TableKit.configure({ table: { resizable: false } }),
  Image,
];

/** Instructions as they are written: headings, lists, links, tables, and pictures by paste, drop or choice. */
export default function RichTextEditor({ label, html, onChange, target = {}, disabled = false }: RichTextEditorProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const latest = useRef({ onChange, target });
  latest.current = { onChange, target };
  // What the editor gave last: only what comes from elsewhere is put into it.
  const own = useRef(html);
  const editorRef = useRef<Editor | null>(null);

  const addPictures = (files: Iterable<File>) => {
    const pictures = [...files].filter(({ type }) => type.startsWith('image/'));
    for (const picture of pictures) {
      if (picture.size > MAX_FILE_BYTES) {
        setProblem(`This picture is larger than ${MAX_FILE_BYTES / 1024 / 1024} MB: use a smaller one.`);
        continue;
      }
      setProblem(null);
      upload(picture, latest.current.target, () => undefined)
        .then(({ file }) =>
          editorRef.current
            ?.chain()
            .focus()
            .setImage({ src: addressOfFile(file.id), alt: file.name.replace(/\.\w+$/, '') })
            .run(),
        )
        .catch((error: unknown) => {
          if (!(error instanceof ProblemError)) throw error;
          setProblem(error.message);
        });
    }
    return pictures.length > 0;
  };
  const editor = useEditor({
    extensions: EXTENSIONS,
    content: html,
    editable: !disabled,
    onUpdate: ({ editor: changed }) => {
      own.current = changed.isEmpty ? '' : changed.getHTML();
      latest.current.onChange(own.current);
    },
    editorProps: {
      attributes: { 'aria-label': label, role: 'textbox', 'aria-multiline': 'true', class: 'rich-text' },
      handlePaste: (_view, event) => addPictures(event.clipboardData?.files ?? []),
      handleDrop: (_view, event) => addPictures(event.dataTransfer?.files ?? []),
    },
  });
  editorRef.current = editor;
  useEffect(() => {
    if (!editor || html === own.current) return;
    own.current = html;
    editor.commands.setContent(html, { emitUpdate: false });
  }, [editor, html]);
  if (!editor) return null;
  return (
    <div className="rich-editor rounded-field border border-line-2 focus-within:border-primary focus-within:shadow-[inset_0_-2px_0_var(--color-primary)]">
      {!disabled && <Toolbar editor={editor} onPictures={addPictures} />}
      <EditorContent editor={editor} />
      <p role="alert" className="field-error px-3">
        {problem}
      </p>
    </div>
  );
}

const BLOCKS = [
  ['p', 'Text'],
  ['2', 'Heading'],
  ['3', 'Smaller heading'],
] as const;

function Toolbar({
  editor,
  onPictures,
}: {
  readonly editor: Editor;
  readonly onPictures: (files: Iterable<File>) => void;
}) {
  const [linking, setLinking] = useState(false);
  const picture = useRef<HTMLInputElement>(null);
  const at = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      block: now.isActive('heading', { level: 2 }) ? '2' : now.isActive('heading') ? '3' : 'p',
      bold: now.isActive('bold'),
      italic: now.isActive('italic'),
      bullets: now.isActive('bulletList'),
      numbers: now.isActive('orderedList'),
      checks: now.isActive('taskList'),
      link: now.isActive('link'),
      table: now.isActive('table'),
    }),
  });
  const run = () => editor.chain().focus();
  return (
    <div
      role="toolbar"
      aria-label="Form of the text"
      className="flex flex-wrap items-center gap-x-1 gap-y-0.5 border-b border-line px-2 py-1 text-row leading-5"
    >
      <select
        aria-label="Kind of paragraph"
        className="filter-word"
        value={at.block}
        onChange={({ target }) =>
          target.value === 'p'
            ? run().setParagraph().run()
            : run()
                .setHeading({ level: Number(target.value) as 2 | 3 })
                .run()
        }
      >
        {BLOCKS.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
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
      <EditorTool label="Check list" isOn={at.checks} onPress={() => run().toggleTaskList().run()}>
        check list
      </EditorTool>
      <EditorTool
        label="Link"
        isOn={at.link}
        onPress={() => (at.link ? run().unsetLink().run() : setLinking(!linking))}
      >
        link
      </EditorTool>
      <EditorTool label="Picture" isOn={false} onPress={() => picture.current?.click()}>
        picture
      </EditorTool>
      <input
        ref={picture}
        type="file"
        className="sr-only"
        tabIndex={-1}
        aria-label="Picture for the text"
        accept="image/jpeg,image/png,image/gif,image/webp"
        onChange={({ target }) => {
          onPictures(target.files ?? []);
          target.value = '';
        }}
      />
      {at.table ? (
        <>
          <EditorTool label="Row below" isOn={false} onPress={() => run().addRowAfter().run()}>
            + row
          </EditorTool>
          <EditorTool label="Column to the right" isOn={false} onPress={() => run().addColumnAfter().run()}>
            + column
          </EditorTool>
          <EditorTool label="Take the row out" isOn={false} onPress={() => run().deleteRow().run()}>
            − row
          </EditorTool>
          <EditorTool label="Take the table out" isOn={false} onPress={() => run().deleteTable().run()}>
            no table
          </EditorTool>
        </>
      ) : (
        <EditorTool
          label="Table"
          isOn={false}
          onPress={() => run().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run()}
        >
          table
        </EditorTool>
      )}
      {linking && (
        <LinkField
          onLink={(address) => {
            setLinking(false);
            if (address !== '') setLink(editor, address);
          }}
        />
      )}
    </div>
  );
}

/** On what is chosen, or with the address as its own words. */
function setLink(editor: Editor, address: string): void {
  const href = /^(https?:|mailto:|tel:)/i.test(address) ? address : `https://${address}`;
  const chain = editor.chain().focus();
  if (editor.state.selection.empty)
    chain.insertContent({ type: 'text', text: address, marks: [{ type: 'link', attrs: { href } }] }).run();
  else chain.extendMarkRange('link').setLink({ href }).run();
}

function LinkField({ onLink }: { readonly onLink: (address: string) => void }) {
  const [address, setAddress] = useState('');
  return (
    <input
      className="blank w-56"
      aria-label="Address of the link"
      placeholder="https://…, then Enter"
      // biome-ignore lint/a11y/noAutofocus: it was asked for by the press before
      autoFocus
      value={address}
      onChange={({ target }) => setAddress(target.value)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          onLink(address.trim());
        } else if (event.key === 'Escape') {
          event.stopPropagation();
          onLink('');
        }
      }}
    />
  );
}
