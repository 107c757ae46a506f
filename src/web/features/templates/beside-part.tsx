import { X } from 'lucide-react';
import { useState } from 'react';
import { type Link, linkSchema, type StoredFile } from '../../../contract/index.ts';
import { Part } from '../../kit/blanks.tsx';
import { FileDrop } from '../files/file-drop.tsx';
import { FileLine } from '../files/file-line.tsx';

interface BesidePartProps {
  readonly links: readonly Link[];
  readonly fileIds: readonly string[];
  /** What is known of the files by their ids. */
  readonly known: readonly StoredFile[];
  readonly disabled: boolean;
  readonly onLinks: (links: Link[]) => void;
  readonly onFiles: (fileIds: string[]) => void;
}

/** Links and files that go along with every task. */
export function BesidePart({ links, fileIds, known, disabled, onLinks, onFiles }: BesidePartProps) {
  const [sent, setSent] = useState<readonly StoredFile[]>([]);
  const [url, setUrl] = useState('');
  const [title, setTitle] = useState('');
  const address = url.trim() === '' || /^[a-z]+:/i.test(url.trim()) ? url.trim() : `https://${url.trim()}`;
  const read = linkSchema.safeParse({ title, url: address });
  const files = fileIds.flatMap((id) => [...known, ...sent].find((file) => file.id === id) ?? []);
  const add = () => {
    if (!read.success) return;
    onLinks([...links, read.data]);
    setUrl('');
    setTitle('');
  };
  return (
    <Part name="Beside it" aside="links and files">
      {links.map((link, i) => (
        <div key={link.url} className="flex items-center gap-2 leading-7">
          <a className="link-line truncate leading-5" href={link.url} target="_blank" rel="noreferrer noopener">
            {link.title || link.url}
          </a>
          {!disabled && (
            <button
              type="button"
              className="cursor-pointer p-1 text-ink-2 hover:text-ink"
              aria-label={`Take out the link ${link.title || link.url}`}
              onClick={() => onLinks(links.filter((_, at) => at !== i))}
            >
              <X size={14} aria-hidden />
            </button>
          )}
        </div>
      ))}
      {files.map((file) => (
        <FileLine
          key={file.id}
          file={file}
          onRemove={disabled ? undefined : () => onFiles(fileIds.filter((id) => id !== file.id))}
        />
      ))}
      {!disabled && (
        <>
          <div className="flex flex-wrap items-baseline gap-x-1.5">
            <input
              className="blank w-56"
              aria-label="Address of a link"
              placeholder="https://example.org/page"
              value={url}
              onChange={({ target }) => setUrl(target.value)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter') return;
                event.preventDefault();
                add();
              }}
            />
            <span className="text-ink-2">called</span>
            <input
              className="blank w-44"
              aria-label="Name of the link"
              maxLength={120}
              value={title}
              onChange={({ target }) => setTitle(target.value)}
            />
            <button
              type="button"
              className="link-line leading-5 disabled:text-ink-2"
              disabled={!read.success}
              onClick={add}
            >
              Add the link
            </button>
          </div>
          {url.trim() !== '' && !read.success && (
            <p role="alert" className="field-error">
              {read.error.issues[0]?.message}
            </p>
          )}
          <div className="mt-1">
            <FileDrop
              words="Add a file"
              label="File for every task"
              target={{}}
              onUploaded={({ file }) => {
                setSent((all) => [...all, file]);
                onFiles([...fileIds, file.id]);
              }}
            />
          </div>
        </>
      )}
    </Part>
  );
}
