/** Questions that a workspace answers once for all of its people: each is a habit of how they speak. */
export const PHRASE_HABITS = ['biweekly', 'bimonthly', 'biannually', 'day and month'] as const;
export type PhraseHabit = (typeof PHRASE_HABITS)[number];

/** For each habit that is settled which of the readings is meant, 0 for the likelier. */
export type PhraseHabits = Readonly<Partial<Record<PhraseHabit, number>>>;

/** Each habit's two readings in words, after what is said. */
export const HABIT_WORDS: Readonly<
  Record<PhraseHabit, { readonly said: string; readonly means: readonly [string, string] }>
> = {
  biweekly: { said: 'biweekly', means: ['every two weeks', 'twice a week'] },
  bimonthly: { said: 'bimonthly', means: ['every two months', 'twice a month'] },
  biannually: { said: 'biannually', means: ['twice a year', 'every two years'] },
  'day and month': { said: '3/4/2027', means: ['3 April, the day first', '4 March, the month first'] },
};

export const isHabit = (what: string): what is PhraseHabit => (PHRASE_HABITS as readonly string[]).includes(what);
