import type { AssetInput } from '../../../../contract/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { ChoiceBlank, DayOrNone, NameBlank, WordsBlank } from '../../../kit/blanks.tsx';
import { FieldError } from '../../../kit/field-error.tsx';
import { SECTION, SectionTitle } from '../../../kit/side-sheet.tsx';
import { OwnFieldBlanks } from '../own-field-blanks.tsx';
import type { FormParts } from '../record-editor.tsx';
import { SitePicker } from './site-picker.tsx';

interface AssetFormProps extends FormParts<AssetInput & { readonly version: number }> {
  /** Where it stands, as it is saved. */
  readonly siteName: string | null;
}

/** What is known of an asset, as sentences. */
export function AssetForm({ draft, at, onChange, siteName }: AssetFormProps) {
  const { assetFields } = useWorkspace();
  const isOwn = draft.clientId === null;
  const day = (field: 'servesFrom' | 'servesUntil', label: string, placeholder: string) => (
    <DayOrNone
      label={label}
      placeholder={placeholder}
      value={draft[field]}
      onChange={(on) => onChange({ [field]: on })}
    />
  );
  const faults = (...paths: readonly string[]) =>
    paths.flatMap((path) => at(path) ?? []).map((message) => <FieldError key={message} message={message} />);
  return (
    <>
      <section className={SECTION}>
        <SectionTitle>What</SectionTitle>
        <div className="text-row leading-7">
          called{' '}
          <NameBlank
            label="Name"
            shown={draft.name}
            placeholder="name"
            width={18}
            onChange={(name) => onChange({ name })}
          />
          <br />
          with the tag{' '}
          <WordsBlank
            label="Tag"
            shown={draft.tag ?? ''}
            placeholder="none"
            wrong=""
            mono
            read={(typed) => typed.trim() || null}
            onChange={(tag) => onChange({ tag })}
          />
          {faults('name', 'tag')}
        </div>
      </section>
      <section className={SECTION}>
        <SectionTitle>Where</SectionTitle>
        <div className="text-row leading-7">
          at{' '}
          <NameBlank
            label="Place"
            shown={draft.place}
            placeholder="a berth, a room, a rack"
            onChange={(place) => onChange({ place })}
          />
          <br />
          on the site{' '}
          <SitePicker
            siteId={draft.siteId}
            siteName={siteName}
            none="none"
            onChoose={(siteId) => onChange({ siteId })}
          />
          {isOwn && (
            <>
              <br />
              it{' '}
              <ChoiceBlank
                label="Whether it is a site"
                value={draft.isSite ? 'is' : 'is not'}
                options={[
                  ['is not', 'is no site'],
                  ['is', 'is a site that others stand on'],
                ]}
                onChange={(is) => onChange({ isSite: is === 'is' })}
              />
            </>
          )}
          {faults('place', 'siteId', 'isSite', 'clientId')}
        </div>
      </section>
      <section className={SECTION}>
        <SectionTitle>In service</SectionTitle>
        <div className="text-row leading-7">
          from {day('servesFrom', 'First day in service', 'always')} until{' '}
          {day('servesUntil', 'Last day in service', 'no end')}
          {faults('servesFrom', 'servesUntil')}
        </div>
      </section>
      {assetFields.length > 0 && (
        <section className={SECTION}>
          <SectionTitle>Kept besides</SectionTitle>
          <div className="text-row leading-7">
            <OwnFieldBlanks
              fields={assetFields}
              values={draft.fields}
              at={at}
              onChange={(fields) => onChange({ fields })}
            />
          </div>
        </section>
      )}
    </>
  );
}
