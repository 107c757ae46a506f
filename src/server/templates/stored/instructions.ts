import sanitizeHtml from 'sanitize-html';
import { escaped } from '../../platform/html.ts';

/** Cells that a table may be made of, in either direction; a browser lays out what is claimed, however much it is. */
const MOST_CELLS = 40;

function spanned(tagName: string, attribs: Record<string, string>) {
  const spans = ['colspan', 'rowspan'].flatMap((name) => {
    const cells = Number(attribs[name]);
    return Number.isInteger(cells) && cells > 1 ? [[name, String(Math.min(cells, MOST_CELLS))]] : [];
  });
  return { tagName, attribs: Object.fromEntries(spans) as Record<string, string> };
}

const PICTURE = /^\/api\/files\/([0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12})$/i;

/**
 * Instructions as they may be shown: the elements that the editor makes and nothing that runs, loads or styles.
 * Pictures are files of this server, links lead to the web, to mail or to a telephone.
 */
export function sanitiseInstructions(html: string): string {
  const clean = sanitizeHtml(html, {
    allowedTags: [
      ...['p', 'h2', 'h3', 'h4', 'strong', 'em', 's', 'u', 'code', 'pre', 'blockquote', 'hr', 'br'],
      ...['ul', 'ol', 'li', 'label', 'input', 'span', 'div', 'a', 'img'],
      ...['table', 'thead', 'tbody', 'tr', 'th', 'td'],
    ],
    allowedAttributes: {
      a: ['href', 'target', 'rel'],
      img: ['src', 'alt', 'title'],
      ul: ['data-type'],
      li: ['data-type', 'data-checked'],
      ol: ['start'],
      input: ['type', 'checked', 'disabled'],
      th: ['colspan', 'rowspan'],
      td: ['colspan', 'rowspan'],
    },
    allowedSchemes: ['http', 'https', 'mailto', 'tel'],
    allowProtocolRelative: false,
    transformTags: {
      a: (tagName, attribs) => ({ tagName, attribs: { ...attribs, target: '_blank', rel: 'noopener noreferrer' } }),
      td: spanned,
      th: spanned,
      h1: 'h2',
      b: 'strong',
      i: 'em',
      // A check box of the text is read, not used: what is ticked are the steps.
      input: (tagName, attribs) => ({
        tagName,
        attribs: { type: 'checkbox', disabled: 'disabled', ...('checked' in attribs ? { checked: 'checked' } : {}) },
      }),
    },
    exclusiveFilter: (frame) => frame.tag === 'img' && !PICTURE.test(frame.attribs['src'] ?? ''),
  });
  // An editor that was left empty still holds a paragraph.
  return /<img|<hr/.test(clean) || textOf(clean) !== '' ? clean : '';
}

function textOf(html: string): string {
  return sanitizeHtml(html, { allowedTags: [], allowedAttributes: {} })
    .replace(/&nbsp;/g, ' ')
    .trim();
}

const SIGNS: Readonly<Record<string, string>> = {
  '&nbsp;': ' ',
  '&lt;': '<',
  '&gt;': '>',
  '&quot;': '"',
  '&amp;': '&',
};

/** The words of instructions for where there is no more than text: a line for each paragraph, a dot before each point. */
export function wordsOfInstructions(html: string): string {
  const broken = html.replace(/<li[^>]*>/g, '• ').replace(/<\/(?:p|li|h\d|blockquote)>|<br[^>]*>|<hr[^>]*>/g, '\n');
  return textOf(broken)
    .replace(/&(?:nbsp|lt|gt|quot|amp);/g, (sign) => SIGNS[sign] ?? sign)
    .replace(/\s*\n\s*/g, '\n');
}

/** Words as instructions, the other way round: a paragraph for each that stands by itself. */
export const instructionsOfWords = (text: string): string =>
  sanitiseInstructions(
    text
      .split(/\n\s*\n/)
      .map((part) => `<p>${escaped(part.trim()).replace(/\n/g, '<br>')}</p>`)
      .join(''),
  );

/** The files whose pictures stand in a text, by their ids. */
export function picturesIn(html: string): string[] {
  return [...new Set([...html.matchAll(/src="\/api\/files\/([0-9a-f-]{36})"/gi)].map(([, id = '']) => id))];
}

/** The text with other files in the place of some of its pictures. */
export function withPictures(html: string, replaced: ReadonlyMap<string, string>): string {
  return html.replace(/(src="\/api\/files\/)([0-9a-f-]{36})"/gi, (all, before: string, id: string) => {
    const other = replaced.get(id);
    return other === undefined ? all : `${before}${other}"`;
  });
}
