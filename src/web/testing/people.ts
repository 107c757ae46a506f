import type { Member } from '../../contract/index.ts';
import { NADIA } from './show.tsx';

/** Works seven and a half hours from Monday to Friday. */
export const WEEK = [450, 450, 450, 450, 450, 0, 0];

/** Nadia Orme as a member of the team who signs in, but for what a test says otherwise. */
export const memberOf = (other: Partial<Member> = {}): Member => ({
  ...NADIA,
  ...{ version: 3, email: 'nadia@ternquay.example', telephone: '01632 960 112', deputyId: null, tickets: [] },
  ...{ weeks: [WEEK], weeksFrom: '2026-11-23', shifts: [], shiftChanges: [] },
  ...{ signsIn: 'yes', invitedUntil: null, loads: [], nextTurn: null },
  ...other,
});
