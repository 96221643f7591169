import { headerCodeOf, metresPer, type LengthUnit } from '@/core/units/length';
import type { XY } from '../../demo/building';
import { Draft } from '../../demo/draft';
import { seeded } from '../mutate';
import { makeBuilding } from './building';
import { drawGrid } from './drawGrid';
import { drawBeams, drawColumns } from './drawMembers';
import { drawOpenings } from './drawOpenings';
import { drawRooms } from './drawRooms';
import { drawSheet } from './drawSheet';
import { drawWalls } from './drawWalls';
import type { Hand, Truth } from './hand';
import { layersOf, roleOfSubject, roomWordsOf, subjects } from './layers';
import { Pen } from './pen';
import { styleOf, type Style } from './styles';
import { typeNames } from './types';

export interface TruthPlan {
  dxf: string;
  truth: Truth;
  roles: Record<string, string>;
  unit: LengthUnit;
  type: string;
  style: Style;
}

interface Asked {
  /** Gaps to 20 mm, offsets to 5 mm, doubled and broken lines, directions off by up to 0.3 degrees. */
  dirty?: boolean;
  /** Whether beams are drawn; geometry alone cannot tell them from walls. */
  beams?: boolean;
  /** Whether all is drawn on one layer. */
  oneLayer?: boolean;
  /** Habits that are not left to chance. */
  style?: Partial<Style>;
  /** Any by the seed where it is not told. */
  type?: string;
}

/** Sizes are round in the unit's own system, metres. */
const moduleOf = (unit: LengthUnit): number => (unit === 'in' || unit === 'ft' ? 0.0508 : 0.05);

/** A plan of a made-up building whose truth is known, drawn by habits that vary with the seed. */
export function truthPlan(
  seed: number,
  { dirty = false, beams = true, oneLayer = false, style: given, type }: Asked = {},
): TruthPlan {
  const random = seeded(seed * 104_729 + (dirty ? 7 : 3));
  const style = styleOf(random, given);
  const { unit } = style;
  const layers = layersOf(style);
  const kind = type ?? typeNames[seed % typeNames.length];
  const building = makeBuilding(kind, random, moduleOf(unit), roomWordsOf(style), 1 + (seed % 3));
  const turn = style.turn === 'none' ? 0 : Number(style.turn);
  const draft = new Draft(
    1 / metresPer[unit],
    headerCodeOf[unit],
    [...new Set(Object.values(layers))].map((name, i) => ({ name, colour: 1 + (i % 7) })),
    oneLayer ? 'PLAN' : null,
  );
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const hand: Hand = {
    draft,
    pen: new Pen(draft, random, dirty),
    random,
    style,
    layers,
    truth: { grids: [], columns: [], beams: [], walls: [], openings: [], zones: [] },
    turned: ([x, y]: XY): XY => [x * c - y * s, x * s + y * c],
  };
  blocks(draft);
  draft.through(hand.turned, turn, () => {
    drawGrid(hand, building);
    drawColumns(hand, building);
    if (beams) drawBeams(hand, building);
    drawWalls(hand, building);
    drawOpenings(hand, building);
    drawRooms(hand, building);
    drawSheet(hand, building);
  });
  return {
    dxf: draft.finish(),
    truth: hand.truth,
    unit,
    type: kind,
    style,
    roles: Object.fromEntries(subjects.map((subject) => [layers[subject], roleOfSubject[subject]])),
  };
}

/** The symbols that plans put in. */
function blocks(draft: Draft): void {
  draft.block('POST', () => {
    draft.rectangle('0', [-0.5, -0.5], [0.5, 0.5]);
    draft.line('0', [-0.5, -0.5], [0.5, 0.5]);
    draft.line('0', [-0.5, 0.5], [0.5, -0.5]);
  });
  draft.block('DOOR', () => {
    draft.line('0', [0, 0], [0, 1]);
    draft.arc('0', [0, 0], 1, 0, 90);
  });
  draft.block('WINDOW', () => {
    draft.rectangle('0', [-0.5, -0.5], [0.5, 0.5]);
    draft.line('0', [-0.5, 0], [0.5, 0]);
  });
  draft.block('MARK', () => draft.circle('0', [0, 0], 0.5));
  draft.block('ROOM', () => draft.line('0', [-0.4, -0.2], [0.4, -0.2]));
}
