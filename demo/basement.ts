import { across, up, type TrueRoom } from './building';
import { Draft } from './draft';
import { defineBlocks, door, drawTitle, label, layers, type Plan } from './ground';
import { drawWalls, type Gap } from './walls';

const basementRooms: TrueRoom[] = [
  { name: 'Pump Hall', number: 'B.01', x: [across[0], across[2]], y: [up[0], up[1]] },
  { name: 'Sea Water Intake', number: 'B.02', x: [across[2], across[3]], y: [up[0], up[1]] },
  { name: 'Passage', number: 'B.03', x: [across[0], across[3]], y: [up[1], up[2]] },
];

/** The pump basement under the west of the main block, drawn in centimetres. */
export function basement(): Plan {
  const draft = new Draft(100, 5, layers);
  defineBlocks(draft);
  draft.section(1);
  for (const x of across.slice(0, 4)) {
    draft.line('A-GRID', [x, -2.4], [x, up[2] + 2.4]);
    draft.insert('A-GRID', 'GRID-BUBBLE', [x, -3], {
      attribute: { tag: 'LABEL', text: String(across.indexOf(x) + 1), height: 0.5 },
    });
  }
  for (const [i, y] of up.slice(0, 3).entries()) {
    draft.line('A-GRID', [-2.4, y], [across[3] + 2.4, y]);
    draft.insert('A-GRID', 'GRID-BUBBLE', [-3, y], { attribute: { tag: 'LABEL', text: 'ABC'[i], height: 0.5 } });
  }
  draft.section(2);
  for (const x of across.slice(0, 4))
    for (const y of up.slice(0, 3)) draft.rectangle('A-COLS', [x - 0.2, y - 0.2], [x + 0.2, y + 0.2]);
  draft.section(3);
  const gaps: Gap[] = [door('x', up[1], 2.4), door('x', up[1], 13.2), door('y', 0, 8.4)];
  drawWalls(draft, { rooms: basementRooms, low: [0, 0], high: [across[3], up[2]], gaps });
  for (const room of basementRooms) label(draft, room);
  for (const x of [2.4, 5.4, 8.4]) {
    draft.circle('A-FURN', [x, 3.4], 0.8);
    draft.circle('A-FURN', [x, 3.4], 0.55);
  }
  drawTitle(draft, 'Basement plan 1:100', 'A');
  return { dxf: draft.finish(), counts: draft.counts };
}
