import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { HandOver, Held, Member } from '../../../../contract/index.ts';
import { type CivilDay, dayOfIso, groupBy, isoOfDay, joinAnd, plural } from '../../../../core/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import type { ProblemError } from '../../../kit/api.ts';
import { Band } from '../../../kit/band.tsx';
import { ChoiceBlank, DateBlank } from '../../../kit/blanks.tsx';
import { FieldError } from '../../../kit/field-error.tsx';
import { Empty, NotAllowed, Skeleton, Trouble } from '../../../kit/states.tsx';
import { sayDay } from '../../../kit/ways.ts';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { PersonBlank } from '../person-blank.tsx';
import { useHeld, useTeam, useTeamActions } from './api.ts';

/** Everything that somebody holds, and who takes it over. */
export function HandOverPage() {
  const { personId = '' } = useParams();
  const { may } = useWorkspace();
  const team = useTeam();
  const held = useHeld(may('people') ? personId : null);
  const member = team.data?.members.find(({ id }) => id === personId);
  if (!may('people')) return <NotAllowed right="people" what="hand work over" to="/team" back="The team" />;
  const error = team.error ?? held.error;
  if (error && !(member && held.data)) return <Trouble error={error} retry={() => void held.mutate()} />;
  if (team.data && !member)
    return <Empty title="Nobody of this address.">It may be that they were taken out again.</Empty>;
  return member && held.data ? <HandingOver member={member} held={held.data} /> : <Skeleton rows={12} />;
}

const GROUPS = [
  { kind: 'tasks', to: 'tasksTo', one: 'open task', many: 'open tasks' },
  { kind: 'schedules', to: 'schedulesTo', one: 'schedule', many: 'schedules' },
  { kind: 'templates', to: 'templatesTo', one: 'template by default', many: 'templates by default' },
  { kind: 'signOffs', to: 'signOffsTo', one: 'template to sign off', many: 'templates to sign off' },
] as const;

type Choice = Omit<HandOver, 'version' | 'lastDay'>;
const NOBODY_YET: Choice = { tasksTo: null, schedulesTo: null, templatesTo: null, signOffsTo: null };

function HandingOver({ member, held }: { readonly member: Member; readonly held: Held }) {
  const today = useToday();
  const { people } = useWorkspace();
  const nameOf = (id: string | null) => people.find((person) => person.id === id)?.name ?? 'nobody yet';
  const navigate = useNavigate();
  const { handOver, impactOfHandOver } = useTeamActions();
  const [to, setTo] = useState<Choice>(NOBODY_YET);
  const [goes, setGoes] = useState(member.worksUntil !== null ? 'on' : 'stays');
  const [lastDay, setLastDay] = useState<CivilDay>(member.worksUntil === null ? today : dayOfIso(member.worksUntil));
  const [refusal, setRefusal] = useState<ProblemError | null>(null);
  const input: HandOver = { ...to, version: member.version, lastDay: goes === 'on' ? isoOfDay(lastDay) : null };
  const { look, busy, dialog } = useLookedAt<{ readonly what: string; readonly input: HandOver }>({
    impactOf: (asked) => impactOfHandOver(member.id, asked.input),
    save: async (asked) => {
      await handOver(member.id, asked.input);
      void navigate(`/team/${member.id}`);
    },
    hasReach: false,
    onRefused: (problem) => {
      setRefusal(problem);
      sayTrouble(problem);
    },
  });
  const total = GROUPS.reduce((sum, { kind }) => sum + held.counts[kind], 0);
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>{`What ${member.name} holds · Jolly Rota`}</title>
      {dialog}
      <div className="page-head">
        <h1>What {member.name} holds</h1>
        <Link className="link-line text-note" to={`/team/${member.id}`}>
          Back to {member.name}
        </Link>
        <button
          type="button"
          className="btn btn-primary ml-auto"
          disabled={busy || (total === 0 && goes === 'stays')}
          onClick={() => {
            setRefusal(null);
            look({ what: sayHandOver(member, held, to, nameOf, goes === 'on' ? sayDay(lastDay, today) : null), input });
          }}
        >
          See impact and hand over
        </button>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-line-2">
        <div className="px-5 py-2.5 text-row leading-7 max-[720px]:px-4">
          {member.name}{' '}
          <ChoiceBlank
            label="Whether somebody leaves"
            value={goes}
            options={[
              ['stays', 'stays, and only gives this away'],
              ['on', 'leaves, with the last day on'],
            ]}
            onChange={setGoes}
          />{' '}
          {goes === 'on' && <DateBlank label="Last day" value={lastDay} onChange={setLastDay} />}
          <br />
          all of it to{' '}
          <PersonBlank
            label="Who takes all of it over"
            personId={sameFor(to)}
            onChange={(id) => setTo({ tasksTo: id, schedulesTo: id, templatesTo: id, signOffsTo: id })}
          />
          <span className="text-ink-2">
            , or each part to somebody else below. What was done stays under {member.name}.
          </span>
          {refusal?.at('lastDay') && <FieldError message={refusal.at('lastDay') ?? ''} />}
        </div>
        {total === 0 && (
          <Empty title={`${member.name} holds nothing.`}>No open task, schedule or template names {member.name}.</Empty>
        )}
        {GROUPS.map(
          ({ kind, to: receiver, one, many }) =>
            held.counts[kind] > 0 && (
              <Band
                key={kind}
                name={held.counts[kind] === 1 ? one : many}
                count={held.counts[kind]}
                asides={kind === 'tasks' && held.counts.underWay > 0 ? [`${held.counts.underWay} under way`] : []}
              >
                <div className="border-b border-line py-1 pr-5 text-row leading-7 max-[720px]:pl-4">
                  {held.counts[kind] === 1 ? 'goes' : 'go'} to{' '}
                  <PersonBlank
                    label={`Who takes over the ${many}`}
                    personId={to[receiver]}
                    onChange={(id) => setTo({ ...to, [receiver]: id })}
                  />
                  {kind === 'signOffs' && to.signOffsTo === null && (
                    <span className="text-ink-2">: then a manager signs them</span>
                  )}
                  {refusal?.at(receiver) && <FieldError message={refusal.at(receiver) ?? ''} />}
                </div>
                <Lines held={held} kind={kind} />
              </Band>
            ),
        )}
      </div>
    </div>
  );
}

