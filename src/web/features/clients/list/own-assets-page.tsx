import { Link, Outlet, useNavigate } from 'react-router';
import type { AssetRecord } from '../../../../contract/index.ts';
import { dayOfIso, groupBy, plural } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { useToday, useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAddressFilter } from '../../../kit/address-filter.ts';
import { moveThroughRows } from '../../../kit/arrow-rows.ts';
import { FindWords } from '../../../kit/find-words.tsx';
import { Empty, Skeleton, Trouble } from '../../../kit/states.tsx';
import { sayDate } from '../../../kit/ways.ts';
import { ListWays } from '../../bring-in/list-ways.tsx';
import { useOwnAssets } from '../directory-api.ts';
import { sayFieldValue } from '../own-fields.ts';
import { DirectoryViews } from './directory-views.tsx';

/** What the workspace has of its own that work is done on, by the site it stands on. */
export function OwnAssetsPage() {
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const { search, set, clear } = useAddressFilter();
  const q = search.get('q') ?? '';
  const isArchive = search.get('archived') === 'yes';
  const { assets, first, last, error, more, again } = useOwnAssets(q, isArchive ? 'archived' : 'all');
  useKeys(may('clients') ? [{ key: 'n', says: 'New asset', run: () => void navigate('/clients/own/asset/new') }] : []);
  return (
    <div className="flex min-h-0 flex-1">
      <title>Our own assets · Jolly Rota</title>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="page-head">
          <h1>Clients</h1>
          <DirectoryViews />
          <FindWords label="Find an asset" value={q} onChange={(words) => set({ q: words })} />
          <span className="ml-auto flex items-center gap-4">
            <span className="text-row text-ink-2 max-[720px]:hidden">
              {first && `${plural(first.count, 'thing')} of our own${isArchive ? ' in the archive' : ''}`}
            </span>
            {first && (first.archived > 0 || isArchive) && (
              <button
                type="button"
                className="link-line text-note max-[720px]:hidden"
                onClick={() => set({ archived: isArchive ? '' : 'yes' })}
              >
                {isArchive ? 'Those in use' : `${first.archived} in the archive`}
              </button>
            )}
            {assets.length > 0 && !isArchive && (
              <Link className="link-line text-row max-[720px]:hidden" to={`/clients/own/labels?${search}`}>
                Labels
              </Link>
            )}
            {may('clients') && <ListWays list="assets" />}
            {may('clients') && (
              <Link className="btn btn-primary" to={`/clients/own/asset/new?${search}`}>
                New asset
              </Link>
            )}
          </span>
        </div>
        {error && !first && <Trouble error={error} retry={again} />}
        {!error && !first && <Skeleton rows={14} />}
        {first && assets.length === 0 && (q !== '' || isArchive) && (
          <Empty title={isArchive ? 'Nothing is in the archive.' : 'Nothing of these words.'}>
            <button type="button" className="link-line" onClick={clear}>
              Show all
            </button>
          </Empty>
        )}
        {first && assets.length === 0 && q === '' && !isArchive && (
          <Empty title="What do you look after?">
            Sites, and the things that stand on them: each has a name, a place and a tag, and schedules and tasks name
            it.
          </Empty>
        )}
        {assets.length > 0 && (
          <section
            aria-label="Our own"
            className="@container min-h-0 flex-1 overflow-y-auto border-t border-line-2"
            onKeyDown={moveThroughRows}
          >
            <Groups assets={assets} />
            {last?.more && (
              <p className="px-5 py-2.5 text-row">
                <button type="button" className="link-line" onClick={more}>
                  Show the next
                </button>
              </p>
            )}
          </section>
        )}
      </div>
      <Outlet context={{ assets, count: first?.count ?? 0 }} />
    </div>
  );
}

/** Sites first, then what stands on each of them, then what stands on none. */
function Groups({ assets }: { readonly assets: readonly AssetRecord[] }) {
  const groups = [...groupBy(assets, ({ isSite, site }) => (isSite ? 'sites' : (site?.name ?? 'elsewhere')))];
  const rank = (name: string) => (name === 'sites' ? 0 : name === 'elsewhere' ? 2 : 1);
  return groups
    .sort(([a], [b]) => rank(a) - rank(b) || a.localeCompare(b))
    .map(([name, own]) => (
      <section key={name} aria-label={name} className="border-b border-line-2">
        <h2 className="hidden px-4 pt-2 text-row text-primary @max-[660px]:block">{name}</h2>
        <ul>
          {own.map((asset, i) => (
            <Line key={asset.id} asset={asset} group={i === 0 ? name : null} />
          ))}
        </ul>
      </section>
    ));
}

function Line({ asset, group }: { readonly asset: AssetRecord; readonly group: string | null }) {
  const { assetFields } = useWorkspace();
  const { search } = useAddressFilter();
  const today = useToday();
  const known = assetFields.flatMap((field) => {
    const value = asset.fields[field.key];
    return value === undefined ? [] : [`${field.name} ${sayFieldValue(field, value)}`];
  });
  return (
    <li className="relative grid min-h-9 grid-cols-[104px_minmax(160px,1fr)_100px_minmax(120px,1fr)_minmax(140px,1.2fr)] items-center gap-x-3 border-b border-line pr-5 text-row last:border-b-0 hover:bg-base-200 @max-[660px]:grid-cols-[minmax(0,1fr)_auto] @max-[660px]:px-4">
      <span className="self-start pt-2 pl-5 font-head leading-4 font-[650] text-primary font-stretch-[86%] @max-[660px]:hidden">
        {group ?? ''}
      </span>
      <Link
        data-row
        className="truncate text-body font-semibold before:absolute before:inset-0 before:content-['']"
        to={`/clients/own/asset/${asset.id}?${search}`}
      >
        {asset.name}
      </Link>
      <span className="truncate font-mono text-note">{asset.tag}</span>
      <span className="truncate text-ink-2 @max-[660px]:hidden">{asset.place}</span>
      <span className="truncate text-ink-2 @max-[660px]:hidden">{[...known, ...service(asset, today)].join(', ')}</span>
    </li>
  );
}

function service({ servesFrom, servesUntil }: AssetRecord, today: number): string[] {
  if (servesUntil !== null)
    return [
      `${dayOfIso(servesUntil) < today ? 'out of service since' : 'in service until'} ${sayDate(dayOfIso(servesUntil))}`,
    ];
  return servesFrom === null
    ? []
    : [`in service ${dayOfIso(servesFrom) > today ? 'from' : 'since'} ${sayDate(dayOfIso(servesFrom))}`];
}
