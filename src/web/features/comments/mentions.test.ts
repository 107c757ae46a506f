import { describe, expect, it } from 'vitest';
import { nameable, nameBeingTyped, namedIn, withName } from './mentions.ts';

describe('a name after @', () => {
  it.each([
    ['@', 1, ''],
    ['ask @na', 7, 'na'],
    ['ask @Nadia Or about it', 13, 'Nadia Or'],
    ['(@bram', 6, 'bram'],
  ])('is being typed in “%s”', (text, caret, typed) => {
    expect(nameBeingTyped(text, caret)?.typed).toBe(typed);
  });

  it.each([
    ['mail ines@tern', 14],
    ['@Nadia Orme said', 16],
    ['no name', 7],
    ['@na', 0],
  ])('is not in “%s”', (text, caret) => {
    expect(nameBeingTyped(text, caret)).toBeNull();
  });

  it('takes the place of what was typed, with one space after it', () => {
    const put = (text: string, caret: number) => {
      const typed = nameBeingTyped(text, caret);
      return typed && withName(text, typed, 'Nadia Orme');
    };
    expect(put('ask @na', 7)).toEqual({ text: 'ask @Nadia Orme ', caret: 16 });
    expect(put('ask @na about it', 7)).toEqual({ text: 'ask @Nadia Orme about it', caret: 16 });
  });

  it('is suggested by the beginning of any of its words before others', () => {
    const people = ['Kit Sorrell', 'Rhona Vick', 'Nadia Orme', 'Ilona Dace'].map((name) => ({ id: name, name }));
    expect(nameable('na', people, 3).map(({ name }) => name)).toEqual(['Nadia Orme', 'Rhona Vick', 'Ilona Dace']);
    expect(nameable('nadia or', people, 3)).toHaveLength(1);
    expect(nameable('', people, 2)).toHaveLength(2);
  });

  it('is told of for as long as it stands there', () => {
    const chosen = [
      { id: 'n', name: 'Nadia Orme' },
      { id: 'b', name: 'Bram Hollis' },
    ];
    expect(namedIn('@Nadia Orme and Bram Hollis', chosen).map(({ id }) => id)).toEqual(['n']);
  });
});
