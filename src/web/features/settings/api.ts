import { settingsAddresses } from '../../../contract/addresses.ts';
import type { ListsInput, Settings } from '../../../contract/index.ts';
import type { PhraseHabits } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';

export function useSettings(isAsked: boolean) {
  return useAnswer(settingsAddresses.read, isAsked ? {} : null);
}

export function useLists(isAsked: boolean) {
  return useAnswer(settingsAddresses.lists, isAsked ? {} : null);
}

export function useCountries() {
  return useAnswer(settingsAddresses.countries, {}).data?.countries;
}

/** @throws ProblemError when it is refused */
export const publicHolidaysOf = async (country: string, region: string) =>
  (await ask(settingsAddresses.publicHolidays, { query: { country, region } })).holidays;

export function useSettingsActions() {
  const refresh = useRefresh();
  return {
    /** @throws ProblemError when it is refused */
    impact: (settings: Settings) => ask(settingsAddresses.impact, { body: settings }),
    /** Settles what words mean here, for everybody. @throws ProblemError when it is refused */
    settle: async (habits: PhraseHabits, said: string): Promise<void> => {
      const settings = await ask(settingsAddresses.read, {});
      const { changeId } = await ask(settingsAddresses.change, {
        body: { ...settings, phraseHabits: { ...settings.phraseHabits, ...habits } },
      });
      await refresh('/settings', '/workspace');
      sayDone(said, changeId);
    },
    /** @throws ProblemError when it is refused */
    saveLists: async (input: ListsInput): Promise<void> => {
      const { changeId } = await ask(settingsAddresses.changeLists, { body: input });
      await refresh('/settings', '/workspace', '/team', '/clients');
      sayDone('Saved the lists.', changeId);
    },
    /** @throws ProblemError when it is refused */
    save: async (settings: Settings): Promise<void> => {
      const { changeId } = await ask(settingsAddresses.change, { body: settings });
      await refresh('/settings', '/workspace', '/schedules', '/templates', '/tideline', '/people/');
      sayDone('Saved the settings.', changeId);
    },
  };
}
