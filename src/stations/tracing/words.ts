import type { ElementKind } from '@/core/kinds/element';
import type { SnapGroup, WayName } from '@/project/tracing';

/** The ways of making each kind, the usual one first. */
export const waysOf: Record<ElementKind, readonly WayName[]> = {
  grid: ['grid.line', 'grid.spacings', 'grid.arc', 'grid.copy'],
  column: ['column.point', 'column.crossings', 'column.along', 'column.outline'],
  beam: ['beam.chain', 'beam.supports', 'beam.gridLine'],
  wall: ['wall.chain'],
  opening: ['opening.point', 'opening.distance', 'opening.middle', 'opening.spaced'],
  slab: ['slab.outline', 'slab.region', 'slab.building', 'slab.hole'],
  zone: ['zone.region', 'zone.outline', 'zone.divide'],
  outdoor: ['outdoor.outline'],
};

/** What the ways are called on their buttons. */
export const wayWords: Record<WayName, string> = {
  'grid.line': 'Line by line',
  'grid.spacings': 'By spacings',
  'grid.arc': 'Arc',
  'grid.copy': 'Copies of one',
  'column.point': 'One by one',
  'column.crossings': 'At crossings in a box',
  'column.along': 'Along a line',
  'column.outline': 'By its outline',
  'beam.chain': 'From support to support',
  'beam.supports': 'Between columns in a box',
  'beam.gridLine': 'Along a grid line',
  'wall.chain': 'In a chain',
  'opening.point': 'Where clicked',
  'opening.distance': 'From a node',
  'opening.middle': 'Middle of the wall',
  'opening.spaced': 'Equally spaced',
  'slab.outline': 'By its outline',
  'slab.region': 'Between walls',
  'slab.building': 'The whole building',
  'slab.hole': 'An opening in it',
  'zone.region': 'Between walls',
  'zone.outline': 'By its outline',
  'zone.divide': 'Divide one',
  'outdoor.outline': 'By its outline',
  'change.move': 'Move',
  'change.copy': 'Copy',
  'change.turn': 'Turn',
  'change.mirror': 'Mirror',
  'change.repeat': 'Repeat at crossings',
  'change.reach': 'Cut back or lengthen',
  'change.corner': 'Close a corner',
  'change.split': 'Split',
  'change.align': 'Align to a line',
  'change.addCorner': 'Add a corner',
  'change.removeCorner': 'Remove a corner',
  'change.bend': 'Bend',
  'change.setOffEdge': 'Set off an edge',
  'change.paste': 'Paste here',
};

/** What there is to hold on to, in words. */
export const snapWords: Record<SnapGroup, string> = {
  drawn: 'lines of drawings',
  follows: 'places that follow from them',
  model: 'the model',
  grid: 'grid crossings',
  below: 'the level below',
  axes: 'the axes',
};