/** "Nadia Orme leaves on Fri 18 Dec: 71 open tasks and 13 schedules go to Kit Sorrell; 1 template by default goes to nobody yet". */
function sayHandOver(
  { name }: Member,
  { counts }: Held,
  to: Choice,
  nameOf: (id: string | null) => string,
  lastDay: string | null,
): string {
  const receivers = groupBy(
    GROUPS.filter(({ kind }) => counts[kind] > 0),
    ({ to: receiver }) => nameOf(to[receiver]),
  );
  const parts = [...receivers].map(([receiver, groups]) => {
    const all = groups.reduce((sum, { kind }) => sum + counts[kind], 0);
    const what = joinAnd(groups.map(({ kind, one, many }) => plural(counts[kind], one, many)));
    return `${what} ${all === 1 ? 'goes' : 'go'} to ${receiver}`;
  });
  const leaves = lastDay === null ? '' : `${name} leaves on ${lastDay}`;
  return [leaves, parts.join('; ')].filter(Boolean).join(': ');
}

/** Whom all of it goes to, where that is one. */
function sameFor({ tasksTo, schedulesTo, templatesTo, signOffsTo }: Choice): string | null {
  return [schedulesTo, templatesTo, signOffsTo].every((one) => one === tasksTo) ? tasksTo : null;
}

const PLACES = {
  tasks: '/schedules/task/',
  schedules: '/schedules/',
  templates: '/templates/',
  signOffs: '/templates/',
};

function Lines({ held, kind }: { readonly held: Held; readonly kind: keyof typeof PLACES }) {
  const today = useToday();
  const lines = held[kind].map((one) => ({
    id: one.id,
    name: 'title' in one ? one.title : one.name,
    about: 'about' in one ? one.about : null,
    on: 'on' in one ? sayDay(dayOfIso(one.on), today) : '',
  }));
  const more = held.counts[kind] - lines.length;
  return (
    <ul>
      {lines.map(({ id, name, about, on }) => (
        <li
          key={id}
          className="flex min-h-[31px] items-center gap-3 border-b border-line pr-5 text-row last:border-b-0 max-[720px]:pl-4"
        >
          <Link className="truncate underline decoration-line-2 underline-offset-4" to={`${PLACES[kind]}${id}`}>
            {name}
          </Link>
          <span className="truncate text-ink-2">{about}</span>
          <span className="ml-auto whitespace-nowrap text-ink-2">{on}</span>
        </li>
      ))}
      {more > 0 && <li className="py-1.5 text-note text-ink-2 max-[720px]:pl-4">and {more} more</li>}
    </ul>
  );
}
