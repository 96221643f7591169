/** NUL, and halves of surrogate pairs: no database and no file of text can hold them. */
const unstorable = /\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

export const isStorable = (text: string): boolean => text.search(unstorable) < 0;

/** The text with a mark in place of each character that cannot be held. */
export const storable = (text: string): string => (isStorable(text) ? text : text.replace(unstorable, '\ufffd'));
