import { Link } from 'react-router';
import type { Summary } from '../../../contract/index.ts';
import { dayOfIso, SUMMARY_WORDS, type SummaryDays, type SummaryWish, summaryBandsFor } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, Part, TimeBlank } from '../../kit/blanks.tsx';
import { Skeleton, Trouble } from '../../kit/states.tsx';
import { useTrying } from '../../kit/use-trying.ts';
import { sayShortDay, timeOf } from '../../kit/ways.ts';
import { useMessageActions, useMyMessages } from './api.ts';
import { DevicesPart } from './devices-part.tsx';
import { HearsTable } from './hears-table.tsx';
import { QuietPart } from './quiet-part.tsx';

const DAYS: readonly (readonly [SummaryDays, string])[] = [
  ['working', 'on my working days'],
  ['every', 'every day'],
  ['none', 'on no day'],
];

/** What reaches somebody, where and when; beside it what the day's summary says as of now. */
export default function MessagesPage() {
  const { me, may } = useWorkspace();
  const { data, error, mutate } = useMyMessages();
  const { wish: save, hear, beQuiet, sendNow } = useMessageActions();
  const { busy, trying } = useTrying();
  const set = (wish: SummaryWish) =>
    void trying(() =>
      save(
        wish,
        wish.days === 'none'
          ? 'No summary comes any more.'
          : `The summary comes at ${wish.at} ${wish.days === 'every' ? 'every day' : 'on your working days'}.`,
      ),
    );
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Messages · Jolly Rota</title>
      <div className="page-head">
        <h1>Messages</h1>
        <span className="text-row text-ink-2">
          {me.name}
          {data && ` · figures from ${sayShortDay(dayOfIso(data.countedFrom))} to today`}
        </span>
        <span className="ml-auto text-row text-ink-2 max-[720px]:hidden">Each choice is kept as you make it.</span>
        {may('post') && (
          <Link className="btn max-[720px]:ml-auto" to="/post">
            Post tray
          </Link>
        )}
      </div>
      {error && !data && <Trouble error={error} retry={() => void mutate()} />}
      {!data && !error && <Skeleton rows={10} />}
      {data && (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(0,448px)] border-t border-line-2 max-[1000px]:block max-[1000px]:overflow-y-auto">
          <div className="min-h-0 overflow-y-auto text-row leading-8">
            <div className="leading-5">
              <HearsTable
                hears={data.hears}
                answers={may('plan')}
                onChoose={(of, wish) => void trying(() => hear(of, wish))}
              />
            </div>
            <Part name="Summary">
              a mail at{' '}
              <TimeBlank
                label="When the summary comes"
                value={data.wish.at}
                placeholder="07:30"
                when="left"
                onChange={(at) => set({ ...data.wish, at: at ?? data.wish.at })}
              />{' '}
              <ChoiceBlank
                label="On which days the summary comes"
                value={data.wish.days}
                options={DAYS}
                onChange={(days) => set({ ...data.wish, days })}
              />
              {data.wish.days !== 'none' && (
                <>
                  ,{' '}
                  <ChoiceBlank
                    label="Where there is nothing to say"
                    value={data.wish.evenIfEmpty ? 'also' : 'none'}
                    options={[
                      ['none', 'none if there is nothing to say'],
                      ['also', 'also if there is nothing to say'],
                    ]}
                    onChange={(value) => set({ ...data.wish, evenIfEmpty: value === 'also' })}
                  />
                </>
              )}
              {data.wish.days !== 'none' && <SummaryBands wish={data.wish} onChange={set} />}
              <span className="block text-ink-2">
                {data.email === null
                  ? 'No address of yours is known here: a manager can enter one.'
                  : `It goes to ${data.email}. `}
                {data.email !== null && (
                  <Link className="link-line" to="/account">
                    Another address
                  </Link>
                )}
              </span>
            </Part>
            <DevicesPart />
            <QuietPart
              quiet={data.quiet}
              mailHours={data.mailHours}
              onChange={(quiet) => void trying(() => beQuiet(quiet))}
            />
          </div>
          <div className="flex min-h-0 flex-col border-l border-line-2 bg-base-200 max-[1000px]:border-t max-[1000px]:border-l-0">
            <header className="flex flex-none flex-wrap items-baseline gap-3 px-5 py-3">
              <h2 className="font-head text-[20px] leading-6 font-[650]">
                The summary as of {timeOf(data.summary.at)}
              </h2>
              <button
                type="button"
                className="btn ml-auto"
                disabled={busy || data.email === null}
                onClick={() => void trying(sendNow)}
              >
                Send it to me now
              </button>
            </header>
            <div className="min-h-0 flex-1 overflow-y-auto px-5 pb-6">
              <SummaryPaper
                summary={data.summary}
                email={data.email}
                isWhole={(data.wish.leavesOut ?? []).length === 0}
              />
            </div>
          </div>
        </div>
      )}
    </div>
  );
}

