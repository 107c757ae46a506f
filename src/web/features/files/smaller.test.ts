import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { madeSmaller, smallerSize } from './smaller.ts';

describe('the size in which a picture is sent', () => {
  it('keeps its shape, is never larger than it was, and 2048 pixels long at most', () => {
    const side = fc.integer({ min: 1, max: 20_000 });
    fc.assert(
      fc.property(side, side, (width, height) => {
        const small = smallerSize(width, height);
        expect(Math.max(small.width, small.height)).toBeLessThanOrEqual(2048);
        expect(small.width).toBeLessThanOrEqual(width);
        expect(small.height).toBeLessThanOrEqual(height);
        const share = small.width / width;
        expect(Math.abs(small.height - Math.max(1, height * share))).toBeLessThanOrEqual(
          Math.max(1, height / width) + 1,
        );
      }),
    );
    expect(smallerSize(4032, 3024)).toEqual({ width: 2048, height: 1536 });
    expect(smallerSize(800, 600)).toEqual({ width: 800, height: 600 });
  });

  it('is its own for what is small, or no picture', async () => {
    const small = new File(['x'], 'a.jpg', { type: 'image/jpeg' });
    expect(await madeSmaller(small)).toBe(small);
    const paper = new File([new Uint8Array(500_000)], 'a.pdf', { type: 'application/pdf' });
    expect(await madeSmaller(paper)).toBe(paper);
  });
});
