import { type ReactNode, useMemo } from 'react';
import { Link } from 'react-router';
import { type Lists, type ListsInput, listsInputSchema } from '../../../contract/index.ts';
import { FIELD_KINDS, plural } from '../../../core/index.ts';
import { useKeys } from '../../app/shell/keys.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, NameBlank, WordsBlank } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { useRecordForm } from '../../kit/record-form.tsx';
import { NotAllowed, Skeleton, Trouble } from '../../kit/states.tsx';
import { LastChanged } from '../history/last-changed.tsx';
import { useLists, useSettingsActions } from './api.ts';
import { OutcomesList } from './outcomes-list.tsx';

/** Lists that everybody here chooses from. */
export function ListsPage() {
  const { may } = useWorkspace();
  const { data, error, mutate } = useLists(may('settings'));
  if (!may('settings')) return <NotAllowed right="settings" what="change the lists" to="/" back="Back to the work" />;
  if (error && !data) return <Trouble error={error} retry={() => void mutate()} />;
  return data ? <Editor lists={data} /> : <Skeleton rows={12} />;
}

const inputOf = ({
  version,
  roles,
  teams,
  tickets,
  skipReasons,
  clientFields,
  assetFields,
  outcomes,
}: Lists): ListsInput => ({
  ...{ version, skipReasons, outcomes },
  roles: roles.map(({ name }) => ({ was: name, name })),
  teams: teams.map(({ name }) => ({ was: name, name })),
  tickets: tickets.map(({ name }) => ({ was: name, name })),
  clientFields: clientFields.map(({ count: _, ...field }) => field),
  assetFields: assetFields.map(({ count: _, ...field }) => field),
});

function Editor({ lists }: { readonly lists: Lists }) {
  const { saveLists } = useSettingsActions();
  const { id } = useWorkspace();
  const initial = useMemo(() => inputOf(lists), [lists]);
  const form = useRecordForm<ListsInput>({
    ...{ place: 'lists', initial, isNew: false },
    ...{ form: listsInputSchema, check: listsInputSchema },
  });
  const { draft, set, within } = form;
  const save = () => void form.save(saveLists);
  useKeys([{ key: 'Mod+Enter', says: 'Save', run: save }]);
  const people = (count: number) => (count === 0 ? 'nobody' : plural(count, 'person', 'people'));
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <title>Lists · Jolly Rota</title>
      {form.meanwhile}
      <div className="page-head">
        <h1>Lists</h1>
        <Link className="link-line text-note" to="/settings">
          Settings
        </Link>
        <span className="ml-auto text-note text-ink-2" role="status">
          {form.said}
        </span>
        {form.isChanged && (
          <button type="button" className="btn" onClick={form.putBack}>
            Put back
          </button>
        )}
        <button type="button" className="btn btn-primary" disabled={form.busy || !form.isChanged} onClick={save}>
          Save
        </button>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-line-2">
        <div className="grid grid-cols-3 gap-x-8 px-5 pb-8 max-[1000px]:grid-cols-1 max-[720px]:px-4">
          <Names
            title="Roles"
            one="role"
            said="What people are; some work is signed off by a role."
            names={draft.roles}
            used={(was) => people(lists.roles.find(({ name }) => name === was)?.count ?? 0)}
            problem={within('roles')}
            onChange={(roles) => set({ roles })}
          />
          <Names
            title="Teams"
            one="team"
            said="By whom work is shared."
            names={draft.teams}
            used={(was) => people(lists.teams.find(({ name }) => name === was)?.count ?? 0)}
            problem={within('teams')}
            onChange={(teams) => set({ teams })}
          />
          <Names
            title="Tickets"
            one="ticket"
            said="Qualifications that people hold, and that work may ask for."
            names={draft.tickets}
            used={(was) => sayTicket(lists.tickets.find(({ name }) => name === was))}
            problem={within('tickets')}
            onChange={(tickets) => set({ tickets })}
          />
          <Names
            title="Reasons for skipping"
            one="reason"
            said="Offered where work is skipped; others can be written."
            names={draft.skipReasons.map((name) => ({ was: null, name }))}
            used={() => ''}
            problem={within('skipReasons')}
            onChange={(reasons) => set({ skipReasons: reasons.map(({ name }) => name) })}
          />
          <Fields
            title="Fields of clients"
            fields={draft.clientFields}
            saved={lists.clientFields}
            what="client"
            problem={within('clientFields')}
            onChange={(clientFields) => set({ clientFields })}
          />
          <Fields
            title="Fields of assets"
            fields={draft.assetFields}
            saved={lists.assetFields}
            what="asset"
            problem={within('assetFields')}
            onChange={(assetFields) => set({ assetFields })}
          />
          <List
            title="How calls end"
            said="What is pressed after a call, and what follows. Calls that were made keep what was said of them."
            problem={within('outcomes')}
          >
            <OutcomesList outcomes={draft.outcomes} onChange={(outcomes) => set({ outcomes })} />
          </List>
          <div>
            <LastChanged of="settings" id={id} />
            <p className="mt-3 text-note text-ink-2">
              Categories and types of work stand with the{' '}
              <Link className="link-line" to="/templates">
                templates
              </Link>
              .
            </p>
          </div>
        </div>
      </div>
    </div>
  );
}

