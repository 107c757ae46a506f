import { Link, useNavigate } from 'react-router';
import { type Schedule, scheduleEndpoints, type Template, type TemplateInput } from '../../../contract/index.ts';
import { dayOfIso, plural, sayHours, setMinutes } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { DateBlock } from '../../kit/date-block.tsx';
import { Skeleton } from '../../kit/states.tsx';

/** The schedules of a template, their next dates, whom they serve and how much it is a year. */
export function TemplateUse({ template, draft }: { readonly template: Template; readonly draft: TemplateInput }) {
  const { data } = useAnswer(scheduleEndpoints.list, { query: { templateId: template.id } });
  if (!data) return <Skeleton rows={5} />;
  const schedules = [...data.schedules].sort((a, b) => (a.next ?? '9999').localeCompare(b.next ?? '9999'));
  const times = schedules.reduce((sum, schedule) => sum + (schedule.state === 'running' ? schedule.timesAYear : 0), 0);
  const clients = new Set(schedules.flatMap(({ client }) => (client ? [client.id] : []))).size;
  const people = new Set(schedules.flatMap(({ assignee }) => (assignee ? [assignee.id] : []))).size;
  return (
    <section className="mt-4 border-t border-line-2 pt-2.5">
      <h2 className="text-[15px] leading-[22px] text-primary">What uses it</h2>
      {schedules.length === 0 ? (
        <NoSchedules template={template} />
      ) : (
        <Uses schedules={schedules} figures={{ times, clients, people, minutes: times * setMinutes(draft) }} />
      )}
    </section>
  );
}

function NoSchedules({ template }: { readonly template: Template }) {
  const { me } = useWorkspace();
  return (
    <>
      <p className="mt-1 text-[14px] text-ink-2">No schedule yet: it is started by hand, or a schedule says when.</p>
      {me.isManager && (
        <Link className="btn mt-3" to={`/schedules/new?template=${template.id}`}>
          Set the first schedule
        </Link>
      )}
    </>
  );
}

interface UsesProps {
  readonly schedules: readonly Schedule[];
  readonly figures: {
    readonly times: number;
    readonly clients: number;
    readonly people: number;
    readonly minutes: number;
  };
}

function Uses({ schedules, figures }: UsesProps) {
  const navigate = useNavigate();
  const shown: [string | number, string][] = [
    [schedules.length, schedules.length === 1 ? 'schedule' : 'schedules'],
    [figures.people, figures.people === 1 ? 'person' : 'people'],
    [figures.times, figures.times === 1 ? 'time a year' : 'times a year'],
    [`${sayHours(figures.minutes)} h`, 'a year'],
  ];
  if (figures.clients > 0) shown.splice(1, 0, [figures.clients, figures.clients === 1 ? 'client' : 'clients']);
  return (
    <>
      <div className="mb-2 mt-1 flex flex-wrap gap-5">
        {shown.map(([figure, words]) => (
          <div key={words} className="figure first:border-0 first:pl-0">
            <b>{figure}</b>
            <span>{words}</span>
          </div>
        ))}
      </div>
      <table className="tt [&_td]:!h-[29px] [&_tr>:first-child]:!pl-0">
        <caption className="sr-only">{plural(schedules.length, 'schedule')}, by next date</caption>
        <colgroup>
          <col style={{ width: 138 }} />
          <col />
          <col style={{ width: '44%' }} />
        </colgroup>
        <tbody>
          {schedules.map((schedule) => (
            // The link is what the keyboard uses; the row is only a larger target.
            <tr key={schedule.id} onClick={() => void navigate(`/schedules/${schedule.id}`)}>
              <td>
                {schedule.next ? (
                  <DateBlock day={dayOfIso(schedule.next)} />
                ) : (
                  <span className="text-ink-2">{schedule.state}</span>
                )}
              </td>
              <td>
                <Link
                  to={`/schedules/${schedule.id}`}
                  className="font-semibold"
                  onClick={(event) => event.stopPropagation()}
                >
                  {schedule.asset?.name ?? schedule.client?.name ?? schedule.assignee?.name ?? 'nobody yet'}
                </Link>
              </td>
              <td className="text-ink-2" title={schedule.phrase}>
                {schedule.phrase}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
