import { useMemo } from 'react';
import { Link, useLocation, useNavigate, useOutletContext, useParams } from 'react-router';
import { z } from 'zod';
import { type AssetInput, type AssetRecord, assetFieldsSchema, assetInputSchema } from '../../../../contract/index.ts';
import { sayTrouble } from '../../../app/shell/toast.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { SECTION, SideSheet } from '../../../kit/side-sheet.tsx';
import { Empty, NotAllowed } from '../../../kit/states.tsx';
import { CalendarLink } from '../../calendars/calendar-link.tsx';
import { useLookedAt } from '../../impact/looked-at.tsx';
import { useDirectoryActions } from '../directory-api.ts';
import { RecordEditor } from '../record-editor.tsx';
import { AssetForm } from './asset-form.tsx';

type Draft = AssetInput & { readonly version: number };

const draftSchema = assetFieldsSchema.extend({ version: z.number() });
const NEW = 'new';

/** What is known of an asset, a client's or our own, to be changed, or a new one. */
export function AssetSheet() {
  const { clientId = null, assetId = '' } = useParams();
  const { assets } = useOutletContext<{ readonly assets: readonly AssetRecord[] }>();
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const { search } = useLocation();
  const { addAsset, changeAsset } = useDirectoryActions();
  const home = clientId ? `/clients/${clientId}` : `/clients/own${search}`;
  const close = () => void navigate(home);
  const isNew = assetId === NEW;
  const asset = assets.find(({ id }) => id === assetId);
  const initial = useMemo((): Draft => {
    if (!asset)
      return {
        ...{ clientId, name: '', place: '', tag: null, isSite: false, siteId: null, fields: {} },
        ...{ servesFrom: null, servesUntil: null, version: 0 },
      };
    const { id: _, site: __, isArchived: ___, ...written } = asset;
    return written;
  }, [asset, clientId]);
  if (!may('clients')) return <NotAllowed right="clients" what="change assets" to={home} back="Back" />;
  return (
    <SideSheet label={asset?.name ?? 'A new asset'} onClose={close}>
      {!asset && !isNew ? (
        <Empty title="Nothing of this address">
          It may be that it was taken out again, or lies further down the list.
        </Empty>
      ) : (
        <RecordEditor<Draft>
          key={assetId}
          place={`asset.${clientId ?? 'own'}.${assetId}`}
          title={(draft) => draft.name || 'A new asset'}
          aside={asset?.isArchived ? 'archived' : asset ? 'what is known' : 'not saved yet'}
          initial={initial}
          form={draftSchema}
          check={assetInputSchema}
          isNew={isNew}
          onSave={async ({ version, ...input }) => {
            if (asset) await changeAsset(asset.id, { ...input, version });
            else {
              await addAsset(input);
              close();
            }
          }}
          onClose={close}
          foot={
            asset && (
              <>
                <p className={`${SECTION} border-b-0 text-row`}>
                  <Link className="link-line" to={`/day-sheet/together?${asset.isSite ? 'site' : 'asset'}=${asset.id}`}>
                    Day sheet of {asset.name}
                  </Link>
                  {!asset.isArchived && (
                    <span className="ml-4">
                      <CalendarLink of={{ kind: 'asset', id: asset.id }} />
                    </span>
                  )}
                </p>
                <Archiving asset={asset} />
              </>
            )
          }
        >
          {(parts) => <AssetForm {...parts} siteName={asset?.site?.name ?? null} />}
        </RecordEditor>
      )}
    </SideSheet>
  );
}

function Archiving({ asset: { id, name, isArchived } }: { readonly asset: AssetRecord }) {
  const { archiveAsset, impactOfArchivingAsset } = useDirectoryActions();
  const { look, busy, dialog } = useLookedAt<{ readonly what: string }>({
    impactOf: () => impactOfArchivingAsset(id, !isArchived),
    save: () => archiveAsset(id, !isArchived),
    hasReach: false,
    onRefused: sayTrouble,
  });
  return (
    <p className={`${SECTION} border-b-0 text-row`}>
      {dialog}
      <button
        type="button"
        className="link-line"
        disabled={busy}
        onClick={() =>
          look({
            what: isArchived
              ? `${name} comes back from the archive, with what went there too`
              : `${name} goes into the archive, with what is scheduled on it`,
          })
        }
      >
        {isArchived ? `Bring ${name} back` : `Archive ${name}`}
      </button>
    </p>
  );
}
