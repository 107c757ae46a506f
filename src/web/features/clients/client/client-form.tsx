import { type ClientInput, MOST_CONTACTS } from '../../../../contract/index.ts';
import { PREFERS } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, NameBlank } from '../../../kit/blanks.tsx';
import { FieldError } from '../../../kit/field-error.tsx';
import { newKey } from '../../../kit/new-key.ts';
import { SECTION, SectionTitle } from '../../../kit/side-sheet.tsx';
import { PersonBlank } from '../../people/person-blank.tsx';
import { OwnFieldBlanks } from '../own-field-blanks.tsx';
import type { FormParts } from '../record-editor.tsx';

type Contact = ClientInput['contacts'][number];

const AREA =
  'w-full rounded-field border border-line-2 bg-transparent px-2 py-1 text-row leading-5 focus:border-primary aria-invalid:border-late';

/** What is known of a client, as sentences. */
export function ClientForm({ draft, at, onChange }: FormParts<ClientInput & { readonly version: number }>) {
  const { clientFields } = useWorkspace();
  return (
    <>
      <section className={SECTION}>
        <SectionTitle>Who</SectionTitle>
        <div className="text-row leading-7">
          called{' '}
          <NameBlank
            label="Name"
            shown={draft.name}
            placeholder="name"
            width={18}
            onChange={(name) => onChange({ name })}
          />
          {at('name') && <FieldError message={at('name')} />}
          <br />
          mostly served by{' '}
          <PersonBlank
            label="Usual person"
            personId={draft.usualPersonId}
            onChange={(usualPersonId) => onChange({ usualPersonId })}
          />
          {at('usualPersonId') && <FieldError message={at('usualPersonId')} />}
        </div>
        <label className="mt-1.5 block text-note text-ink-2">
          address
          <textarea
            className={AREA}
            rows={3}
            value={draft.address}
            aria-invalid={at('address') !== undefined}
            onChange={({ target }) => onChange({ address: target.value })}
          />
        </label>
        {at('address') && <FieldError message={at('address')} />}
      </section>
      <Contacts contacts={draft.contacts} at={at} onChange={(contacts) => onChange({ contacts })} />
      {clientFields.length > 0 && (
        <section className={SECTION}>
          <SectionTitle>Kept besides</SectionTitle>
          <div className="text-row leading-7">
            <OwnFieldBlanks
              fields={clientFields}
              values={draft.fields}
              at={at}
              onChange={(fields) => onChange({ fields })}
            />
          </div>
        </section>
      )}
      <section className={SECTION}>
        <label className="block text-note text-ink-2">
          notes
          <textarea
            className={AREA}
            rows={4}
            value={draft.notes}
            aria-invalid={at('notes') !== undefined}
            onChange={({ target }) => onChange({ notes: target.value })}
          />
        </label>
        {at('notes') && <FieldError message={at('notes')} />}
      </section>
    </>
  );
}

interface ContactsProps {
  readonly contacts: readonly Contact[];
  readonly at: (path: string) => string | undefined;
  readonly onChange: (contacts: Contact[]) => void;
}

const PREFERRED = [['', 'no wish'], ...PREFERS.map((way) => [way, `rather by ${way}`] as const)] as const;

/** How somebody at the client's is reached, a sentence each; the first is whom one turns to. */
function Contacts({ contacts, at, onChange }: ContactsProps) {
  const set = (i: number, change: Partial<Contact>) =>
    onChange(contacts.map((contact, n) => (n === i ? { ...contact, ...change } : contact)));
  const first = (i: number) => onChange([contacts[i] as Contact, ...contacts.filter((_, n) => n !== i)]);
  return (
    <section className={SECTION}>
      <SectionTitle aside={contacts.length > 0 ? String(contacts.length) : undefined}>Contacts</SectionTitle>
      <ul>
        {contacts.map((contact, i) => {
          const text = (field: 'name' | 'role' | 'email' | 'telephone', label: string, placeholder: string) => (
            <NameBlank
              label={`${label} of contact ${i + 1}`}
              shown={contact[field]}
              placeholder={placeholder}
              onChange={(typed) => set(i, { [field]: typed })}
            />
          );
          const faults = (['name', 'role', 'email', 'telephone'] as const).flatMap(
            (field) => at(`contacts.${i}.${field}`) ?? [],
          );
          return (
            <li key={contact.id} className="border-b border-line py-1 text-row leading-7 last:border-b-0">
              {text('name', 'Name', 'name')}, {text('role', 'Role', 'what they are')}
              <br />
              {text('email', 'Mail', 'mail')} {text('telephone', 'Telephone', 'telephone')}
              <br />
              <ChoiceBlank
                label={`Preferred way of contact ${i + 1}`}
                value={contact.prefers ?? ''}
                options={PREFERRED}
                onChange={(way) => set(i, { prefers: way === '' ? null : way })}
              />
              <span className="float-right flex gap-3">
                {i > 0 && (
                  <button type="button" className="link-line text-note" onClick={() => first(i)}>
                    Put first
                  </button>
                )}
                <button
                  type="button"
                  className="link-line text-note"
                  aria-label={`Take ${contact.name || `contact ${i + 1}`} out`}
                  onClick={() => onChange(contacts.filter((_, n) => n !== i))}
                >
                  Take out
                </button>
              </span>
              {faults.map((message) => (
                <FieldError key={message} message={message} />
              ))}
            </li>
          );
        })}
      </ul>
      {at('contacts') && <FieldError message={at('contacts')} />}
      {contacts.length < MOST_CONTACTS && (
        <button
          type="button"
          className="link-line mt-1 text-row"
          onClick={() =>
            onChange([...contacts, { id: newKey(), name: '', role: '', email: '', telephone: '', prefers: null }])
          }
        >
          Add a contact
        </button>
      )}
    </section>
  );
}
