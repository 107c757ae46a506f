import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { backupAddresses } from '../../../../contract/addresses-later.ts';
import {
  type LeaveImpact,
  type Member,
  type PersonInput,
  personFieldsSchema,
  personInputSchema,
} from '../../../../contract/index.ts';
import { dayOfIso, daysOfOtherHours, hasLeftBy, isoOfDay, plural, sayRoles } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { addressOf } from '../../../kit/api.ts';
import { RecordFoot, useRecordForm } from '../../../kit/record-form.tsx';
import { CloseButton, SECTION, SideSheet } from '../../../kit/side-sheet.tsx';
import { Skeleton } from '../../../kit/states.tsx';
import { sayDay } from '../../../kit/ways.ts';
import { CalendarLink } from '../../calendars/calendar-link.tsx';
import { ErasePart } from '../../erasing/erase-part.tsx';
import { LastChanged } from '../../history/last-changed.tsx';
import { LeaveImpactDialog } from '../leave/leave-impact-dialog.tsx';
import { LeavePart } from '../leave/leave-part.tsx';
import { sayDayList } from '../leave/leave-words.ts';
import { useTeam, useTeamActions } from './api.ts';
import { ClockPart } from './clock-part.tsx';
import { MemberFacts } from './member-facts.tsx';
import { MemberForm } from './member-form.tsx';
import { SigningIn } from './signing-in.tsx';

const NEW = 'new';

/** One person, or somebody new: what is known, how they get in, and what becomes of their work when they go. */
export function MemberSheet() {
  const { personId = '' } = useParams();
  const { data } = useTeam();
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const close = () => void navigate('/team');
  const member = data?.members.find(({ id }) => id === personId);
  const isNew = personId === NEW;
  return (
    <SideSheet label={isNew ? 'Somebody new' : (member?.name ?? 'A person')} onClose={close}>
      {!data && <Skeleton rows={8} />}
      {data && !member && !isNew && (
        <div className={SECTION}>
          <div className="flex items-baseline justify-between">
            <h2 className="text-title">Nobody of this address</h2>
            <CloseButton onClose={close} />
          </div>
          <p className="text-row text-ink-2">It may be that they were taken out again.</p>
        </div>
      )}
      {member && !may('people') && <MemberFacts member={member} onClose={close} />}
      {may('people') && (member || (data && isNew)) && (
        <Editor key={personId} member={member ?? null} onClose={close} />
      )}
    </SideSheet>
  );
}

interface Draft extends PersonInput {
  readonly version: number;
}

const draftSchema = personFieldsSchema.extend({ version: personFieldsSchema.shape.weeks.element.element });

function useMemberForm(member: Member | null) {
  const today = useToday();
  const { weekMinutes } = useWorkspace();
  const initial = useMemo<Draft>(() => {
    if (member) {
      const { id: _, signsIn: __, invitedUntil: ___, loads: ____, nextTurn: _____, ...written } = member;
      return written;
    }
    return {
      ...{ name: '', email: null, telephone: '', roles: [], team: null, access: 'member', worksFrom: null },
      ...{ worksUntil: null, deputyId: null, tickets: [], weeksFrom: isoOfDay(today), shifts: [], shiftChanges: [] },
      version: 0,
      weeks: [[...weekMinutes]],
    };
  }, [member, today, weekMinutes]);
  return useRecordForm<Draft>({
    ...{ place: `person.${member?.id ?? NEW}`, initial, isNew: member === null },
    ...{ form: draftSchema, check: personInputSchema },
  });
}

