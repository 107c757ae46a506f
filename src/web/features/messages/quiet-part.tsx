import {
  isoTimeOf,
  isQuietTime,
  KIND_WORDS,
  MESSAGE_KINDS,
  type MessageKind,
  plural,
  type QuietWish,
} from '../../../core/index.ts';
import { ChoiceBlank, Part, TimeBlank } from '../../kit/blanks.tsx';

interface QuietPartProps {
  readonly quiet: QuietWish;
  /** What was told by mail, by the hour in which it happened, of the last weeks. */
  readonly mailHours: readonly number[];
  readonly onChange: (quiet: QuietWish) => void;
}

/** When mails of single things wait, beside the hours at which there were any. */
export function QuietPart({ quiet, mailHours, onChange }: QuietPartProps) {
  const all = mailHours.reduce((sum, count) => sum + count, 0);
  const waited = mailHours.reduce((sum, count, hour) => sum + (isQuietTime(quiet, hour * 60) ? count : 0), 0);
  return (
    <Part name="Quiet hours">
      from{' '}
      <TimeBlank
        label="Quiet from"
        value={quiet.from}
        placeholder="18:00"
        when="left"
        onChange={(from) => onChange({ ...quiet, from: from ?? quiet.from })}
      />{' '}
      to{' '}
      <TimeBlank
        label="Quiet to"
        value={quiet.to}
        placeholder="07:00"
        when="left"
        onChange={(to) => onChange({ ...quiet, to: to ?? quiet.to })}
      />{' '}
      and{' '}
      <ChoiceBlank
        label="Quiet on days off"
        value={quiet.offDays ? 'off' : 'none'}
        options={[
          ['off', 'on days off and leave'],
          ['none', 'on no other day'],
        ]}
        onChange={(value) => onChange({ ...quiet, offDays: value === 'off' })}
      />
      , but{' '}
      <ChoiceBlank<MessageKind | 'nothing'>
        label="What comes through"
        value={quiet.through ?? 'nothing'}
        options={[
          ['nothing', 'nothing'],
          ...MESSAGE_KINDS.map((kind) => [kind, KIND_WORDS[kind].name.toLowerCase()] as const),
        ]}
        onChange={(value) => onChange({ ...quiet, through: value === 'nothing' ? null : value })}
      />{' '}
      comes through
      <Hours quiet={quiet} mailHours={mailHours} />
      <span className="text-ink-2">
        {all === 0
          ? 'Nothing was told by mail in these 4 weeks.'
          : `Of ${plural(all, 'thing')} told by mail in these 4 weeks ${waited === 0 ? 'none' : waited.toLocaleString('en-GB')} fell into these hours: what waits comes in one mail, at ${quiet.to}.`}
      </span>
    </Part>
  );
}

const HIGHEST = 44;

function Hours({ quiet, mailHours }: Pick<QuietPartProps, 'quiet' | 'mailHours'>) {
  const most = Math.max(1, ...mailHours);
  return (
    <div aria-hidden className="mt-2 mb-5 grid max-w-[560px] grid-cols-24 border-b border-line-2">
      {mailHours.map((count, hour) => {
        const isQuiet = isQuietTime(quiet, hour * 60);
        return (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: an hour is its place
            key={hour}
            className={`relative flex flex-col justify-end px-[2px] ${isQuiet ? 'bg-base-300' : ''}`}
            style={{ height: HIGHEST + 4 }}
          >
            {count > 0 && (
              <span
                className={isQuiet ? 'border border-b-0 border-primary bg-base-100' : 'bg-primary'}
                style={{ height: Math.max(3, (count / most) * HIGHEST) }}
              />
            )}
            {hour % 3 === 0 && (
              <span className="absolute top-full left-0 text-[11px] leading-4 text-ink-2">
                {isoTimeOf(hour * 60).slice(0, 2)}
              </span>
            )}
          </span>
        );
      })}
    </div>
  );
}
