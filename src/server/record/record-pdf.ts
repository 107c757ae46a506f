import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import type { FileStore } from '../files/stored/index.ts';
import { newPaper, type Paper, POINTS_A_MM } from '../platform/pdf.ts';
import type { Recorded, RecordedPicture } from './recorded.ts';

const MARGIN = 18 * POINTS_A_MM;
const FOOT = 12 * POINTS_A_MM;
/** A task is begun on a page only where so much of it has room. */
const LEAST_LEFT = 34 * POINTS_A_MM;
const PICTURE_WIDTH = 40 * POINTS_A_MM;
const PICTURE_HEIGHT = 32 * POINTS_A_MM;
const BETWEEN = 4 * POINTS_A_MM;
const INK = '#0d2b30';
const QUIET = '#4d6468';
const OUT = '#a32414';
const LINE = '#b9c7c8';

export interface RecordHead {
  readonly workspace: string;
  readonly title: string;
  /** What stands under the title, a sentence each. */
  readonly lines: readonly string[];
  /** "made Tue 24 Nov 2026 10:40 by Ines Calloway" */
  readonly made: string;
}

/** A record as it is written, task by task; its pages are numbered at its end, when it is known how many there are. */
export class RecordPaper {
  private readonly paper: Paper;

  constructor(
    private readonly head: RecordHead,
    private readonly files: FileStore,
  ) {
    this.paper = newPaper({
      margins: { top: MARGIN, left: MARGIN, right: MARGIN, bottom: MARGIN + FOOT },
      bufferPages: true,
      info: { Title: head.title, Author: head.workspace },
    });
    this.write('plain', 9, head.workspace, QUIET);
    this.write('bold', 17, head.title);
    this.paper.moveDown(0.2);
    for (const line of head.lines) this.write('plain', 9.5, line);
    this.write('plain', 9.5, `${capital(head.made)}.`, QUIET);
    this.paper.moveDown(0.6);
  }

  /** A part with its own title: sentences, numbered where they follow from each other. */
  part(title: string, sentences: readonly string[], isNumbered = false): void {
    if (sentences.length === 0) return;
    this.heading(title);
    for (const [i, sentence] of sentences.entries())
      this.write('plain', 9, isNumbered ? `${i + 1}. ${sentence}` : sentence);
    this.paper.moveDown(0.6);
  }

  heading(title: string): void {
    this.roomFor(LEAST_LEFT / 2);
    this.write('bold', 11, title);
  }

  /** A task with all that is on record of it. */
  async task(task: Recorded, { isAlone = false }: { readonly isAlone?: boolean } = {}): Promise<void> {
    this.roomFor(LEAST_LEFT);
    this.rule();
    if (!isAlone) this.write('bold', 11, task.title);
    this.write('plain', 9, [`Due ${task.due}`, task.about].filter(Boolean).join('  ·  '), QUIET);
    for (const fact of task.facts) this.write('plain', 9, fact, task.isOff ? OUT : INK);
    for (const step of task.steps) {
      const ticked = step.isTicked ? step.ticked : 'not ticked';
      this.write('plain', 9, `${step.isTicked ? '☑' : '☐'} ${step.text}  –  ${ticked}`);
      for (const answer of step.answers) this.answer(answer, 12);
    }
    for (const answer of task.answers) this.answer(answer, 0);
    if (task.note.trim() !== '') this.write('plain', 9, `Note: ${task.note}`);
    await this.pictures(task.pictures);
    if (task.files.length > 0) this.write('plain', 8, `Files: ${task.files.join('; ')}`, QUIET);
    this.paper.moveDown(0.6);
  }

  /** Numbers the pages and gives the paper, to be ended. */
  finished(): Paper {
    const { start, count } = this.paper.bufferedPageRange();
    for (let page = start; page < start + count; page++) {
      this.paper.switchToPage(page);
      const { width, height, margins } = this.paper.page;
      // Below the margin, where text would begin another page.
      margins.bottom = 0;
      const at = height - MARGIN - FOOT / 2;
      const options = { width: width - 2 * MARGIN, lineBreak: false } as const;
      this.paper.font('plain').fontSize(7.5).fillColor(QUIET);
      this.paper.text(`${this.head.title}, ${this.head.made}`, MARGIN, at, {
        ...options,
        ellipsis: true,
        width: options.width - 90,
      });
      this.paper.text(`page ${page - start + 1} of ${count}`, MARGIN, at, { ...options, align: 'right' });
    }
    return this.paper;
  }

  private answer({ asked, given, outside, remark }: Recorded['answers'][number], indent: number): void {
    const tail = `${outside ? `, ${outside}` : ''}${remark ? `: “${remark}”` : ''}`;
    this.write('plain', 9, `${asked}: ${given}${tail}`, outside ? OUT : INK, indent);
  }

  private async pictures(pictures: readonly RecordedPicture[]): Promise<void> {
    const { paper } = this;
    const across = Math.floor((this.width + BETWEEN) / (PICTURE_WIDTH + BETWEEN));
    for (let first = 0; first < pictures.length; first += across) {
      this.roomFor(PICTURE_HEIGHT + 26);
      const top = paper.y + 4;
      for (const [i, picture] of pictures.slice(first, first + across).entries()) {
        const left = MARGIN + i * (PICTURE_WIDTH + BETWEEN);
        const bytes = await asJpeg(this.files.pathOf(picture.stored));
        if (bytes)
          paper.image(bytes, left, top, { fit: [PICTURE_WIDTH, PICTURE_HEIGHT], align: 'center', valign: 'center' });
        paper.rect(left, top, PICTURE_WIDTH, PICTURE_HEIGHT).lineWidth(0.4).stroke(LINE);
        paper.font('plain').fontSize(6.5).fillColor(QUIET);
        const words = bytes ? picture.words : `${picture.words}: its bytes are gone`;
        paper.text(words, left, top + PICTURE_HEIGHT + 2, { width: PICTURE_WIDTH, height: 17, ellipsis: true });
      }
      paper.x = MARGIN;
      paper.y = top + PICTURE_HEIGHT + 22;
    }
  }

  private write(font: 'plain' | 'bold', points: number, words: string, colour = INK, indent = 0): void {
    this.paper.font(font).fontSize(points).fillColor(colour);
    this.paper.text(words, MARGIN + indent, undefined, { width: this.width - indent, lineGap: 1.5 });
  }

  private rule(): void {
    const { paper } = this;
    paper
      .moveTo(MARGIN, paper.y)
      .lineTo(MARGIN + this.width, paper.y)
      .lineWidth(0.5)
      .stroke(LINE);
    paper.y += 4;
  }

  private roomFor(height: number): void {
    if (this.paper.y + height > this.paper.page.height - MARGIN - FOOT) this.paper.addPage();
  }

  private get width(): number {
    return this.paper.page.width - 2 * MARGIN;
  }
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** A picture of ours in a form that a PDF can hold; null where its bytes are gone, which the paper then says. */
async function asJpeg(path: string): Promise<Buffer | null> {
  const bytes = await readFile(path).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return null;
    throw error;
  });
  return bytes && sharp(bytes).flatten({ background: '#fff' }).jpeg({ quality: 78 }).toBuffer();
}
