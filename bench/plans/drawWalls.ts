import type { XY } from '../../demo/building';
import type { Building, Gap } from './building';
import type { Hand } from './hand';
import { on, type Run, type Side } from './loops';
import { step } from './random';

/** The pieces of a stretch that gaps and columns leave. */
function without(from: number, to: number, taken: readonly (readonly [number, number])[]): [number, number][] {
  const pieces: [number, number][] = [];
  let at = from;
  for (const [low, high] of [...taken].sort((p, q) => p[0] - q[0])) {
    if (high <= at || low >= to) continue;
    if (low > at) pieces.push([at, low]);
    at = Math.max(at, high);
  }
  if (at < to) pieces.push([at, to]);
  return pieces;
}

/** Whether a wall's faces are cut at an opening, or go on through it. */
export const isCut = ({ style }: Hand, { use }: Gap): boolean => use === 'door' || style.windowIn === 'a gap';

const span = ({ at, width }: Gap): [number, number] => [at - width / 2, at + width / 2];

/** Where columns stand in a line beside or in a wall. */
function columnsAt(hand: Hand, { columns, column }: Building, run: Run, line: number): [number, number][] {
  if (hand.style.atColumns === 'through') return [];
  return columns.flatMap(([x, y]): [number, number][] => {
    const [along, across] = run.along === 'x' ? [x, y] : [y, x];
    const [half, reach] = halves(column, run.along);
    if (Math.abs(across - run.at) > 1e-6 || Math.abs(line - run.at) > reach) return [];
    const chord = column.round ? Math.sqrt(Math.max(0, half * half - (line - run.at) ** 2)) : half;
    return [[along - chord, along + chord]];
  });
}

function halves({ width, depth, round }: Building['column'], along: 'x' | 'y'): [number, number] {
  if (round) return [width / 2, width / 2];
  return along === 'x' ? [width / 2, depth / 2] : [depth / 2, width / 2];
}

/** The pieces of one side of a face that are drawn, as lines. */
function piecesOf(hand: Hand, building: Building, { run, a, b }: Side): [XY, XY][] {
  const [along, across] = run.along === 'x' ? [0, 1] : [1, 0];
  const [from, to] = [Math.min(a[along], b[along]), Math.max(a[along], b[along])];
  const taken = [
    ...building.gaps.filter((gap) => gap.run === run && isCut(hand, gap)).map(span),
    ...columnsAt(hand, building, run, a[across]),
  ];
  return without(from, to, taken).map(([p, q]) => [on(run.along, p, a[across]), on(run.along, q, a[across])]);
}

export function drawWalls(hand: Hand, building: Building): void {
  const { truth, turned } = hand;
  for (const { along, at, from, to, thickness } of building.runs)
    truth.walls.push({ a: turned(on(along, from, at)), b: turned(on(along, to, at)), thickness });
  const faces = [...building.rooms.flatMap(({ faces }) => faces), ...building.outside];
  const lines = faces.flat().flatMap((side) => piecesOf(hand, building, side));
  const jambs = building.gaps.filter((gap) => isCut(hand, gap)).flatMap(jambsOf);
  if (hand.style.face === 'outlines') polylines(hand, [...lines, ...jambs]);
  else if (hand.style.face === 'polylines') {
    polylines(hand, lines);
    for (const [a, b] of jambs) hand.draft.line(hand.layers.wall, a, b);
  } else {
    for (const [a, b] of lines) faceLine(hand, a, b);
    for (const [a, b] of jambs) hand.draft.line(hand.layers.wall, a, b);
  }
  if (hand.style.leaves !== 'none') leaves(hand, building);
  if (hand.style.fill !== 'none') fill(hand, building);
}

export const jambsOf = (gap: Gap): [XY, XY][] =>
  span(gap).map((end): [XY, XY] => [
    on(gap.run.along, end, gap.run.at - gap.run.thickness / 2),
    on(gap.run.along, end, gap.run.at + gap.run.thickness / 2),
  ]);

