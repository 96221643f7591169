import type { XY } from '../demo/building';
import { Draft } from '../demo/draft';
import { headerCodeOf, metresPer, type LengthUnit } from '@/core/units/length';
import { seeded } from './mutate';

/** What a plan truly shows, metres. */
export interface Truth {
  grids: { label: string; a: XY; b: XY }[];
  columns: { at: XY; width: number; depth: number; round: boolean }[];
  beams: { a: XY; b: XY; width: number; depth: number; mark: string }[];
  walls: { a: XY; b: XY; thickness: number }[];
  openings: { at: XY; width: number; use: 'door' | 'window' }[];
  zones: { name: string; number: string; area: number; at: XY }[];
}

export interface TruthPlan {
  dxf: string;
  truth: Truth;
  roles: Record<string, string>;
  unit: LengthUnit;
  style: string;
}

/** How an office names its layers. */
const layerStyles = [
  {
    GRID: 'A-GRID',
    COLS: 'A-COLS',
    BEAM: 'S-BEAM',
    WALL: 'A-WALL',
    DOOR: 'A-DOOR',
    GLAZ: 'A-GLAZ',
    ROOM: 'A-ROOM',
    FURN: 'A-FURN',
    HATCH: 'A-HATCH',
    STAIR: 'A-STAIR',
  },
  {
    GRID: '01_Achsen',
    COLS: '02_Stuetzen',
    BEAM: '03_Unterzug',
    WALL: '04_Wand',
    DOOR: '05_Tuer',
    GLAZ: '06_Fenster',
    ROOM: '07_Raum',
    FURN: '08_Moebel',
    HATCH: '09_Schraffur hatch',
    STAIR: '10_Treppe',
  },
  {
    GRID: 'AXES',
    COLS: 'POTEAUX',
    BEAM: 'POUTRES',
    WALL: 'MURS',
    DOOR: 'PORTES',
    GLAZ: 'FENETRES',
    ROOM: 'PIECES',
    FURN: 'MOBILIER furn',
    HATCH: 'HACHURES hatch',
    STAIR: 'ESCALIER',
  },
];
export const roleOfLayer: Record<string, string> = {
  GRID: 'grid',
  COLS: 'column',
  BEAM: 'beam',
  WALL: 'wall',
  DOOR: 'door',
  GLAZ: 'window',
  ROOM: 'zone',
  FURN: 'ignore',
  HATCH: 'ignore',
  STAIR: 'ignore',
};

const names = [
  'Store',
  'Office',
  'Lab',
  'Workshop',
  'Archive',
  'Plant',
  'Mess',
  'Studio',
  'Hall',
  'Server',
  'Print',
  'Wash Room',
];

/**
 * A plan of a made-up building whose truth is known: a grid with unequal bays, columns at its crossings, beams between
 * them, outer and inner walls on
 * grid lines and between, doors and windows, rooms with names. Style, unit and turning vary with the seed.
 * @param withBeams whether beams are drawn; geometry alone cannot tell them from walls
 * @param dirty gaps to 20 mm, offsets to 5 mm, doubled and broken lines, furniture, hatches, directions off by up to
 * 0.3 degrees
 */
