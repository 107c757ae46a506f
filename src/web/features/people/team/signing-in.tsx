import { useState } from 'react';
import type { Member } from '../../../../contract/index.ts';
import { dayOfIso } from '../../../../core/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useToday } from '../../../app/shell/workspace.tsx';
import { SECTION } from '../../../kit/side-sheet.tsx';
import { sayDay } from '../../../kit/ways.ts';
import { useTeamActions } from './api.ts';

/** Whether somebody can sign in, and what can be done about it. */
export function SigningIn({ member }: { readonly member: Member }) {
  const today = useToday();
  const { invite, withdraw } = useTeamActions();
  const [busy, setBusy] = useState(false);
  const run = (work: (personId: string) => Promise<void>) => {
    setBusy(true);
    work(member.id)
      .catch(sayTrouble)
      .finally(() => setBusy(false));
  };
  return (
    <section className={`${SECTION} flex flex-wrap items-center gap-x-3 gap-y-1 text-row`}>
      <span className="flex-1">{saySigningIn(member, today)}</span>
      {member.signsIn !== 'yes' && member.email !== null && (
        <button type="button" className="btn btn-sm" disabled={busy} onClick={() => run(invite)}>
          {member.signsIn === 'no' ? 'Invite by mail' : 'Send it again'}
        </button>
      )}
      {(member.signsIn === 'invited' || member.signsIn === 'invitation ended') && (
        <button type="button" className="btn btn-sm" disabled={busy} onClick={() => run(withdraw)}>
          Withdraw
        </button>
      )}
    </section>
  );
}

/** "invited, the link works until Tue 1 Dec". */
export function saySigningIn(
  { signsIn, email, invitedUntil }: Pick<Member, 'signsIn' | 'email' | 'invitedUntil'>,
  today: number,
): string {
  const until = invitedUntil === null ? '' : sayDay(dayOfIso(invitedUntil.slice(0, 10)), today);
  switch (signsIn) {
    case 'yes':
      return `Signs in as ${email}.`;
    case 'invited':
      return `Invited to ${email}; the link works until ${until}.`;
    case 'invitation ended':
      return `The invitation to ${email} ran out on ${until}.`;
    case 'no':
      return email === null ? 'Does not sign in: no mail address is known.' : 'Does not sign in yet.';
  }
}
