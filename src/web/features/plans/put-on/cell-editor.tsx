import { useState } from 'react';
import type { PutOnLook, ServicePlan } from '../../../../contract/index.ts';
import { dayOfIso, estimatesOf, MAIN_PART } from '../../../../core/index.ts';
import { CloseButton } from '../../../kit/side-sheet.tsx';
import { PhraseBox } from '../../schedules/rule/phrase-box.tsx';
import { DefaultWho } from '../../templates/default-who.tsx';
import { ItemEstimates } from '../item-estimates.tsx';
import { DatesCompared } from './dates-compared.tsx';
import { type CellPlace, type OwnDraft, ownAt, type PutOnDraft, withOwn, withOwnForAll } from './put-on-draft.ts';

interface CellEditorProps {
  readonly plan: ServicePlan;
  readonly place: CellPlace;
  readonly draft: PutOnDraft;
  readonly look: PutOnLook | null;
  readonly onChange: (draft: PutOnDraft) => void;
  readonly onClose: () => void;
}

/** What is different of one item for one client: its rule, who does it, how long it takes, or that it is left out. */
export function CellEditor({ plan, place, draft, look, onChange, onClose }: CellEditorProps) {
  const item = plan.items.find(({ key }) => key === place.item);
  const client = draft.clients.find(({ clientId }) => clientId === place.clientId);
  const own = ownAt(draft, place);
  const [isLeaving, setLeaving] = useState(own?.leftOut !== undefined);
  if (!item || !client) return null;
  const told = look?.clients.find((one) => one.client.id === place.clientId);
  const asset = told?.assets.find(({ id }) => id === place.assetId)?.name;
  const set = (next: Omit<OwnDraft, 'item' | 'assetId'> | undefined) => onChange(withOwn(draft, place, next));
  const { leftOut: _leftOut, item: _item, assetId: _assetId, ...kept } = own ?? { item: '', assetId: null };
  const change = (next: Partial<OwnDraft>) => set({ ...kept, ...next });
  const ownEstimates = estimatesOf({ estimateMinutes: own?.estimateMinutes ?? null, stepMinutes: own?.stepMinutes });
  const others = draft.clients.length - 1;
  return (
    <section
      aria-label={`${item.template.name} for ${client.name}`}
      className="flex-none border-t-2 border-accent px-5 py-2.5 max-[720px]:px-4"
    >
      <h2 className="flex flex-wrap items-center gap-x-4 text-body leading-6">
        {item.template.name} for {asset ? `${asset}, ` : ''}
        {client.name}
        <span className="ml-auto flex flex-wrap items-center gap-x-4 font-sans text-row font-normal font-stretch-normal">
          {!isLeaving && (
            <button type="button" className="link-line" onClick={() => setLeaving(true)}>
              Leave it out
            </button>
          )}
          {(own || isLeaving) && (
            <button
              type="button"
              className="link-line"
              onClick={() => {
                setLeaving(false);
                set(undefined);
              }}
            >
              As the plan
            </button>
          )}
          {others > 0 && (
            <button type="button" className="link-line" onClick={() => onChange(withOwnForAll(draft, place))}>
              The same for all {others + 1}
            </button>
          )}
          <CloseButton onClose={onClose} />
        </span>
      </h2>
      {isLeaving ? (
        <p className="text-row leading-8">
          left out, as{' '}
          <input
            className="blank h-7 w-[320px]"
            aria-label="Why it is left out"
            placeholder="the agreement runs to 2029"
            maxLength={200}
            // biome-ignore lint/a11y/noAutofocus: it was just asked for
            autoFocus
            defaultValue={own?.leftOut ?? ''}
            onChange={({ target }) => {
              const why = target.value.trim();
              set(why === '' ? undefined : { leftOut: why });
            }}
          />{' '}
          <span className="text-ink-2">say why, then it is left out</span>
        </p>
      ) : (
        <div className="text-row leading-8">
          <PhraseBox
            recurrence={own?.recurrence ?? item.recurrence}
            onChange={(recurrence) => change({ recurrence: { ...recurrence, start: item.recurrence.start } })}
          />
          by{' '}
          <DefaultWho
            label="Who does it"
            rule={own?.assignment ?? item.assignment}
            onChange={(assignment) => change({ assignment })}
          />
          {told?.usualPerson && (own?.assignment ?? item.assignment).kind === 'usualPerson' && (
            <span className="text-ink-2"> ({told.usualPerson.name})</span>
          )}{' '}
          <ItemEstimates
            label="Estimate"
            template={item.template}
            estimates={{ ...estimatesOf(item), ...ownEstimates }}
            onChange={(key, minutes) =>
              change(
                key === MAIN_PART
                  ? { estimateMinutes: minutes }
                  : { stepMinutes: { ...own?.stepMinutes, [key]: minutes } },
              )
            }
          />
          {item.template.notice && <span className="text-ink-2"> notice {item.template.notice}</span>}
          <DatesCompared
            item={item}
            own={{ ...item, recurrence: { ...(own?.recurrence ?? item.recurrence), start: item.recurrence.start } }}
            name={asset ?? client.name}
            from={dayOfIso(draft.from)}
          />
        </div>
      )}
    </section>
  );
}
