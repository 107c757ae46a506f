import { Calendar, Check } from 'lucide-react';
import { type ReactNode, useId, useRef } from 'react';
import type { LinkedTask } from '../../../contract/index.ts';
import {
  type AnswerValue,
  type CivilDay,
  type Demand,
  dayOfIso,
  isoOfDay,
  type NumberDemand,
  outsideBy,
  readDate,
  sayAway,
  sayLimits,
  sayOutside,
} from '../../../core/index.ts';
import { NoteConflict } from '../../kit/note-conflict.tsx';
import { readFigure } from '../../kit/read-figure.ts';
import { sayDate, sayShortDay } from '../../kit/ways.ts';
import { type AskedItem, NOTE_FIELD, tickField } from './asked-items.ts';
import type { Kept, KeptWriting, Writing } from './kept-writing.ts';
import { FilesAsked } from './linked-files.tsx';

interface AskedFieldProps {
  readonly item: AskedItem;
  readonly task: LinkedTask;
  readonly here: Readonly<Record<string, Kept>>;
  readonly writing: KeptWriting;
  readonly today: CivilDay;
  readonly onTask: (task: LinkedTask) => void;
}

/** What is typed is sent a moment after the last key, and as soon as somebody goes on to something else. */
const PAUSE_MS = 1200;
const WRITTEN = 'w-full rounded-t-[4px] border-0 border-b-2 border-primary bg-field px-3 text-[17px]';

/** One thing that is asked, with the field that its answer takes. */
export function AskedField(props: AskedFieldProps) {
  const { item, here } = props;
  const { demand, line } = item;
  if (demand === null && line === null) return null;
  const field = demand === null ? tickField(line?.key ?? '') : demand.kind === 'note' ? NOTE_FIELD : demand.key;
  return (
    <div>
      {demand !== null ? <Field {...props} demand={demand} /> : line && <TickField {...props} lineKey={line.key} />}
      <Refused {...props} kept={here[field]} />
    </div>
  );
}

/** Why what stands in a field is not with the server; where another wrote the note meanwhile, both of it. */
export function Refused({
  task,
  writing,
  kept,
}: Pick<AskedFieldProps, 'task' | 'writing'> & { readonly kept: Kept | undefined }) {
  if (kept?.state === 'meanwhile')
    return (
      <NoteConflict
        theirs={task.note}
        mine={kept.text}
        onChoose={(text) => writing.put(NOTE_FIELD, { text, value: true, remark: '', was: task.note }, 0)}
        onTheirs={() => writing.forget(NOTE_FIELD)}
      />
    );
  return kept?.state === 'refused' ? (
    <p role="alert" className="mt-1 text-row text-late">
      {kept.said}
    </p>
  ) : null;
}

type OfDemand = AskedFieldProps & { readonly demand: Demand };

function Field(props: OfDemand) {
  const { demand } = props;
  switch (demand.kind) {
    case 'file':
      return <FilesAsked {...props} name={<Name item={props.item} besides="a photo or a PDF, up to 20 MB" />} />;
    case 'yesNo':
      return (
        <OneOf
          {...props}
          options={[
            [false, 'No'],
            [true, 'Yes'],
          ]}
        />
      );
    case 'choice':
      return <OneOf {...props} options={demand.options.map((option) => [option, option])} />;
    case 'choices':
      return <SomeOf {...props} options={demand.options} />;
    case 'number':
      return <FigureField {...props} demand={demand} />;
    case 'date':
      return <DateField {...props} />;
    case 'note':
      return <WordsField {...props} field={NOTE_FIELD} given={props.task.note} isLong />;
    case 'text':
    case 'tag':
    case 'longText': {
      const given = props.task.answers[demand.key]?.value;
      return (
        <WordsField
          {...props}
          field={demand.key}
          given={typeof given === 'string' ? given : ''}
          isLong={demand.kind === 'longText'}
        />
      );
    }
  }
}

function Name({
  item,
  id,
  besides = '',
}: {
  readonly item: AskedItem;
  readonly id?: string;
  readonly besides?: string;
}) {
  const words = [item.note, besides].filter(Boolean).join('. ');
  return (
    <>
      {id ? (
        <label className="block text-touch leading-5.25 font-semibold" htmlFor={id}>
          {item.name}
        </label>
      ) : (
        <span className="block text-touch leading-5.25 font-semibold">{item.name}</span>
      )}
      {words && <small className="mt-px block text-row leading-4.5 text-ink-2">{words}</small>}
    </>
  );
}

