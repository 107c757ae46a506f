import { ClientPicker } from '../../clients/client-picker.tsx';

interface AddClientProps {
  readonly chosen: readonly string[];
  readonly onAdd: (client: { readonly id: string; readonly name: string }) => void;
}

/** One more client, looked up by name. */
export function AddClient({ chosen, onAdd }: AddClientProps) {
  return (
    <div className="flex-none border-b border-line px-5 py-2 max-[720px]:px-4">
      <ClientPicker label="Add a client" look="button" without={chosen} onChoose={onAdd} />
    </div>
  );
}
