import { across, columns, gridLines, inWing, up, wing, type XY } from './building';
import { Draft } from './draft';
import type { Plan } from './ground';

/** A beam as the framing plan shows it: the middles of the columns it runs between, and its mark. */
export interface TrueBeam {
  start: XY;
  end: XY;
  mark: string;
}

/** What the schedule says of each mark, metres; of T1 it names the type, whose size stands on the section's sheet. */
export const beamSizes: Record<string, { width: number; depth: number }> = {
  B1: { width: 0.3, depth: 0.6 },
  B2: { width: 0.25, depth: 0.6 },
  T1: { width: 0.25, depth: 0.5 },
  T2: { width: 0.25, depth: 0.4 },
  W1: { width: 0.25, depth: 0.45 },
};
const scheduled: [string, string][] = [
  ['B1', '300x600'],
  ['B2', '250x600'],
  ['T1', 'Type R'],
  ['T2', '250x400'],
  ['W1', '250x450'],
];

/** The beams over the main block and the wing: along every grid line, from column to column. */
export function beams(): TrueBeam[] {
  const list: TrueBeam[] = [];
  for (const [j, y] of up.entries())
    for (let i = 0; i + 1 < across.length; i += 1)
      list.push({ start: [across[i], y], end: [across[i + 1], y], mark: j === 0 || j === 3 ? 'B1' : 'B2' });
  for (const x of across)
    for (let j = 0; j + 1 < up.length; j += 1)
      list.push({ start: [x, up[j]], end: [x, up[j + 1]], mark: j === 1 ? 'T2' : 'T1' });
  return list;
}

/** The beams over the wing, which has one storey only. */
export function wingBeams(): TrueBeam[] {
  const list: TrueBeam[] = [];
  for (const y of wing.up)
    for (let i = 0; i + 1 < wing.across.length; i += 1)
      list.push({ start: inWing([wing.across[i], y]), end: inWing([wing.across[i + 1], y]), mark: 'W1' });
  for (const x of wing.across)
    for (let j = 0; j + 1 < wing.up.length; j += 1)
      list.push({ start: inWing([x, wing.up[j]]), end: inWing([x, wing.up[j + 1]]), mark: 'W1' });
  return list;
}

const layers = [
  { name: 'S-GRID', colour: 8 },
  { name: 'S-COLS', colour: 7 },
  { name: 'S-BEAM', colour: 30 },
  { name: 'S-MARK', colour: 3 },
  { name: 'S-SCHEDULE', colour: 7 },
  { name: 'S-TITLE', colour: 7 },
];

/** Lines of beams stop this far from the middle of a column, metres: at its face, whichever it is. */
const face = 0.32;

/** The framing over the ground floor, or, without the wing, over the upper floor: in millimetres. */
export function framing(over: 'ground' | 'upper'): Plan & { beams: TrueBeam[] } {
  const draft = new Draft(1000, 4, layers);
  const all = over === 'ground' ? [...beams(), ...wingBeams()] : beams();
  const main = (at: string): boolean => /^[1-7]\/[A-D]$/.test(at);
  draft.section(1);
  for (const { label, start, end } of gridLines().filter(
    (line) => over === 'ground' || /^[1-7A-D]$/.test(line.label),
  )) {
    draft.line('S-GRID', start, end);
    const [dx, dy] = [end[0] - start[0], end[1] - start[1]];
    const size = Math.hypot(dx, dy);
    const middle: XY = [start[0] - (dx / size) * 0.6, start[1] - (dy / size) * 0.6];
    draft.circle('S-GRID', middle, 0.6);
    draft.text('S-GRID', middle, 0.5, label);
  }
  draft.section(2);
  for (const { position, rotation, section, at } of columns()) {
    if (!main(at) && (over === 'upper' || at.startsWith('R2'))) continue;
    draft.through(
      ([x, y]) => {
        const [c, s] = [Math.cos((rotation * Math.PI) / 180), Math.sin((rotation * Math.PI) / 180)];
        return [position[0] + c * x - s * y, position[1] + s * x + c * y];
      },
      rotation,
      () => {
        if (section.shape === 'circle') draft.circle('S-COLS', [0, 0], section.diameter / 2);
        else
          draft.rectangle('S-COLS', [-section.width / 2, -section.depth / 2], [section.width / 2, section.depth / 2]);
      },
    );
  }
  draft.section(3);
  for (const beam of all) drawBeam(draft, beam);
  draft.section(4);
  drawSchedule(draft, over === 'ground' ? scheduled : scheduled.filter(([mark]) => mark !== 'W1'));
  draft.text('S-TITLE', [across[2], -6.2], 0.6, `Framing over the ${over} floor 1:100`);
  return { dxf: draft.finish(), counts: draft.counts, beams: all };
}

function drawBeam(draft: Draft, { start, end, mark }: TrueBeam): void {
  const [dx, dy] = [end[0] - start[0], end[1] - start[1]];
  const size = Math.hypot(dx, dy);
  const [u, n]: XY[] = [
    [dx / size, dy / size],
    [-dy / size, dx / size],
  ];
  const at = (along: number, aside: number): XY => [
    start[0] + u[0] * along + n[0] * aside,
    start[1] + u[1] * along + n[1] * aside,
  ];
  const half = beamSizes[mark].width / 2;
  for (const side of [half, -half]) draft.line('S-BEAM', at(face, side), at(size - face, side));
  draft.through(
    ([x, y]) => at(size / 2 + x, 0.45 + y),
    (Math.atan2(dy, dx) * 180) / Math.PI,
    () => draft.text('S-MARK', [0, 0], 0.25, mark),
  );
}

function drawSchedule(draft: Draft, rows: readonly [string, string][]): void {
  const [left, top] = [across[across.length - 1] + 22, up[3]];
  rows.forEach(([mark, size], i) => {
    draft.text('S-SCHEDULE', [left, top - 0.7 * i], 0.3, mark);
    draft.text('S-SCHEDULE', [left + 2.6, top - 0.7 * i], 0.3, size);
  });
  for (let i = 0; i <= rows.length; i += 1)
    draft.line('S-SCHEDULE', [left - 0.8, top - 0.7 * i + 0.35], [left + 4.2, top - 0.7 * i + 0.35]);
}
