/**
 * Marram Point Field Station, a coastal research station invented for this project: the truth about its
 * ground floor, in metres. Everything the drawings show is made from it, and tests compare with it.
 */
export type XY = [number, number];

export interface TrueGridLine {
  label: string;
  start: XY;
  end: XY;
}
export interface TrueGridArc {
  label: string;
  centre: XY;
  radius: number;
  startAngle: number;
  endAngle: number;
}
export interface TrueColumn {
  position: XY;
  /** Degrees. */
  rotation: number;
  section: { shape: 'rectangle'; width: number; depth: number } | { shape: 'circle'; diameter: number };
  at: string;
}
export interface TrueRoom {
  name: string;
  number: string;
  x: XY;
  y: XY;
}

const running = (spacings: number[]) =>
  spacings.reduce<number[]>((at, d) => [...at, Number((at[at.length - 1] + d).toFixed(3))], [0]);

/** Grid 1 to 7 across, A to D up: 6 by 3 bays. */
export const across = running([5.4, 5.4, 6.15, 4.8, 5.4, 5.4]);
export const up = running([6.9, 3.3, 6.9]);
export const letters = ['A', 'B', 'C', 'D'];

/** The wet-lab wing, turned 17 degrees about its own corner. */
export const wing = {
  corner: [37.2, 2.4] as XY,
  turn: 17,
  across: running([4.2, 4.2, 4.8]),
  up: running([5.1, 4.5]),
  numbers: ['W1', 'W2', 'W3', 'W4'],
  letters: ['T', 'U', 'V'],
};

/** The round lookout stair with its arc grid lines. */
export const lookout = {
  centre: [-5.6, 8.55] as XY,
  radii: [
    ['R1', 2.4],
    ['R2', 4.2],
  ] as [string, number][],
  from: 95,
  to: 265,
  columns: [110, 145, 180, 215, 250],
};

const overrun = 2.4;

/** A point of the wing in the building's coordinates. */
export function inWing([x, y]: XY): XY {
  const angle = (wing.turn * Math.PI) / 180;
  return [
    wing.corner[0] + x * Math.cos(angle) - y * Math.sin(angle),
    wing.corner[1] + x * Math.sin(angle) + y * Math.cos(angle),
  ];
}

export function gridLines(): TrueGridLine[] {
  const [right, top] = [across[across.length - 1], up[up.length - 1]];
  const [wingRight, wingTop] = [wing.across[wing.across.length - 1], wing.up[wing.up.length - 1]];
  return [
    ...across.map((x, i): TrueGridLine => ({ label: String(i + 1), start: [x, -overrun], end: [x, top + overrun] })),
    ...up.map((y, i): TrueGridLine => ({ label: letters[i], start: [-overrun, y], end: [right + overrun, y] })),
    ...wing.across.map((x, i): TrueGridLine => ({
      label: wing.numbers[i],
      start: inWing([x, -overrun]),
      end: inWing([x, wingTop + overrun]),
    })),
    ...wing.up.map((y, i): TrueGridLine => ({
      label: wing.letters[i],
      start: inWing([-0.9, y]),
      end: inWing([wingRight + overrun, y]),
    })),
  ];
}

export function gridArcs(): TrueGridArc[] {
  return lookout.radii.map(([label, radius]) => ({
    label,
    centre: lookout.centre,
    radius,
    startAngle: lookout.from,
    endAngle: lookout.to,
  }));
}

const square = { shape: 'rectangle', width: 0.4, depth: 0.4 } as const;
const blade = { shape: 'rectangle', width: 0.25, depth: 0.6 } as const;
const round = { shape: 'circle', diameter: 0.45 } as const;

/**
 * Columns: 400 x 400 on the outer rows, 250 x 600 along the gallery, round 450 in the wing's middle row and the
 * lookout.
 */
export function columns(): TrueColumn[] {
  const list: TrueColumn[] = [];
  across.forEach((x, i) =>
    up.forEach((y, j) =>
      list.push({
        position: [x, y],
        rotation: 0,
        section: j === 1 || j === 2 ? blade : square,
        at: `${i + 1}/${letters[j]}`,
      }),
    ),
  );
  wing.across.forEach((x, i) =>
    wing.up.forEach((y, j) =>
      list.push({
        position: inWing([x, y]),
        rotation: j === 1 ? 0 : wing.turn,
        section: j === 1 ? round : square,
        at: `${wing.numbers[i]}/${wing.letters[j]}`,
      }),
    ),
  );
  for (const angle of lookout.columns) {
    const radians = (angle * Math.PI) / 180;
    list.push({
      position: [lookout.centre[0] + 4.2 * Math.cos(radians), lookout.centre[1] + 4.2 * Math.sin(radians)],
      rotation: 0,
      section: round,
      at: `R2 at ${angle}`,
    });
  }
  return list;
}

const x = (n: number) => across[n - 1];

/** Rooms of the main block by the grid lines that bound them. */
export const rooms: TrueRoom[] = [
  { name: 'Office', number: '0.01', x: [x(1), x(2)], y: [up[0], up[1]] },
  { name: 'Watch Room', number: '0.02', x: [x(2), x(4)], y: [up[0], up[1]] },
  { name: 'Drying', number: '0.03', x: [x(4), x(5)], y: [up[0], up[1]] },
  { name: 'Boat Store', number: '0.04', x: [x(5), x(7)], y: [up[0], up[1]] },
  { name: 'Gallery', number: '0.05', x: [x(1), x(7)], y: [up[1], up[2]] },
  { name: 'Dry Lab', number: '0.06', x: [x(1), x(3)], y: [up[2], up[3]] },
  { name: 'Specimen Store', number: '0.07', x: [x(3), x(4)], y: [up[2], up[3]] },
  { name: 'Mess', number: '0.08', x: [x(4), x(6)], y: [up[2], up[3]] },
  { name: 'Plant', number: '0.09', x: [x(6), x(7)], y: [up[2], up[3]] },
];

/** Rooms of the wing, in its own coordinates. */
export const wingRooms: TrueRoom[] = [
  { name: 'Wet Lab', number: '0.10', x: [wing.across[0], wing.across[2]], y: [wing.up[0], wing.up[2]] },
  { name: 'Tanks', number: '0.11', x: [wing.across[2], wing.across[3]], y: [wing.up[0], wing.up[2]] },
];

export const thickness = { outer: 0.3, inner: 0.15 };
