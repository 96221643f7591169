import {
  across,
  columns,
  gridArcs,
  gridLines,
  inWing,
  lookout,
  rooms,
  up,
  wing,
  wingRooms,
  type TrueColumn,
  type TrueRoom,
  type XY,
} from './building';
import { Draft } from './draft';
import { drawWalls, type Gap } from './walls';

export const layers = [
  { name: 'A-GRID', colour: 8 },
  { name: 'A-COLS', colour: 6 },
  { name: 'A-WALL', colour: 7 },
  { name: 'A-DOOR', colour: 30 },
  { name: 'A-GLAZ', colour: 4 },
  { name: 'A-ROOM', colour: 3 },
  { name: 'A-DIMS', colour: 1 },
  { name: 'A-FURN', colour: 9 },
  { name: 'A-STAIR', colour: 9 },
  { name: 'A-HATCH', colour: 254 },
  { name: 'A-TITLE', colour: 7 },
];

/** Columns that are not drawn where or as they should be, as in real drawings: at, what is wrong. */
const imperfect: Record<string, { shift?: XY; size?: XY; loose?: number; twice?: boolean }> = {
  '5/B': { shift: [0.0082, -0.0082] },
  '2/A': { shift: [-0.003, 0.004] },
  '6/D': { shift: [0.002, 0] },
  '3/C': { shift: [0, 0.006] },
  '4/A': { size: [0.3984, 0.4] },
  '6/A': { loose: 0.006 },
  '2/D': { loose: 0 },
  '4/D': { twice: true },
};

/** A drawing, and how many entities of each kind it was drawn with. */
export interface Plan {
  dxf: string;
  counts: Record<string, number>;
}

export interface GroundFloor extends Plan {
  columnsAsDrawn: TrueColumn[];
}

/** What revision B changes: two columns moved, a wall went, a door came, a room was renamed. */
export const revisionB = {
  moved: { '4/B': [0.3, 0], '6/C': [0, -0.25] } as Record<string, XY>,
  door: { along: 'x', wall: up[1], at: 33.6, width: 0.9, kind: 'door' } as Gap,
  renamed: ['Mess', 'Galley'],
};

/**
 * The ground floor: drawn in millimetres, in a file whose header says metres.
 * @param oneLayer draws everything on one layer, as some offices send it
 */
export function groundFloor({
  revision = 'A',
  oneLayer = false,
}: { revision?: 'A' | 'B'; oneLayer?: boolean } = {}): GroundFloor {
  const draft = new Draft(1000, 6, layers, oneLayer ? '0' : null);
  const later = revision === 'B';
  defineBlocks(draft);
  draft.section(1);
  drawGrid(draft);
  draft.section(2);
  const columnsAsDrawn = columns().map((column) =>
    drawColumn(draft, column, later ? revisionB.moved[column.at] : undefined),
  );
  draft.section(3);
  drawMainBlock(draft, later);
  draft.section(4);
  drawWing(draft);
  drawLookout(draft);
  draft.section(5);
  drawDimensions(draft);
  drawTitle(draft, 'Ground floor plan 1:100', revision);
  return { dxf: draft.finish(), counts: draft.counts, columnsAsDrawn };
}

export function defineBlocks(draft: Draft): void {
  draft.block('GRID-BUBBLE', () => draft.circle('0', [0, 0], 0.6));
  draft.block('DOOR-900', () => {
    draft.line('0', [0, 0], [0, 0.9]);
    draft.arc('0', [0, 0], 0.9, 0, 90);
  });
  draft.block('CHAIR', () => {
    draft.polyline(
      '0',
      [
        [-0.22, -0.22],
        [0.22, -0.22],
        [0.22, 0.22],
        [-0.22, 0.22],
      ],
      true,
    );
    draft.line('0', [-0.22, 0.16], [0.22, 0.16]);
  });
  draft.block('DESK', () => {
    draft.rectangle('0', [-0.8, -0.4], [0.8, 0.4]);
    draft.insert('0', 'CHAIR', [0, -0.65], { angle: 180 });
  });
  draft.block('BENCH', () => {
    draft.rectangle('0', [-1.2, -0.375], [1.2, 0.375]);
    for (const x of [-0.8, 0, 0.8]) draft.insert('0', 'CHAIR', [x, -0.7], { angle: 180, scale: [0.9, 0.9] });
  });
  draft.block('TANK', () => {
    draft.circle('0', [0, 0], 0.9);
    draft.circle('0', [0, 0], 0.82);
    draft.polyline(
      '0',
      [
        [-0.3, 0],
        [0.3, 0],
      ],
      true,
      [1, 1],
    );
  });
}

const bubble = 0.6;

