import { historyAddresses } from '../../../contract/addresses.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { BringBack, sayDeleted } from '../history/bring-back.tsx';

const SHOWN = 3;

/** The last templates that were deleted, to be brought back. */
export function DeletedTemplates() {
  const today = useToday();
  const deleted = useAnswer(historyAddresses.deletedTemplates, {}).data?.deleted ?? [];
  if (deleted.length === 0) return null;
  return (
    <p className="print:hidden mt-auto flex flex-none flex-wrap gap-x-5 gap-y-1 border-t border-line px-5 py-2 text-note leading-4 text-ink-2">
      {deleted.slice(0, SHOWN).map((one) => (
        <span key={one.changeId}>
          Deleted: “{one.title}”, {sayDeleted(one, today)}. <BringBack {...one} />
        </span>
      ))}
    </p>
  );
}
