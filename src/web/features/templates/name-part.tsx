import { useState } from 'react';
import { DOTS, PRIORITIES } from '../../../contract/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { ChoiceBlank, EstimateBlank, Part } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { DotMark } from '../../kit/tag.tsx';
import { DOT_WORDS } from './dot-words.ts';
import { ListsDialog } from './lists-dialog.tsx';
import type { TemplateDraft } from './template-draft.ts';

interface NamePartProps {
  readonly draft: TemplateDraft;
  readonly at: (path: string) => string | undefined;
  readonly set: <K extends keyof TemplateDraft>(field: K, value: TemplateDraft[K]) => void;
}

/** What it is called, and what kind of work it is. */
export function NamePart({ draft, at, set }: NamePartProps) {
  const { may, categories, workTypes } = useWorkspace();
  const [listing, setListing] = useState(false);
  const ofCategory = categories.find(({ name }) => name === draft.category)?.dot ?? 'ink';
  return (
    <Part name="Name">
      <div className="flex flex-wrap gap-x-3">
        <input
          className="blank h-8 w-[270px] text-touch"
          aria-label="Name"
          placeholder="what your people call it"
          aria-invalid={at('name') !== undefined}
          aria-describedby="name-error"
          value={draft.name}
          onChange={({ target }) => set('name', target.value)}
        />
        <input
          className="blank h-8 min-w-[200px] flex-1"
          aria-label="Summary"
          placeholder="what it is about, in a few words"
          maxLength={120}
          value={draft.summary}
          onChange={({ target }) => set('summary', target.value)}
        />
      </div>
      <FieldError id="name-error" message={at('name')} />
      <div>
        a piece of{' '}
        <select
          className="blank"
          aria-label="Category"
          value={draft.category ?? ''}
          onChange={({ target }) => set('category', target.value === '' ? null : target.value)}
        >
          <option value="">no category</option>
          {categories.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>{' '}
        work, marked <DotMark dot={draft.dot ?? ofCategory} />{' '}
        <select
          className="blank"
          aria-label="Colour of its tag"
          value={draft.dot ?? ''}
          onChange={({ target }) => set('dot', DOTS.find((dot) => dot === target.value) ?? null)}
        >
          <option value="">as its category</option>
          {DOTS.map((dot) => (
            <option key={dot} value={dot}>
              {DOT_WORDS[dot]}
            </option>
          ))}
        </select>
        , of type{' '}
        <select
          className="blank"
          aria-label="Type of work"
          value={draft.workType ?? ''}
          onChange={({ target }) => set('workType', target.value === '' ? null : target.value)}
        >
          <option value="">none</option>
          {workTypes.map((type) => (
            <option key={type}>{type}</option>
          ))}
        </select>
        {may('plan') && (
          <button type="button" className="link-line ml-3 text-note leading-6" onClick={() => setListing(true)}>
            edit these lists
          </button>
        )}
        {listing && <ListsDialog onClose={() => setListing(false)} />}
      </div>
      <FieldError message={at('category') ?? at('workType')} />
      <div>
        about{' '}
        <EstimateBlank
          minutes={draft.estimateMinutes}
          message={at('estimateMinutes')}
          onChange={(minutes) => set('estimateMinutes', minutes)}
        />{' '}
        each time, priority{' '}
        <ChoiceBlank
          label="Priority"
          value={draft.priority}
          options={PRIORITIES.map((priority) => [priority, priority] as const)}
          onChange={(priority) => set('priority', priority)}
        />
      </div>
    </Part>
  );
}
