import type { Member } from '../../../../contract/index.ts';
import { dayOfIso, minutesAWeek, sayDayHours, sayRoles } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { CloseButton, SECTION, SectionTitle } from '../../../kit/side-sheet.tsx';
import { sayDay } from '../../../kit/ways.ts';
import { LeavePart } from '../leave/leave-part.tsx';
import { ClockPart } from './clock-part.tsx';
import { WeekBars } from './week-bars.tsx';

/** What everybody may know of a colleague. */
export function MemberFacts({ member, onClose }: { readonly member: Member; readonly onClose: () => void }) {
  const { name, roles, team, email, telephone, weeks, tickets } = member;
  const today = useToday();
  return (
    <>
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">{name}</h2>
          <p className="text-row text-ink-2">
            {sayRoles(roles)}
            {team ? `, ${team}` : ''}
          </p>
        </div>
        <CloseButton onClose={onClose} />
      </header>
      <ClockPart member={member} />
      <section className={SECTION}>
        <SectionTitle>How to reach</SectionTitle>
        <p className="text-row leading-6">{email ?? 'no mail address is known'}</p>
        <p className="text-row leading-6">{telephone || 'no telephone number is known'}</p>
      </section>
      {tickets.length > 0 && (
        <section className={SECTION}>
          <SectionTitle>Tickets</SectionTitle>
          {tickets.map((ticket) => (
            <p key={ticket.name} className="text-row leading-6">
              {ticket.name}
              {ticket.until !== null && `, until ${sayDay(dayOfIso(ticket.until), today)}`}
            </p>
          ))}
        </section>
      )}
      <LeavePart personId={member.id} name={name} />
      <section className={`${SECTION} border-b-0`}>
        <SectionTitle aside={`${sayDayHours(Math.round(minutesAWeek({ weeks }))) || 'no'} hours a week`}>
          Week
        </SectionTitle>
        {weeks.map((week, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: one of two weeks, which never move
          <div key={i} className="mt-2">
            <WeekBars week={week} height={34} />
          </div>
        ))}
      </section>
    </>
  );
}
