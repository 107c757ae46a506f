import { useEffect, useId, useRef, useState } from 'react';
import type { Task } from '../../contract/index.ts';
import {
  type AnswerValue,
  type Demand,
  type NumberDemand,
  outsideBy,
  sayAnswer,
  sayDemand,
  sayLimits,
  sayOutside,
} from '../../core/index.ts';
import { FileDrop } from '../files/file-drop.tsx';
import { FileMark } from '../files/file-line.tsx';
import { addressOfFile } from '../files/upload.ts';
import { useTaskActions } from './api.ts';
import { LimitsBar } from './limits-bar.tsx';

interface ProofFieldProps {
  readonly task: Task;
  readonly demand: Demand;
  /** What it is called where it has no name of its own: the check line above it. */
  readonly name: string;
  /** Nothing can be answered any more, or not by this person. */
  readonly isFixed: boolean;
}

/** What a task asks for: a field while it can be answered, the answer afterwards. */
export function ProofField(props: ProofFieldProps) {
  const { task, demand, isFixed } = props;
  if (demand.kind === 'file') return <FileProof {...props} />;
  if (demand.kind === 'note') return <NoteProof {...props} />;
  if (isFixed) return <GivenAnswer {...props} />;
  switch (demand.kind) {
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
      return <TextProof {...props} type="date" />;
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
  const words = 'block text-[13px] leading-[18px] text-ink-2';
  if (demand.label === '') return null;
  return id ? (
    <label className={words} htmlFor={id}>
      {demand.label}
    </label>
  ) : (
    <span className={words}>{demand.label}</span>
  );
}

/** The answer as it stays on record; one outside its limits stands out. */
export function GivenAnswer({ task, demand }: Pick<ProofFieldProps, 'task' | 'demand'>) {
  const answer = task.answers[demand.key];
  if (!answer)
    return <p className="text-[13px] leading-[18px] text-ink-2">{demand.label || sayDemand(demand)}: not answered</p>;
  const outside = demand.kind === 'number' && typeof answer.value === 'number' ? sayOutside(demand, answer.value) : '';
  return (
    <div className="text-[14px] leading-[19px]">
      {demand.label !== '' && <span className="text-ink-2">{demand.label}: </span>}
      <b className={outside ? 'border-b-[3px] border-late-fill font-semibold' : 'font-semibold'}>
        {sayAnswer(demand, answer.value)}
      </b>
      {outside && <span className="ml-2 font-semibold text-late">{outside}</span>}
      {answer.remark && <p className="mt-0.5 border-l-2 border-line-2 pl-2.5">{answer.remark}</p>}
    </div>
  );
}

/** A figure that is taken when the field is left; outside its limits it asks for a remark. */
function NumberProof({ task, demand, name }: ProofFieldProps & { readonly demand: NumberDemand }) {
  const { answer: save } = useTaskActions();
  const given = task.answers[demand.key];
  const id = useId();
  const [text, setText] = useState(typeof given?.value === 'number' ? String(given.value) : '');
  const [remark, setRemark] = useState(given?.remark ?? '');
  const value = readFigure(text);
  const before = given?.value;
  // Another's answer comes in; one's own, as it was typed, stays.
  const latest = useRef(value);
  latest.current = value;
  useEffect(() => {
    if (typeof before === 'number' && before !== latest.current) setText(String(before));
  }, [before]);
  const isOut = value !== null && outsideBy(demand, value) !== 0;
  const keep = (nextRemark: string) => {
    if (value === null) {
      if (text.trim() === '' && given) void save(task, demand.key, null);
      return;
    }
    if (value === given?.value && nextRemark === given.remark) return;
    void save(task, demand.key, value, isOut ? nextRemark : '');
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
          aria-invalid={text.trim() !== '' && value === null}
          aria-describedby={`${id}-limits`}
          value={text}
          onChange={({ target }) => setText(target.value)}
          onBlur={() => keep(remark)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') keep(remark);
          }}
        />
        <span>{demand.unit}</span>
        <span id={`${id}-limits`} className="ml-2 text-[13px] text-ink-2">
          {text.trim() !== '' && value === null
            ? 'a figure, like 0.41'
            : sayLimits({ ...demand, unit: '' }) && `allowed ${sayLimits({ ...demand, unit: '' })}`}
        </span>
      </div>
      {isOut && (
        <>
          <LimitsBar demand={demand} value={value} />
          <p className="text-[14px] leading-[19px]">
            <b>{sayOutside(demand, value)}.</b> Say what you saw or did.
          </p>
          <textarea
            className="writing mt-1"
            style={{ fieldSizing: 'content', minHeight: 44 } as React.CSSProperties}
            aria-label={`Remark on ${demand.label || name}`}
            maxLength={1000}
            value={remark}
            onChange={({ target }) => setRemark(target.value)}
            onBlur={() => keep(remark)}
          />
        </>
      )}
    </div>
  );
}

