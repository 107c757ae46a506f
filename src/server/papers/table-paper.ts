import { newPaper, type Paper, POINTS_A_MM } from '../platform/pdf.ts';

const MARGIN = 14 * POINTS_A_MM;
const FOOT = 9 * POINTS_A_MM;
const INK = '#0d2b30';
const QUIET = '#4d6468';
const LINE = '#b9c7c8';
const POINTS = 9;
const SMALL = 7.5;
const PAD = 3;
const BOX = 8;

export interface Column {
  readonly name: string;
  /** Its share of the width. */
  readonly share: number;
}

interface Head {
  readonly workspace: string;
  readonly title: string;
  /** A sentence under it. */
  readonly says: string;
  /** "made Tue 24 Nov 2026, 10:40" */
  readonly made: string;
}

interface Row {
  readonly cells: readonly string[];
  /** Smaller below it, a box to tick before each. */
  readonly ticks?: readonly string[];
  /** A box to tick before the first cell. */
  readonly hasBox?: boolean;
  readonly isQuiet?: boolean;
}

/** A table on paper: rows as high as what stands in them, the names of the columns again on each page, pages numbered. */
export class TablePaper {
  private readonly paper: Paper;
  private readonly lefts: readonly number[];
  private readonly widths: readonly number[];

  constructor(
    private readonly head: Head,
    private readonly columns: readonly Column[],
    { isWide = false }: { readonly isWide?: boolean } = {},
  ) {
    this.paper = newPaper({
      layout: isWide ? 'landscape' : 'portrait',
      margins: { top: MARGIN, left: MARGIN, right: MARGIN, bottom: MARGIN + FOOT },
      bufferPages: true,
      info: { Title: head.title, Author: head.workspace },
    });
    const all = columns.reduce((sum, { share }) => sum + share, 0);
    this.widths = columns.map(({ share }) => (share / all) * this.width);
    this.lefts = this.widths.map((_, i) => MARGIN + this.widths.slice(0, i).reduce((sum, width) => sum + width, 0));
    this.write('plain', SMALL + 1, head.workspace, QUIET);
    this.write('bold', 16, head.title);
    if (head.says !== '') this.write('plain', POINTS, head.says, QUIET);
    this.paper.y += 6;
    this.names();
  }

  /** What the rows below are of. */
  band(title: string): void {
    this.roomFor(40);
    this.paper.y += 5;
    this.write('bold', POINTS + 1, title);
    this.paper.y += 1;
    this.rule();
  }

  row({ cells, ticks = [], hasBox = false, isQuiet = false }: Row): void {
    const indent = hasBox ? BOX + 5 : 0;
    const measure = (points: number) => this.paper.font('plain').fontSize(points);
    measure(POINTS);
    const height = Math.max(
      ...cells.map((cell, i) =>
        this.paper.heightOfString(cell || ' ', { width: this.inner(i) - (i === 0 ? indent : 0), lineGap: 1 }),
      ),
    );
    measure(SMALL);
    const tickWidth = this.width - 40;
    const heights = ticks.map((tick) => this.paper.heightOfString(tick, { width: tickWidth }) + 2);
    this.roomFor(Math.min(height + 2 * PAD + heights.reduce((sum, one) => sum + one, 0), this.bottom - MARGIN - 40));
    const top = this.paper.y + PAD;
    if (hasBox) this.box(MARGIN, top);
    measure(POINTS).fillColor(isQuiet ? QUIET : INK);
    for (const [i, cell] of cells.entries()) {
      const left = (this.lefts[i] ?? MARGIN) + (i === 0 ? indent : 0);
      this.paper.text(cell, left, top, {
        width: this.inner(i) - (i === 0 ? indent : 0),
        lineGap: 1,
        height: this.bottom - top,
        ellipsis: true,
      });
    }
    this.paper.y = top + height;
    for (const [i, tick] of ticks.entries()) {
      this.roomFor(heights[i] ?? 0);
      const at = this.paper.y + 1;
      this.box(MARGIN + 18, at, SMALL - 1);
      measure(SMALL).fillColor(QUIET);
      this.paper.text(tick, MARGIN + 30, at, { width: tickWidth });
    }
    this.paper.y += PAD;
    this.rule();
  }

  /** A sentence where there is no row. */
  sentence(words: string): void {
    this.paper.y += 4;
    this.write('plain', POINTS, words, QUIET);
  }

  /** The paper, each page with its number: how many there are is known now. */
  done(): Paper {
    const { start, count } = this.paper.bufferedPageRange();
    for (let i = 0; i < count; i++) {
      this.paper.switchToPage(start + i);
      // Below the margin, where writing would begin another page.
      this.paper.page.margins.bottom = 0;
      this.paper.font('plain').fontSize(SMALL).fillColor(QUIET);
      const at = this.paper.page.height - MARGIN - 2;
      this.paper.text(this.head.made, MARGIN, at, { lineBreak: false });
      this.paper.text(`page ${i + 1} of ${count}`, MARGIN, at, { width: this.width, align: 'right', lineBreak: false });
    }
    return this.paper;
  }

  private names(): void {
    const { paper } = this;
    const top = paper.y;
    paper.font('plain').fontSize(SMALL).fillColor(QUIET);
    for (const [i, { name }] of this.columns.entries())
      paper.text(name, this.lefts[i] ?? MARGIN, top, { width: this.inner(i), lineBreak: false });
    paper.y = top + SMALL + 4;
    this.rule();
  }

  private inner(i: number): number {
    return (this.widths[i] ?? 0) - 6;
  }

  private box(left: number, top: number, size = BOX): void {
    this.paper
      .rect(left, top + 1, size, size)
      .lineWidth(0.7)
      .stroke(INK);
  }

  private write(font: 'plain' | 'bold', points: number, words: string, colour = INK): void {
    this.paper.font(font).fontSize(points).fillColor(colour);
    this.paper.text(words, MARGIN, undefined, { width: this.width, lineGap: 1 });
  }

  private rule(): void {
    const { paper } = this;
    paper
      .moveTo(MARGIN, paper.y)
      .lineTo(MARGIN + this.width, paper.y)
      .lineWidth(0.4)
      .stroke(LINE);
  }

  private get width(): number {
    return this.paper.page.width - 2 * MARGIN;
  }

  private get bottom(): number {
    return this.paper.page.height - MARGIN - FOOT;
  }

  private roomFor(height: number): void {
    if (this.paper.y + height <= this.bottom) return;
    this.paper.addPage();
    this.names();
  }
}