export function truthPlan(seed: number, dirty: boolean, withBeams = true): TruthPlan {
  const random = seeded(seed * 104_729 + (dirty ? 7 : 3));
  const between = (low: number, high: number) => low + random() * (high - low);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const step = (value: number, module: number) => Number((Math.round(value / module) * module).toFixed(6));
  const unit = pick(['mm', 'mm', 'cm', 'm', 'in', 'ft'] as const);
  const names_ = layerStyles[seed % layerStyles.length];
  const style = {
    faces: pick(['whole', 'whole', 'pieces'] as const),
    doors: pick(['block', 'loose'] as const),
    panes: pick([1, 3, 4]),
    beams: pick(['pair', 'pair', 'single', 'dashed'] as const),
    bubbles: pick(['both', 'one'] as const),
    columnsAs: pick(['polyline', 'lines', 'hatched', 'block'] as const),
    turn: pick([0, 0, 0, 11, 30]),
    windows: pick(['cut', 'cut', 'over'] as const),
    leaves: pick([1, 1, 2] as const),
    fill: pick(['none', 'none', 'hatch'] as const),
    leafs: pick([1, 2]),
  };
  const draft = new Draft(
    1 / metresPer[unit],
    headerCodeOf[unit],
    Object.values(names_).map((name, i) => ({ name, colour: i + 1 })),
  );
  const truth: Truth = { grids: [], columns: [], beams: [], walls: [], openings: [], zones: [] };
  const [nx, ny] = [3 + Math.floor(random() * 4), 2 + Math.floor(random() * 2)];
  const run = (n: number, low: number, high: number) => {
    const at = [0];
    for (let i = 0; i < n; i += 1) at.push(step(at[i] + between(low, high), 0.05));
    return at;
  };
  const [xs, ys] = [run(nx, 4.2, 7.2), run(ny, 4.4, 7)];
  const [right, top] = [xs[nx], ys[ny]];
  // Sizes are round in the unit's own system.
  const coarse = unit === 'in' || unit === 'ft' ? 0.0508 : 0.05;
  const [outer, inner] = [step(between(0.24, 0.4), coarse), step(between(0.1, 0.2), coarse)];
  const [cw, cd] = [step(between(0.3, 0.5), coarse), step(between(0.3, 0.6), coarse)];
  const roundColumns = random() < 0.25;
  const angle = (style.turn * Math.PI) / 180;
  const turned = ([x, y]: XY): XY => [
    x * Math.cos(angle) - y * Math.sin(angle),
    x * Math.sin(angle) + y * Math.cos(angle),
  ];
  const shaken = (by: number) => (dirty ? between(-by, by) : 0);

  /** A line as this plan's hand draws it: in pieces, doubled, with ends that miss, a little askew. */
  const line = (layer: string, a: XY, b: XY, neat = false) => {
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (!dirty || neat || length < 0.35) {
      draft.line(layer, a, b);
      return;
    }
    const u: XY = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
    // Up to 0.3 degrees, as far as the ends stay within 5 mm of where they belong.
    const tilt = Math.min(0.01, length * Math.tan((0.3 * Math.PI) / 180)) * (random() < 0.25 ? between(-1, 1) : 0);
    const [e1, e2] = random() < 0.3 ? [between(0, 0.01), between(0, 0.01)] : [0, 0];
    const [p, q]: [XY, XY] = [
      [a[0] + u[0] * e1 - (u[1] * tilt) / 2, a[1] + u[1] * e1 + (u[0] * tilt) / 2],
      [b[0] - u[0] * e2 + (u[1] * tilt) / 2, b[1] - u[1] * e2 - (u[0] * tilt) / 2],
    ];
    const kind = random();
    if (kind < 0.12 && length > 2) {
      const t = between(0.3, 0.7);
      const gap = between(0, 0.0195) / length;
      const at = (s: number): XY => [p[0] + (q[0] - p[0]) * s, p[1] + (q[1] - p[1]) * s];
      draft.line(layer, p, at(t));
      draft.line(layer, at(t + gap), q);
    } else draft.line(layer, p, q);
    if (random() < 0.08) draft.line(layer, p, q);
  };

  draft.block('POST', () => {
    draft.rectangle('0', [-0.5, -0.5], [0.5, 0.5]);
    draft.line('0', [-0.5, -0.5], [0.5, 0.5]);
    draft.line('0', [-0.5, 0.5], [0.5, -0.5]);
  });
  draft.block('DOOR', () => {
    draft.line('0', [0, 0], [0, 1]);
    draft.arc('0', [0, 0], 1, 0, 90);
  });
  draft.through(turned, style.turn, () => {
    // Grid.
    const bubble = 0.5;
    const mark = (at: XY, label: string) => {
      draft.circle(names_.GRID, at, bubble);
      draft.text(names_.GRID, at, 0.45, label);
    };
    const gridLine = (label: string, a: XY, b: XY) => {
      truth.grids.push({ label, a: turned(a), b: turned(b) });
      const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
      const u: XY = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
      line(names_.GRID, a, b);
      mark([a[0] - u[0] * bubble, a[1] - u[1] * bubble], label);
      if (style.bubbles === 'both') mark([b[0] + u[0] * bubble, b[1] + u[1] * bubble], label);
    };
    xs.forEach((x, i) => gridLine(String(i + 1), [x, -2.2], [x, top + 2.2]));
    ys.forEach((y, j) => gridLine('ABCDEF'[j], [-2.2, y], [right + 2.2, y]));
    // Columns.
    for (const x of xs)
      for (const y of ys) {
        const at: XY = [x + shaken(0.005), y + shaken(0.005)];
        truth.columns.push({ at: turned(at), width: cw, depth: roundColumns ? cw : cd, round: roundColumns });
        if (roundColumns) {
          draft.circle(names_.COLS, at, cw / 2);
          continue;
        }
        const corners: XY[] = [
          [at[0] - cw / 2, at[1] - cd / 2],
          [at[0] + cw / 2, at[1] - cd / 2],
          [at[0] + cw / 2, at[1] + cd / 2],
          [at[0] - cw / 2, at[1] + cd / 2],
        ];
        if (style.columnsAs === 'block') {
          draft.insert(names_.COLS, 'POST', at, { scale: [cw, cd] });
          continue;
        }
        if (style.columnsAs === 'lines') corners.forEach((c, k) => draft.line(names_.COLS, c, corners[(k + 1) % 4]));
        else draft.polyline(names_.COLS, corners, true);
        if (style.columnsAs === 'hatched') draft.hatch(names_.HATCH, corners);
      }
    // Beams between neighbouring columns along x.
    const bw = step(between(0.2, 0.4), coarse);
    ys.forEach((y, j) =>
      xs.slice(1).forEach((x, i) => {
        if (random() < 0.3 || !withBeams) return;
        const [a, b]: [XY, XY] = [
          [xs[i], y],
          [x, y],
        ];
        const depth = step(between(0.4, 0.8), coarse);
        const name = `B${j * nx + i + 1}`;
        truth.beams.push({ a: turned(a), b: turned(b), width: bw, depth, mark: name });
        const [x1, x2] = [a[0] + cw / 2, b[0] - cw / 2];
        if (style.beams === 'pair')
          for (const side of [-bw / 2, bw / 2]) line(names_.BEAM, [x1, y + side], [x2, y + side]);
        else if (style.beams === 'single') line(names_.BEAM, [x1, y], [x2, y]);
        else
          for (let from = x1; from < x2 - 0.05; from += 0.5)
            draft.line(names_.BEAM, [from, y], [Math.min(from + 0.3, x2), y]);
        draft.text(
          names_.BEAM,
          [(x1 + x2) / 2, y + bw / 2 + 0.25],
          0.18,
          `${name} ${Math.round(bw * 1000)}x${Math.round(depth * 1000)}`,
        );
      }),
    );
    // Walls: the outer ring, some whole grid lines inside, and partitions between.
    const walls: { along: 'x' | 'y'; at: number; from: number; to: number; thickness: number }[] = [
      { along: 'x', at: 0, from: 0, to: right, thickness: outer },
      { along: 'x', at: top, from: 0, to: right, thickness: outer },
      { along: 'y', at: 0, from: 0, to: top, thickness: outer },
      { along: 'y', at: right, from: 0, to: top, thickness: outer },
    ];
    const inX = ys.slice(1, -1);
    for (const y of inX) walls.push({ along: 'x', at: y, from: 0, to: right, thickness: inner });
    const rows = [0, ...inX, top];
    const rooms: { x: [number, number]; y: [number, number] }[] = [];
    for (let r = 0; r + 1 < rows.length; r += 1) {
      const cuts = [0, ...xs.slice(1, -1).filter(() => random() < 0.7), right];
      for (const x of cuts.slice(1, -1))
        walls.push({ along: 'y', at: x, from: rows[r], to: rows[r + 1], thickness: inner });
      for (let c = 0; c + 1 < cuts.length; c += 1) rooms.push({ x: [cuts[c], cuts[c + 1]], y: [rows[r], rows[r + 1]] });
    }
    const halfAt = (along: 'x' | 'y', at: number, other: number) =>
      walls
        .filter(
          (wall) =>
            wall.along === along && Math.abs(wall.at - at) < 1e-9 && other > wall.from - 1e-9 && other < wall.to + 1e-9,
        )
        .reduce((half, wall) => Math.max(half, wall.thickness / 2), 0);
    // Openings: a door from each room to a neighbour or out, windows in outer walls.
    const gaps: { along: 'x' | 'y'; wall: number; at: number; width: number; use: 'door' | 'window' }[] = [];
    const free = (along: 'x' | 'y', wall: number, at: number, width: number) =>
      !gaps.some(
        (gap) =>
          gap.along === along &&
          Math.abs(gap.wall - wall) < 1e-9 &&
          Math.abs(gap.at - at) < (gap.width + width) / 2 + 0.3,
      ) &&
      !walls.some(
        (other) =>
          other.along !== along &&
          Math.abs(other.at - at) < width / 2 + 0.25 &&
          wall >= other.from - 1e-9 &&
          wall <= other.to + 1e-9,
      );
    for (const room of rooms) {
      const width = pick([0.8, 0.9, 1, 1.2]);
      const at = step(between(room.x[0] + 1.1, room.x[1] - 1.1), 0.05);
      if (free('x', room.y[0], at, width)) gaps.push({ along: 'x', wall: room.y[0], at, width, use: 'door' });
      if (room.y[1] === top) {
        const wide = pick([1.2, 1.5, 1.8]);
        const spot = step((room.x[0] + room.x[1]) / 2, 0.05);
        if (free('x', top, spot, wide)) gaps.push({ along: 'x', wall: top, at: spot, width: wide, use: 'window' });
      }
      if (room.x[0] === 0) {
        const wide = pick([0.9, 1.2]);
        const spot = step((room.y[0] + room.y[1]) / 2, 0.05);
        if (free('y', 0, spot, wide)) gaps.push({ along: 'y', wall: 0, at: spot, width: wide, use: 'window' });
      }
    }
    const on = (along: 'x' | 'y', at: number, other: number): XY => (along === 'x' ? [at, other] : [other, at]);
    const face = (along: 'x' | 'y', wall: number, offset: number, from: number, to: number) => {
      let at = from;
      for (const gap of gaps
        .filter(
          (g) =>
            g.along === along &&
            Math.abs(g.wall - wall) < 1e-9 &&
            g.at > from &&
            g.at < to &&
            !(style.windows === 'over' && g.use === 'window'),
        )
        .sort((p, q) => p.at - q.at)) {
        draw(along, offset, at, gap.at - gap.width / 2);
        at = gap.at + gap.width / 2;
      }
      draw(along, offset, at, to);
    };
    const draw = (along: 'x' | 'y', offset: number, from: number, to: number) => {
      const off = offset + shaken(0.005);
      if (style.faces === 'pieces' && to - from > 3) {
        const middle = step((from + to) / 2, 0.01);
        line(names_.WALL, on(along, from, off), on(along, middle, off));
        line(names_.WALL, on(along, middle, off), on(along, to, off));
      } else line(names_.WALL, on(along, from, off), on(along, to, off));
    };
    for (const {
      x: [x1, x2],
      y: [y1, y2],
    } of rooms) {
      const [l, r, b, t] = [
        x1 + halfAt('y', x1, (y1 + y2) / 2),
        x2 - halfAt('y', x2, (y1 + y2) / 2),
        y1 + halfAt('x', y1, (x1 + x2) / 2),
        y2 - halfAt('x', y2, (x1 + x2) / 2),
      ];
      face('x', y1, b, l, r);
      face('x', y2, t, l, r);
      face('y', x1, l, b, t);
      face('y', x2, r, b, t);
      const n = truth.zones.length + 1;
      const [name, number] = [names[n % names.length], `${1 + (seed % 3)}.${String(n).padStart(2, '0')}`];
      const at: XY = [(x1 + x2) / 2, (y1 + y2) / 2 + 0.9];
      truth.zones.push({ name, number, area: (r - l) * (t - b), at: turned([(x1 + x2) / 2, (y1 + y2) / 2]) });
      draft.text(names_.ROOM, at, 0.3, name);
      draft.text(names_.ROOM, [at[0], at[1] - 0.6], 0.22, number);
      if (random() < 0.4) draft.text(names_.ROOM, [at[0], at[1] - 1.1], 0.18, `${((r - l) * (t - b)).toFixed(1)} m2`);
    }
    const half = outer / 2;
    face('x', 0, -half, -half, right + half);
    face('x', top, top + half, -half, right + half);
    face('y', 0, -half, -half, top + half);
    face('y', right, right + half, -half, top + half);
    // The leaves of a cavity wall end at its openings.
    if (style.leaves === 2)
      for (const offset of [-half / 3, half / 3]) {
        face('x', 0, offset, half, right - half);
        face('x', top, top + offset, half, right - half);
        face('y', 0, offset, half, top - half);
        face('y', right, right + offset, half, top - half);
      }
    // Walls filled on their own layer, between their openings.
    if (style.fill === 'hatch')
      for (const { along, at, from, to, thickness } of walls) {
        const ends = [
          from,
          ...gaps
            .filter(
              (gap) =>
                gap.along === along &&
                Math.abs(gap.wall - at) < 1e-9 &&
                gap.at > from &&
                gap.at < to &&
                !(style.windows === 'over' && gap.use === 'window'),
            )
            .sort((p, q) => p.at - q.at)
            .flatMap((gap) => [gap.at - gap.width / 2, gap.at + gap.width / 2]),
          to,
        ];
        for (let k = 0; k < ends.length; k += 2)
          draft.hatch(names_.WALL, [
            on(along, ends[k], at - thickness / 2),
            on(along, ends[k + 1], at - thickness / 2),
            on(along, ends[k + 1], at + thickness / 2),
            on(along, ends[k], at + thickness / 2),
          ]);
      }
    for (const { along, wall, at, width, use } of gaps) {
      const thick = 2 * halfAt(along, wall, at);
      truth.openings.push({ at: turned(on(along, at, wall)), width, use });
      for (const end of [at - width / 2, at + width / 2])
        draft.line(names_.WALL, on(along, end, wall - thick / 2), on(along, end, wall + thick / 2));
      if (use === 'window')
        for (let k = 0; k < style.panes; k += 1) {
          const offset = style.panes === 1 ? 0 : -thick / 2 + (thick * k) / (style.panes - 1);
          draft.line(names_.GLAZ, on(along, at - width / 2, wall + offset), on(along, at + width / 2, wall + offset));
        }
      else if (style.doors === 'block' && style.leafs === 2 && width >= 1) {
        // Two leaves, hung on either jamb.
        const turn = along === 'x' ? 0 : 90;
        draft.insert(names_.DOOR, 'DOOR', on(along, at - width / 2, wall), {
          angle: turn,
          scale: [width / 2, width / 2],
        });
        draft.insert(names_.DOOR, 'DOOR', on(along, at + width / 2, wall), {
          angle: turn,
          scale: [-width / 2, width / 2],
        });
      } else if (style.doors === 'block')
        draft.insert(names_.DOOR, 'DOOR', on(along, at - width / 2, wall), {
          angle: along === 'x' ? 0 : 90,
          scale: [width, width],
        });
      else {
        const hinge = on(along, at - width / 2, wall);
        draft.line(names_.DOOR, hinge, along === 'x' ? [hinge[0], hinge[1] + width] : [hinge[0] - width, hinge[1]]);
        draft.arc(names_.DOOR, hinge, width, along === 'x' ? 0 : 90, along === 'x' ? 90 : 180);
      }
    }
    for (const { along, at, from, to, thickness } of walls)
      truth.walls.push({ a: turned(on(along, from, at)), b: turned(on(along, to, at)), thickness });
    if (dirty) {
      for (let i = 0; i < 14; i += 1) {
        const [x, y] = [between(0.6, right - 2.2), between(0.6, top - 1.6)];
        draft.rectangle(names_.FURN, [x, y], [x + between(0.4, 1.6), y + between(0.4, 0.9)]);
      }
      // Shelves along walls, on the walls' own layer.
      for (const {
        x: [x1, x2],
        y: [y1],
      } of rooms)
        if (x2 - x1 > 3 && random() < 0.3)
          draft.line(names_.WALL, [x1 + 0.7, y1 + outer / 2 + 0.42], [x1 + 2.1, y1 + outer / 2 + 0.42]);
      const [sx, sy] = [right + 3, 1];
      for (let i = 0; i < 12; i += 1) draft.line(names_.STAIR, [sx + i * 0.28, sy], [sx + i * 0.28, sy + 1.2]);
    }
  });
  return {
    dxf: draft.finish(),
    truth,
    unit,
    roles: Object.fromEntries(Object.entries(names_).map(([key, name]) => [name, roleOfLayer[key]])),
    style: `${unit} ${Object.values(style).join(' ')}`,
  };
}
