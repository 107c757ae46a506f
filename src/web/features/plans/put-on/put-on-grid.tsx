import { X } from 'lucide-react';
import { useState } from 'react';
import { MOST_CELLS, type PutOnLook, type ServicePlan } from '../../../../contract/index.ts';
import { dayOfIso, plural, sayDuration } from '../../../../core/index.ts';
import { DateBlock } from '../../../kit/date-block.tsx';
import { type CellPlace, ownAt, type PutOnDraft } from './put-on-draft.ts';

interface PutOnGridProps {
  readonly plan: ServicePlan;
  readonly draft: PutOnDraft;
  readonly look: PutOnLook | null;
  readonly place: CellPlace | null;
  readonly onPlace: (place: CellPlace) => void;
  readonly onOut: (clientId: string) => void;
}

/** Rows at first; more on a press. */
const FIRST_ROWS = 40;

/** A row for each client and a column for each item, with the first date of each; what is different for one stands in its cell. */
export function PutOnGrid({ plan, draft, look, place, onPlace, onOut }: PutOnGridProps) {
  const [isWhole, setWhole] = useState(false);
  const shown = isWhole ? draft.clients : draft.clients.slice(0, FIRST_ROWS);
  const rest = draft.clients.length - shown.length;
  const nowOf = (key: string) =>
    look?.clients.reduce(
      (sum, { cells }) => sum + cells.filter(({ item }) => item === key).reduce((all, { now }) => all + now, 0),
      0,
    ) ?? 0;
  const isAllTold = look !== null && look.clients.length === look.figures.clients;
  return (
    <section
      className="min-h-0 flex-1 overflow-auto max-[1000px]:flex-none"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls sideways, also by keyboard
      tabIndex={0}
      aria-label="What each has"
    >
      <table className="w-full border-collapse text-row">
        <thead className="sticky top-0 z-1 bg-base-100 text-left align-top">
          <tr className="border-b border-line-2">
            <th
              scope="col"
              className="w-[176px] min-w-[148px] py-2 pl-5 align-bottom text-note font-normal text-ink-2 max-[720px]:pl-4"
            >
              client, usual person
            </th>
            {plan.items.map(({ key, template, phrase, minutes, who }) => (
              <th key={key} scope="col" className="min-w-[112px] py-2 pr-3 pl-2 font-normal">
                <b className="block text-body leading-4.5 font-semibold">{template.name}</b>
                <span className="block pt-1 text-note leading-4.25 text-ink-2">
                  {phrase}
                  <br />
                  {sayDuration(minutes)}, {who}
                </span>
              </th>
            ))}
            <th scope="col" className="w-12 py-2 pr-4 text-right align-bottom text-note font-normal text-ink-2">
              now
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ clientId, name }) => (
            <Row
              key={clientId}
              name={name}
              told={look?.clients.find(({ client }) => client.id === clientId)}
              isLooked={look !== null && look.clients.length >= MOST_CELLS}
              {...{ clientId, plan, draft, place, onPlace }}
              onOut={draft.clients.length > 1 ? () => onOut(clientId) : null}
            />
          ))}
          {rest > 0 && (
            <tr>
              <td className="py-2 pl-5 text-ink-2" colSpan={plan.items.length + 2}>
                and {plural(rest, 'more client')}{' '}
                <button type="button" className="link-line ml-2" onClick={() => setWhole(true)}>
                  Show all
                </button>
              </td>
            </tr>
          )}
        </tbody>
        {look && isAllTold && draft.clients.length > 1 && (
          <tfoot>
            <tr className="border-b border-line-2 text-note">
              <th scope="row" className="py-2 pl-5 text-left font-normal text-ink-2 max-[720px]:pl-4">
                tasks made now
              </th>
              {plan.items.map(({ key }) => (
                <td key={key} className="py-2 pl-2">
                  {nowOf(key) > 0 ? (
                    <b className="font-head text-body font-[650]">{nowOf(key)}</b>
                  ) : (
                    <span className="text-ink-2">made later</span>
                  )}
                </td>
              ))}
              <td className="py-2 pr-4 text-right">
                <b className="font-head text-body font-[650]">{look.figures.tasksNow}</b>
              </td>
            </tr>
          </tfoot>
        )}
      </table>
    </section>
  );
}

