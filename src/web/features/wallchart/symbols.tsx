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
        <pattern id="wall-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke="var(--line-2)" strokeWidth="1.2" />
        </pattern>
      </defs>
    </svg>
  );
}
