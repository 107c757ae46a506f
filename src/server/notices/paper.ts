import { createRequire } from 'node:module';
import type { NoticePage } from '../../contract/index.ts';
import { newPaper, type Paper, POINTS_A_MM } from '../platform/pdf.ts';

/** Where things stand on a page of A4, in millimetres: the address where an envelope with a window shows it (DIN 5008, form B). */
const LEFT = 25;
const RIGHT = 20;
const TOP = 20;
const BOTTOM = 25;
const ADDRESS_TOP = 50;
const ADDRESS_WIDTH = 80;
const SUBJECT_TOP = 98;
const INK = '#0d2b30';
const QUIET = '#4d6468';
const LINE = '#b9c7c8';
const BODY_POINTS = 11;
const INDENT = 14;

const require = createRequire(import.meta.url);
const family = '@expo-google-fonts/atkinson-hyperlegible-next';
/** Our own letters; for signs that they lack, those of all papers. */
const OWN = {
  own: `${family}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`,
  ownBold: `${family}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`,
  ownItalic: `${family}/400Regular_Italic/AtkinsonHyperlegibleNext_400Regular_Italic.ttf`,
  ownBoldItalic: `${family}/700Bold_Italic/AtkinsonHyperlegibleNext_700Bold_Italic.ttf`,
  ownHead: '@expo-google-fonts/bricolage-grotesque/700Bold/BricolageGrotesque_700Bold.ttf',
} as const;
type Own = keyof typeof OWN;

type Run = NoticePage['body'][number]['runs'][number];

const mm = (length: number) => length * POINTS_A_MM;

/** Notices on one paper, each on pages of its own; to be added one after the other. */
export class NoticePaper {
  private readonly paper: Paper;
  private isFirst = true;
  private readonly root: PDFKit.PDFStructureElement;

  constructor({ title, by, at, language }: { title: string; by: string; at: Date; language: string }) {
    this.paper = newPaper({
      margins: { top: mm(TOP), left: mm(LEFT), right: mm(RIGHT), bottom: mm(BOTTOM) },
      ...{ bufferPages: true, autoFirstPage: false, pdfVersion: '1.7', tagged: true, displayTitle: true },
      lang: language,
      // The same notice is the same file, whenever it is drawn.
      info: { Title: title, Author: by, CreationDate: at, ModDate: at },
    });
    for (const [name, file] of Object.entries(OWN)) this.paper.registerFont(name, require.resolve(file));
    this.root = this.paper.struct('Document');
    this.paper.addStructure(this.root);
  }

  add(page: NoticePage): void {
    const { paper } = this;
    paper.addPage();
    const first = paper.bufferedPageRange().count - 1;
    const part = paper.struct('Sect');
    this.root.add(part);
    const put = (kind: string, draw: () => void) => part.add(paper.struct(kind, {}, draw));
    const right = paper.page.width - mm(RIGHT);
    put('P', () => this.text('ownHead', 17, page.from.name, mm(LEFT), mm(TOP), { width: mm(85) }));
    for (const [i, line] of page.from.lines.entries()) {
      const at = mm(TOP + 1) + i * 12.5;
      put('P', () => this.text('own', 9, line, right - mm(80), at, { width: mm(80), align: 'right' }, QUIET));
    }
    paper.markContent('Artifact', { type: 'Layout' });
    const under = mm(TOP + 3) + Math.max(24, page.from.lines.length * 12.5);
    paper.moveTo(mm(LEFT), under).lineTo(right, under).lineWidth(0.5).stroke(LINE);
    paper.endMarkedContent();
    // A line that is too long for the window goes on below: nothing of an address is left out.
    paper.y = mm(ADDRESS_TOP);
    for (const line of page.to) {
      const { y } = paper;
      put('P', () => this.text('own', BODY_POINTS, line, mm(LEFT), y, { width: mm(ADDRESS_WIDTH), lineGap: 1 }));
    }
    const addressEnd = paper.y;
    put('P', () =>
      this.text('own', BODY_POINTS, page.issued, right - mm(75), mm(ADDRESS_TOP), { width: mm(75), align: 'right' }),
    );
    const below = Math.max(mm(SUBJECT_TOP), addressEnd + 20);
    put('H1', () => this.text('ownBold', 13, page.subject, mm(LEFT), below, { width: this.width }));
    paper.moveDown(0.6);
    if (page.replaces !== null) {
      const { replaces } = page;
      put('P', () =>
        this.text('ownItalic', BODY_POINTS, replaces, mm(LEFT), undefined, { width: this.width, lineGap: 2 }),
      );
      paper.moveDown(0.5);
    }
    let number = 0;
    page.body.forEach((block, i) => {
      number = block.kind === 'numbered' ? number + 1 : 0;
      put(block.kind === 'heading' ? 'H2' : 'P', () => this.block(block, number));
      const next = page.body[i + 1];
      const isList = block.kind === 'bullet' || block.kind === 'numbered';
      paper.moveDown(isList && next?.kind === block.kind ? 0.15 : 0.55);
    });
    part.end();
    this.numberPages(first);
    this.isFirst = false;
  }

