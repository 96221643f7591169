import type { Place } from '@/core/bodies/shell';
import type { SourceChange } from '@/core/decisions/revise';
import { pointsOf } from '@/core/kinds/kinds';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { counted } from '@/core/model/counted';
import type { Finding } from '@/core/proof/finding';
import { unitNames } from '@/core/units/length';

/** Names of what is found about the drawings that a model was made of. */
export const sourceRules = ['unit not confirmed', 'revision not taken over'];

/** A drawing whose unit nobody has confirmed: everything made of it hangs on that. */
export const unitFindings = ({ name }: DrawingRow, { unit, confirmed }: PlacementRow, elevation: number): Finding[] =>
  confirmed
    ? []
    : [
        {
          rule: 'unit not confirmed',
          severity: 'warning',
          elements: [],
          position: [0, 0, elevation],
          message: `${name} is taken to be in ${unitNames[unit]}, which nobody has confirmed.`,
          remedy: 'See the evidence at Datum, Unit, and confirm the unit, or measure a length that is known.',
        },
      ];

/** Elements that a later revision of their drawing shows otherwise, or no more. */
export function revisionFindings(
  { name, revision }: DrawingRow,
  changes: readonly SourceChange[],
  elevation: number,
): Finding[] {
  const lost = changes.filter(({ candidate }) => candidate === null).length;
  if (changes.length === 0) return [];
  const [at] = changes.flatMap(({ element }) => pointsOf(element));
  const position: Place = [at?.[0] ?? 0, at?.[1] ?? 0, elevation];
  return [
    {
      rule: 'revision not taken over',
      severity: 'warning',
      elements: changes.map(({ element }) => element.id),
      position,
      message:
        `Revision ${revision} of ${name} shows ${counted(changes.length, 'accepted element')} otherwise` +
        `${lost === 0 ? '' : `, ${lost} of them no more`}.`,
      remedy: 'Take or keep each change at Reading.',
    },
  ];
}
