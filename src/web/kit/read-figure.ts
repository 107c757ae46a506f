/** A figure as people type it, "0.41" or "0,41"; null for anything else. */
export function readFigure(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  return /^-?\d{1,12}(\.\d{1,9})?$/.test(plain) ? Number(plain) : null;
}