function faceLine({ pen, style, layers }: Hand, a: XY, b: XY): void {
  const across = a[1] === b[1] ? 1 : 0;
  const off = pen.off();
  const moved = (p: XY): XY => (across === 1 ? [p[0], p[1] + off] : [p[0] + off, p[1]]);
  const [p, q] = [moved(a), moved(b)];
  if (style.face !== 'pieces' || Math.hypot(b[0] - a[0], b[1] - a[1]) < 3) {
    pen.line(layers.wall, p, q);
    return;
  }
  const along = 1 - across;
  const middle = step((a[along] + b[along]) / 2, 0.01);
  const half: XY = across === 1 ? [middle, p[1]] : [p[0], middle];
  pen.line(layers.wall, p, half);
  pen.line(layers.wall, half, q);
}

const keyOf = ([x, y]: XY) => `${x.toFixed(5)},${y.toFixed(5)}`;

/** Chains of lines that share ends. */
function chains(lines: readonly [XY, XY][]): XY[][] {
  const at = new Map<string, number[]>();
  lines.forEach((line, i) => line.forEach((p) => at.set(keyOf(p), [...(at.get(keyOf(p)) ?? []), i])));
  const used = new Set<number>();
  const onward = (chain: XY[]): XY | null => {
    const here = chain[chain.length - 1];
    const next = at.get(keyOf(here))!.find((i) => !used.has(i));
    if (next === undefined) return null;
    used.add(next);
    const [a, b] = lines[next];
    return keyOf(a) === keyOf(here) ? b : a;
  };
  return lines.flatMap(([a, b], i) => {
    if (used.has(i)) return [];
    used.add(i);
    const chain = [a, b];
    for (let p = onward(chain); p; p = onward(chain)) chain.push(p);
    chain.reverse();
    for (let p = onward(chain); p; p = onward(chain)) chain.push(p);
    return [chain];
  });
}

/** Lines that go on from one another as polylines: with the jambs, closed outlines of all connected walls. */
function polylines({ draft, layers }: Hand, lines: readonly [XY, XY][]): void {
  for (const chain of chains(lines)) {
    const closed = chain.length > 3 && keyOf(chain[0]) === keyOf(chain[chain.length - 1]);
    draft.polyline(layers.wall, closed ? chain.slice(0, -1) : chain, closed);
  }
}

/** Lines between the faces of outer walls: leaves that end at the openings. */
function leaves(hand: Hand, building: Building): void {
  for (const run of building.runs.filter(({ outer }) => outer)) {
    const half = run.thickness / 2;
    const offsets = hand.style.leaves === 'three' ? [-half / 2, 0, half / 2] : [-half / 3, half / 3];
    const taken = building.gaps.filter((gap) => gap.run === run && isCut(hand, gap)).map(span);
    for (const offset of offsets)
      for (const [p, q] of without(run.from + half, run.to - half, [
        ...taken,
        ...columnsAt(hand, building, run, run.at + offset),
      ]))
        faceLine(hand, on(run.along, p, run.at + offset), on(run.along, q, run.at + offset));
    if (hand.style.leaves === 'insulation') insulation(hand, run, without(run.from + half, run.to - half, taken));
  }
}

/** A zigzag between two leaves. */
function insulation({ draft, layers }: Hand, run: Run, pieces: readonly [number, number][]): void {
  const half = run.thickness / 6;
  for (const [p, q] of pieces) {
    const strokes = Math.max(2, Math.round((q - p) / (2 * half)));
    const points = Array.from({ length: strokes + 1 }, (_, k) =>
      on(run.along, p + ((q - p) * k) / strokes, run.at + (k % 2 === 0 ? -half : half)),
    );
    draft.polyline(layers.fill, points, false);
  }
}

/** Walls filled between their openings, on a layer of their own. */
function fill({ draft, layers, style }: Hand, { runs, gaps }: Building): void {
  for (const run of runs) {
    const taken = gaps.filter((gap) => gap.run === run).map(span);
    const half = run.thickness / 2;
    for (const [p, q] of without(run.from, run.to, taken))
      draft.hatch(
        layers.fill,
        [
          on(run.along, p, run.at - half),
          on(run.along, q, run.at - half),
          on(run.along, q, run.at + half),
          on(run.along, p, run.at + half),
        ],
        style.fill === 'solid',
      );
  }
}
