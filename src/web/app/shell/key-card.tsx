import { Dialog } from '../../kit/dialog.tsx';
import { useKeyRing } from './keys.tsx';

/** The card of keys that work here, in the order they were bound. */
export default function KeyCard({ onClose }: { readonly onClose: () => void }) {
  const { known } = useKeyRing();
  return (
    <Dialog label="Keys" className="w-[460px] p-6" onClose={onClose}>
      <form method="dialog" className="mb-3 flex items-center justify-between">
        <h2 className="text-title">Keys</h2>
        <button type="submit" className="btn">
          Close
        </button>
      </form>
      <dl>
        {known.map(({ key, says }) => (
          <KeyLine key={key} keys={[keyWords(key)]} says={says} />
        ))}
        <KeyLine keys={['↑', '↓', 'Enter']} says="Through a table, and open the line" />
        <KeyLine keys={['←', '→']} says="On the tideline, a day back or on" />
        <KeyLine keys={['Esc']} says="Close what is open" />
      </dl>
    </Dialog>
  );
}

function KeyLine({ keys, says }: { readonly keys: readonly string[]; readonly says: string }) {
  return (
    <div className="grid grid-cols-[140px_1fr] items-center border-b border-line py-1.5 last:border-0">
      <dt className="flex gap-1">
        {keys.map((key) => (
          <kbd key={key} className="kbd">
            {key}
          </kbd>
        ))}
      </dt>
      <dd>{says}</dd>
    </div>
  );
}

function keyWords(key: string): string {
  return key
    .replace(/^Mod\+(.)$/, (_, letter: string) => `Ctrl ${letter.toUpperCase()}`)
    .replace('Mod+', 'Ctrl ')
    .replace('Escape', 'Esc');
}
