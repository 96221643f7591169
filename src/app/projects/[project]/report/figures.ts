/** Heads of columns that hold figures. */
export const figures = (...texts: string[]) => texts.map((text) => ({ text, figures: true as const }));
