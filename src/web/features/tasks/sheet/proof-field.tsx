import { useId } from 'react';
import type { Task } from '../../../../contract/index.ts';
import {
  type AnswerValue,
  answerProblem,
  type Demand,
  dayOfIso,
  isoOfDay,
  type NumberDemand,
  outsideBy,
  readDate,
  sayAnswer,
  sayDemand,
  sayLimits,
  sayOutside,
} from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { readFigure } from '../../../kit/read-figure.ts';
import { sayDate } from '../../../kit/ways.ts';
import { FileDrop } from '../../files/file-drop.tsx';
import { FileMark } from '../../files/file-line.tsx';
import { addressOfFile } from '../../files/upload.ts';
import { useWaitingFiles } from '../../files/waiting-files.tsx';
import type { Unsent } from '../../unsent/outbox.ts';
import { UnsentMark } from '../../unsent/unsent-mark.tsx';
import { useTaskActions } from '../api.ts';
import { LimitsBar } from './limits-bar.tsx';
import { TagChoice } from './tag-choice.tsx';
import { TagReader } from './tag-reader.tsx';
import { useAnswering } from './use-answering.ts';

interface ProofFieldProps {
  readonly task: Task;
  /** The same with what is not sent yet. */
  readonly here: Task;
  readonly demand: Demand;
  /** What it is called where it has no name of its own: the check line above it. */
  readonly name: string;
  /** Nothing can be answered any more, or not by this person. */
  readonly isFixed: boolean;
}

/** What a task asks for: a field while it can be answered, the answer afterwards. */
export function ProofField(props: ProofFieldProps) {
  const { task, demand, isFixed } = props;
  if (isFixed && demand.kind !== 'file' && demand.kind !== 'note') return <FixedAnswer {...props} />;
  switch (demand.kind) {
    case 'file':
      return <FileProof {...props} />;
    case 'note':
      return <NoteProof {...props} />;
    case 'number':
      return <NumberProof {...props} demand={demand} />;
    case 'yesNo':
      return (
        <Buttons
          {...props}
          options={[
            [false, 'No'],
            [true, 'Yes'],
          ]}
        />
      );
    case 'choice':
      return <Buttons {...props} options={demand.options.map((option) => [option, option])} />;
    case 'choices':
      return <SeveralProof {...props} options={demand.options} />;
    case 'date':
      return <DateProof {...props} />;
    case 'tag':
      return <TextProof {...props} type="text" hint={tagHint(task)} />;
    case 'text':
      return <TextProof {...props} type="text" />;
    case 'longText':
      return <TextProof {...props} type="long" />;
  }
}

function tagHint({ asset }: Task): string {
  return asset ? `what stands on the tag of ${asset.name}` : 'what stands on the tag';
}

function Label({ demand, id }: { readonly demand: Demand; readonly id?: string }) {
  const words = 'block text-note leading-4.5 text-ink-2';
  if (demand.label === '') return null;
  return id ? (
    <label className={words} htmlFor={id}>
      {demand.label}
    </label>
  ) : (
    <span className={words}>{demand.label}</span>
  );
}

/** What can't be answered any more: as it stands, and what was written and did not get there. */
function FixedAnswer({ task, here, demand, name }: ProofFieldProps) {
  const { unsent, draft } = useAnswering(task, demand, name);
  return (
    <>
      <GivenAnswer task={here} demand={demand} />
      {unsent?.state === 'waiting' && <UnsentMark unsent={unsent} />}
      {unsent?.state === 'refused' && draft && (
        <p className="mt-1 border-l-2 border-accent pl-2.5 text-row">
          {draft.text || (draft.value === null ? 'taken back' : sayAnswer(demand, draft.value))} {draft.remark}
          <UnsentMark unsent={unsent} />
        </p>
      )}
    </>
  );
}

