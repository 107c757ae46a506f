import { FileText, X } from 'lucide-react';
import type { StoredFile } from '../../../contract/index.ts';
import { addressOfFile, addressOfSmall, sayBytes } from './upload.ts';

interface FileLineProps {
  readonly file: StoredFile;
  readonly onRemove?: (() => void) | undefined;
  /** Keeps the file for the later ones of its series, or no longer. */
  readonly onKeep?: ((kept: boolean) => void) | undefined;
}

/** A file: a small picture or a sheet of paper, its name, and what can be done with it. */
export function FileLine({ file, onRemove, onKeep }: FileLineProps) {
  return (
    <div className="flex min-h-9 items-center gap-2.5 py-0.5 text-row leading-4.5">
      <FileMark file={file} />
      <span className="min-w-0 flex-1">
        <a className="link-line break-all" href={addressOfFile(file.id)} target="_blank" rel="noreferrer">
          {file.name}
        </a>
        <span className="ml-2 text-note text-ink-2">{sayBytes(file.bytes)}</span>
      </span>
      {onKeep && (
        <label className="flex items-center gap-1.5 text-note text-ink-2 max-[720px]:min-h-11">
          <input
            type="checkbox"
            className="check"
            checked={file.isKept}
            onChange={({ target }) => onKeep(target.checked)}
          />
          keep for the next
        </label>
      )}
      {onRemove && (
        <button
          type="button"
          className="cursor-pointer p-1 text-ink-2 hover:text-ink max-[720px]:p-3"
          aria-label={`Take out ${file.name}`}
          onClick={onRemove}
        >
          <X size={14} aria-hidden />
        </button>
      )}
    </div>
  );
}

/** The small picture of a photo, or the mark of a paper. */
export function FileMark({ file, large = false }: { readonly file: StoredFile; readonly large?: boolean }) {
  const size = large ? 'h-11 w-[60px]' : 'h-8 w-11';
  return file.isPicture ? (
    <a
      href={addressOfFile(file.id)}
      target="_blank"
      rel="noreferrer"
      className="flex-none"
      aria-label={`Open ${file.name}`}
    >
      <img
        className={`${size} rounded-[3px] border border-line object-cover`}
        src={addressOfSmall(file.id)}
        alt={file.name}
        loading="lazy"
      />
    </a>
  ) : (
    <FileText size={20} className="flex-none text-ink-2" aria-hidden />
  );
}
