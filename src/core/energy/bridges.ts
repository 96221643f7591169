import type { ReadModel } from '@/core/handover/model/readModel';
import { bridgeKinds, type BridgeKind } from '@/core/model/siteSettings';
import type { Enclosed, Surface } from './derive/surface';
import type { Stretch } from './derive/stretches';

/** Losses of thermal bridges by their length, W/(m K). */
export type Psi = Record<BridgeKind, number>;

/** A thermal bridge of a room: how long it is, metres, and what it loses, W/(m K). */
export interface Bridge {
  kind: BridgeKind;
  length: number;
  psi: number;
}

const isOut = ({ beyond }: Surface): boolean => beyond === 'outside';
const sizeOf = (surfaces: readonly Surface[]): number => surfaces.reduce((sum, { area }) => sum + area, 0);

/** The share of a room's floor or ceiling of which something is true. */
function shareOf(surfaces: readonly Surface[], is: (surface: Surface) => boolean): number {
  const all = sizeOf(surfaces);
  return all === 0 ? 0 : sizeOf(surfaces.filter(is)) / all;
}

/**
 * The thermal bridges of a room by their length (ISO 14683): where outer walls meet the roof, a floor between storeys,
 * of which each of the two rooms has half, and the ground floor; at corners that stick out, and about openings.
 */
export function bridgesOf(
  { room, surfaces, stretches }: Enclosed,
  psi: Psi,
  openings: ReadonlyMap<string, ReadModel['openings'][number]>,
): Bridge[] {
  const walls = surfaces.slice(0, stretches.length);
  const lengthAt = (at: (low: number, high: number) => boolean): number =>
    stretches.reduce((sum, { length, low, high }, i) => sum + (isOut(walls[i]) && at(low, high) ? length : 0), 0);
  const head = lengthAt((_, high) => high === room.high);
  const foot = lengthAt((low) => low === room.low);
  const ceilings = surfaces.filter(({ kind }) => kind === 'roof' || kind === 'ceiling');
  const floors = surfaces.filter(({ kind }) => kind === 'floor');
  const [roofed, open] = [shareOf(ceilings, isOut), shareOf(floors, ({ beyond }) => typeof beyond === 'string')];
  const around = surfaces
    .filter((surface) => (surface.kind === 'window' || surface.kind === 'door') && isOut(surface))
    .reduce((sum, { elements }) => {
      const opening = openings.get(elements[0]);
      return opening === undefined ? sum : sum + 2 * (opening.width + opening.height);
    }, 0);
  const lengths: Record<BridgeKind, number> = {
    roof: head * roofed,
    between: (head * (1 - roofed) + foot * (1 - open)) / 2,
    ground: foot * open,
    corner: cornersOf(stretches, walls),
    opening: around,
  };
  return bridgeKinds.flatMap((kind) => (lengths[kind] > 0 ? [{ kind, length: lengths[kind], psi: psi[kind] }] : []));
}

/** Of two walls that meet at a corner that sticks out, the sine of the turn between them. */
const sticksOut = 0.3;
const same = 1e-6;

/** Metres of corners that stick out into the outside: where the walls on both sides lie on it. */
function cornersOf(stretches: readonly Stretch[], walls: readonly Surface[]): number {
  const open = stretches.filter((_, i) => isOut(walls[i]));
  return open.reduce((sum, after) => {
    const before = open.filter(({ b }) => Math.hypot(b[0] - after.a[0], b[1] - after.a[1]) < same);
    const turned = before.filter(({ outward: [x, y] }) => x * after.outward[1] - y * after.outward[0] > sticksOut);
    const shared = turned.map(({ low, high }) => Math.min(high, after.high) - Math.max(low, after.low));
    return sum + shared.reduce((all, height) => all + Math.max(0, height), 0);
  }, 0);
}

/** What thermal bridges lose, W/K. */
export const lostBy = (bridges: readonly Bridge[]): number =>
  bridges.reduce((sum, { length, psi }) => sum + length * psi, 0);
