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
  /** What puts it right for certain, as a button does it. */
  fix?: Fix;
}

/**
 * Elements that are deleted, supports that are drawn where feet stand on nothing, or the finding's elements moved by a
 * shift in plan, metres.
 */
export type Fix =
  | { words: string; delete: readonly string[] }
  | { words: string; supports: true }
  | { words: string; move: readonly [number, number] };

/** A finding as its rule makes it. */
export type Found = Omit<Finding, 'rule'>;

/** Findings with the gravest first. */
export const inOrder = (findings: readonly Finding[]): Finding[] =>
  [...findings].sort((a, b) => severities.indexOf(a.severity) - severities.indexOf(b.severity));