/** "2 people, 1 template": who hold it, and what asks for it. */
function sayTicket(ticket: Lists['tickets'][number] | undefined): string {
  const { count = 0, asked = 0 } = ticket ?? {};
  const held = count === 0 ? 'nobody' : plural(count, 'person', 'people');
  return asked === 0 ? held : `${held}, ${plural(asked, 'template')}`;
}

function List({
  title,
  said,
  problem,
  children,
}: {
  readonly title: string;
  readonly said?: string;
  readonly problem: string | undefined;
  readonly children: ReactNode;
}) {
  return (
    <section className="border-b border-line-2 py-4 text-row leading-7 last:border-b-0" aria-label={title}>
      <h2 className="text-body leading-5.5 text-primary">{title}</h2>
      {said && <p className="text-note leading-4.5 text-ink-2">{said}</p>}
      {children}
      {problem && <FieldError message={problem} />}
    </section>
  );
}

type Named = ListsInput['roles'];

interface NamesProps {
  readonly title: string;
  readonly one: string;
  readonly said: string;
  readonly names: Named;
  readonly used: (was: string) => string;
  readonly problem: string | undefined;
  readonly onChange: (names: Named) => void;
}

function Names({ title, one, said, names, used, problem, onChange }: NamesProps) {
  return (
    <List title={title} said={said} problem={problem}>
      <ul>
        {names.map(({ was, name }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a name that is typed stays in its place
          <li key={i} className="flex items-center gap-2 border-b border-line">
            <NameBlank
              label={`${title}, ${i + 1}`}
              shown={name}
              placeholder={`a ${one}`}
              width={16}
              onChange={(typed) => onChange(names.map((other, n) => (n === i ? { was, name: typed } : other)))}
            />
            <span className="ml-auto text-note text-ink-2">{was === null ? '' : used(was)}</span>
            <button
              type="button"
              className="link-line text-note"
              aria-label={`Take ${name || `${one} ${i + 1}`} out`}
              onClick={() => onChange(names.filter((_, n) => n !== i))}
            >
              Take out
            </button>
          </li>
        ))}
      </ul>
      <button type="button" className="link-line mt-1" onClick={() => onChange([...names, { was: null, name: '' }])}>
        Add a {one}
      </button>
    </List>
  );
}

type Fields = ListsInput['clientFields'];
const KINDS = { text: 'a text', number: 'a number', date: 'a date', choice: 'one of some' } as const;

interface FieldsProps {
  readonly title: string;
  readonly fields: Fields;
  /** As they are saved, with how many have each filled in. */
  readonly saved: Lists['clientFields'];
  readonly what: 'client' | 'asset';
  readonly problem: string | undefined;
  readonly onChange: (fields: Fields) => void;
}

function Fields({ title, fields, saved, what, problem, onChange }: FieldsProps) {
  const used = (key: string) => saved.find((field) => field.key === key)?.count ?? 0;
  const gone = saved.filter(({ key, count }) => count > 0 && !fields.some((field) => field.key === key));
  const change = (i: number, next: Partial<Fields[number]>) =>
    onChange(fields.map((field, n) => (n === i ? { ...field, ...next } : field)));
  return (
    <List title={title} said={`Kept of each ${what} besides what everybody keeps.`} problem={problem}>
      {gone.map(({ key, name, count }) => (
        <p key={key} className="text-note leading-4.5">
          “{name}” is filled in with {plural(count, what)}: it is shown no more; what is there is kept, and comes back
          with the undo.
        </p>
      ))}
      <ul>
        {fields.map(({ key, name, kind, choices }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a field that is typed stays in its place
          <li key={i} className="border-b border-line py-0.5">
            <span className="flex flex-wrap items-center gap-x-2">
              <NameBlank
                label={`${title}, ${i + 1}`}
                shown={name}
                placeholder="its name"
                width={14}
                onChange={(typed) => change(i, { name: typed })}
              />
              <ChoiceBlank
                label={`What ${name || 'it'} is`}
                value={kind}
                options={FIELD_KINDS.map((one) => [one, KINDS[one]] as const)}
                onChange={(next) => change(i, { kind: next })}
              />
              <span className="ml-auto text-note text-ink-2">{used(key) > 0 ? plural(used(key), what) : ''}</span>
              <button
                type="button"
                className="link-line text-note"
                aria-label={`Take ${name || `field ${i + 1}`} out`}
                onClick={() => onChange(fields.filter((_, n) => n !== i))}
              >
                Take out
              </button>
            </span>
            {kind === 'choice' && (
              <WordsBlank
                label={`What ${name || 'it'} may be`}
                shown={choices.join(', ')}
                placeholder="this, that"
                width={24}
                wrong=""
                read={(typed) => [...new Set(typed.split(',').map((one) => one.trim()))].filter(Boolean)}
                onChange={(typed) => change(i, { choices: typed })}
              />
            )}
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="link-line mt-1"
        onClick={() => onChange([...fields, { key: '', name: '', kind: 'text', choices: [] }])}
      >
        Add a field
      </button>
    </List>
  );
}