/** The answer as it stays on record; one outside its limits stands out. */
export function GivenAnswer({ task, demand }: Pick<ProofFieldProps, 'task' | 'demand'>) {
  const answer = task.answers[demand.key];
  if (!answer)
    return <p className="text-note leading-4.5 text-ink-2">{demand.label || sayDemand(demand)}: not answered</p>;
  const outside = demand.kind === 'number' && typeof answer.value === 'number' ? sayOutside(demand, answer.value) : '';
  return (
    <div className="text-row leading-4.75">
      {demand.label !== '' && <span className="text-ink-2">{demand.label}: </span>}
      <b className={outside ? 'border-b-[3px] border-late-fill font-semibold' : 'font-semibold'}>
        {sayAnswer(demand, answer.value)}
      </b>
      {outside && <span className="ml-2 font-semibold text-late">{outside}</span>}
      {answer.remark && <p className="mt-0.5 border-l-2 border-line-2 pl-2.5">{answer.remark}</p>}
    </div>
  );
}

/** Sent while typing pauses, and at once when the field is left. */
const TYPING_PAUSE_MS = 1200;
/** A tag is right or wrong as a whole: half of it is not sent while it is looked for. */
const TAG_PAUSE_MS = 5000;

/** A figure; outside its limits it asks for a remark. */
function NumberProof({ task, demand, name }: ProofFieldProps & { readonly demand: NumberDemand }) {
  const { unsent, draft, given, put, send } = useAnswering(task, demand, name);
  const id = useId();
  const text = draft?.text ?? (typeof given?.value === 'number' ? String(given.value) : '');
  const remark = draft?.remark ?? given?.remark ?? '';
  const value = readFigure(text);
  const isUnread = text.trim() !== '' && value === null;
  const isOut = value !== null && outsideBy(demand, value) !== 0;
  const type = (next: string, nextRemark: string) => {
    const figure = readFigure(next);
    const isOutside = figure !== null && outsideBy(demand, figure) !== 0;
    put(
      next,
      figure,
      isOutside ? nextRemark : '',
      figure === null && (next.trim() !== '' || !given) ? null : TYPING_PAUSE_MS,
    );
  };
  return (
    <div>
      <Label demand={demand} id={id} />
      <div className="flex items-baseline gap-1.5">
        <input
          id={id}
          className="h-9 w-24 rounded-t-[4px] border-0 border-b-2 border-primary bg-field px-2.5 text-right font-head text-[18px] font-semibold max-[720px]:h-11 max-[720px]:w-28"
          inputMode="decimal"
          autoComplete="off"
          aria-label={demand.label === '' ? name : undefined}
          aria-invalid={isUnread}
          aria-describedby={`${id}-limits`}
          value={text}
          // A figure that stands there is another reading: what is typed takes its place.
          onFocus={({ target }) => target.select()}
          onChange={({ target }) => type(target.value, remark)}
          onBlur={send}
          onKeyDown={(event) => {
            if (event.key === 'Enter') send();
          }}
        />
        <span>{demand.unit}</span>
        <span id={`${id}-limits`} className="ml-2 text-note text-ink-2">
          {isUnread
            ? 'not sent: write a figure, like 0.41'
            : sayLimits({ ...demand, unit: '' }) && `allowed ${sayLimits({ ...demand, unit: '' })}`}
        </span>
      </div>
      {isOut && (
        <>
          <LimitsBar demand={demand} value={value} />
          <p className="text-row leading-4.75">
            <b>{sayOutside(demand, value)}.</b> Say what you saw or did.
          </p>
          <textarea
            className="writing mt-1"
            style={{ fieldSizing: 'content', minHeight: 44 } as React.CSSProperties}
            aria-label={`Remark on ${demand.label || name}`}
            maxLength={1000}
            value={remark}
            onChange={({ target }) => put(text, value, target.value, TYPING_PAUSE_MS)}
            onBlur={send}
          />
        </>
      )}
      <Mark unsent={unsent} onTry={() => put(text, value, remark, 0)} />
    </div>
  );
}

