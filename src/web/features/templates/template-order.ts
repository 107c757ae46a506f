import type { TemplateLine } from '../../../contract/index.ts';

/** Columns of the library, each of which it can be sorted by: what they are called, and whether they hold figures. */
export const SORTS = [
  ['name', 'template', false],
  ['category', 'category', false],
  ['makes', 'makes', false],
  ['estimate', 'estimate', true],
  ['use', 'used by', true],
  ['last', 'last used', false],
  ['next', 'next', false],
] as const;
export type SortKey = (typeof SORTS)[number][0];

const byName = (a: TemplateLine, b: TemplateLine) => a.name.localeCompare(b.name);
/** What is not there stands last, whichever way the rest goes. */
const orLast = (a: string | null, b: string | null, forwards: boolean) =>
  a === b ? 0 : a === null ? 1 : b === null ? -1 : forwards ? a.localeCompare(b) : b.localeCompare(a);

const COMPARE: Readonly<Record<SortKey, (a: TemplateLine, b: TemplateLine) => number>> = {
  name: byName,
  category: (a, b) => orLast(a.category, b.category, true),
  makes: (a, b) => b.makes - a.makes || b.checkLines - a.checkLines,
  estimate: (a, b) => b.minutes - a.minutes,
  use: (a, b) => b.scheduleCount - a.scheduleCount,
  last: (a, b) => orLast(a.lastOn, b.lastOn, false),
  next: (a, b) => orLast(a.nextOn, b.nextOn, true),
};

export interface TemplateFilter {
  readonly category: string;
  readonly use: '' | 'schedule' | 'hand';
  readonly archived: '' | 'yes' | 'all';
  readonly words: string;
  readonly sort: SortKey;
  readonly favouritesFirst: boolean;
}

/** The templates that fit, in their order. */
export function ordered(templates: readonly TemplateLine[], filter: TemplateFilter): TemplateLine[] {
  const words = filter.words.toLowerCase().split(/\s+/).filter(Boolean);
  const fits = (template: TemplateLine) => {
    const text =
      `${template.name} ${template.summary} ${template.category ?? ''} ${template.titlePattern}`.toLowerCase();
    return (
      (filter.category === '' || template.category === filter.category) &&
      (filter.use === '' || (filter.use === 'schedule') === template.scheduleCount > 0) &&
      (filter.archived === 'all' || (filter.archived === 'yes') === (template.archivedOn !== null)) &&
      words.every((word) => text.includes(word))
    );
  };
  return templates
    .filter(fits)
    .sort(
      (a, b) =>
        (filter.favouritesFirst ? Number(b.isFavourite) - Number(a.isFavourite) : 0) ||
        COMPARE[filter.sort](a, b) ||
        byName(a, b),
    );
}
