import { act, renderHook } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { useChosenCells } from './choosing.ts';

const KEYS = ['a', 'b', 'c', 'd'];
const chosen = () => renderHook(() => useChosenCells('', (row) => KEYS[row])).result;

describe('chosen cells', () => {
  it('are one, or a range from it, which follows the last cell', () => {
    const cells = chosen();
    act(() => cells.current.chooseOne({ row: 1, column: 5 }));
    expect(cells.current.blocks).toEqual([{ keys: ['b'], from: 5, to: 5 }]);
    act(() => cells.current.chooseTo({ row: 3, column: 2 }, { row: 1, column: 5 }));
    expect(cells.current.blocks).toEqual([{ keys: ['b', 'c', 'd'], from: 2, to: 5 }]);
    act(() => cells.current.chooseTo({ row: 0, column: 6 }, { row: 3, column: 2 }));
    expect(cells.current.blocks).toEqual([{ keys: ['a', 'b'], from: 5, to: 6 }]);
    expect(cells.current.holds({ row: 0, column: 5 })).toBe(true);
    expect(cells.current.holds({ row: 2, column: 5 })).toBe(false);
  });

  it('begin a range where the keys were, if nothing was chosen before', () => {
    const cells = chosen();
    act(() => cells.current.chooseTo({ row: 0, column: 1 }, { row: 0, column: 0 }));
    expect(cells.current.blocks).toEqual([{ keys: ['a'], from: 0, to: 1 }]);
  });

  it('are one more or one fewer, also out of the middle of a range', () => {
    const cells = chosen();
    act(() => cells.current.chooseOne({ row: 0, column: 1 }));
    act(() => cells.current.chooseTo({ row: 2, column: 4 }, { row: 0, column: 1 }));
    act(() => cells.current.toggle({ row: 1, column: 3 }));
    const held = KEYS.map((_, row) => [0, 1, 2, 3, 4, 5].filter((column) => cells.current.holds({ row, column })));
    expect(held).toEqual([[1, 2, 3, 4], [1, 2, 4], [1, 2, 3, 4], []]);
    act(() => cells.current.toggle({ row: 1, column: 3 }));
    expect(cells.current.holds({ row: 1, column: 3 })).toBe(true);
    act(() => cells.current.clear());
    expect(cells.current.blocks).toEqual([]);
  });

  it('are those of one chart: in another nothing is chosen', () => {
    const { result, rerender } = renderHook(({ of }) => useChosenCells(of, (row) => KEYS[row]), {
      initialProps: { of: 'June' },
    });
    act(() => result.current.chooseOne({ row: 1, column: 5 }));
    rerender({ of: 'July' });
    expect(result.current.blocks).toEqual([]);
    act(() => result.current.chooseTo({ row: 0, column: 1 }, { row: 0, column: 0 }));
    expect(result.current.blocks).toEqual([{ keys: ['a'], from: 0, to: 1 }]);
  });
});