/** Only what takes longer than a moment is told. */
function Mark({ unsent, onTry }: { readonly unsent: Unsent | null; readonly onTry: () => void }) {
  return unsent?.said ? <UnsentMark unsent={unsent} onTry={onTry} /> : null;
}

function Buttons(props: ProofFieldProps & { readonly options: readonly (readonly [AnswerValue, string])[] }) {
  const { task, demand, name, options } = props;
  const { unsent, value, put } = useAnswering(task, demand, name);
  return (
    <fieldset>
      <legend className={demand.label === '' ? 'sr-only' : 'text-note leading-4.5 text-ink-2'}>
        {demand.label || name}
      </legend>
      <div className="flex flex-wrap gap-2">
        {options.map(([option, words]) => (
          <button
            key={words}
            type="button"
            className={`btn max-[720px]:h-11 max-[720px]:min-w-[66px] ${value === option ? 'btn-primary' : ''}`}
            aria-pressed={value === option}
            onClick={() => put('', value === option ? null : option, '', 0)}
          >
            {words}
          </button>
        ))}
      </div>
      <Mark unsent={unsent} onTry={() => put('', value, '', 0)} />
    </fieldset>
  );
}

function SeveralProof(props: ProofFieldProps & { readonly options: readonly string[] }) {
  const { task, demand, name, options } = props;
  const { unsent, value, put } = useAnswering(task, demand, name);
  const chosen = Array.isArray(value) ? value : [];
  return (
    <fieldset>
      <legend className={demand.label === '' ? 'sr-only' : 'text-note leading-4.5 text-ink-2'}>
        {demand.label || name}
      </legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {options.map((option) => (
          <label key={option} className="flex items-center gap-2 text-row max-[720px]:min-h-11 max-[720px]:text-touch">
            <input
              type="checkbox"
              className="check"
              checked={chosen.includes(option)}
              onChange={({ target }) => {
                const next = options.filter((one) => (one === option ? target.checked : chosen.includes(one)));
                put('', next.length === 0 ? null : next, '', 0);
              }}
            />
            {option}
          </label>
        ))}
      </div>
      <Mark unsent={unsent} onTry={() => put('', value, '', 0)} />
    </fieldset>
  );
}

/** A date in words, as everywhere else; what can't be read is kept as it was typed, and not sent. */
function DateProof({ task, demand, name }: ProofFieldProps) {
  const today = useToday();
  const { unsent, draft, given, put, send } = useAnswering(task, demand, name);
  const id = useId();
  const text = draft?.text ?? (typeof given?.value === 'string' ? sayDate(dayOfIso(given.value)) : '');
  const isUnread = text.trim() !== '' && readDate(text, today) === null;
  return (
    <div>
      <Label demand={demand} id={id} />
      <input
        id={id}
        className="writing h-9 w-44 max-[720px]:h-11"
        aria-label={demand.label === '' ? name : undefined}
        aria-invalid={isUnread}
        placeholder="24 Nov, or today"
        value={text}
        onChange={({ target }) => {
          const day = readDate(target.value, today);
          const isAnswer = day !== null || (target.value.trim() === '' && given !== undefined);
          put(target.value, day === null ? null : isoOfDay(day), '', isAnswer ? TYPING_PAUSE_MS : null);
        }}
        onBlur={send}
      />
      {isUnread && <span className="ml-2 text-note text-ink-2">not sent: write a date, like 24 Nov 2026</span>}
      <Mark unsent={unsent} onTry={send} />
    </div>
  );
}

