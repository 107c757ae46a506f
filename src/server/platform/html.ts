const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };

/** A text as it stands within HTML, as words and within quoted attributes. */
export const escaped = (text: string): string => text.replace(/[&<>"']/g, (sign) => SIGNS[sign] ?? sign);
