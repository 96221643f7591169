import { across, up, type XY } from './building';
import { Draft } from './draft';
import type { Plan } from './ground';

/** The building's storeys, metres: finished floors, the roof's top, and the ground beside. */
export const heights = { foundation: -3.15, ground: 0, upper: 3.9, roof: 7.5, parapet: 8.6 };

/** What is written at each level of the section. */
export const levelMarks: [string, number][] = [
  ['Basement', heights.foundation],
  ['Ground floor', heights.ground],
  ['Upper floor', heights.upper],
  ['Roof', heights.roof],
  ['Parapet', heights.parapet],
];

/** Thickness of the floors, metres. */
export const slabThickness = 0.28;

const layers = [
  { name: 'S-CUT', colour: 7 },
  { name: 'S-VIEW', colour: 8 },
  { name: 'S-LEVEL', colour: 1 },
  { name: 'S-GRID', colour: 8 },
  { name: 'S-HATCH', colour: 254 },
  { name: 'S-TITLE', colour: 7 },
  { name: 'S-TRUSS', colour: 4 },
];

/**
 * Where the section's zero and grid line A stand in its drawing, metres: nobody draws a section at the project's zero.
 */
export const sectionPlace: XY = [140, 55];

/**
 * The cross-section through the main block along grid line 2, looking at the gallery's end: in millimetres, its heights
 * written in metres.
 */
export function crossSection(): Plan {
  const draft = new Draft(1000, 4, layers);
  const [left, right] = [up[0], up[3]];
  draft.through(
    ([x, y]) => [x + sectionPlace[0], y + sectionPlace[1]],
    0,
    () => {
      draft.section(1);
      for (const [i, x] of up.entries()) {
        draft.line('S-GRID', [x, heights.foundation - 1.2], [x, heights.parapet + 1]);
        draft.circle('S-GRID', [x, heights.parapet + 1.5], 0.5);
        draft.text('S-GRID', [x, heights.parapet + 1.5], 0.4, 'ABCD'[i]);
      }
      draft.section(2);
      for (const top of [heights.ground, heights.upper, heights.roof]) slab(draft, left - 0.15, right + 0.15, top);
      // The basement lies under the first two bays only.
      slab(draft, left - 0.15, up[2] + 0.15, heights.foundation);
      for (const x of [left, up[2]])
        for (const side of [-0.15, 0.15])
          draft.line('S-CUT', [x + side, heights.foundation], [x + side, heights.ground - slabThickness]);
      for (const [low, high] of [
        [heights.ground, heights.upper - slabThickness],
        [heights.upper, heights.roof - slabThickness],
      ]) {
        for (const x of [left, right])
          for (const side of [-0.15, 0.15]) draft.line('S-CUT', [x + side, low], [x + side, high]);
        for (const x of [up[1], up[2]])
          for (const side of [-0.3, 0.3]) draft.line('S-VIEW', [x + side, low], [x + side, high]);
      }
      for (const x of [left, right]) draft.rectangle('S-CUT', [x - 0.15, heights.roof], [x + 0.15, heights.parapet]);
      draft.section(3);
      for (const [name, at] of levelMarks) {
        draft.line('S-LEVEL', [right + 1, at], [right + 4.4, at]);
        draft.polyline(
          'S-LEVEL',
          [
            [right + 1.4, at],
            [right + 1.25, at + 0.26],
            [right + 1.55, at + 0.26],
          ],
          true,
        );
        draft.text(
          'S-LEVEL',
          [right + 2.4, at + 0.28],
          0.3,
          at === 0 ? '%%p0.00' : `${at > 0 ? '+' : ''}${at.toFixed(2)}`,
        );
        draft.text('S-LEVEL', [right + 6.2, at + 0.28], 0.3, name);
      }
      // The ground line, with its hatch strokes.
      draft.line('S-VIEW', [-8, -0.15], [left - 0.15, -0.15]);
      draft.line('S-VIEW', [right + 0.15, -0.15], [right + 8, -0.15]);
      for (let x = -7.8; x < -0.5; x += 0.5) draft.line('S-HATCH', [x, -0.15], [x - 0.3, -0.45]);
      draft.text('S-TITLE', [across[1] + 3, heights.foundation - 2.6], 0.5, 'Cross-section 2-2  1:50');
      drawTypes(draft);
      draft.section(4);
      for (const member of trussMembers()) drawMember(draft, member);
    },
  );
  return { dxf: draft.finish(), counts: draft.counts };
}

/** A member of the roof's truss by its axis: along the section and the elevation, metres, and how deep it is. */
export interface TrussMember {
  start: XY;
  end: XY;
  depth: number;
}

/** The truss that carries the plant's canopy over the roof, from B to D: chords, posts and diagonals in six panels. */
export const truss = { from: up[1], to: up[3], low: 7.9, high: 9.1, panels: 6, chord: 0.16, web: 0.1 };

export function trussMembers(): TrussMember[] {
  const { from, to, low, high, panels, chord, web } = truss;
  const at = (i: number): number => from + ((to - from) * i) / panels;
  const posts = [from, to].map((x): TrussMember => ({ start: [x, low], end: [x, high], depth: web }));
  const diagonals = Array.from({ length: panels }, (_, i): TrussMember => {
    const [a, b] = i % 2 === 0 ? [low, high] : [high, low];
    return { start: [at(i), a], end: [at(i + 1), b], depth: web };
  });
  return [
    { start: [from, low], end: [to, low], depth: chord },
    { start: [from, high], end: [to, high], depth: chord },
    ...posts,
    ...diagonals,
  ];
}

/** Two lines; those of posts and diagonals stop at the chords' faces. */
function drawMember(draft: Draft, { start, end, depth }: TrussMember): void {
  const [dx, dy] = [end[0] - start[0], end[1] - start[1]];
  const size = Math.hypot(dx, dy);
  const [nx, ny] = [(-dy / size) * (depth / 2), (dx / size) * (depth / 2)];
  const cut = dy === 0 ? 0 : truss.chord / 2 / Math.abs(dy);
  const at = (t: number): XY => [start[0] + dx * t, start[1] + dy * t];
  const [[x1, y1], [x2, y2]] = [at(cut), at(1 - cut)];
  for (const side of [1, -1]) draft.line('S-TRUSS', [x1 + side * nx, y1 + side * ny], [x2 + side * nx, y2 + side * ny]);
}

/** The types that the schedules of beams name. */
function drawTypes(draft: Draft): void {
  for (const [i, [type, size]] of [
    ['Type Q', '200x400'],
    ['Type R', '250x500'],
  ].entries()) {
    draft.text('S-TITLE', [-6, heights.foundation - 1 - 0.7 * i], 0.3, type);
    draft.text('S-TITLE', [-3, heights.foundation - 1 - 0.7 * i], 0.3, size);
  }
}

/** The line that it is cut along in the plan: grid line 2, from A to D, radians. */
export const sectionLine = { target: [across[1], up[0]] as XY, turning: Math.PI / 2 };

function slab(draft: Draft, x1: number, x2: number, top: number): void {
  draft.rectangle('S-CUT', [x1, top - slabThickness], [x2, top]);
}
