/**
 * Parts as whole units that add up to the total, rounded: each rounded down, and those with the largest remainders up
 * (largest remainder method). @param unit by which each is divided, above 0
 */
export function roundedTogether(parts: readonly number[], unit: number): number[] {
  const down = parts.map((part) => Math.floor(part / unit));
  const total = Math.round(parts.reduce((sum, part) => sum + part, 0) / unit);
  const missing = total - down.reduce((sum, part) => sum + part, 0);
  const largest = parts
    .map((part, i) => ({ i, rest: part / unit - (down[i] ?? 0) }))
    .sort((a, b) => b.rest - a.rest || a.i - b.i)
    .slice(0, Math.max(0, missing));
  for (const { i } of largest) down[i] = (down[i] ?? 0) + 1;
  return down;
}
