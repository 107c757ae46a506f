import { Link, useNavigate } from 'react-router';
import { scheduleAddresses } from '../../../contract/addresses.ts';
import type { ScheduleLine, Template, TemplateInput } from '../../../contract/index.ts';
import { dayOfIso, plural, sayHours, setMinutes } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import type { Answer } from '../../kit/api.ts';
import { DateBlock } from '../../kit/date-block.tsx';
import { Figure } from '../../kit/figure.tsx';
import { Skeleton } from '../../kit/states.tsx';

/** The schedules of a template, their next dates, whom they serve and how much it is a year. */
export function TemplateUse({ template, draft }: { readonly template: Template; readonly draft: TemplateInput }) {
  const query = { templateId: template.id };
  const { data } = useAnswer(scheduleAddresses.list, { query });
  const figures = useAnswer(scheduleAddresses.figures, { query }).data;
  if (!data || !figures) return <Skeleton rows={5} />;
  return (
    <section className="mt-4 border-t border-line-2 pt-2.5">
      <h2 className="text-body leading-5.5 text-primary">What uses it</h2>
      {figures.schedules === 0 ? (
        <NoSchedules template={template} />
      ) : (
        <Uses
          lines={data.lines}
          figures={figures}
          minutes={figures.timesAYear * setMinutes(draft)}
          name={template.name}
        />
      )}
    </section>
  );
}

function NoSchedules({ template }: { readonly template: Template }) {
  const { may } = useWorkspace();
  return (
    <>
      <p className="mt-1 text-row text-ink-2">No schedule yet: it is started by hand, or a schedule says when.</p>
      {may('plan') && (
        <Link className="btn mt-3" to={`/schedules/new?template=${template.id}`}>
          Set the first schedule
        </Link>
      )}
    </>
  );
}

interface UsesProps {
  /** The first of them, by next date. */
  readonly lines: readonly ScheduleLine[];
  readonly figures: Answer<typeof scheduleAddresses.figures>;
  readonly minutes: number;
  /** The template's. */
  readonly name: string;
}

function Uses({ lines, figures, minutes, name }: UsesProps) {
  const navigate = useNavigate();
  const shown: [string | number, string][] = [
    [figures.schedules, figures.schedules === 1 ? 'schedule' : 'schedules'],
    [figures.people, figures.people === 1 ? 'person' : 'people'],
    [figures.timesAYear, figures.timesAYear === 1 ? 'time a year' : 'times a year'],
    [`${sayHours(minutes)} h`, 'a year'],
  ];
  if (figures.clients > 0) shown.splice(1, 0, [figures.clients, figures.clients === 1 ? 'client' : 'clients']);
  return (
    <>
      <div className="mb-2 mt-1 flex flex-wrap gap-5">
        {shown.map(([figure, words]) => (
          <Figure key={words} words={words} className="first:border-0 first:pl-0">
            {figure}
          </Figure>
        ))}
      </div>
      <table className="tt [&_td]:h-[29px] [&_tr>:first-child]:pl-0">
        <caption className="sr-only">{plural(lines.length, 'schedule')}, by next date</caption>
        <colgroup>
          <col style={{ width: 138 }} />
          <col />
          <col style={{ width: '44%' }} />
        </colgroup>
        <tbody>
          {lines.map((schedule) => (
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
                  {schedule.asset?.name ?? schedule.client?.name ?? schedule.who}
                </Link>
              </td>
              <td className="text-ink-2" title={schedule.phrase}>
                {schedule.phrase}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {figures.schedules > lines.length && (
        <p className="mt-1.5 text-row text-ink-2">
          These are the next {lines.length}.{' '}
          <Link className="link-line text-ink" to={`/schedules?find=${encodeURIComponent(name)}`}>
            All of them in the table
          </Link>
        </p>
      )}
    </>
  );
}
