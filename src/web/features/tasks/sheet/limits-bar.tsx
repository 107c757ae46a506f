import { type NumberDemand, outsideBy, sayNumber } from '../../../../core/index.ts';

/** Where a reading lies: the allowed part filled, what is outside as a solid block up to it. */
export function LimitsBar({ demand, value }: { readonly demand: NumberDemand; readonly value: number }) {
  const { least, most } = demand;
  const low = Math.min(least ?? value, most ?? value, value);
  const high = Math.max(least ?? value, most ?? value, value);
  const room = (high - low || Math.abs(high) || 1) * 0.18;
  const [from, to] = [least === null ? low - room : low - room * 0.2, most === null ? high + room : high + room];
  const at = (figure: number) => `${((figure - from) / (to - from)) * 100}%`;
  const width = (a: number, b: number) => `${(Math.abs(b - a) / (to - from)) * 100}%`;
  const isOut = outsideBy(demand, value) !== 0;
  const edge = most !== null && value > most ? most : (least ?? value);
  const allowedFrom = least ?? from;
  const allowedTo = most ?? to;
  return (
    <div className="relative mb-5 mt-2 h-3" aria-hidden>
      <i className="absolute top-[5px] h-px w-full bg-line-2" />
      <i
        className="absolute top-[1px] h-[9px] bg-petrol-2"
        style={{ left: at(allowedFrom), width: width(allowedFrom, allowedTo) }}
      />
      {isOut && (
        <i
          className="absolute top-[1px] h-[9px] bg-ink"
          style={{ left: at(Math.min(edge, value)), width: width(edge, value) }}
        />
      )}
      {!isOut && <i className="absolute -top-[2px] h-[15px] w-[3px] bg-ink" style={{ left: at(value) }} />}
      {[least, most, isOut ? value : null].map(
        (figure, i) =>
          figure !== null && (
            <span
              // biome-ignore lint/suspicious/noArrayIndexKey: the three places are always the same
              key={i}
              className={`absolute top-[13px] -translate-x-1/2 text-note leading-4 ${i === 2 ? 'font-semibold' : 'text-ink-2'}`}
              style={{ left: at(figure) }}
            >
              {sayNumber(figure)}
            </span>
          ),
      )}
    </div>
  );
}
