import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { Report } from '@/core/proof/report';
import { subjectOf } from '@/core/proof/subject';
import { roomsOf, Slabs, type Room } from '@/core/rooms/rooms';
import { gridOf, type Lattice } from './grid';
import { plain, upward } from './light';
import { directAt, lampsOf, type Lamp } from './luminaires';
import { panesOf } from './panes';
import { exchanges, reflectedAt } from './radiosity';
import { litRoomOf, type LitRoom } from './room';
import { lightOf } from './roomLight';
import { targetOf, type Target } from './targets';

/** A field of luminaires in a room, and what comes of it. */
export interface Choice {
  columns: number;
  rows: number;
  /** Where they hang, in plan, their turn in degrees, and how high above the floor, metres. */
  places: Point[];
  rotation: number;
  height: number;
  mean: number;
  uniformity: number;
  /** W/m2. */
  power: number;
  met: boolean;
}

export interface WhatIf {
  zone: string;
  name: string;
  target: Target | null;
  heights: number[];
  /** By the number of luminaires, then by the height. */
  choices: Choice[][];
}

/** Of the light of luminaires so much reaches the work plane, as a start (lumen method). */
const usedAtFirst = 0.6;
/** Rooms of which nothing is asked start from this, lux. */
const plainLux = 200;
/** Luminaires hang so far below the ceiling: on it, and suspended, metres. */
const hangs = [0.05, 0.4, 0.8];
/** No lower above the floor than a head, metres. */
const lowestRise = 2;
/** Numbers of luminaires that are tried: from half to twice the start. */
const [fewer, more, mostTried] = [0.5, 2, 6];
const mostLuminaires = 400;

/** The rectangle about a room along its longest side, and its turn in degrees. */
function frameOf({ lattice }: { lattice: Lattice }) {
  const { columns, rows, origin, across, up } = lattice;
  const [wide, deep] = [Math.hypot(...across) * columns, Math.hypot(...up) * rows];
  const at = (u: number, v: number): Point => [
    origin[0] + u * columns * across[0] + v * rows * up[0],
    origin[1] + u * columns * across[1] + v * rows * up[1],
  ];
  return { wide, deep, at, rotation: (Math.atan2(across[1], across[0]) * 180) / Math.PI };
}

/** Fields of about so many luminaires whose spacings are as even as can be. */
function layoutsAbout(start: number, wide: number, deep: number): { columns: number; rows: number }[] {
  const seen = new Set<string>();
  const [least, most] = [Math.max(1, Math.floor(start * fewer)), Math.ceil(start * more)];
  const step = Math.max(1, (most - least) / (mostTried - 1));
  const layouts: { columns: number; rows: number }[] = [];
  for (let n = least; n <= most + 1e-9; n += step) {
    const columns = Math.max(1, Math.round(Math.sqrt((n * wide) / deep)));
    const rows = Math.max(1, Math.round(n / columns));
    if (columns * rows > mostLuminaires || seen.has(`${columns}/${rows}`)) continue;
    seen.add(`${columns}/${rows}`);
    layouts.push({ columns, rows });
  }
  return layouts.sort((a, b) => a.columns * a.rows - b.columns * b.rows);
}

/** What fields of other numbers and heights of one luminaire would give a room; null where it has no such room. */
export function whatIf(model: ReadModel, zone: string, photometry: string): WhatIf | null {
  const report = new Report();
  const room = roomsOf(model, new Slabs(model), report).find(({ id }) => id === zone);
  const maintenance = model.site?.maintenanceFactor ?? plain.maintenance;
  const luminaires = [{ id: '', photometry, position: [0, 0, 0] as [number, number, number] }];
  const [lamp] = lampsOf({ ...model, luminaires }, maintenance, report);
  if (room === undefined || lamp === undefined || lamp.flux === 0) return null;
  const subject = subjectOf(model);
  const lit = litRoomOf(
    room,
    subject.columns.map(({ outline }) => outline),
    panesOf(subject.walls),
  );
  const target = targetOf(room.zone.use);
  const grid = gridOf(room.rings[0], room.rings.slice(1), null);
  const { wide, deep } = frameOf(grid);
  const start = ((target?.lux ?? plainLux) * room.area) / (lamp.flux * usedAtFirst);
  const heights = [...new Set(hangs.map((below) => Math.max(lowestRise, room.high - room.low - below)))].filter(
    (height) => height < room.high - room.low,
  );
  let made: Float64Array | null = null;
  const exchange = (): Float64Array => (made ??= exchanges(lit));
  const choices = layoutsAbout(start, wide, deep).map((layout) =>
    heights.map((height) => tried({ lit, room, grid, lamp, target, exchange }, layout, height)),
  );
  return { zone, name: room.name, target, heights, choices };
}

interface Tried {
  lit: LitRoom;
  room: Room;
  grid: { points: Point[]; lattice: Lattice };
  lamp: Lamp;
  target: Target | null;
  exchange: () => Float64Array;
}

function tried(of: Tried, { columns, rows }: { columns: number; rows: number }, height: number): Choice {
  const { lit, room, grid, lamp, target, exchange } = of;
  const { at, rotation } = frameOf(grid);
  const [outline, ...holes] = room.rings;
  const places = Array.from({ length: columns * rows }, (_, k) =>
    at(((k % columns) + 0.5) / columns, (Math.floor(k / columns) + 0.5) / rows),
  ).filter((p) => contains(outline, p) && !holes.some((hole) => contains(hole, p)));
  const lamps = places.map(([x, y]): Lamp => ({ ...lamp, rotation, position: [x, y, room.low + height] }));
  const { total } = lightOf(lit, lamps, exchange);
  const values = grid.points.map(([x, y]) => {
    const p = [x, y, room.low + plain.workPlane] as const;
    const direct = lamps.reduce((sum, one) => sum + directAt(one, p, upward, lit.sees), 0);
    return direct + reflectedAt(lit, total, p, upward);
  });
  const mean = values.reduce((sum, value) => sum + value, 0) / (values.length || 1);
  const least = values.reduce((best, value) => Math.min(best, value), values.length === 0 ? 0 : Infinity);
  const uniformity = mean === 0 ? 0 : least / mean;
  const power = (lamp.power * lamps.length) / room.area;
  const met = target === null || (mean >= target.lux && uniformity >= target.uniformity);
  return { columns, rows, places, rotation, height, mean, uniformity, power, met };
}
