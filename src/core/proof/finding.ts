import type { Place } from '@/core/bodies/shell';

/** Errors make a calculation wrong or impossible; warnings may; notes are to be known. */
export const severities = ['error', 'warning', 'note'] as const;
export type Severity = (typeof severities)[number];

/** Something that a rule found: where, what was found and expected, and what to do. */
export interface Finding {
  rule: string;
  severity: Severity;
  /** The ids of the elements that it is about. */
  elements: string[];
  /** Where it is, metres; of a level or of the whole model its zero. */
  position: Place;
  message: string;
  remedy: string;
}

/** A finding as its rule makes it. */
export type Found = Omit<Finding, 'rule'>;
