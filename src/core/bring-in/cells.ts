/** A cell that begins so is reckoned by a spreadsheet as a formula; the tabulator and the return hide one. */
const FORMULA = /^[=+\-@\t\r]/;
const DEFUSED = /^'(?=[=+\-@\t\r])/;

/**
 * A text as a cell of a CSV that a spreadsheet shows and never reckons: with an apostrophe before what would begin a formula.
 * A plain number stays one.
 * @see OWASP, CSV Injection
 */
export const defused = (text: string): string =>
  FORMULA.test(text) && !/^-?\d+(\.\d+)?$/.test(text) ? `'${text}` : text;

/** What was written, of a cell that was defused. */
export const asWritten = (cell: string): string => cell.replace(DEFUSED, '');