function TextProof(props: ProofFieldProps & { readonly type: 'text' | 'long'; readonly hint?: string }) {
  const { task, demand, name, type, hint } = props;
  const { unsent, draft, given, put, send } = useAnswering(task, demand, name);
  const id = useId();
  const text = draft?.text ?? (typeof given?.value === 'string' ? given.value : '');
  const write = (next: string, after: number) =>
    put(next, next.trim() === '' ? null : next.trim(), '', next.trim() === '' && !given ? null : after);
  const common = {
    id,
    'aria-label': demand.label === '' ? name : undefined,
    value: text,
    placeholder: hint,
    maxLength: 2000,
    onBlur: send,
  };
  return (
    <div>
      <Label demand={demand} id={id} />
      {type === 'long' ? (
        <textarea
          {...common}
          className="writing"
          style={{ fieldSizing: 'content', minHeight: 62 } as React.CSSProperties}
          onChange={({ target }) => write(target.value, TYPING_PAUSE_MS)}
        />
      ) : (
        <input
          {...common}
          type="text"
          className={`writing h-9 max-[720px]:h-11 ${demand.kind === 'tag' ? 'font-mono' : ''}`}
          onChange={({ target }) => write(target.value, demand.kind === 'tag' ? TAG_PAUSE_MS : TYPING_PAUSE_MS)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') send();
          }}
        />
      )}
      {demand.kind === 'tag' && (
        <div className="mt-1.5 flex flex-wrap gap-2">
          <TagReader label={`Picture of the tag for ${demand.label || name}`} onRead={(tag) => write(tag, 0)} />
          <TagChoice onChoose={(tag) => write(tag, 0)} />
        </div>
      )}
      {demand.kind === 'tag' && unsent?.state === 'waiting' && unsent.said !== null && (
        <WrongTag task={task} demand={demand} tag={text} />
      )}
      <Mark unsent={unsent} onTry={() => write(text, 0)} />
    </div>
  );
}

/** Known without a connection too: that it is not the tag that stands on the asset. */
function WrongTag({ task, demand, tag }: Pick<ProofFieldProps, 'task' | 'demand'> & { readonly tag: string }) {
  if (task.asset === null || tag.trim() === '' || answerProblem(demand, tag.trim(), task.assetTag) === null)
    return null;
  return (
    <p role="alert" className="mt-1 text-note text-late">
      “{tag.trim()}” is not the tag of {task.asset.name}.
    </p>
  );
}

function FileProof({ task, demand, name, isFixed }: ProofFieldProps) {
  const { reload, removeFile } = useTaskActions();
  const files = task.files.filter((file) => file.demand === demand.key);
  const waiting = useWaitingFiles(task.id, demand.key);
  if (isFixed && files.length + waiting.length === 0)
    return <p className="text-note leading-4.5 text-ink-2">{demand.label || 'photo or file'}: none</p>;
  return (
    <div>
      <Label demand={demand} />
      <FileDrop
        words={files.length > 0 ? 'Add another' : 'Add a photo or file'}
        label={`Photo or file for ${demand.label || name}`}
        target={{ taskId: task.id, demand: demand.key }}
        disabled={isFixed}
        onUploaded={() => void reload(task.id)}
      >
        {files.map((file) => (
          <span key={file.id} className="inline-flex items-center gap-1">
            <FileMark file={file} large />
            {!file.isPicture && (
              <a className="link-line text-note" href={addressOfFile(file.id)} target="_blank" rel="noreferrer">
                {file.name}
              </a>
            )}
            {!isFixed && (
              <button
                type="button"
                className="cursor-pointer px-1 text-note text-ink-2 underline underline-offset-4"
                aria-label={`Take out ${file.name}`}
                onClick={() => void removeFile(task.id, file.id)}
              >
                out
              </button>
            )}
          </span>
        ))}
      </FileDrop>
    </div>
  );
}

function NoteProof({ task, demand }: ProofFieldProps) {
  const isThere = task.note.trim() !== '';
  return (
    <p className="text-row leading-4.75 text-ink-2">
      A note{demand.label ? `: ${demand.label}` : ''}
      {isThere ? ', written below.' : ', to be written below.'}
    </p>
  );
}