export function drawGrid(draft: Draft): void {
  const mark = (at: XY, label: string) =>
    draft.insert('A-GRID', 'GRID-BUBBLE', at, { attribute: { tag: 'LABEL', text: label, height: 0.5 } });
  for (const { label, start, end } of gridLines()) {
    const length = Math.hypot(end[0] - start[0], end[1] - start[1]);
    const u: XY = [(end[0] - start[0]) / length, (end[1] - start[1]) / length];
    // Line 3 is drawn in three pieces, line C as two that overlap: as it happens when a plan is edited.
    const on = (d: number): XY => [start[0] + u[0] * d, start[1] + u[1] * d];
    if (label === '3')
      for (const [a, b] of [
        [0, 6.1],
        [6.4, 13],
        [13, length],
      ])
        draft.line('A-GRID', on(a), on(b));
    else if (label === 'C')
      for (const [a, b] of [
        [0, 20],
        [18, length],
      ])
        draft.line('A-GRID', on(a), on(b));
    else draft.line('A-GRID', start, end);
    if (!wing.letters.includes(label)) mark([start[0] - u[0] * bubble, start[1] - u[1] * bubble], label);
    mark([end[0] + u[0] * bubble, end[1] + u[1] * bubble], label);
  }
  for (const { label, centre, radius, startAngle, endAngle } of gridArcs()) {
    draft.arc('A-GRID', centre, radius, startAngle, endAngle);
    const beyond = (endAngle * Math.PI) / 180 + bubble / radius;
    mark([centre[0] + radius * Math.cos(beyond), centre[1] + radius * Math.sin(beyond)], label);
  }
}

function drawColumn(draft: Draft, column: TrueColumn, moved: XY = [0, 0]): TrueColumn {
  const { shift = [0, 0], size, loose, twice } = imperfect[column.at] ?? {};
  const position: XY = [column.position[0] + shift[0] + moved[0], column.position[1] + shift[1] + moved[1]];
  if (column.section.shape === 'circle') {
    draft.circle('A-COLS', position, column.section.diameter / 2);
    return { ...column, position };
  }
  const [w, d] = size ?? [column.section.width, column.section.depth];
  const turned = (p: XY): XY => {
    const angle = (column.rotation * Math.PI) / 180;
    return [
      position[0] + p[0] * Math.cos(angle) - p[1] * Math.sin(angle),
      position[1] + p[0] * Math.sin(angle) + p[1] * Math.cos(angle),
    ];
  };
  const corners = (
    [
      [-w / 2, -d / 2],
      [w / 2, -d / 2],
      [w / 2, d / 2],
      [-w / 2, d / 2],
    ] as XY[]
  ).map(turned);
  if (loose !== undefined) {
    corners.forEach((corner, i) => {
      const next = corners[(i + 1) % 4];
      // The last side stops short of the first corner.
      const short = i === 3 ? loose / Math.hypot(next[0] - corner[0], next[1] - corner[1]) : 0;
      draft.line('A-COLS', corner, [next[0] - (next[0] - corner[0]) * short, next[1] - (next[1] - corner[1]) * short]);
    });
  } else for (let i = 0; i < (twice ? 2 : 1); i += 1) draft.polyline('A-COLS', corners, true);
  if (column.rotation === 0 && column.at.endsWith('/A')) draft.hatch('A-HATCH', corners);
  return { ...column, position };
}

export const door = (along: 'x' | 'y', wall: number, at: number): Gap => ({
  along,
  wall,
  at,
  width: 0.9,
  kind: 'door',
});
export const window = (along: 'x' | 'y', wall: number, at: number, width = 1.8): Gap => ({
  along,
  wall,
  at,
  width,
  kind: 'window',
});

