import { Link } from 'react-router';
import type { ClientRecord } from '../../../../contract/index.ts';
import { plural } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { sayFieldValue } from '../own-fields.ts';

/** What is a client's, with its tag and place; what is archived stands at the end. */
export function ClientAssets({
  client: { id, assets },
  mayChange,
}: {
  readonly client: ClientRecord;
  readonly mayChange: boolean;
}) {
  const { assetFields } = useWorkspace();
  const inUse = assets.filter(({ isArchived }) => !isArchived);
  const inOrder = [...inUse, ...assets.filter(({ isArchived }) => isArchived)];
  return (
    <section aria-label="Assets">
      <h2 className="flex items-baseline gap-3 border-b border-line px-5 py-2.5 text-body leading-5.5 text-primary max-[720px]:px-4">
        Assets
        <span className="font-sans text-note font-normal font-stretch-normal text-ink-2 normal-nums">
          {plural(inUse.length, 'thing')} of theirs
        </span>
        <span className="ml-auto flex gap-4 font-sans text-note font-normal font-stretch-normal">
          {inUse.some(({ tag }) => tag !== null) && (
            <Link className="link-line text-ink max-[720px]:hidden" to={`/clients/${id}/labels`}>
              Labels
            </Link>
          )}
          {mayChange && (
            <Link className="link-line text-ink" to={`/clients/${id}/asset/new`}>
              Add one
            </Link>
          )}
        </span>
      </h2>
      <ul>
        {inOrder.map((asset) => {
          const known = assetFields.flatMap((field) => {
            const value = asset.fields[field.key];
            return value === undefined ? [] : [sayFieldValue(field, value)];
          });
          return (
            <li
              key={asset.id}
              className="relative grid min-h-9 grid-cols-[minmax(0,1fr)_84px_92px] items-center gap-3 border-b border-line px-5 text-row hover:bg-base-200 max-[720px]:px-4"
            >
              <span className="min-w-0 truncate">
                <Link
                  className="font-semibold before:absolute before:inset-0 before:content-['']"
                  to={`/clients/${id}/asset/${asset.id}`}
                >
                  {asset.name}
                </Link>{' '}
                <span className="text-ink-2">{asset.isArchived ? 'archived' : known.join(', ')}</span>
              </span>
              <span className="truncate font-mono text-note">{asset.tag}</span>
              <span className="truncate text-right text-ink-2">{asset.place}</span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
