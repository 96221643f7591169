import type { Here } from '@/core/here';

/** What another window is called. Where nobody signs in nobody has a name. */
export const nameOf = ({ name }: Pick<Here, 'name'>): string => name ?? 'Another window';
