import { across, columns, rooms, up, type TrueRoom, type XY } from './building';
import { Draft } from './draft';
import {
  defineBlocks,
  door,
  drawDimensions,
  drawGrid,
  drawTitle,
  furnish,
  label,
  layers,
  window,
  type Plan,
} from './ground';
import { drawWalls, type Gap } from './walls';

/** Where the upper floor was drawn: a quarter turn round, more than a kilometre off, metres. */
export const upperPlace = { turn: 90, shift: [1204, -380] as XY };

/** Forgotten dots near the drawing's own zero, metres. */
export const upperStrays: XY[] = [
  [0, 0],
  [12.5, 3],
  [-40, 66],
];

const upperRooms: TrueRoom[] = [
  { name: 'Bunk Room', number: '1.01', x: rooms[0].x, y: rooms[0].y },
  { name: 'Library', number: '1.02', x: rooms[1].x, y: rooms[1].y },
  { name: 'Bunk Room', number: '1.03', x: rooms[2].x, y: rooms[2].y },
  { name: 'Bunk Room', number: '1.04', x: rooms[3].x, y: rooms[3].y },
  { name: 'Corridor', number: '1.05', x: rooms[4].x, y: rooms[4].y },
  { name: 'Chart Room', number: '1.06', x: rooms[5].x, y: rooms[5].y },
  { name: 'Wash Room', number: '1.07', x: rooms[6].x, y: rooms[6].y },
  { name: 'Day Room', number: '1.08', x: rooms[7].x, y: rooms[7].y },
  { name: 'Linen', number: '1.09', x: rooms[8].x, y: rooms[8].y },
];

/** A point of the building as the upper floor's drawing has it, in metres. */
export const onUpperSheet = ([x, y]: XY): XY => [-y + upperPlace.shift[0], x + upperPlace.shift[1]];

/** The upper floor: in millimetres and honest about it, but far off, turned, and with stray dots. */
export function upperFloor(): Plan {
  const draft = new Draft(1000, 4, layers);
  defineBlocks(draft);
  draft.section(1);
  for (const at of upperStrays) draft.point('A-DIMS', at);
  draft.through(onUpperSheet, upperPlace.turn, () => {
    drawGrid(draft);
    draft.section(2);
    for (const {
      position: [x, y],
      section,
    } of columns().filter(({ at }) => /^[1-7]\//.test(at))) {
      if (section.shape === 'circle') continue;
      draft.rectangle(
        'A-COLS',
        [x - section.width / 2, y - section.depth / 2],
        [x + section.width / 2, y + section.depth / 2],
      );
    }
    draft.section(3);
    const [right, top] = [across[6], up[3]];
    const gaps: Gap[] = [
      ...[2.2, 8.4, 19.2, 26.8].map((at) => door('x', up[1], at)),
      ...[4.3, 12.2, 20.3, 28.6].map((at) => door('x', up[2], at)),
      ...across.slice(0, -1).map((x, i) => window('x', 0, (x + across[i + 1]) / 2)),
      ...across.slice(0, -1).map((x, i) => window('x', top, (x + across[i + 1]) / 2)),
      window('y', 0, 8.55),
    ];
    drawWalls(draft, { rooms: upperRooms, low: [0, 0], high: [right, top], gaps });
    for (const gap of gaps.filter(({ kind }) => kind === 'door'))
      draft.insert('A-DOOR', 'DOOR-900', [gap.at - 0.45, gap.wall], { scale: [1, gap.wall === up[1] ? -1 : 1] });
    for (const room of upperRooms) label(draft, room);
    furnish(draft, 'DESK', [
      [8, 2],
      [10.5, 2],
      [2.7, 12.4],
      [7.6, 12.4],
    ]);
    // Bay 4 was shortened once, and its dimension was not.
    drawDimensions(draft, { 4: '4950' });
    drawTitle(draft, 'Upper floor plan 1:100', 'A');
  });
  return { dxf: draft.finish(), counts: draft.counts };
}
