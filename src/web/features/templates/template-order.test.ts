import { describe, expect, it } from 'vitest';
import type { TemplateLine } from '../../../contract/index.ts';
import { ordered, type TemplateFilter } from './template-order.ts';

const line = (name: string, rest: Partial<TemplateLine> = {}): TemplateLine => ({
  id: name,
  version: 1,
  name,
  summary: '',
  titlePattern: name,
  category: null,
  dot: null,
  workType: null,
  priority: 'normal',
  assignment: { v: 1, kind: 'nobody' },
  makes: 1,
  checkLines: 0,
  minutes: 10,
  scheduleCount: 1,
  nextOn: null,
  lastOn: null,
  isFavourite: false,
  archivedOn: null,
  changedOn: '2026-11-24',
  changedBy: null,
  ...rest,
});
const PLAIN: TemplateFilter = {
  category: '',
  use: '',
  archived: '',
  words: '',
  sort: 'name',
  favouritesFirst: false,
};
const ALL = [
  line('Walk', { category: 'yard', nextOn: '2026-12-01', minutes: 5 }),
  line('Audit', { isFavourite: true, scheduleCount: 0, minutes: 60 }),
  line('Moorings', { archivedOn: '2026-11-01', nextOn: null }),
  line('Crane', { category: 'yard', nextOn: '2026-11-30', summary: 'twice a year', makes: 4 }),
];
const names = (rest: Partial<TemplateFilter>) => ordered(ALL, { ...PLAIN, ...rest }).map(({ name }) => name);

describe('the library', () => {
  it('leaves archived ones out unless they are asked for', () => {
    expect(names({})).toEqual(['Audit', 'Crane', 'Walk']);
    expect(names({ archived: 'yes' })).toEqual(['Moorings']);
    expect(names({ archived: 'all' })).toHaveLength(4);
  });

  it('is found by words of name, summary and category, in any order', () => {
    expect(names({ words: 'YEAR yard' })).toEqual(['Crane']);
    expect(names({ words: 'diver' })).toEqual([]);
  });

  it('is filtered by category and by what uses it', () => {
    expect(names({ category: 'yard' })).toEqual(['Crane', 'Walk']);
    expect(names({ use: 'hand' })).toEqual(['Audit']);
  });

  it('is sorted by any column, dates that are not there last', () => {
    expect(names({ sort: 'next' })).toEqual(['Crane', 'Walk', 'Audit']);
    expect(names({ sort: 'estimate' })).toEqual(['Audit', 'Crane', 'Walk']);
    expect(names({ sort: 'makes' })).toEqual(['Crane', 'Audit', 'Walk']);
    expect(names({ sort: 'next', favouritesFirst: true })).toEqual(['Audit', 'Crane', 'Walk']);
  });
});
