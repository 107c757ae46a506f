import { WALL_LOOKS, type WallLook } from '../../../core/index.ts';
import { PennantShape, pennantHue } from '../../kit/pennant.tsx';
import { LOOK_SHAPES } from './wall-words.ts';

/** Half of a line's thickness of the small ones. */
const STROKE = 1.5;

export const symbolOf = (look: WallLook): string => `wall-${look}`;
export const hueOf = (look: WallLook): string => pennantHue(LOOK_SHAPES[look].state, LOOK_SHAPES[look].late);

/** The glyphs that the cells use, drawn once. */
export function WallSymbols() {
  return (
    <svg width="0" height="0" className="absolute" aria-hidden>
      <defs>
        {WALL_LOOKS.map((look) => (
          <symbol key={look} id={symbolOf(look)} viewBox="0 0 16 16" overflow="visible">
            <PennantShape {...LOOK_SHAPES[look]} stroke={STROKE} />
          </symbol>
        ))}
        {/* On paper everything is in millimetres. */}
        {(
          [
            ['wall-hatch', 6, 1.2],
            ['wall-hatch-paper', 1.5, 0.25],
          ] as const
        ).map(([id, step, line]) => (
          <pattern
            key={id}
            id={id}
            width={step}
            height={step}
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d={`M0 0V${step}`} stroke="var(--line-2)" strokeWidth={line} />
          </pattern>
        ))}
      </defs>
    </svg>
  );
}
