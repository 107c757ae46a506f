import { nearestWord } from '../wording/spelling.ts';

export interface NamedPlan {
  readonly id: string;
  readonly name: string;
}

export type PlansReading =
  | { readonly kind: 'read'; readonly plans: readonly NamedPlan[] }
  | { readonly kind: 'unread'; readonly message: string; readonly suggestion: string | null };

const NONE = 'none';

/** The plans of a client as a text: "Resident berth, Winter storage", "none"; empty where there is no client. */
export function sayPlans(plans: readonly NamedPlan[] | null): string {
  if (plans === null) return '';
  return plans.length === 0 ? NONE : plans.map(({ name }) => name).join(', ');
}

/**
 * The plans that a text says: those that the client is on, and others that the client is to be put on. Whom a plan is taken
 * from is told nowhere in a list of names, so one that is left out is asked back for.
 * @param now what the client is on; null where there is no client
 * @param offered what clients can be put on; null while that is not known
 */
export function readPlans(
  text: string,
  now: readonly NamedPlan[] | null,
  offered: readonly NamedPlan[] | null,
): PlansReading {
  const unread = (message: string, suggestion: string | null = null): PlansReading => ({
    kind: 'unread',
    message,
    suggestion,
  });
  if (now === null) return unread('It is for no client: only clients are on plans.');
  if (offered === null) return unread('The plans are not here yet.');
  const known = [...now, ...offered.filter(({ id }) => !now.some((one) => one.id === id))];
  const said: NamedPlan[] = [];
  for (let rest = text.trim(); rest !== '' && rest.toLowerCase() !== NONE; ) {
    const plan = planAtStart(rest, known);
    if (plan === null) {
      const name = rest.split(',')[0]?.trim() ?? rest;
      const near = nearestWord(
        name,
        known.map((one) => one.name),
      );
      const others = said.map((one) => one.name);
      return unread(`There is no plan “${name}” to be put on.`, near && [...others, near].join(', '));
    }
    if (!said.includes(plan)) said.push(plan);
    rest = rest.slice(plan.name.length).replace(/^\s*,\s*/, '');
  }
  const missing = now.filter((plan) => !said.includes(plan));
  if (missing.length > 0)
    return unread(
      `Here clients are put on plans; ${sayPlans(missing)} stays. Clients are taken off a plan on their own page.`,
      sayPlans([...now, ...said.filter((plan) => !now.includes(plan))]),
    );
  return { kind: 'read', plans: [...now, ...said.filter((plan) => !now.includes(plan))] };
}

/** The plan whose name a text begins with, the longest of them: a name may have a comma in it. */
function planAtStart(text: string, plans: readonly NamedPlan[]): NamedPlan | null {
  const words = text.toLowerCase();
  const fitting = plans.filter(({ name }) => {
    if (!words.startsWith(name.toLowerCase())) return false;
    return /^\s*(,|$)/.test(text.slice(name.length));
  });
  return fitting.reduce<NamedPlan | null>(
    (best, plan) => (best === null || plan.name.length > best.name.length ? plan : best),
    null,
  );
}
