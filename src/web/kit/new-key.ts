/**
 * A random UUID (RFC 9562, section 5.4), by which the server knows something again that is sent twice. Browsers have
 * `randomUUID` over https and on this machine alone; random bytes they have everywhere.
 */
export function newKey(): string {
  if ('randomUUID' in crypto) return crypto.randomUUID();
  const bytes = (crypto as Crypto).getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-');
}
