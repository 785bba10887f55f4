/** What the user can mend: one line on standard error, exit code 2. */
export class BadInput extends Error {}
