import sharp from 'sharp';

/**
 * A process that decodes pictures, one after the other, and does nothing else: bytes of strangers are decoded apart from
 * the server, and what they cost is paid here.
 */

export interface PictureQuestion {
  readonly id: number;
  readonly from: string;
  /** Where to write the picture itself, and the small one of it. */
  readonly whole: string;
  readonly small: string;
}

export type PictureAnswer =
  | { readonly id: number; readonly kind: 'made' }
  | { readonly id: number; readonly kind: 'no picture' }
  | { readonly id: number; readonly kind: 'too large' }
  | { readonly id: number; readonly kind: 'failed'; readonly code: string | null; readonly message: string };

/** The longer side of a small picture, in pixels. */
const SMALL_SIDE = 480;
/** A picture that claims more than this is a trap: a few bytes that unpack to gigabytes. */
const MOST_PIXELS = 50_000_000;
/** In hundredths: enough that nobody sees that the photo was written anew. */
const QUALITY = 92;

// What it writes is nobody else’s to read.
process.umask(0o077);
sharp.concurrency(1);
sharp.cache(false);

/**
 * Writes a picture anew, upright and without anything beside its dots: where it was taken, with which camera and by whom
 * (EXIF, XMP, IPTC) stay behind. Then the small one of it.
 */
async function make({ id, from, whole, small }: PictureQuestion): Promise<PictureAnswer> {
  const options = { limitInputPixels: MOST_PIXELS, failOn: 'error' } as const;
  let size: sharp.Metadata;
  try {
    size = await sharp(from, { ...options, limitInputPixels: false }).metadata();
  } catch {
    return { id, kind: 'no picture' };
  }
  const { width = 0, height = 0, pages = 1 } = size;
  if (width * (size.pageHeight ?? height) * pages > MOST_PIXELS) return { id, kind: 'too large' };
  const isMoving = pages > 1;
  const read = () => sharp(from, { ...options, animated: isMoving }).rotate();
  try {
    const written = {
      jpeg: read().jpeg({ quality: QUALITY }),
      png: read().png(),
      gif: read().gif(),
      webp: read().webp({ quality: QUALITY }),
    };
    const kind = size.format as keyof typeof written;
    await written[kind].toFile(whole);
    await sharp(whole, options)
      .resize(SMALL_SIDE, SMALL_SIDE, { fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 78 })
      .toFile(small);
    return { id, kind: 'made' };
  } catch (error) {
    // A full disk is told by the message of the library alone.
    const message = error instanceof Error ? error.message : String(error);
    if (/No space left|ENOSPC|write error|unable to write/i.test(message))
      return { id, kind: 'failed', code: 'ENOSPC', message };
    return { id, kind: 'no picture' };
  }
}

let going: Promise<unknown> = Promise.resolve();
process.on('message', (question: PictureQuestion) => {
  going = going.then(() => make(question)).then((answer) => process.send?.(answer));
});
process.once('disconnect', () => process.exit(0));
