import { useRef, useState } from 'react';

/** Pictures are read at this size at most, in pixels: a code that fills a tenth of it is still told. */
const LONGEST_SIDE = 1200;

/** What the code in a picture says; null where there is none to be read. */
async function codeIn(file: File): Promise<string | null> {
  const { default: jsQR } = await import('jsqr');
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch((error: unknown) => {
    // Not a picture.
    if (error instanceof DOMException) return null;
    throw error;
  });
  if (picture === null) return null;
  try {
    const share = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
    const [width, height] = [Math.round(picture.width * share), Math.round(picture.height * share)];
    const canvas = Object.assign(document.createElement('canvas'), { width, height });
    const pen = canvas.getContext('2d', { willReadFrequently: true });
    if (!pen) return null;
    pen.drawImage(picture, 0, 0, width, height);
    return jsQR(pen.getImageData(0, 0, width, height).data, width, height)?.data ?? null;
  } finally {
    picture.close();
  }
}

interface TagReaderProps {
  readonly label: string;
  readonly onRead: (tag: string) => void;
}

/** Reads the code on a tag from a picture: one that is there, or one that the camera of a phone takes now. */
export function TagReader({ label, onRead }: TagReaderProps) {
  const input = useRef<HTMLInputElement>(null);
  const [state, setState] = useState<'waits' | 'reads' | 'unread'>('waits');
  const read = async (file: File) => {
    setState('reads');
    const tag = await codeIn(file);
    setState(tag === null || tag.trim() === '' ? 'unread' : 'waits');
    if (tag !== null && tag.trim() !== '') onRead(tag.trim());
  };
  return (
    <>
      <button
        type="button"
        className="btn h-[30px] min-h-[30px] max-[720px]:h-11"
        disabled={state === 'reads'}
        onClick={() => input.current?.click()}
      >
        {state === 'reads' ? 'Reading …' : 'Read the code'}
      </button>
      <input
        ref={input}
        type="file"
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        accept="image/*"
        capture="environment"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          target.value = '';
          if (file) void read(file);
        }}
      />
      {state === 'unread' && (
        <p role="alert" className="order-last basis-full text-note text-late">
          No code could be read in that picture. Come closer, with the whole code in view, or type what stands on the
          tag.
        </p>
      )}
    </>
  );
}