/** What the summary tells of: all there is to tell somebody, but for what they leave out. */
function SummaryBands({
  wish,
  onChange,
}: {
  readonly wish: SummaryWish;
  readonly onChange: (wish: SummaryWish) => void;
}) {
  const { me } = useWorkspace();
  const { leavesOut = [] } = wish;
  return (
    <span className="flex flex-wrap items-center gap-x-3.5">
      it tells of
      {summaryBandsFor(me.access).map((band) => (
        <label key={band} className="inline-flex items-center gap-1.5">
          <input
            type="checkbox"
            className="check"
            aria-label={`The summary tells of what is ${SUMMARY_WORDS[band]}`}
            checked={!leavesOut.includes(band)}
            onChange={({ target }) =>
              onChange({
                ...wish,
                leavesOut: target.checked ? leavesOut.filter((one) => one !== band) : [...leavesOut, band],
              })
            }
          />
          {SUMMARY_WORDS[band]}
        </label>
      ))}
    </span>
  );
}

/** The summary as the mail has it. */
function SummaryPaper({
  summary,
  email,
  isWhole,
}: {
  readonly summary: Summary;
  readonly email: string | null;
  readonly isWhole: boolean;
}) {
  return (
    <article className="border border-line-2 bg-base-100 px-4 py-3 text-row" aria-label="What the summary says">
      <h3 className="text-[17px] leading-6 font-semibold">{summary.subject}</h3>
      {email && <p className="border-b border-line-2 pb-2 text-note text-ink-2">to {email}</p>}
      {summary.bands.length === 0 && (
        <p className="py-3">
          {isWhole ? 'Nothing is late, and nothing is due today.' : 'There is nothing of what you chose to be told of.'}
        </p>
      )}
      {summary.bands.map(({ band, count, about, path, lines }) => (
        <section
          key={band}
          className="grid grid-cols-[84px_minmax(0,1fr)] gap-x-3 border-b border-line py-2 last:border-b-0"
          aria-label={`${count} ${SUMMARY_WORDS[band]}`}
        >
          <h4 className={`text-note leading-4 font-semibold ${band === 'late' ? 'text-late' : ''}`}>
            <b className="block font-head text-[21px] leading-6">{count.toLocaleString('en-GB')}</b>
            {SUMMARY_WORDS[band]}
          </h4>
          <ul className="min-w-0">
            {lines.map((line) => (
              <li key={line.path} className="flex items-baseline gap-3 leading-6">
                <span className="min-w-0 flex-1 truncate">
                  {line.text} <span className="text-ink-2">{line.about}</span>
                </span>
                <Link
                  className="link-line leading-4.5 max-[720px]:py-1"
                  to={line.path}
                  aria-label={`${line.verb} ${line.text}`}
                >
                  {line.verb}
                </Link>
              </li>
            ))}
            <li className="flex items-baseline gap-3 leading-6 text-ink-2">
              <span className="min-w-0 flex-1">
                {[count > lines.length && lines.length > 0 ? `and ${count - lines.length} more` : '', about]
                  .filter(Boolean)
                  .join(', ')}
              </span>
              <Link
                className="link-line leading-4.5 max-[720px]:py-1"
                to={path}
                aria-label={`All that is ${SUMMARY_WORDS[band]}`}
              >
                Look
              </Link>
            </li>
          </ul>
        </section>
      ))}
    </article>
  );
}
