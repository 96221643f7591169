'use client';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { ElementKind, Shapes } from '@/core/kinds/element';
import type { BeamEnds } from '@/core/tracing/making/beams';
import type { DrawnAlong } from '@/core/tracing/making/walls';

/** What there is to hold on to, by meaning; each can be switched off. */
export const snapGroups = ['drawn', 'follows', 'model', 'grid', 'below', 'axes'] as const;
export type SnapGroup = (typeof snapGroups)[number];

/** How something is made or changed on the board. */
export const wayNames = [
  'grid.line',
  'grid.spacings',
  'grid.arc',
  'grid.copy',
  'column.point',
  'column.crossings',
  'column.along',
  'column.outline',
  'beam.chain',
  'beam.supports',
  'beam.gridLine',
  'wall.chain',
  'opening.point',
  'opening.distance',
  'opening.middle',
  'opening.spaced',
  'slab.outline',
  'slab.region',
  'slab.building',
  'slab.hole',
  'zone.region',
  'zone.outline',
  'zone.divide',
  'outdoor.outline',
  'outdoor.fence',
  'roof.outline',
  'roof.ridge',
  'support.point',
  'support.columns',
  'pointLoad.point',
  'lineLoad.chain',
  'areaLoad.region',
  'areaLoad.slab',
  'areaLoad.outline',
  'luminaire.point',
  'luminaire.row',
  'luminaire.field',
  'contour.line',
  'contour.spot',
  'calculationArea.zone',
  'calculationArea.outline',
  'upright.member',
  'upright.column',
  'upright.opening',
  'upright.roof',
  'change.move',
  'change.copy',
  'change.turn',
  'change.mirror',
  'change.repeat',
  'change.reach',
  'change.corner',
  'change.split',
  'change.align',
  'change.addCorner',
  'change.removeCorner',
  'change.bend',
  'change.setOffEdge',
  'change.node',
  'change.paste',
] as const;
export type WayName = (typeof wayNames)[number];

/** What new elements are like, until somebody says otherwise; metres. */
export const plainShapes: Shapes = {
  grid: { kind: 'line', label: '', start: [0, 0], end: [0, 0] },
  column: { position: [0, 0], rotation: 0, section: { shape: 'rectangle', width: 0.4, depth: 0.4 }, mark: '' },
  beam: { start: [0, 0], end: [0, 0], section: { shape: 'rectangle', width: 0.3, depth: 0.6 }, mark: '' },
  wall: { start: [0, 0], end: [0, 0], thickness: 0.2, height: null, bulge: 0, outer: false },
  opening: { wall: '', use: 'door', offset: 0, width: 1.01, height: 2.13, sill: 0 },
  slab: { outline: [], holes: [], thickness: 0.25 },
  zone: { name: '', number: '', outline: [], holes: [], height: null },
  outdoor: { name: '', outline: [], height: 0.1 },
  roof: { outline: [], eaves: 3, slope: 30, direction: 0, thickness: 0.25 },
  support: { position: [0, 0], rise: 0, fixed: ['x', 'y', 'z'] },
  pointLoad: { case: 'Q', position: [0, 0], rise: 0, force: [0, 0, -10_000], moment: [0, 0, 0] },
  lineLoad: { case: 'Q', start: [0, 0], end: [0, 0], rise: 0, q: [0, 0, -5000] },
  areaLoad: { case: 'Q', outline: [], holes: [], q: -3000 },
  luminaire: { position: [0, 0], rise: 2.8, rotation: 0, tilt: 0, photometry: 'panel', output: 1 },
  calculationArea: { name: '', outline: [], holes: [], rise: 0.8, spacing: null },
  contour: { points: [], elevation: 0 },
};

/** What a person makes, and how; kept in the browser. */
interface Tracing {
  kind: ElementKind;
  /** The way that each kind was last made in. */
  ways: Partial<Record<ElementKind, WayName>>;
  shapes: Shapes;
  drawnAlong: DrawnAlong;
  beamEnds: BeamEnds;
  /** How many, where some are made at once. */
  count: number;
  /** How many rows, where they are made in rows. */
  rows: number;
  /** How many copies in a row a copy makes. */
  copies: number;
  /** Spacings as typed: of lines that run up, and of those that run across. */
  across: string;
  up: string;
  /** How far something is set off, metres. */
  setOff: number;
  /** How far a slab goes beyond what it is made of, metres; inwards where negative. */
  edge: number;
  /** Gaps of walls that a region closes without a word, metres. */
  gap: number;
  /** Whether the local axes of members are drawn. */
  axesShown: boolean;
  /** How far the cursor reaches, pixels. */
  reach: number;
  /** What the cursor does not hold on to. */
  off: SnapGroup[];
  set(part: Partial<Omit<Tracing, 'set'>>): void;
}

export const useTracing = create<Tracing>()(
  persist(
    (set) => ({
      kind: 'column',
      ways: {},
      shapes: plainShapes,
      drawnAlong: 'centre line',
      beamEnds: 'centres',
      count: 3,
      rows: 2,
      copies: 1,
      across: '3x5.4, 6.15, 4.8',
      up: '2x6',
      edge: 0,
      setOff: 0.5,
      gap: 0.05,
      axesShown: false,
      reach: 12,
      off: [],
      set: (part) => set(part),
    }),
    {
      name: 'zircon-tracing',
      skipHydration: true,
      partialize: ({ set: _set, ...rest }) => rest,
      // What was kept before a kind came has no shape of it.
      merge: (kept, now) => {
        const known = kept as Partial<Tracing> | undefined;
        return { ...now, ...known, shapes: { ...now.shapes, ...known?.shapes } };
      },
    },
  ),
);
