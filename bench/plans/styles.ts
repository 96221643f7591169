import { pick, type Random } from './random';

/** The habits a plan is drawn by, each with its forms; the first is the plainest. */
export const styles = {
  bubble: ['circle', 'two arcs', 'bulges', 'hexagon of lines', 'octagon', 'square', 'block', 'no frame'],
  bubbles: ['both ends', 'one end'],
  gridLine: ['whole', 'stubs', 'pieces', 'dashes', 'through the bubble', 'bent'],
  gridLayers: ['one', 'three'],
  column: [
    'polyline',
    'lines',
    'fill',
    'outline and hatch',
    'cross',
    'diagonal',
    'doubled',
    'block',
    'steel',
    'steel in lines',
  ],
  atColumns: ['through', 'stop'],
  face: ['lines', 'pieces', 'polylines', 'outlines'],
  leaves: ['none', 'cavity', 'three', 'insulation'],
  fill: ['none', 'hatch', 'solid'],
  door: [
    'block',
    'loose',
    'chords',
    'thin leaf',
    'half open',
    'sliding',
    'two leaves',
    'unequal leaves',
    'both ways',
    'shut',
    'folding',
    'nothing',
  ],
  threshold: ['none', 'lines'],
  pane: ['one line', 'two lines', 'three lines', 'four lines', 'rectangle', 'rectangle with line', 'block'],
  windowIn: ['a gap', 'faces that go on'],
  sill: ['none', 'overhangs'],
  roomText: ['two texts', 'one text', 'block', 'boxed number', 'with finish'],
  roomOutline: ['none', 'drawn'],
  beam: ['pair', 'solid pair', 'single', 'dashes'],
  beamMark: ['one text', 'name and size'],
  sheet: ['bare', 'framed'],
  dimensions: ['none', 'whole', 'exploded'],
  furniture: ['none', 'some'],
  stair: ['none', 'drawn'],
  outside: ['bare', 'planted'],
  labels: ['plain', 'prefixed', 'greek'],
  layers: [
    'english',
    'german',
    'french',
    'spanish',
    'italian',
    'portuguese',
    'dutch',
    'swedish',
    'polish',
    'czech',
    'turkish',
    'japanese',
    'chinese',
    'bound',
    'numbers',
  ],
  unit: ['mm', 'cm', 'm', 'in', 'ft'],
  turn: ['none', '11', '30', '90'],
} as const;

export type StyleName = keyof typeof styles;
export type Style = { [K in StyleName]: (typeof styles)[K][number] };

export const styleNames = Object.keys(styles) as StyleName[];

/** A form for each habit by chance, but for those that are given. */
export function styleOf(random: Random, given: Partial<Style> = {}): Style {
  const chosen = Object.fromEntries(styleNames.map((name) => [name, pick(random, styles[name] as readonly string[])]));
  return { ...(chosen as Style), ...given };
}

/** The plainest form of each habit. */
export const plainest = Object.fromEntries(styleNames.map((name) => [name, styles[name][0]])) as Style;