  /** Gives the paper, to be ended. */
  finished(): Paper {
    if (this.isFirst) throw new Error('A paper without a notice.');
    this.root.end();
    return this.paper;
  }

  private block({ kind, runs }: NoticePage['body'][number], number: number): void {
    const points = kind === 'heading' ? 12 : BODY_POINTS;
    const isList = kind === 'bullet' || kind === 'numbered';
    const left = mm(LEFT) + (isList ? INDENT : 0);
    if (isList) {
      const { y } = this.paper;
      this.text('own', points, kind === 'bullet' ? '•' : `${number}.`, mm(LEFT), y, { lineBreak: false });
      this.paper.y = y;
    }
    const pieces = runs.flatMap((run) => this.pieces(kind === 'heading' ? { ...run, bold: true } : run));
    // A paragraph without words is a line of its own.
    if (pieces.length === 0) return void this.text('own', points, ' ', left, undefined, {});
    pieces.forEach(({ font, text }, i) => {
      const options = { width: this.width - (left - mm(LEFT)), lineGap: 2, continued: i < pieces.length - 1 };
      this.paper.font(font).fontSize(points).fillColor(INK);
      if (i === 0) this.paper.text(text, left, undefined, options);
      else this.paper.text(text, options);
    });
  }

  /** Parts of a run that one font has all signs of. */
  private pieces({ text, bold = false, italic = false }: Run): { font: string; text: string }[] {
    const own: Own = bold ? (italic ? 'ownBoldItalic' : 'ownBold') : italic ? 'ownItalic' : 'own';
    const pieces: { font: string; text: string }[] = [];
    for (const sign of text) {
      const font = this.has(own, sign) ? own : bold ? 'bold' : 'plain';
      const last = pieces.at(-1);
      if (last?.font === font) last.text += sign;
      else pieces.push({ font, text: sign });
    }
    return pieces;
  }

  private has(font: Own, sign: string): boolean {
    return sign === '\n' || glyphsOf(this.paper.font(font)).hasGlyphForCodePoint(sign.codePointAt(0) ?? 0);
  }

  /** Words in one font: ours, or where that lacks a sign, the one of all papers. */
  private text(
    own: Own,
    points: number,
    words: string,
    x: number,
    y: number | undefined,
    options: PDFKit.Mixins.TextOptions,
    colour = INK,
  ): void {
    const font = [...words].every((sign) => this.has(own, sign)) ? own : own === 'own' ? 'plain' : 'bold';
    this.paper.font(font).fontSize(points).fillColor(colour).text(words, x, y, options);
  }

  /** Where a letter has several pages, each says which one it is. */
  private numberPages(first: number): void {
    const { count } = this.paper.bufferedPageRange();
    const pages = count - first;
    if (pages < 2) return;
    for (let at = 0; at < pages; at++) {
      this.paper.switchToPage(first + at);
      const { margins, height } = this.paper.page;
      const { bottom } = margins;
      margins.bottom = 0;
      this.paper.markContent('Artifact', { type: 'Pagination' });
      this.text(
        'own',
        8.5,
        `${at + 1}/${pages}`,
        mm(LEFT),
        height - mm(15),
        { width: this.width, align: 'right' },
        QUIET,
      );
      this.paper.endMarkedContent();
      margins.bottom = bottom;
    }
  }

  private get width(): number {
    return this.paper.page.width - mm(LEFT) - mm(RIGHT);
  }
}

/** The font in use, as fontkit has it: pdfkit keeps it to itself. */
function glyphsOf(paper: Paper): { hasGlyphForCodePoint: (point: number) => boolean } {
  const { _font: font } = paper as unknown as { _font: { font: { hasGlyphForCodePoint: (point: number) => boolean } } };
  return font.font;
}
