import { modelWith } from '@/core/handover/testing/modelWith';
import type { ReadModel } from '@/core/handover/model/readModel';

/** Models that tests calculate, as programs write them. */
export function modelOf(parts: Record<string, unknown>): ReadModel {
  return modelWith({
    levels: [
      { id: 'L1', name: 'Ground', elevation: 0, height: 4 },
      { id: 'L2', name: 'Upper', elevation: 4, height: 4 },
    ],
    ...parts,
  });
}

export const square = { shape: 'rectangle', width: 0.4, depth: 0.4 };
export const deep = { shape: 'rectangle', width: 0.3, depth: 0.6 };

export const columnAt = (id: string, position: [number, number], more: object = {}) => ({
  id,
  level: 'L1',
  position,
  rotation: 0,
  section: square,
  mark: id,
  ...more,
});

export const beamAt = (
  id: string,
  start: [number, number, number],
  end: [number, number, number],
  more: object = {},
) => ({
  id,
  level: 'L1',
  start,
  end,
  section: deep,
  mark: id,
  ...more,
});

/** Both ends of a beam as hinges about both of its axes across. */
export const hinged = { releases: { start: ['ry', 'rz'], end: ['ry', 'rz'] } };

/** A table: a slab 6 m by 4 m on four hinged beams on four columns of 4 m. */
export const table = {
  columns: [columnAt('C1', [0, 0]), columnAt('C2', [6, 0]), columnAt('C3', [6, 4]), columnAt('C4', [0, 4])],
  beams: [
    beamAt('B1', [0, 0, 4], [6, 0, 4], hinged),
    beamAt('B2', [6, 0, 4], [6, 4, 4], hinged),
    beamAt('B3', [6, 4, 4], [0, 4, 4], hinged),
    beamAt('B4', [0, 4, 4], [0, 0, 4], hinged),
  ],
  slabs: [
    {
      id: 'S1',
      level: 'L2',
      outline: [
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
      ],
      holes: [],
      thickness: 0.2,
    },
  ],
};
