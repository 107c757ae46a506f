import { figureOf, type Impact, type ImpactItem } from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';

/** Whether a change does anything that somebody should see before it is saved. */
export function needsLook({ figures, datesBefore, datesAfter }: Impact): boolean {
  const { added, changed, removed, keptByHand, keptShowing, keptLacking } = figures;
  return added + changed + removed + keptByHand + keptShowing + keptLacking > 0 || datesBefore !== datesAfter;
}

/** What becomes of tasks that go, by what is said on the button. */
const REMOVALS = { 'take back': 'taken back', skip: 'skipped', delete: 'deleted' } as const;
export type Removal = keyof typeof REMOVALS;

/** Counts under the heading, in the order of the list. */
export function figuresOf({ figures }: Impact, removal: Removal = 'take back'): [number, string][] {
  return [
    [figures.changed, 'changed'],
    [figures.added, 'added'],
    [figures.removed, REMOVALS[removal]],
    [figures.keptByHand + figures.keptShowing, 'left alone'],
    [figures.keptBegun, 'under way or done'],
    [figures.keptLacking, 'still lacking something'],
  ];
}

/** The button that does it: "Change 14 tasks and add 8". */
export function sayDeed({ figures: { added, changed, removed } }: Impact, removal: Removal = 'take back'): string {
  const going: [string, number] | false = removed > 0 && [removal, removed];
  const parts = [
    removal !== 'take back' && going,
    changed > 0 && ['change', changed],
    added > 0 && ['add', added],
    removal === 'take back' && going,
  ].filter((part): part is [string, number] => part !== false);
  if (parts.length === 0) return 'Save, no task changes';
  return parts
    .map(([verb, count], i) => {
      const words =
        i === 0 ? `${verb.charAt(0).toUpperCase()}${verb.slice(1)} ${plural(count, 'task')}` : `${verb} ${count}`;
      return i === 0 ? words : i === parts.length - 1 ? ` and ${words}` : `, ${words}`;
    })
    .join('');
}

export interface ImpactGroup {
  readonly key: keyof Impact['figures'];
  readonly count: number;
  /** Under the figure: "changed", "kept". */
  readonly word: string;
  /** Why, where it is kept. */
  readonly aside: string;
  readonly items: readonly ImpactItem[];
}

const GROUPS = [
  ['changed', 'changed', ''],
  ['added', 'added', ''],
  ['removed', '', ''],
  ['keptByHand', 'kept', 'changed or written on by hand'],
  ['keptShowing', 'kept', 'showing already'],
  ['keptBegun', 'kept', 'under way or done'],
  ['keptLacking', 'kept', 'something is still missing'],
] as const;

/** The items by what becomes of them, those of no count left out. */
export function groupsOf({ figures, items }: Impact, removal: Removal = 'take back'): ImpactGroup[] {
  return GROUPS.map(([key, word, aside]) => ({
    key,
    word: key === 'removed' ? REMOVALS[removal] : word,
    aside,
    count: figures[key],
    items: items.filter((item) => figureOf(item) === key),
  })).filter(({ count }) => count > 0);
}
