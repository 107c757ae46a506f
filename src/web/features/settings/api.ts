import { settingsAddresses } from '../../../contract/addresses.ts';
import type { Settings } from '../../../contract/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask } from '../../kit/api.ts';

export function useSettings(isManager: boolean) {
  return useAnswer(settingsAddresses.read, isManager ? {} : null);
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
    /** @throws ProblemError when it is refused */
    save: async (settings: Settings): Promise<void> => {
      const { changeId } = await ask(settingsAddresses.change, { body: settings });
      await refresh('/settings', '/workspace', '/schedules', '/templates', '/tideline', '/people/');
      sayDone('Saved the settings.', changeId);
    },
  };
}