/** "0.41" or "0,41"; null for anything else. */
function readFigure(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  return /^-?\d{1,12}(\.\d{1,9})?$/.test(plain) ? Number(plain) : null;
}

function Buttons({
  task,
  demand,
  name,
  options,
}: ProofFieldProps & { readonly options: readonly (readonly [AnswerValue, string])[] }) {
  const { answer: save } = useTaskActions();
  const value = task.answers[demand.key]?.value;
  return (
    <fieldset>
      <legend className={demand.label === '' ? 'sr-only' : 'text-[13px] leading-[18px] text-ink-2'}>
        {demand.label || name}
      </legend>
      <div className="flex flex-wrap gap-2">
        {options.map(([option, words]) => (
          <button
            key={words}
            type="button"
            className={`btn max-[720px]:!h-11 max-[720px]:min-w-[66px] ${value === option ? 'btn-primary' : ''}`}
            aria-pressed={value === option}
            onClick={() => void save(task, demand.key, value === option ? null : option)}
          >
            {words}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

function SeveralProof({ task, demand, name, options }: ProofFieldProps & { readonly options: readonly string[] }) {
  const { answer: save } = useTaskActions();
  const given = task.answers[demand.key]?.value;
  const chosen = Array.isArray(given) ? given : [];
  return (
    <fieldset>
      <legend className={demand.label === '' ? 'sr-only' : 'text-[13px] leading-[18px] text-ink-2'}>
        {demand.label || name}
      </legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {options.map((option) => (
          <label
            key={option}
            className="flex items-center gap-2 text-[14px] max-[720px]:min-h-11 max-[720px]:text-[16px]"
          >
            <input
              type="checkbox"
              className="check"
              checked={chosen.includes(option)}
              onChange={({ target }) => {
                const next = options.filter((one) => (one === option ? target.checked : chosen.includes(one)));
                void save(task, demand.key, next.length === 0 ? null : next);
              }}
            />
            {option}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function TextProof({
  task,
  demand,
  name,
  type,
  hint,
}: ProofFieldProps & { readonly type: 'text' | 'long' | 'date'; readonly hint?: string }) {
  const { answer: save } = useTaskActions();
  const given = task.answers[demand.key]?.value;
  const before = typeof given === 'string' ? given : '';
  const id = useId();
  const [text, setText] = useState(before);
  useEffect(() => setText(before), [before]);
  const keep = async (next: string) => {
    if (next.trim() === before) return;
    const saved = await save(task, demand.key, next.trim() === '' ? null : next.trim());
    // What was refused stays in the field, to be put right.
    if (!saved) setText(next);
  };
  const common = {
    id,
    'aria-label': demand.label === '' ? name : undefined,
    value: text,
    placeholder: hint,
    onBlur: () => void keep(text),
  };
  return (
    <div>
      <Label demand={demand} id={id} />
      {type === 'long' ? (
        <textarea
          {...common}
          className="writing"
          style={{ fieldSizing: 'content', minHeight: 62 } as React.CSSProperties}
          maxLength={2000}
          onChange={({ target }) => setText(target.value)}
        />
      ) : (
        <input
          {...common}
          type={type}
          className={`writing h-9 max-[720px]:h-11 ${type === 'date' ? '!w-44' : ''} ${demand.kind === 'tag' ? 'font-mono' : ''}`}
          maxLength={type === 'date' ? undefined : 2000}
          onChange={({ target }) => setText(target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') void keep(text);
          }}
        />
      )}
    </div>
  );
}

function FileProof({ task, demand, name, isFixed }: ProofFieldProps) {
  const { reload, removeFile } = useTaskActions();
  const files = task.files.filter((file) => file.demand === demand.key);
  if (isFixed && files.length === 0)
    return <p className="text-[13px] leading-[18px] text-ink-2">{demand.label || 'photo or file'}: none</p>;
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
              <a className="link-line text-[13px]" href={addressOfFile(file.id)} target="_blank" rel="noreferrer">
                {file.name}
              </a>
            )}
            {!isFixed && (
              <button
                type="button"
                className="cursor-pointer px-1 text-[13px] text-ink-2 underline underline-offset-4"
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
    <p className="text-[14px] leading-[19px] text-ink-2">
      A note{demand.label ? `: ${demand.label}` : ''}
      {isThere ? ', written below.' : ', to be written below.'}
    </p>
  );
}
