import type { GridLine } from '@/core/kinds/grid';
import { cross, direction, distance, dot, type Point } from '@/core/geometry/vector';
import { letterLabel } from '@/core/kinds/gridLabels';
import { fail, ok, type Result } from '@/core/result';
import { put, type Edit } from './edits';
import type { Model } from './model';

/**
 * Grid lines in one direction, or arcs about one centre, from the left, from below or from inside. `at` is metres
 * across them, or the radius.
 */
export interface GridFamily {
  key: string;
  kind: 'line' | 'arc';
  /** Of the lines, radians, 0 to below a half turn. */ angle: number;
  /** How `low` to `high` runs. */ way: 'left to right' | 'bottom to top' | 'inside to outside';
  lines: { id: string; label: string; at: number }[];
}

export interface NumberingRule {
  style: 'numbers' | 'letters';
  from: 'low' | 'high';
  /** The first label, a number or letters. */
  first: string;
  /** Before every label. */
  prefix: string;
  /** Whether letters that look like digits, I and O, are left out. */
  skip: boolean;
  /** Whether lines between others (3.1, A') go by the line before them. */
  between: boolean;
}

/** Lines whose directions differ by less are one family, radians (half a degree). */
const parallel = Math.PI / 360;
/** Centres closer than this are one, metres. */
const oneCentre = 0.05;

/** The families of a project's grid, the largest first. */
export function gridFamilies(model: Model): GridFamily[] {
  const grid = Array.from(model.ofKind('grid'), ({ id, shape }) => ({ id, line: shape }));
  const straight: { angle: number; members: { id: string; line: GridLine & { kind: 'line' } }[] }[] = [];
  const round: { centre: Point; members: { id: string; line: GridLine & { kind: 'arc' } }[] }[] = [];
  for (const { id, line } of grid) {
    if (line.kind === 'arc') {
      const family = round.find(({ centre }) => distance(centre, line.centre) < oneCentre);
      if (family) family.members.push({ id, line });
      else round.push({ centre: line.centre, members: [{ id, line }] });
      continue;
    }
    const angle = halfTurn(Math.atan2(line.end[1] - line.start[1], line.end[0] - line.start[0]));
    const family = straight.find(
      (other) => Math.abs(cross(direction(other.angle), direction(angle))) < Math.sin(parallel),
    );
    if (family) family.members.push({ id, line });
    else straight.push({ angle, members: [{ id, line }] });
  }
  const families: GridFamily[] = [
    ...straight.map(({ angle, members }): GridFamily => {
      const normal = acrossOf(angle);
      const lines = members
        .map(({ id, line }) => ({ id, label: line.label, at: dot(normal, line.start) }))
        .sort((a, b) => a.at - b.at);
      return {
        key: keyOf(lines),
        kind: 'line',
        angle,
        way: Math.abs(normal[0]) >= Math.abs(normal[1]) ? 'left to right' : 'bottom to top',
        lines,
      };
    }),
    ...round.map(({ members }): GridFamily => {
      const lines = members
        .map(({ id, line }) => ({ id, label: line.label, at: line.radius }))
        .sort((a, b) => a.at - b.at);
      return { key: keyOf(lines), kind: 'arc', angle: 0, way: 'inside to outside', lines };
    }),
  ];
  return families.sort((a, b) => b.lines.length - a.lines.length);
}

/** A family is known again by its lines, whatever they are called. */
const keyOf = (lines: readonly { id: string }[]): string =>
  lines.reduce((least, { id }) => (id < least ? id : least), lines[0].id);

const halfTurn = (angle: number): number => {
  const turned = ((angle % Math.PI) + Math.PI) % Math.PI;
  return Math.PI - turned < 1e-9 ? 0 : turned;
};

/** Across lines of a direction, towards the right, or up where they run across the plan. */
function acrossOf(angle: number): Point {
  const [ux, uy] = direction(angle);
  const normal: Point = [uy, -ux];
  const right = Math.abs(normal[0]) >= Math.abs(normal[1]) ? normal[0] > 0 : normal[1] > 0;
  return right ? normal : [-normal[0], -normal[1]];
}

/** Which label of a row letters are; null where they are none. */
function placeOfLetters(text: string, skip: boolean): number | null {
  for (let n = 0; n < 20_000; n += 1) if (letterLabel(n, skip) === text) return n;
  return null;
}

/** A line between two others: what follows its main line's label. */
const betweenLines = /^.+?('+|\u2032+|[.\-/]\d+)$/;

/** The labels that a rule gives a family, in the order of its lines. */
export function labelsBy(rule: NumberingRule, family: GridFamily): Result<string[]> {
  const first = rule.first.trim().toUpperCase();
  let begin;
  if (rule.style === 'numbers') {
    if (/^\d{1,6}$/.test(first)) begin = Number(first);
    else begin = null;
  } else begin = placeOfLetters(first, rule.skip);

  if (begin === null)
    return fail(
      rule.style === 'numbers'
        ? `The first label is "${rule.first}"; numbers begin with a whole number such as 1.`
        : `The first label is "${rule.first}"; letters begin with letters such as A or AA${rule.skip ? ', without I and O' : ''}.`,
    );
  const inOrder = rule.from === 'low' ? family.lines : [...family.lines].reverse();
  let n = begin - 1;
  const labels = new Map(
    inOrder.map(({ id, label }, i) => {
      const after = rule.between && i > 0 ? (betweenLines.exec(label)?.[1] ?? null) : null;
      if (after === null) n += 1;
      return [id, `${rule.prefix}${rule.style === 'numbers' ? n : letterLabel(n, rule.skip)}${after ?? ''}`] as const;
    }),
  );
  return ok(family.lines.map(({ id }) => labels.get(id)!));
}

/** Gives grid lines other labels, where no two come to have the same. @param labels by the ids of lines */
export function relabel(model: Model, labels: ReadonlyMap<string, string>): Result<Edit> {
  const lines = Array.from(model.ofKind('grid'), (element) => ({
    element,
    label: (labels.get(element.id) ?? element.shape.label).trim(),
  })).sort((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true }));
  const seen = new Map<string, string>();
  for (const { element, label } of lines) {
    if (label === '') return fail(`Grid line ${element.shape.label} would have no label. Give it one.`);
    const other = seen.get(label.toLowerCase());
    // What was doubled before is not this step's doing.
    if (other !== undefined && (labels.has(element.id) || labels.has(other)))
      return fail(`Two grid lines would be called ${label}. Begin with another label, or give a prefix.`);
    seen.set(label.toLowerCase(), element.id);
  }
  const changed = lines.filter(({ element, label }) => element.shape.label !== label);
  return ok({
    label:
      changed.length === 1
        ? `Grid line ${changed[0].element.shape.label} is ${changed[0].label}`
        : `Number ${changed.length} grid lines`,
    changes: changed.map(({ element, label }) => put('element', { ...element, shape: { ...element.shape, label } })),
  });
}
