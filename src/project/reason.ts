/** Why something could not be done, as a sentence. */
export const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
