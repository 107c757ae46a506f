import { joinAnd } from '../wording/date-words.ts';

/** The roles of somebody, the first one leading: "dock crew and first aider". */
export const sayRoles = (roles: readonly string[]): string => (roles.length === 0 ? 'no role yet' : joinAnd(roles));
