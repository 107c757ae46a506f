import { useState } from 'react';
import { useNavigate, useOutletContext } from 'react-router';
import { labelAddresses } from '../../../../contract/addresses-later.ts';
import { type AssetRecord, type ClientRecord, MOST_LABELS } from '../../../../contract/index.ts';
import { LABEL_FORMS, type LabelSize, labelsOfSheet, plural } from '../../../../core/index.ts';
import { useAddressFilter } from '../../../kit/address-filter.ts';
import { addressOf } from '../../../kit/api.ts';
import { ChoiceBlank, NumberBlank } from '../../../kit/blanks.tsx';
import { CloseButton, SECTION, SectionTitle, SideSheet } from '../../../kit/side-sheet.tsx';

const SIZE_WORDS = (Object.keys(LABEL_FORMS) as LabelSize[]).map((size) => {
  const form = LABEL_FORMS[size];
  return [size, `${labelsOfSheet(form)} on a sheet, ${form.width} × ${form.height} mm`] as const;
});

/** Labels for those of our own that are shown. */
export function OwnLabels() {
  const { assets, count } = useOutletContext<{ readonly assets: readonly AssetRecord[]; readonly count: number }>();
  const { search } = useAddressFilter();
  return <LabelsSheet assets={assets} count={count} back={`/clients/own?${search}`} />;
}

/** Labels for what is a client's. */
export function ClientLabels() {
  const client = useOutletContext<ClientRecord | undefined>();
  if (!client) return null;
  const assets = client.assets.filter(({ isArchived }) => !isArchived);
  return <LabelsSheet assets={assets} count={assets.length} back={`/clients/${client.id}`} />;
}

interface LabelsSheetProps {
  readonly assets: readonly Pick<AssetRecord, 'id' | 'name' | 'tag'>[];
  /** How many there are, shown or not. */
  readonly count: number;
  /** Where it is closed to. */
  readonly back: string;
}

/** Labels for some assets: which of them, on which sheets. */
function LabelsSheet({ assets, count, back }: LabelsSheetProps) {
  const navigate = useNavigate();
  const close = () => void navigate(back);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [size, setSize] = useState<LabelSize>('small');
  const [first, setFirst] = useState(1);
  const tagged = assets.filter(({ tag }) => tag !== null);
  const chosen = tagged.filter(({ id }) => !left.has(id));
  const untagged = assets.length - tagged.length;
  const places = labelsOfSheet(LABEL_FORMS[size]);
  const begins = Math.min(first, places);
  const sheets = Math.ceil((chosen.length + begins - 1) / places);
  const problem =
    chosen.length === 0
      ? 'Tick some of them.'
      : chosen.length > MOST_LABELS
        ? `${MOST_LABELS} at once at most: find some of them by their words.`
        : null;
  const toggle = (id: string) => {
    const next = new Set(left);
    if (!next.delete(id)) next.add(id);
    setLeft(next);
  };
  return (
    <SideSheet label="Labels" onClose={close}>
      <header className={`${SECTION} flex items-start gap-2`}>
        <div className="min-w-0 flex-1">
          <h2 className="text-title leading-6.5">Labels</h2>
          <p className="text-row text-ink-2">The tag of each, in letters and as a code that a camera reads.</p>
        </div>
        <CloseButton onClose={close} />
      </header>
      <section className={`${SECTION} text-row leading-7`}>
        <SectionTitle>On which sheets</SectionTitle>
        <p>
          <ChoiceBlank label="Size of the labels" value={size} options={SIZE_WORDS} onChange={setSize} />
        </p>
        <p>
          Begin at label{' '}
          <NumberBlank
            label="The first label that is free"
            value={begins}
            least={1}
            most={places}
            onChange={setFirst}
          />
          <span className="text-ink-2"> where those before it are used already.</span>
        </p>
      </section>
      <section className="text-row">
        <div className={SECTION}>
          <SectionTitle aside={`${chosen.length} of ${tagged.length}`}>For</SectionTitle>
          {untagged > 0 && (
            <p className="text-ink-2">{plural(untagged, 'more has', 'more have')} no tag yet, and no label.</p>
          )}
          {count > assets.length && (
            <p className="text-ink-2">
              {plural(count - assets.length, 'more is', 'more are')} further down the list: show them there first.
            </p>
          )}
        </div>
        <ul>
          {tagged.map(({ id, name, tag }) => (
            <li key={id} className="border-b border-line px-5">
              <label className="flex min-h-9 cursor-pointer items-center gap-2">
                <input type="checkbox" className="check" checked={!left.has(id)} onChange={() => toggle(id)} />
                <span className="min-w-0 flex-1 truncate">{name}</span>
                <span className="font-mono text-note">{tag}</span>
              </label>
            </li>
          ))}
        </ul>
      </section>
      <div className="sticky bottom-0 flex flex-wrap items-center gap-3 border-t border-line-2 bg-base-100 px-5 py-3">
        {problem === null ? (
          <a
            className="btn btn-primary inline-flex items-center"
            target="_blank"
            rel="noreferrer"
            href={addressOf(labelAddresses.pdf, {
              query: { assets: chosen.map(({ id }) => id).join(','), size, first: begins },
            })}
          >
            Make {plural(sheets, 'sheet')}
          </a>
        ) : (
          <span className="text-row text-ink-2" role="status">
            {problem}
          </span>
        )}
      </div>
    </SideSheet>
  );
}
