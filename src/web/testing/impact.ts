import type { Impact } from '../../contract/index.ts';

/** What a change does: nothing, but for the figures that a test says. */
export const impactOf = (figures: Partial<Impact['figures']> = {}): Impact => ({
  figures: {
    ...{ added: 0, changed: 0, removed: 0, keptByHand: 0, keptShowing: 0, keptBegun: 0, keptLacking: 0 },
    ...figures,
  },
  ...{ items: [], years: [], datesBefore: 12, datesAfter: 12 },
});
