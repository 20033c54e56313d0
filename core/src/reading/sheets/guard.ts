/** What a spreadsheet takes for the beginning of a formula, behind any marks that guard it already. */
const FORMULA = /^'*[=+\-@\t\r]/;
/** A number is computed to itself. */
const NUMBER = /^-\d+([.,]\d+)?$/;
const GUARDED = /^'+[=+\-@\t\r]/;

/**
 * Text for a CSV file that a spreadsheet shows and does not compute: a formula that somebody wrote into a name would
 * run on the machine of whoever opens the file (OWASP, CSV injection). `unguard` gives the text back.
 */
export function guard<T>(cell: T): T | string {
  return typeof cell === 'string' && FORMULA.test(cell) && !NUMBER.test(cell) ? `'${cell}` : cell;
}

/** A cell of a CSV file as it was before `guard`. */
export function unguard(text: string): string {
  return GUARDED.test(text) ? text.slice(1) : text;
}
