import type { Point } from '@/core/geometry/vector';
import { kinds } from '@/core/kinds/kinds';
import type { Finding } from '@/core/proof/finding';
import { metres } from '@/core/proof/rule';
import { roleNames } from '@/core/sorting/roles';
import type { Comparison } from './compare';
import type { Covered } from './coverage';
import type { ModelDimension } from './dimensions';
import type { Drift } from './drift';
import type { LevelsBeside } from './heights';
import { sourceRules } from './sources';

/** What a comparison is of. */
export interface Compared {
  drawing: string;
  /** Of the level, metres. */
  elevation: number;
  tolerance: number;
}

/** Names of what comparisons find. */
export const comparisonRules = [
  'off its lines',
  'dimension',
  'written area',
  'written elevation',
  'not accounted for',
  ...sourceRules,
];

/** What a comparison with a plan finds. */
export function findingsOf({ drift, dimensions, areas, coverage }: Comparison, of: Compared): Finding[] {
  const off = drift.filter(({ away }) => away > of.tolerance).sort((a, b) => b.away - a.away);
  return [
    ...off.map((one) => offLines(one, of)),
    ...dimensions.differ.map((one) => otherDimension(one, of)),
    ...areas.differ.map(({ id, name, written, area, at }): Finding => ({
      ...place(at, of),
      rule: 'written area',
      severity: 'warning',
      elements: [id],
      message: `${squareMetres(written)} is written in ${name || 'a zone'}, which has ${squareMetres(area)} by inner faces.`,
      remedy: `See whether ${of.drawing} measures to other faces, or the zone has another outline.`,
    })),
    ...coverage.filter(isShort).map((row) => notAccounted(row, of)),
  ];
}

/** What a section says otherwise than the ladder. */
export const levelFindings = ({ differ }: LevelsBeside, drawing: string): Finding[] =>
  differ.flatMap(({ written, level }): Finding[] =>
    level === null
      ? []
      : [
          {
            rule: 'written elevation',
            severity: 'error',
            elements: [level.id],
            position: [0, 0, level.elevation],
            message: `${drawing} writes ${metres(written)} where ${level.name} lies at ${metres(level.elevation)}.`,
            remedy: 'Put the level right at Datum, Levels, or accept that the section is older.',
          },
        ],
  );

const place = ([x, y]: Point, { elevation }: Compared): Pick<Finding, 'position'> => ({ position: [x, y, elevation] });

const squareMetres = (value: number): string => `${value.toFixed(2)} m\u00b2`;

function offLines({ id, kind, away, at, back }: Drift, of: Compared): Finding {
  const name = kinds[kind].names[0];
  return {
    ...place(at, of),
    rule: 'off its lines',
    severity: 'warning',
    elements: [id],
    message: `This ${name} lies ${metres(away)} off the lines of ${of.drawing} that it was made of, over ${metres(of.tolerance)}.`,
    remedy:
      back === null
        ? 'Change it so that it fits its lines, or accept it with the reason.'
        : 'Put it back onto its lines, or accept it with the reason.',
    ...(back === null ? {} : { fix: { words: 'Put back', move: back } }),
  };
}

function otherDimension({ text, written, modelled, ends, elements }: ModelDimension, of: Compared): Finding {
  return {
    ...place([(ends[0][0] + ends[1][0]) / 2, (ends[0][1] + ends[1][1]) / 2], of),
    rule: 'dimension',
    severity: 'warning',
    elements,
    message: `The dimension \u201c${text}\u201d of ${of.drawing} says ${metres(written)}, the model has ${metres(modelled ?? 0)} there.`,
    remedy: 'See which of the two is right: the lines may be drawn otherwise than they are dimensioned.',
  };
}

/** Less than this of a layer's lines is not worth a finding: share, metres. */
const [leastShare, leastMetres] = [0.03, 1];
const restOf = ({ drawn, covered }: Covered): number => drawn - covered;
const isShort = (row: Covered): boolean => restOf(row) > leastMetres && restOf(row) > leastShare * row.drawn;

const notAccounted = (row: Covered, of: Compared): Finding => ({
  ...place([0, 0], of),
  rule: 'not accounted for',
  severity: 'note',
  elements: [],
  message:
    `${restOf(row).toFixed(1)} m of ${row.drawn.toFixed(1)} m on the layer ${row.layer} of ${of.drawing}, role ` +
    `${roleNames[row.role]}, belong to no element.`,
  remedy: 'Show the rest at Proof, Drawings; take it at Reading or Tracing, or give the layer another role.',
});