interface RowProps extends Pick<PutOnGridProps, 'plan' | 'draft' | 'place' | 'onPlace'> {
  /** Whether it is known what they would have. */
  readonly isLooked: boolean;
  readonly clientId: string;
  readonly name: string;
  readonly told: PutOnLook['clients'][number] | undefined;
  readonly onOut: (() => void) | null;
}

function Row({ clientId, name, told, isLooked, plan, draft, place, onPlace, onOut }: RowProps) {
  return (
    <tr className="group border-b border-line align-top">
      <th scope="row" className="py-2 pl-5 text-left font-normal max-[720px]:pl-4">
        <span className="flex items-start gap-1">
          <b className="min-w-0 flex-1 text-body leading-5 font-semibold">{name}</b>
          {onOut && (
            <button
              type="button"
              className="grid h-5 w-6 cursor-pointer place-items-center text-ink-2 opacity-0 group-hover:opacity-100 focus-visible:opacity-100 hover:text-ink max-[720px]:h-11 max-[720px]:opacity-100"
              aria-label={`Leave ${name} as before`}
              onClick={onOut}
            >
              <X size={13} aria-hidden />
            </button>
          )}
        </span>
        <span className="block text-note leading-4.5 text-ink-2">
          {told && (told.usualPerson?.name ?? 'nobody usual')}
        </span>
      </th>
      {told === undefined && isLooked && (
        <td className="px-2 py-2 text-note text-ink-2" colSpan={plan.items.length}>
          not told one by one: the figures count it
        </td>
      )}
      {(told !== undefined || !isLooked) &&
        plan.items.map(({ key, each }) => {
          const cells = told?.cells.filter(({ item }) => item === key) ?? [];
          return (
            <td key={key} className="px-0 py-1">
              {told && cells.length === 0 && (
                <span className="block px-2 py-1 text-note leading-4.5 text-ink-2">
                  {each === 'asset' ? 'has no assets' : 'nothing'}
                </span>
              )}
              {cells.map((cell) => (
                <Cell
                  key={cell.assetId ?? ''}
                  cell={cell}
                  isChosen={place?.clientId === clientId && place.item === key && place.assetId === cell.assetId}
                  isTyped={ownAt(draft, { clientId, item: key, assetId: cell.assetId }) !== undefined}
                  label={`${plan.items.find((one) => one.key === key)?.template.name} for ${cell.asset ?? name}`}
                  onChoose={() => onPlace({ clientId, item: key, assetId: cell.assetId })}
                />
              ))}
            </td>
          );
        })}
      <td className="py-2 pr-4 text-right">
        <b className="font-head text-body font-[650]">{told?.now ?? ''}</b>
      </td>
    </tr>
  );
}

interface CellProps {
  readonly cell: PutOnLook['clients'][number]['cells'][number];
  readonly isChosen: boolean;
  readonly isTyped: boolean;
  readonly label: string;
  readonly onChoose: () => void;
}

function Cell({ cell, isChosen, label, onChoose }: CellProps) {
  const { first, asset, leftOut, isOwn, says } = cell;
  return (
    <button
      type="button"
      aria-label={`${label}: ${leftOut === null ? (isOwn ? says : 'as the plan') : `left out, ${leftOut}`}`}
      aria-pressed={isChosen}
      className="block w-full cursor-pointer rounded-field border-2 border-transparent px-1.5 py-0.5 text-left hover:bg-base-200 aria-pressed:border-accent aria-pressed:shadow-[0_0_0_2px_var(--color-primary)]"
      onClick={onChoose}
    >
      {asset && <span className="block truncate text-note leading-4.5">{asset}</span>}
      {leftOut === null ? (
        <>
          {first ? <DateBlock day={dayOfIso(first)} /> : <span className="text-ink-2">no date within a year</span>}
          <span
            className={`block text-note leading-4.5 ${isOwn ? 'underline decoration-primary decoration-2 underline-offset-3' : 'text-ink-2'}`}
          >
            {isOwn ? says : 'as the plan'}
          </span>
        </>
      ) : (
        <span className="block text-note leading-4.5">
          <span className="text-ink-2">left out,</span>
          <br />
          {leftOut}
        </span>
      )}
    </button>
  );
}
