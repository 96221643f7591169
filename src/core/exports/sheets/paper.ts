import type { Box } from '@/core/geometry/boxIndex';
import type { NamedCut } from './upright';

/** Sheets lying on their longer side, millimetres (ISO 216). */
export const papers = {
  A4: [297, 210],
  A3: [420, 297],
  A2: [594, 420],
  A1: [841, 594],
  A0: [1189, 841],
} as const;
export type Paper = keyof typeof papers;
export const paperNames = ['A4', 'A3', 'A2', 'A1', 'A0'] as const satisfies readonly Paper[];

/** What plans show, from what lies beneath to what lies over it. */
export const planLayers = ['slabs', 'beams', 'walls', 'columns', 'rooms', 'grid', 'dimensions'] as const;
export type PlanLayer = (typeof planLayers)[number];

/** What a sheet is asked for. */
export interface PlanWish {
  paper?: Paper;
  /** One to so many. */
  scale?: number;
  /** What a plan shows; everything where it is left out. */
  layers?: readonly PlanLayer[];
  /** Sections whose places plans show. */
  cuts?: readonly NamedCut[];
  project: string;
  /** As it stands in the title block. */
  date: string;
}

/** Scales that plans are drawn at (ISO 5455). */
export const scales = [20, 50, 100, 200, 500, 1000, 2000, 5000] as const;

/** Room about the drawing, and for what stands beneath it, millimetres. */
export const margin = 10;
export const foot = 42;
/** Room about what is drawn for bubbles and dimensions, millimetres. */
const about = 26;

/** What of a sheet a drawing may take, millimetres. */
export const roomOn = (paper: Paper): [width: number, height: number] => [
  papers[paper][0] - 2 * margin - 2 * about,
  papers[paper][1] - 2 * margin - foot - 2 * about,
];

const fits = ([x1, y1, x2, y2]: Box, paper: Paper, scale: number): boolean => {
  const [width, height] = roomOn(paper);
  return ((x2 - x1) * 1000) / scale <= width && ((y2 - y1) * 1000) / scale <= height;
};

/** The usual scale of a plan: where it fits on no sheet, the next ones are tried. */
const usual = 100;

/** The sheet and the scale for a box in metres: as asked for, else the smallest sheet on which it fits at 1:100. */
export function sheetFor(box: Box, asked: { paper?: Paper; scale?: number } = {}): { paper: Paper; scale: number } {
  const wantedPapers = asked.paper === undefined ? paperNames : [asked.paper];
  const wantedScales = asked.scale === undefined ? scales.filter((scale) => scale >= usual) : [asked.scale];
  for (const scale of wantedScales)
    for (const paper of wantedPapers) if (fits(box, paper, scale)) return { paper, scale };
  return { paper: wantedPapers[wantedPapers.length - 1], scale: wantedScales[wantedScales.length - 1] };
}
