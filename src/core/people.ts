/** What a person may do in a project, from the least: look, change, and say who may. */
export const rights = ['reader', 'editor', 'owner'] as const;
export type Right = (typeof rights)[number];
