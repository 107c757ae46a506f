import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import type { Earlier, Task } from '../../../../contract/index.ts';
import { dayOfIso, type NumberDemand, plural, sayNumber } from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { PennantString } from '../../../kit/pennant-string.tsx';
import { SECTION, SectionTitle } from '../../../kit/side-sheet.tsx';
import { sayDay, sayMonth } from '../../../kit/ways.ts';
import { FileLine } from '../../files/file-line.tsx';
import type { Reading } from './readings-chart.tsx';

const ReadingsChart = lazy(() => import('./readings-chart.tsx'));

interface SeriesPartProps {
  readonly task: Task;
  readonly address: (taskId: string) => string;
}

/** Notes that were pinned and files that are kept, from earlier ones: what stays true until somebody says otherwise. */
export function CarriedOn({ task, address }: SeriesPartProps) {
  const today = useToday();
  const pinned = task.series.earlier.filter(({ isPinned }) => isPinned);
  const kept = task.series.earlier.flatMap(({ files }) => files.filter(({ isKept }) => isKept));
  if (pinned.length + kept.length === 0) return null;
  return (
    <div className={SECTION}>
      <SectionTitle>Kept from earlier ones</SectionTitle>
      {pinned.map((one) => (
        <Said key={one.taskId} earlier={one} address={address} today={today} />
      ))}
      {kept.map((file) => (
        <FileLine key={file.id} file={file} />
      ))}
    </div>
  );
}

/** Those before this one: how they went, what was written, what was measured. */
export function SeriesPart({ task, address }: SeriesPartProps) {
  const today = useToday();
  const { series } = task;
  if (!task.schedule && series.count === 0) return null;
  const notes = series.earlier.filter(
    ({ note, isPinned, files }) => (note !== '' && !isPinned) || files.some(({ isKept }) => !isKept),
  );
  return (
    <div className={SECTION}>
      <SectionTitle
        aside={
          series.since
            ? `${plural(series.count, 'time')} since ${sayMonth(dayOfIso(series.since))}`
            : 'this is the first'
        }
      >
        Earlier ones
      </SectionTitle>
      {series.lastEight.length > 1 && (
        <div className="mt-1.5 flex items-end gap-3">
          <PennantString tasks={series.lastEight} to={address} />
          <span className="text-note leading-4 text-ink-2">up to this one</span>
        </div>
      )}
      <Readings task={task} />
      {notes.slice(0, NOTES_SHOWN).map((one) => (
        <Said key={one.taskId} earlier={one} address={address} today={today} />
      ))}
    </div>
  );
}

const NOTES_SHOWN = 5;
/** With fewer there is no line to draw. */
const LINE_FROM = 3;

function Readings({ task }: { readonly task: Task }) {
  const today = useToday();
  const demands = [
    ...task.steps.flatMap((step) => step.demands.map((demand) => ({ demand, name: demand.label || step.text }))),
    ...task.demands.map((demand) => ({ demand, name: demand.label })),
  ];
  const measured = demands.flatMap(({ demand, name }) => {
    if (demand.kind !== 'number') return [];
    const readings: Reading[] = task.series.earlier
      .flatMap(({ on, readings: all }) =>
        all[demand.key] === undefined ? [] : [{ on, value: all[demand.key] as number }],
      )
      .reverse();
    const now = task.answers[demand.key]?.value;
    if (typeof now === 'number') readings.push({ on: task.on, value: now });
    return readings.length === 0 ? [] : [{ demand: demand as NumberDemand, name, readings }];
  });
  return measured.map(({ demand, name, readings }) => {
    const last = readings.at(-1) as Reading;
    return (
      <figure key={demand.key} className="mt-2.5">
        <figcaption className="text-note leading-4 text-ink-2">
          <span className="text-ink">{name}</span>, last {sayNumber(last.value)}
          {demand.unit ? ` ${demand.unit}` : ''}, {sayDay(dayOfIso(last.on), today)}
        </figcaption>
        {readings.length >= LINE_FROM && (
          <Suspense fallback={<div className="h-24" />}>
            <ReadingsChart demand={demand} readings={readings} />
          </Suspense>
        )}
      </figure>
    );
  });
}

function Said({
  earlier,
  address,
  today,
}: {
  readonly earlier: Earlier;
  readonly address: (taskId: string) => string;
  readonly today: number;
}) {
  const pictures = earlier.files.filter(({ isPicture, isKept }) => isPicture && !isKept);
  return (
    <div className="mt-2 border-l-2 border-line-2 pl-2.5 text-row leading-4.75">
      <p>
        {earlier.by ? `${earlier.by}, ` : ''}
        <Link className="link-line" to={address(earlier.taskId)}>
          {sayDay(dayOfIso(earlier.on), today)}
        </Link>
        {earlier.note ? `: “${earlier.note}”` : ''}
      </p>
      {pictures.length > 0 && (
        <p className="mt-1 flex flex-wrap gap-1.5">
          {pictures.map((file) => (
            <a
              key={file.id}
              href={`/api/files/${file.id}`}
              target="_blank"
              rel="noreferrer"
              aria-label={`Open ${file.name}`}
            >
              <img
                className="h-9 w-12 rounded-[3px] border border-line object-cover"
                src={`/api/files/${file.id}/small`}
                alt={file.name}
                loading="lazy"
              />
            </a>
          ))}
        </p>
      )}
    </div>
  );
}
