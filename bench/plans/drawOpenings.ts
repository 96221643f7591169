import type { XY } from '../../demo/building';
import type { Building, Gap } from './building';
import { isCut, jambsOf } from './drawWalls';
import type { Hand } from './hand';
import { on } from './loops';

export function drawOpenings(hand: Hand, { gaps }: Building): void {
  for (const gap of gaps) {
    hand.truth.openings.push({
      at: hand.turned(on(gap.run.along, gap.at, gap.run.at)),
      width: gap.width,
      use: gap.use,
    });
    if (gap.use === 'door') door(hand, gap);
    else window(hand, gap);
  }
}

/** A point in a gap: along it from its first jamb, and across from the wall's centre line, metres. */
const inGap = ({ run, at, width }: Gap, along: number, across: number): XY =>
  on(run.along, at - width / 2 + along, run.at + (run.along === 'x' ? across : -across));

function door(hand: Hand, gap: Gap): void {
  const { draft, style, layers } = hand;
  const layer = layers.door;
  const { width, run } = gap;
  const turn = run.along === 'x' ? 0 : 90;
  const hinge = inGap(gap, 0, 0);
  const leaf = (angle: number, thickness = 0) => {
    const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
    const at = (a: number, b: number) => inGap(gap, a * c - b * s, a * s + b * c);
    if (thickness === 0) draft.line(layer, hinge, at(width, 0));
    else draft.polyline(layer, [at(0, 0), at(width, 0), at(width, thickness), at(0, thickness)], true);
  };
  switch (style.door) {
    case 'block':
      draft.insert(layer, 'DOOR', hinge, { angle: turn, scale: [width, width] });
      break;
    case 'loose':
      leaf(90);
      draft.arc(layer, hinge, width, turn, turn + 90);
      break;
    case 'chords':
      leaf(90);
      draft.polyline(layer, swing(gap, 90, 8), false);
      break;
    case 'thin leaf':
      leaf(90, 0.04);
      draft.arc(layer, hinge, width, turn, turn + 90);
      break;
    case 'half open':
      leaf(45);
      draft.arc(layer, hinge, width, turn, turn + 45);
      break;
    case 'sliding': {
      const side = run.thickness / 2 + 0.02;
      draft.polyline(
        layer,
        [inGap(gap, 0, side), inGap(gap, width, side), inGap(gap, width, side + 0.04), inGap(gap, 0, side + 0.04)],
        true,
      );
      break;
    }
    case 'two leaves':
      draft.insert(layer, 'DOOR', hinge, { angle: turn, scale: [width / 2, width / 2] });
      draft.insert(layer, 'DOOR', inGap(gap, width, 0), { angle: turn, scale: [-width / 2, width / 2] });
      break;
    case 'unequal leaves':
      draft.insert(layer, 'DOOR', hinge, { angle: turn, scale: [width * share.wide, width * share.wide] });
      draft.insert(layer, 'DOOR', inGap(gap, width, 0), {
        angle: turn,
        scale: [-width * (1 - share.wide), width * (1 - share.wide)],
      });
      break;
    case 'both ways':
      leaf(90);
      leaf(-90);
      draft.polyline(layer, swing(gap, 90, 8), false);
      draft.polyline(layer, swing(gap, -90, 8), false);
      break;
    case 'shut':
      leaf(0, 0.04);
      break;
    case 'folding':
      draft.polyline(
        layer,
        [0, 1, 2, 3, 4].map((k) => inGap(gap, (k * width) / 4, k % 2 === 0 ? 0 : width / 5)),
        false,
      );
      break;
    case 'nothing':
      break;
  }
  if (style.threshold === 'lines')
    for (const side of [-run.thickness / 2, run.thickness / 2])
      draft.line(layer, inGap(gap, 0, side), inGap(gap, width, side));
}

/** Of two unequal leaves the wider has this share. */
const share = { wide: 0.7 };

const swing = (gap: Gap, degrees: number, chords: number): XY[] =>
  Array.from({ length: chords + 1 }, (_, k) => {
    const angle = (degrees * Math.PI * k) / chords / 180;
    return inGap(gap, gap.width * Math.cos(angle), gap.width * Math.sin(angle));
  });

/** Where lines of panes lie across a wall, by how many they are, as shares of its thickness. */
const panesOf: Partial<Record<Hand['style']['pane'], number[]>> = {
  'one line': [0],
  'two lines': [-0.1, 0.1],
  'three lines': [-0.5, 0, 0.5],
  'four lines': [-0.5, -0.1, 0.1, 0.5],
};

function window(hand: Hand, gap: Gap): void {
  const { draft, style, layers } = hand;
  const layer = layers.window;
  const { width, run } = gap;
  const half = run.thickness / 2;
  if (!isCut(hand, gap)) for (const [a, b] of jambsOf(gap)) draft.line(layer, a, b);
  for (const share of panesOf[style.pane] ?? [])
    draft.line(layer, inGap(gap, 0, share * run.thickness), inGap(gap, width, share * run.thickness));
  if (style.pane === 'rectangle' || style.pane === 'rectangle with line')
    draft.polyline(
      layer,
      [inGap(gap, 0, -half), inGap(gap, width, -half), inGap(gap, width, half), inGap(gap, 0, half)],
      true,
    );
  if (style.pane === 'rectangle with line') draft.line(layer, inGap(gap, 0, 0), inGap(gap, width, 0));
  if (style.pane === 'block')
    draft.insert(layer, 'WINDOW', inGap(gap, width / 2, 0), {
      angle: run.along === 'x' ? 0 : 90,
      scale: [width, run.thickness],
    });
  if (style.sill === 'overhangs')
    draft.line(layer, inGap(gap, -0.05, -half - 0.04), inGap(gap, width + 0.05, -half - 0.04));
}
