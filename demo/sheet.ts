import { across, up, type XY } from './building';
import { Draft } from './draft';
import { layers, type Plan } from './ground';

export const sheetTitles = ['Ground floor', 'Upper floor', 'Basement', 'Roof plan', 'Wing'];

/** Where the lower left corner of each plan of the sheet stands, metres. */
export const sheetSpots: XY[] = [
  [0, 0],
  [52, 0],
  [104, 0],
  [0, 34],
  [52, 34],
];

/** One sheet that holds five small plans in a frame. */
export function sheet(): Plan {
  const draft = new Draft(1000, 4, layers);
  draft.section(1);
  draft.rectangle('A-TITLE', [-10, -12], [152, 62]);
  sheetSpots.forEach(([x, y], i) => {
    draft.through(
      ([px, py]) => [px + x, py + y],
      0,
      () => {
        for (const gx of across) draft.line('A-GRID', [gx, -1.5], [gx, up[3] + 1.5]);
        for (const gy of up) draft.line('A-GRID', [-1.5, gy], [across[6] + 1.5, gy]);
        for (const gx of across)
          for (const gy of up) draft.rectangle('A-COLS', [gx - 0.2, gy - 0.2], [gx + 0.2, gy + 0.2]);
        draft.rectangle('A-WALL', [-0.15, -0.15], [across[6] + 0.15, up[3] + 0.15]);
        draft.rectangle('A-WALL', [0.15, 0.15], [across[6] - 0.15, up[3] - 0.15]);
        draft.text('A-TITLE', [16, -3.4], 1.2, sheetTitles[i]);
      },
    );
  });
  return { dxf: draft.finish(), counts: draft.counts };
}