/** What stands in a field: as it was typed here, else as the server has it. */
function useField({ here, writing, task }: AskedFieldProps, field: string) {
  const kept = here[field];
  const given = task.answers[field];
  const put = (text: string, value: AnswerValue | null, remark: string, after: number | null) => {
    // What can't be read yet is only kept; what is emptied takes back what was given.
    if (value === null && text.trim() === '' && given === undefined) writing.forget(field);
    else writing.put(field, { text, value, remark, was: '' }, value === null && text.trim() !== '' ? null : after);
  };
  return { kept, given, put, value: kept ? kept.value : given?.value, send: () => void writing.sendAll() };
}

function TickField({ item, task, here, writing, lineKey }: AskedFieldProps & { readonly lineKey: string }) {
  const isTicked = task.steps.some(({ key, isTicked: ticked }) => key === lineKey && ticked);
  const on = (here[tickField(lineKey)]?.value ?? isTicked) === true;
  return (
    <label className="flex min-h-11 cursor-pointer items-center gap-3 text-touch leading-5.25">
      <input
        type="checkbox"
        className="check h-6 w-6"
        checked={on}
        onChange={({ target }) =>
          writing.put(tickField(lineKey), { text: '', value: target.checked, remark: '', was: '' }, 0)
        }
      />
      <span>
        <b className="font-semibold">{item.name}</b>
        {item.note && <small className="block text-row leading-4.5 text-ink-2">{item.note}</small>}
      </span>
    </label>
  );
}

function OneOf(props: OfDemand & { readonly options: readonly (readonly [AnswerValue, string])[] }) {
  const { item, demand, options } = props;
  const { value, put } = useField(props, demand.key);
  return (
    <Several item={item}>
      <div className={`mt-2 grid gap-2 ${options.length > 3 ? 'grid-cols-1' : 'grid-cols-2'}`}>
        {options.map(([option, words]) => (
          <button
            key={words}
            type="button"
            className={`btn min-h-11 justify-center px-2 py-2 text-[15px] ${value === option ? 'btn-primary' : 'bg-base-100'}`}
            aria-pressed={value === option}
            onClick={() => put('', value === option ? null : option, '', 0)}
          >
            {value === option && <Check size={15} aria-hidden className="mr-1.5" />}
            {words}
          </button>
        ))}
      </div>
    </Several>
  );
}

/** Several fields that are one thing asked. */
function Several({ item, children }: { readonly item: AskedItem; readonly children: ReactNode }) {
  const id = useId();
  return (
    <fieldset aria-labelledby={id}>
      <div id={id}>
        <Name item={item} />
      </div>
      {children}
    </fieldset>
  );
}

function SomeOf(props: OfDemand & { readonly options: readonly string[] }) {
  const { item, demand, options } = props;
  const { value, put } = useField(props, demand.key);
  const chosen = Array.isArray(value) ? (value as readonly string[]) : [];
  return (
    <Several item={item}>
      {options.map((option) => (
        <label key={option} className="flex min-h-11 cursor-pointer items-center gap-3 text-touch">
          <input
            type="checkbox"
            className="check h-6 w-6"
            checked={chosen.includes(option)}
            onChange={({ target }) => {
              const next = options.filter((one) => (one === option ? target.checked : chosen.includes(one)));
              put('', next.length === 0 ? null : next, '', 400);
            }}
          />
          {option}
        </label>
      ))}
    </Several>
  );
}

