import { Fragment } from 'react';
import type { HeardOf } from '../../../contract/index.ts';
import {
  HEARD_BY,
  HEARD_BY_WORDS,
  type HeardBy,
  type HearWish,
  KIND_WORDS,
  MESSAGE_KINDS,
  MESSAGE_SIDES,
  type MessageSide,
} from '../../../core/index.ts';

interface HearsTableProps {
  readonly hears: readonly HeardOf[];
  /** How others' work is called: what they gave, or all that they answer for. */
  readonly answers: boolean;
  readonly onChoose: (of: HeardOf, wish: HearWish) => void;
}

const SHORT: Readonly<Record<HeardBy, string>> = { here: 'here', mail: 'mail', phone: 'phone' };

const count = (n: number) => n.toLocaleString('en-GB');

/** What happens, how often that was, and where somebody hears of it: of their own work, and of that of others. */
export function HearsTable({ hears, answers, onChoose }: HearsTableProps) {
  const of = new Map(hears.map((one) => [`${one.side} ${one.kind}`, one]));
  const kinds = MESSAGE_KINDS.filter((kind) => MESSAGE_SIDES.some((side) => of.has(`${side} ${kind}`)));
  const sides = MESSAGE_SIDES.filter((side) => hears.some((one) => one.side === side));
  const names: Readonly<Record<MessageSide, string>> = {
    mine: 'My own work',
    gave: answers ? 'Work of others' : 'Work I gave to others',
  };
  const sum = (side: MessageSide, which: (one: HeardOf) => boolean) =>
    hears.reduce((total, one) => total + (one.side === side && which(one) ? one.times : 0), 0);
  return (
    <table className="w-full border-collapse text-row">
      <thead>
        <tr>
          <td />
          {sides.map((side) => (
            <th
              key={side}
              colSpan={1 + HEARD_BY.length}
              scope="colgroup"
              className="border-l border-line-2 px-3 pt-2 text-left font-semibold"
            >
              {names[side]}
            </th>
          ))}
        </tr>
        <tr className="border-b border-line-2 text-note text-ink-2">
          <th scope="col" className="px-5 pb-1 text-left font-normal max-[720px]:px-3">
            what happens
          </th>
          {sides.map((side) => (
            <Fragment key={side}>
              <th scope="col" className="w-14 border-l border-line-2 px-3 pb-1 text-right align-bottom font-normal">
                times
              </th>
              {HEARD_BY.map((by) => (
                <th key={by} scope="col" className="w-12 pb-1 align-bottom font-normal last:pr-2">
                  {/* Side by side they would run into each other on a phone. */}
                  <span className="inline-block max-[720px]:rotate-180 max-[720px]:[writing-mode:vertical-rl]">
                    {SHORT[by]}
                  </span>
                </th>
              ))}
            </Fragment>
          ))}
        </tr>
      </thead>
      <tbody>
        {kinds.map((kind) => (
          <tr key={kind} className="border-b border-line hover:bg-base-200">
            <th scope="row" className="h-8.5 px-5 text-left font-semibold max-[720px]:px-3">
              {KIND_WORDS[kind].name}{' '}
              <span className="font-normal whitespace-nowrap text-ink-2 max-[900px]:hidden">
                {KIND_WORDS[kind].note}
              </span>
            </th>
            {sides.map((side) => (
              <HeardCells
                key={side}
                heard={of.get(`${side} ${kind}`)}
                name={`${KIND_WORDS[kind].name}, ${names[side].toLowerCase()}`}
                onChoose={onChoose}
              />
            ))}
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr className="border-b border-line-2">
          <th scope="row" className="h-9 px-5 text-left font-normal max-[720px]:px-3">
            That is, in 4 weeks
          </th>
          {sides.map((side) => (
            <Fragment key={side}>
              <td className="border-l border-line-2 px-3 text-right text-ink-2 tabular-nums">
                {count(sum(side, () => true))}
              </td>
              {HEARD_BY.map((by) => (
                <td key={by} className="text-center font-head text-[17px] font-[650] tabular-nums last:pr-2">
                  {count(sum(side, ({ wish }) => wish[by]))}
                </td>
              ))}
            </Fragment>
          ))}
        </tr>
      </tfoot>
    </table>
  );
}

function HeardCells({
  heard,
  name,
  onChoose,
}: {
  readonly heard: HeardOf | undefined;
  readonly name: string;
  readonly onChoose: HearsTableProps['onChoose'];
}) {
  if (heard === undefined)
    return (
      <>
        <td className="border-l border-line-2 px-3 text-right text-ink-2">·</td>
        {HEARD_BY.map((by) => (
          <td key={by} className="text-center text-ink-2 last:pr-2">
            ·
          </td>
        ))}
      </>
    );
  const { times, wish, fixed } = heard;
  const box = (where: HeardBy) => (
    <input
      type="checkbox"
      className="check align-middle disabled:opacity-50"
      aria-label={`${name}: ${HEARD_BY_WORDS[where]}`}
      checked={wish[where]}
      disabled={fixed[where]}
      title={fixed[where] ? 'That is always told: nobody can turn it off.' : undefined}
      onChange={() => onChoose(heard, { ...wish, [where]: !wish[where] })}
    />
  );
  return (
    <>
      <td className="border-l border-line-2 px-3 text-right tabular-nums">{count(times)}</td>
      {HEARD_BY.map((by) => (
        <td key={by} className="text-center last:pr-2">
          {box(by)}
        </td>
      ))}
    </>
  );
}