function drawMainBlock(draft: Draft, later: boolean): void {
  const [right, top] = [across[6], up[3]];
  const gaps: Gap[] = [
    door('x', up[1], 1.2),
    door('x', up[1], 9.6),
    door('x', up[1], 18.2),
    door('x', up[1], 25.6),
    door('x', up[2], 4.3),
    door('x', up[2], 12.2),
    door('x', up[2], 20.3),
    door('x', up[2], 28.6),
    door('y', 0, 8.55),
    door('y', right, 8.55),
    ...across.slice(0, -1).map((x, i) => window('x', 0, (x + across[i + 1]) / 2)),
    ...across.slice(0, -1).map((x, i) => window('x', top, (x + across[i + 1]) / 2)),
    window('y', 0, 3.4),
    window('y', 0, 13.7),
    window('y', right, 3.4, 2.4),
    ...(later ? [revisionB.door] : []),
  ];
  drawWalls(draft, { rooms, low: [0, 0], high: [right, top], gaps });
  for (const gap of gaps.filter(({ kind }) => kind === 'door')) {
    const hinge: XY = gap.along === 'x' ? [gap.at - 0.45, gap.wall] : [gap.wall, gap.at - 0.45];
    const mirrored = gap.wall === up[1];
    draft.insert('A-DOOR', 'DOOR-900', hinge, { angle: gap.along === 'x' ? 0 : 90, scale: [1, mirrored ? -1 : 1] });
  }
  // A partition that stands by itself in the watch room, in the first revision only.
  if (!later) for (const x of [10.4, 10.5]) draft.line('A-WALL', [x, 0.15], [x, 3.2]);
  for (const room of rooms)
    label(draft, later && room.name === revisionB.renamed[0] ? { ...room, name: revisionB.renamed[1] } : room);
  furnish(draft, 'DESK', [
    [2.7, 2.2],
    [2.7, 4.6],
    [8, 2],
    [10.5, 2],
    [13, 2],
    [8, 4.8],
  ]);
  furnish(draft, 'BENCH', [
    [2.7, 12.4],
    [2.7, 15.2],
    [7.6, 12.4],
    [7.6, 15.2],
    [19.5, 12.4],
    [23.5, 12.4],
    [19.5, 15.2],
  ]);
}

function drawWing(draft: Draft): void {
  const high: XY = [wing.across[3], wing.up[2]];
  const gaps: Gap[] = [
    door('y', 0, 6.3),
    door('y', wing.across[2], 3),
    window('x', 0, 2.1),
    window('x', 0, 6.3),
    window('x', 0, 10.8, 2.4),
    window('x', high[1], 2.1),
    window('x', high[1], 6.3),
  ];
  draft.through(inWing, wing.turn, () => {
    drawWalls(draft, { rooms: wingRooms, low: [0, 0], high, gaps });
    for (const gap of gaps.filter(({ kind }) => kind === 'door'))
      draft.insert('A-DOOR', 'DOOR-900', [gap.wall, gap.at - 0.45], { angle: 90 });
    for (const room of wingRooms) label(draft, room);
    furnish(draft, 'TANK', [
      [9.6, 2.2],
      [11.8, 2.2],
      [9.6, 7.2],
      [11.8, 7.2],
    ]);
    furnish(draft, 'BENCH', [
      [2.1, 2.4],
      [6.2, 2.4],
      [2.1, 7.4],
    ]);
  });
}

export const furnish = (draft: Draft, block: string, places: XY[]) =>
  places.forEach((at, i) => draft.insert('A-FURN', block, at, { angle: i % 2 === 0 ? 0 : 180 }));

export function label(draft: Draft, { name, number, x, y }: TrueRoom): void {
  const at: XY = [(x[0] + x[1]) / 2, (y[0] + y[1]) / 2];
  draft.mtext('A-ROOM', [at[0], at[1] + 0.25], 0.32, name.replace(' ', '\\P'));
  draft.text('A-ROOM', [at[0], at[1] - 0.45], 0.25, number);
}

function drawLookout(draft: Draft): void {
  draft.circle('A-STAIR', lookout.centre, 0.45);
  for (let i = 0; i <= 14; i += 1) {
    const angle = ((lookout.from + i * 12) * Math.PI) / 180;
    const at = (r: number): XY => [lookout.centre[0] + r * Math.cos(angle), lookout.centre[1] + r * Math.sin(angle)];
    draft.line('A-STAIR', at(0.45), at(2.1));
  }
  draft.arc('A-WALL', lookout.centre, 4.05, lookout.from, lookout.to);
  draft.arc('A-WALL', lookout.centre, 4.35, lookout.from, lookout.to);
  draft.text('A-ROOM', [lookout.centre[0] - 3.1, lookout.centre[1]], 0.25, '0.12');
}

/** @param wrong texts written over what is drawn, by the number of the bay */
export function drawDimensions(draft: Draft, wrong: Record<number, string> = {}): void {
  for (let i = 0; i + 1 < across.length; i += 1)
    draft.dimension('A-DIMS', [across[i], 0], [across[i + 1], 0], [across[i], -4.6], wrong[i + 1]);
  for (let i = 0; i + 1 < up.length; i += 1) draft.dimension('A-DIMS', [0, up[i]], [0, up[i + 1]], [-11.4, up[i]]);
}

export function drawTitle(draft: Draft, title: string, revision: string): void {
  draft.rectangle('A-TITLE', [-14, -9.5], [56, 25.5]);
  draft.rectangle('A-TITLE', [36, -9.3], [55.8, -5.3]);
  draft.mtext('A-TITLE', [45.9, -6.3], 0.6, 'Marram Point Field Station');
  draft.text('A-TITLE', [45.9, -7.5], 0.4, title);
  draft.text('A-TITLE', [45.9, -8.5], 0.3, `Revision ${revision}`);
}