function FigureField(props: OfDemand & { readonly demand: NumberDemand }) {
  const { item, demand } = props;
  const { kept, given, put, send } = useField(props, demand.key);
  const id = useId();
  const text = kept?.text ?? (typeof given?.value === 'number' ? String(given.value) : '');
  const remark = kept?.remark ?? given?.remark ?? '';
  const figure = readFigure(text);
  const isOut = figure !== null && outsideBy(demand, figure) !== 0;
  const type = (next: string, nextRemark: string) => put(next, readFigure(next), nextRemark, PAUSE_MS);
  return (
    <>
      <Name item={item} id={id} />
      <div className="mt-2 flex items-baseline gap-2">
        <input
          id={id}
          className={`${WRITTEN} h-11 max-w-36 text-right`}
          inputMode="decimal"
          autoComplete="off"
          aria-invalid={text.trim() !== '' && figure === null}
          aria-describedby={`${id}-limits`}
          value={text}
          onChange={({ target }) => type(target.value, remark)}
          onBlur={send}
        />
        <span className="text-touch">{demand.unit}</span>
        <span id={`${id}-limits`} className="text-row text-ink-2">
          {text.trim() !== '' && figure === null
            ? 'write a figure, like 0.41'
            : sayLimits({ ...demand, unit: '' }) && `usually ${sayLimits({ ...demand, unit: '' })}`}
        </span>
      </div>
      {isOut && (
        <>
          <label className="mt-2 block text-row" htmlFor={`${id}-remark`}>
            <b>{sayOutside(demand, figure)}.</b> Say why that is.
          </label>
          <input
            id={`${id}-remark`}
            className={`${WRITTEN} h-11`}
            maxLength={1000}
            value={remark}
            onChange={({ target }) => type(text, target.value)}
            onBlur={send}
          />
        </>
      )}
    </>
  );
}

/** A date in words, or from the calendar of the device; how it was read stands beside it. */
function DateField(props: OfDemand) {
  const { item, demand, today } = props;
  const { kept, given, put, send } = useField(props, demand.key);
  const id = useId();
  const picker = useRef<HTMLInputElement>(null);
  const text = kept?.text ?? (typeof given?.value === 'string' ? said(dayOfIso(given.value)) : '');
  const day = readDate(text, today);
  const choose = (iso: string) => {
    if (iso !== '') put(said(dayOfIso(iso)), iso, '', 0);
  };
  return (
    <>
      <Name item={item} id={id} />
      <div className="relative mt-2 flex items-center">
        <input
          id={id}
          className={`${WRITTEN} h-11 pr-40`}
          autoComplete="off"
          placeholder="like 4 Dec 2027"
          aria-invalid={text.trim() !== '' && day === null}
          aria-describedby={`${id}-read`}
          value={text}
          onChange={({ target }) => {
            const read = readDate(target.value, today);
            put(target.value, read === null ? null : isoOfDay(read), '', PAUSE_MS);
          }}
          onBlur={() => {
            if (day !== null && text !== said(day) && kept) put(said(day), isoOfDay(day), '', 0);
            else send();
          }}
        />
        <span id={`${id}-read`} className="pointer-events-none absolute right-12 text-row text-ink-2">
          {day === null ? text.trim() !== '' && 'not read yet' : sayAway(day, today)}
        </span>
        <button
          type="button"
          className="absolute right-0 grid h-11 w-11 cursor-pointer place-items-center text-ink-2"
          aria-label={`Choose ${item.name} from a calendar`}
          onClick={() => picker.current?.showPicker()}
        >
          <Calendar size={18} aria-hidden />
        </button>
        <input
          ref={picker}
          type="date"
          tabIndex={-1}
          aria-hidden
          className="pointer-events-none absolute right-0 bottom-0 h-0 w-0 opacity-0"
          value={day === null ? '' : isoOfDay(day)}
          onChange={({ target }) => choose(target.value)}
        />
      </div>
    </>
  );
}

/** "Sat 4 Dec 2027": with its weekday, which tells a wrong one. */
const said = (day: CivilDay): string => `${sayShortDay(day).split(' ')[0]} ${sayDate(day)}`;

interface WordsFieldProps extends AskedFieldProps {
  readonly field: string;
  readonly given: string;
  readonly isLong: boolean;
}

function WordsField({ item, here, writing, field, given, isLong }: WordsFieldProps) {
  const id = useId();
  const text = here[field]?.text ?? given;
  const put = (next: string) => {
    const value: Writing['value'] = field === NOTE_FIELD ? true : next.trim() === '' ? null : next.trim();
    if (next.trim() === '' && given === '') writing.forget(field);
    else writing.put(field, { text: next, value, remark: '', was: here[field]?.was ?? given }, PAUSE_MS);
  };
  const common = {
    id,
    value: text,
    maxLength: 2000,
    onBlur: () => void writing.sendAll(),
  };
  return (
    <>
      <Name item={item} id={id} />
      {isLong ? (
        <textarea
          {...common}
          className={`${WRITTEN} mt-2 py-2`}
          rows={4}
          onChange={({ target }) => put(target.value)}
        />
      ) : (
        <input
          {...common}
          type="text"
          className={`${WRITTEN} mt-2 h-11`}
          onChange={({ target }) => put(target.value)}
        />
      )}
    </>
  );
}
