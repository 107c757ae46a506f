/** Photos are this long at most, in pixels: enough for a page of A4 at 180 dots an inch, or to read a gauge by. */
const LONGEST_SIDE = 2048;
/** What is smaller than this is sent as it is. */
const LEAST_BYTES = 400_000;
const QUALITY = 0.85;
/** What a browser can write again; a GIF may move, and stays. */
const SHRUNK: ReadonlySet<string> = new Set(['image/jpeg', 'image/webp', 'image/png']);

/** The size in which a picture is sent; its own where that is small enough. */
export function smallerSize(width: number, height: number): { readonly width: number; readonly height: number } {
  const share = Math.min(1, LONGEST_SIDE / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * share)), height: Math.max(1, Math.round(height * share)) };
}

/**
 * A picture made smaller on the device before it is sent, upright, in its own form. What can't be read here is given back as
 * it is, for the server to say what is wrong with it; so is what would not get smaller.
 */
export async function madeSmaller(file: File): Promise<File> {
  if (!SHRUNK.has(file.type) || file.size < LEAST_BYTES || typeof createImageBitmap === 'undefined') return file;
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch (error) {
    // Not a picture, or one that this browser does not know.
    if (error instanceof DOMException) return file;
    throw error;
  }
  try {
    const { width, height } = smallerSize(picture.width, picture.height);
    // A drawing without loss gets no smaller by being written once more.
    if (file.type === 'image/png' && width === picture.width) return file;
    const canvas = Object.assign(document.createElement('canvas'), { width, height });
    const pen = canvas.getContext('2d');
    if (!pen) return file;
    pen.drawImage(picture, 0, 0, width, height);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, file.type, QUALITY));
    const isSmaller = blob !== null && blob.type === file.type && blob.size < file.size;
    return isSmaller ? new File([blob], file.name, { type: file.type, lastModified: file.lastModified }) : file;
  } finally {
    picture.close();
  }
}
