// @ts-check
/** The line that was written last: what is chosen elsewhere is put into it. @type {{line: any}} */
export const lastWritten = { line: null };
