import { peopleAddresses } from '../../../../contract/addresses.ts';
import type { HandOver, Member, PersonInput } from '../../../../contract/index.ts';
import { sayDone } from '../../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../../kit/answer.ts';
import { ask } from '../../../kit/api.ts';

export const useTeam = () => useAnswer(peopleAddresses.list, {});

/** Ways to change people; each throws a ProblemError when it is refused. */
export function useTeamActions() {
  const refresh = useRefresh();
  const afterwards = () =>
    refresh(
      '/team',
      '/workspace',
      '/people/',
      '/tideline',
      '/colleagues',
      '/shifts',
      '/workload',
      '/schedules',
      '/tasks/',
    );
  const at = (personId: string) => ({ params: { personId } });
  return {
    add: async (input: PersonInput & { invite: boolean }): Promise<Member> => {
      const { member, changeId } = await ask(peopleAddresses.add, { body: input });
      await afterwards();
      sayDone(
        input.invite ? `${member.name} is here, and an invitation is on its way.` : `${member.name} is here.`,
        input.invite ? null : changeId,
      );
      return member;
    },
    change: async (personId: string, input: PersonInput & { version: number }): Promise<void> => {
      const { member, changeId } = await ask(peopleAddresses.change, { ...at(personId), body: input });
      await afterwards();
      sayDone(`Saved what is known of ${member.name}.`, changeId);
    },
    impactOfChanging: (personId: string, input: PersonInput & { version: number }) =>
      ask(peopleAddresses.impactOfChanging, { ...at(personId), body: input }),
    invite: async (personId: string): Promise<void> => {
      const { email } = await ask(peopleAddresses.invite, at(personId));
      await afterwards();
      sayDone(`An invitation is on its way to ${email}.`);
    },
    withdraw: async (personId: string): Promise<void> => {
      await ask(peopleAddresses.withdraw, at(personId));
      await afterwards();
      sayDone('The invitation is withdrawn: its link works no longer.');
    },
    impactOfHandOver: (personId: string, input: HandOver) =>
      ask(peopleAddresses.impactOfHandOver, { ...at(personId), body: input }),
    handOver: async (personId: string, input: HandOver): Promise<void> => {
      const { member, changeId } = await ask(peopleAddresses.handOver, { ...at(personId), body: input });
      await refresh('/team', '/workspace', '/people/', '/tideline', '/schedules', '/templates', '/tasks/');
      sayDone(`What ${member.name} held is handed over.`, changeId);
    },
  };
}

export const useHeld = (personId: string | null) =>
  useAnswer(peopleAddresses.held, personId === null ? null : { params: { personId } });
