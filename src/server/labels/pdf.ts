import QRCode from 'qrcode';
import { LABEL_FORMS, type LabelForm, type LabelSize, labelPlaces } from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { type Font, newPaper, type Paper, POINTS_A_MM } from '../platform/pdf.ts';

/** What stands on a label. */
export interface Label {
  readonly name: string;
  readonly tag: string;
  /** Whose it is, or where it stands; empty where that is not said. */
  readonly beside: string;
}

const PADDING_MM = 3;
/** Light around the code, in parts of it: ISO/IEC 18004 asks for four. */
const QUIET = 4;

/** The dark parts of the code of a tag, row by row. */
export function codeOf(tag: string): {
  readonly size: number;
  readonly isDark: (row: number, column: number) => boolean;
} {
  const { modules } = QRCode.create(tag, { errorCorrectionLevel: 'M' });
  return { size: modules.size, isDark: (row, column) => modules.get(row, column) === 1 };
}

/** Sheets of A4 with a label for each, in their order; told to be ended by whoever reads it. */
export async function labelsPdf(
  labels: readonly Label[],
  { size, first, by }: { readonly size: LabelSize; readonly first: number; readonly by: string },
): Promise<Paper> {
  const document = newPaper({ margin: 0, info: { Title: 'Labels', Author: by } });
  const form = LABEL_FORMS[size];
  const places = labelPlaces(form, labels.length, first);
  let [sheet, at] = [0, 0];
  await eachInTurn(places, (place) => {
    const label = labels[at++];
    if (!label) return;
    if (place.sheet > sheet) document.addPage({ size: 'A4', margin: 0 });
    sheet = place.sheet;
    drawLabel(document, form, label, place.x, place.y, by);
  });
  return document;
}

function drawLabel(document: Paper, form: LabelForm, label: Label, x: number, y: number, by: string): void {
  const mm = (length: number) => length * POINTS_A_MM;
  const { size, isDark } = codeOf(label.tag);
  const side = form.height - 2 * PADDING_MM;
  const part = side / (size + 2 * QUIET);
  for (let row = 0; row < size; row++)
    for (let column = 0; column < size; column++)
      if (isDark(row, column))
        document.rect(
          mm(x + PADDING_MM + (QUIET + column) * part),
          mm(y + PADDING_MM + (QUIET + row) * part),
          mm(part),
          mm(part),
        );
  document.fill('#000');
  const left = x + PADDING_MM + side;
  const width = form.width - PADDING_MM - side - PADDING_MM;
  const write = (font: Font, points: number, text: string, at: number, lines: number) =>
    document
      .font(font)
      .fontSize(points)
      .text(text, mm(left), mm(y + at), { width: mm(width), height: points * 1.2 * lines, ellipsis: true });
  write('bold', 10, label.name, 5, 2);
  write('mono', 11, label.tag, 15, 1);
  write('plain', 8, label.beside, 21, 2);
  write('plain', 6.5, by, 31, 1);
}
