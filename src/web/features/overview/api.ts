import { overviewAddresses } from '../../../contract/addresses-later.ts';
import { useAnswer } from '../../kit/answer.ts';

export const useOverview = () => useAnswer(overviewAddresses.overview, {});

/** Told of weeks that are over: what is done now changes nothing of it, so no news asks for it again. */
export const useOnTime = () => useAnswer(overviewAddresses.onTime, {});