function Editor({ member, onClose }: { readonly member: Member | null; readonly onClose: () => void }) {
  const navigate = useNavigate();
  const { add, change: save, impactOfChanging } = useTeamActions();
  const form = useMemberForm(member);
  const { version, ...input } = form.draft;
  const today = useToday();
  const [looking, setLooking] = useState<LeaveImpact | null>(null);
  const keep = async (id: string) => {
    await save(id, { ...input, version });
    setLooking(null);
  };
  const submit = (invite: boolean) =>
    void form.save(async () => {
      if (member && daysOfOtherHours(member.shiftChanges, input.shiftChanges, today).length > 0) {
        const impact = await impactOfChanging(member.id, { ...input, version });
        if (isNews(impact, input)) {
          setLooking(impact);
          return false;
        }
      }
      if (member) return keep(member.id);
      const added = await add({ ...input, invite });
      void navigate(`/team/${added.id}`, { replace: true });
    });
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: () => submit(false) }]);
  return (
    <>
      {member && looking && (
        <LeaveImpactDialog
          title={`Other hours of ${member.name}: ${sayDayList(daysOfOtherHours(member.shiftChanges, input.shiftChanges, today), today)}`}
          span={plural(looking.days, 'day')}
          impact={looking}
          words="Save"
          busy={form.busy}
          onSave={() => void form.save(() => keep(member.id))}
          onClose={() => setLooking(null)}
        />
      )}
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">{form.draft.name || 'Somebody new'}</h2>
          <p className="text-row text-ink-2">
            {member ? `${sayRoles(member.roles)}, ${member.access}` : 'not saved yet'}
            {member && (
              <span className="ml-4">
                <CalendarLink of={{ kind: 'person', id: member.id }} />
              </span>
            )}
          </p>
        </div>
        <CloseButton onClose={onClose} />
      </header>
      {form.meanwhile}
      {member && <ClockPart member={member} />}
      {member && <SigningIn member={member} />}
      {member && <LeavePart key={member.id} personId={member.id} name={member.name} />}
      <MemberForm
        draft={input}
        personId={member?.id ?? null}
        signsIn={member?.signsIn === 'yes'}
        at={form.within}
        onChange={form.set}
      />
      {member && <Leaving member={member} />}
      {member && (
        <div className={`${SECTION} border-b-0`}>
          <LastChanged of="person" id={member.id} />
        </div>
      )}
      <RecordFoot form={form}>
        {member ? (
          <button
            type="button"
            className="btn btn-primary"
            disabled={form.busy || !form.isChanged}
            onClick={() => submit(false)}
          >
            Save
          </button>
        ) : (
          <>
            <button
              type="button"
              className="btn btn-primary"
              disabled={form.busy}
              onClick={() => submit(input.email !== null)}
            >
              {input.email === null ? 'Add without a mail' : 'Add and invite by mail'}
            </button>
            {input.email !== null && (
              <button type="button" className="btn" disabled={form.busy} onClick={() => submit(false)}>
                Only add
              </button>
            )}
          </>
        )}
      </RecordFoot>
    </>
  );
}

/** Whether work of the days is somebody else's then, or stays theirs though they do not work. */
function isNews({ counts: { goes, offered, nobody, dropped, stays } }: LeaveImpact, { shiftChanges }: PersonInput) {
  return goes + offered + nobody + dropped > 0 || (stays > 0 && shiftChanges.some(({ shifts }) => shifts.length === 0));
}

/** Where everything that somebody holds is given to others. */
function Leaving({ member }: { readonly member: Member }) {
  const today = useToday();
  return (
    <section className={SECTION}>
      <p className="text-row leading-5">
        {member.worksUntil !== null && hasLeftBy(member, today)
          ? `${member.name} left on ${sayDay(dayOfIso(member.worksUntil), today)}; what was done stays under that name. `
          : ''}
        <Link className="link-line" to={`/team/${member.id}/hand-over`}>
          Hand over what {member.name} holds
        </Link>
      </p>
      <p className="mt-1.5 text-row leading-5">
        <a
          className="link-line"
          href={addressOf(backupAddresses.ofPerson, { params: { personId: member.id } })}
          download
        >
          All that is kept of {member.name}
        </a>{' '}
        <span className="text-ink-2">as an archive</span>
      </p>
      {hasLeftBy(member, today) && (
        <p className="mt-1.5 text-row leading-5">
          <ErasePart of="person" id={member.id} name={member.name} />
        </p>
      )}
    </section>
  );
}
