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
  outdoor: ['outdoor.outline', 'outdoor.fence'],
  roof: ['roof.outline', 'roof.ridge'],
  support: ['support.point', 'support.columns'],
  pointLoad: ['pointLoad.point'],
  lineLoad: ['lineLoad.chain'],
  areaLoad: ['areaLoad.region', 'areaLoad.slab', 'areaLoad.outline'],
  luminaire: ['luminaire.point', 'luminaire.row', 'luminaire.field'],
  contour: ['contour.line', 'contour.spot'],
  calculationArea: ['calculationArea.zone', 'calculationArea.outline'],
};

/** The ways of making in the plane of a section. */
export const uprightWays: readonly WayName[] = ['upright.member', 'upright.column', 'upright.opening', 'upright.roof'];

/** The ways of changing all that is selected, */
export const selectionWays: readonly WayName[] = [
  'change.move',
  'change.copy',
  'change.repeat',
  'change.turn',
  'change.mirror',
  'change.align',
];
/** and one element after another. */
export const pointedWays: readonly WayName[] = [
  'change.node',
  'change.reach',
  'change.corner',
  'change.split',
  'change.bend',
  'change.addCorner',
  'change.removeCorner',
  'change.setOffEdge',
];
export const changeWays: readonly WayName[] = [...selectionWays, ...pointedWays];

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
  'outdoor.fence': 'Fence along a line',
  'roof.outline': 'By its outline, eaves first',
  'roof.ridge': 'Two planes to a ridge',
  'support.point': 'One by one',
  'support.columns': 'Under columns in a box',
  'pointLoad.point': 'One by one',
  'lineLoad.chain': 'In a chain',
  'areaLoad.region': 'Between walls',
  'areaLoad.slab': 'On a whole slab',
  'areaLoad.outline': 'By its outline',
  'luminaire.point': 'One by one',
  'luminaire.row': 'In a row',
  'luminaire.field': 'In a field',
  'contour.line': 'Line of one height',
  'contour.spot': 'Spot height',
  'calculationArea.zone': 'In a zone',
  'calculationArea.outline': 'By its outline',
  'upright.member': 'Member from point to point',
  'upright.column': 'Column from foot to head',
  'upright.opening': 'Window or door by its corners',
  'upright.roof': 'Roof plane from eaves to ridge',
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
  'change.node': 'Move an end or corner',
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
