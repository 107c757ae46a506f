import type { ReactNode } from 'react';
import type { PersonInput } from '../../../../contract/index.ts';
import { ACCESS_LEVELS, ACCESS_WORDS, sayRoles } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DayOrNone, NameBlank, WordsBlank } from '../../../kit/blanks.tsx';
import { FieldError } from '../../../kit/field-error.tsx';
import { NamesBlank } from '../../../kit/names-blank.tsx';
import { Picker } from '../../../kit/picker.tsx';
import { SECTION, SectionTitle } from '../../../kit/side-sheet.tsx';
import { SingleDays } from './single-days.tsx';
import { TicketsBlank } from './tickets-blank.tsx';
import { WeekBlanks } from './week-blanks.tsx';

interface MemberFormProps {
  readonly draft: PersonInput;
  /** Null for somebody new. */
  readonly personId: string | null;
  /** Whether they sign in themselves: then their address is theirs alone. */
  readonly signsIn: boolean;
  /** What is wrong with a field, by its path. */
  readonly at: (path: string) => string | undefined;
  readonly onChange: (draft: PersonInput) => void;
}

const LEVELS = ACCESS_LEVELS.map((access) => [access, access] as const);

/** What is known of a person, as sentences. */
export function MemberForm({ draft, personId, signsIn, at, onChange }: MemberFormProps) {
  const { roles, teams, tickets, staffWith } = useWorkspace();
  const set = (change: Partial<PersonInput>) => onChange({ ...draft, ...change });
  const text = (field: 'name' | 'telephone', label: string, placeholder: string) => (
    <NameBlank
      label={label}
      shown={draft[field]}
      placeholder={placeholder}
      onChange={(typed) => set({ [field]: typed })}
    />
  );
  return (
    <>
      <Sentences name="Who">
        called {text('name', 'Name', 'first and last name')}
        <br />
        <NamesBlank
          label="Another role"
          chosen={draft.roles}
          known={roles}
          most={8}
          placeholder={draft.roles.length === 0 ? 'a role' : 'another role'}
          onChange={(names) => set({ roles: names })}
        />
        <br />
        in{' '}
        <NamesBlank
          label="Team"
          chosen={draft.team === null ? [] : [draft.team]}
          known={teams}
          most={1}
          placeholder="no team"
          onChange={([team = null]) => set({ team })}
        />
        <Faults messages={[at('name'), at('roles'), at('team')]} />
      </Sentences>
      <Sentences name="Tickets">
        <TicketsBlank held={draft.tickets} known={tickets} onChange={(held) => set({ tickets: held })} />
        <Faults messages={[at('tickets')]} />
      </Sentences>
      <Sentences name="How to reach">
        mail{' '}
        {signsIn ? (
          <span>{draft.email}</span>
        ) : (
          <WordsBlank
            label="Mail"
            shown={draft.email ?? ''}
            placeholder="edda@saltmarsh.example"
            wrong=""
            read={(typed) => (typed.trim() === '' ? null : typed.trim())}
            onChange={(email) => set({ email })}
          />
        )}
        <br />
        telephone {text('telephone', 'Telephone', '01632 960 1')}
        <Faults messages={[at('email'), at('telephone')]} />
      </Sentences>
      <Sentences name="Week">
        <WeekBlanks hours={draft} roles={draft.roles} onChange={set} />
        <Faults messages={[at('weeks'), at('shifts')]} />
        <SingleDays
          changes={draft.shiftChanges}
          roles={draft.roles}
          onChange={(shiftChanges) => set({ shiftChanges })}
        />
        <Faults messages={[at('shiftChanges')]} />
      </Sentences>
      <Sentences name="Here">
        from{' '}
        <DayOrNone
          label="First day"
          placeholder="always"
          value={draft.worksFrom}
          onChange={(worksFrom) => set({ worksFrom })}
        />{' '}
        until{' '}
        <DayOrNone
          label="Last day"
          placeholder="no end"
          value={draft.worksUntil}
          onChange={(worksUntil) => set({ worksUntil })}
        />
        <Faults messages={[at('worksFrom'), at('worksUntil')]} />
      </Sentences>
      <Sentences name="Cover">
        while {draft.name.split(' ')[0] || 'this person'} is away,{' '}
        <Picker
          label="Who takes over"
          chosen={draft.deputyId ?? ''}
          options={[
            { key: '', name: 'nobody' },
            ...staffWith(draft.deputyId)
              .filter((one) => one.id !== personId)
              .map((one) => ({ key: one.id, name: one.name, detail: sayRoles(one.roles) })),
          ]}
          onChoose={(key) => set({ deputyId: key === '' ? null : key })}
        />{' '}
        takes over what was given by name
        <Faults messages={[at('deputyId')]} />
      </Sentences>
      <Sentences name="Access">
        as a <ChoiceBlank label="Access" value={draft.access} options={LEVELS} onChange={(access) => set({ access })} />
        <span className="text-ink-2">: {ACCESS_WORDS[draft.access]}</span>
        <Faults messages={[at('access')]} />
      </Sentences>
    </>
  );
}

function Sentences({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  return (
    <section className={SECTION}>
      <SectionTitle>{name}</SectionTitle>
      <div className="text-row leading-7">{children}</div>
    </section>
  );
}

function Faults({ messages }: { readonly messages: readonly (string | undefined)[] }) {
  return messages
    .filter((message) => message !== undefined)
    .map((message) => <FieldError key={message} message={message} />);
}
