import { put, remove, type Edit } from '@/core/model/edits';
import type { AcceptanceRow, ProjectState } from '@/core/model/state';
import type { Finding } from './finding';

type Acceptances = Pick<ProjectState, 'acceptance'>;

const keyOf = ({ rule, elements, message }: Pick<Finding, 'rule' | 'elements' | 'message'>): string =>
  JSON.stringify([rule, [...elements].sort(), message]);

/** Longer lists of elements are cut: what a finding says tells it apart as well. */
const mostElements = 1000;

/** A finding with why it is accepted; null where it is not. */
export interface Judged {
  finding: Finding;
  accepted: AcceptanceRow | null;
}

/** Findings with what was said of them. One that says something else than it did is open again. */
export function judged(findings: readonly Finding[], { acceptance }: Acceptances): Judged[] {
  const known = new Map(Object.values(acceptance).map((row) => [keyOf(row), row]));
  return findings.map((finding) => ({
    finding,
    accepted: known.get(keyOf({ ...finding, elements: finding.elements.slice(0, mostElements) })) ?? null,
  }));
}

/** Accepts a finding for a reason that is kept. */
export const acceptFinding = ({ rule, elements, message }: Finding, reason: string, newId: () => string): Edit => ({
  label: `Accept a finding: ${rule}`,
  changes: [put('acceptance', { id: newId(), rule, elements: elements.slice(0, mostElements), message, reason })],
});

/** Takes an acceptance back. */
export const reopenFinding = ({ id, rule }: AcceptanceRow): Edit => ({
  label: `Open a finding again: ${rule}`,
  changes: [remove('acceptance', id)],
});
