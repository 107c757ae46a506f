import { nearestWord } from './spelling.ts';

/** Something in braces that is not as it should be. */
export interface TokenProblem {
  /** Index of the first character at fault. */
  readonly at: number;
  readonly message: string;
}

const PIECE = /\{([^{}]*)\}?|\}/g;

/** The names of what stands in braces, as they are written but for case and the spaces around them. */
export function tokensIn(text: string): string[] {
  return [...text.matchAll(PIECE)].flatMap(([, name]) => (name === undefined ? [] : [name.trim().toLowerCase()]));
}

/**
 * What is wrong with the braces of a text, in words with a suggestion; none when it can be filled in.
 * @param names what may stand in braces
 * @param example one of them
 */
export function tokenProblems(text: string, names: readonly string[], example: string): TokenProblem[] {
  const problems: TokenProblem[] = [];
  for (const match of text.matchAll(PIECE)) {
    const [piece, name] = match;
    const at = match.index;
    if (name === undefined) problems.push({ at, message: `This } closes nothing: a token is written {${example}}.` });
    else if (!piece.endsWith('}'))
      problems.push({ at, message: `“${piece.slice(0, 20)}” is not closed: write {${example}}.` });
    else if (!names.includes(name.trim().toLowerCase())) {
      const near = nearestWord(name, names);
      const hint = near ? `Did you mean {${near}}?` : `There are ${names.map((one) => `{${one}}`).join(', ')}.`;
      problems.push({ at, message: `{${name.slice(0, 20)}} is not a token. ${hint}` });
    }
  }
  return problems;
}
