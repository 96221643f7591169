import type { Place } from '@/core/bodies/shell';
import type { Finding, Severity } from './finding';

/** What was found while a model was derived and calculated, and what was taken for granted. */
export class Report {
  readonly findings: Finding[] = [];
  private readonly said = new Map<string, number>();

  find(
    rule: string,
    severity: Severity,
    elements: string[],
    position: Place,
    [message, remedy]: [string, string],
  ): void {
    this.findings.push({ rule, severity, elements, position: [...position], message, remedy });
  }

  /** Says what was taken for granted, once however often it was. */
  assume(sentence: string): void {
    if (!this.said.has(sentence)) this.said.set(sentence, 1);
  }

  /** Says what was taken for granted of one thing after another; how often is counted. */
  assumeOfEach(sentence: string): void {
    this.said.set(sentence, (this.said.get(sentence) ?? 0) + 1);
  }

  assumed(): string[] {
    return [...this.said].map(([sentence, count]) => (count === 1 ? `${sentence}.` : `${sentence} (${count} times).`));
  }
}
