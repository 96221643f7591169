import type { XY } from '../../demo/building';
import type { Draft } from '../../demo/draft';
import type { Subject } from './layers';
import type { Pen } from './pen';
import type { Random } from './random';
import type { Style } from './styles';

/** What a plan truly shows, metres. */
export interface Truth {
  grids: { label: string; a: XY; b: XY }[];
  columns: { at: XY; width: number; depth: number; round: boolean; steel: boolean }[];
  beams: { a: XY; b: XY; width: number; depth: number; mark: string }[];
  walls: { a: XY; b: XY; thickness: number }[];
  openings: { at: XY; width: number; use: 'door' | 'window' }[];
  zones: { name: string; number: string; area: number; at: XY }[];
}

/** All that one who draws needs: the sheet, the habits, and where the truth is written down. */
export interface Hand {
  draft: Draft;
  pen: Pen;
  random: Random;
  style: Style;
  layers: Record<Subject, string>;
  truth: Truth;
  /** Where a point of the building lies on the sheet. */
  turned: (p: XY) => XY;
}
