import { useMemo } from 'react';
import { useNavigate, useOutletContext, useParams } from 'react-router';
import { z } from 'zod';
import { type ClientInput, type ClientRecord, clientInputSchema } from '../../../../contract/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { SideSheet } from '../../../kit/side-sheet.tsx';
import { NotAllowed } from '../../../kit/states.tsx';
import { useDirectoryActions } from '../directory-api.ts';
import { RecordEditor } from '../record-editor.tsx';
import { ClientForm } from './client-form.tsx';

type Draft = ClientInput & { readonly version: number };

const BLANK: Draft = {
  ...{ name: '', address: '', usualPersonId: null, notes: '', fields: {}, contacts: [], version: 0 },
};
const draftSchema = clientInputSchema.extend({ version: z.number() });

/** What is known of a client, to be changed, or a new one. */
export function ClientSheet() {
  const { clientId } = useParams();
  const client = useOutletContext<ClientRecord | undefined>();
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const { addClient, changeClient } = useDirectoryActions();
  const close = () => void navigate(clientId ? `/clients/${clientId}` : '/clients');
  const initial = useMemo((): Draft => {
    if (!client) return BLANK;
    const { name, address, usualPersonId, notes, fields, contacts, version } = client;
    return { name, address, usualPersonId, notes, fields, contacts, version };
  }, [client]);
  if (!may('clients')) return <NotAllowed right="clients" what="change clients" to="/clients" back="The clients" />;
  return (
    <SideSheet label={client?.name ?? 'A new client'} onClose={close}>
      <RecordEditor<Draft>
        place={`client.${clientId ?? 'new'}`}
        title={(draft) => draft.name || 'A new client'}
        aside={client ? 'what is known' : 'not saved yet'}
        initial={initial}
        form={draftSchema}
        check={clientInputSchema}
        isNew={!client}
        onSave={async ({ version, ...input }) => {
          if (client) await changeClient(client.id, { ...input, version });
          else void navigate(`/clients/${(await addClient(input)).id}`, { replace: true });
        }}
        onClose={close}
      >
        {(parts) => <ClientForm {...parts} />}
      </RecordEditor>
    </SideSheet>
  );
}
