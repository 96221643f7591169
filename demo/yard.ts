import type { XY } from './building';
import { Draft } from './draft';
import type { Plan } from './ground';

/**
 * The building's zero in the survey's coordinates (easting, northing, metres), and how its axes are turned against
 * north.
 */
export const survey = { zero: [4_501_230.4, 5_402_118.75] as XY, turn: 23 };

/** A point of the building in survey coordinates. */
export function onSurvey([x, y]: XY): XY {
  const angle = (survey.turn * Math.PI) / 180;
  return [
    survey.zero[0] + x * Math.cos(angle) - y * Math.sin(angle),
    survey.zero[1] + x * Math.sin(angle) + y * Math.cos(angle),
  ];
}

const layers = [
  { name: 'C-ROAD', colour: 8 },
  { name: 'C-PAVE', colour: 9 },
  { name: 'C-PATH', colour: 32 },
  { name: 'C-FENCE', colour: 3 },
  { name: 'C-LITE', colour: 2 },
  { name: 'C-TOPO', colour: 252 },
  { name: 'C-BLDG', colour: 7 },
  { name: 'C-TEXT', colour: 7 },
];

/** The yard: slip road, boat apron, path, fence and floodlight posts, in metres at survey coordinates. */
export function yard(): Plan {
  const draft = new Draft(1, 6, layers);
  draft.block('FLOODLIGHT', () => {
    draft.circle('0', [0, 0], 0.25);
    draft.line('0', [-0.6, 0], [0.6, 0]);
    draft.line('0', [0, -0.6], [0, 0.6]);
  });
  draft.through(onSurvey, survey.turn, () => {
    draft.section(1);
    draft.polyline(
      'C-BLDG',
      [
        [-0.15, -0.15],
        [32.7, -0.15],
        [32.7, 17.25],
        [-0.15, 17.25],
      ],
      true,
    );
    // The slip road comes from the west, bends and runs down to the water.
    draft.polyline(
      'C-ROAD',
      [
        [-60, -22],
        [-12, -22],
        [-4, -30],
        [-4, -58],
      ],
      false,
      [0, -0.4142, 0, 0],
    );
    draft.polyline(
      'C-ROAD',
      [
        [-60, -16.5],
        [-12, -16.5],
        [1.5, -30],
        [1.5, -58],
      ],
      false,
      [0, -0.4142, 0, 0],
    );
    draft.polyline(
      'C-PAVE',
      [
        [4, -28],
        [30, -28],
        [36, -22],
        [36, -8],
        [4, -8],
      ],
      true,
      [0, 0.4142, 0, 0, 0],
    );
    draft.hatch('C-PAVE', [
      [4, -28],
      [30, -28],
      [36, -22],
      [36, -8],
      [4, -8],
    ]);
    draft.spline('C-PATH', [
      [-2, 8.5],
      [-10, 10],
      [-20, 2],
      [-30, 9],
      [-42, -6],
      [-52, -15],
    ]);
    draft.spline('C-PATH', [
      [-2, 7.1],
      [-10, 8.4],
      [-20.4, 0.4],
      [-30.4, 7.2],
      [-43, -7.4],
      [-53.4, -16],
    ]);
    for (let i = 0; i < 4; i += 1)
      draft.spline('C-TOPO', [
        [-62, -40 + i * 22],
        [-30, -34 + i * 21 + 3],
        [0, -44 + i * 24],
        [34, -36 + i * 22],
        [66, -42 + i * 23],
      ]);
    draft.ellipse('C-TOPO', [50, 34], [9, 3], 0.55);
    const fence: XY[] = [
      [-58, 30],
      [60, 30],
      [60, -34],
      [38, -34],
    ];
    draft.polyline('C-FENCE', fence, false);
    for (let x = -58; x <= 60; x += 4) draft.circle('C-FENCE', [x, 30], 0.06);
    draft.section(2);
    for (const at of [
      [-2, -12],
      [18, -30],
      [38, -12],
      [38, 20],
      [-14, 20],
      [-36, -12],
    ] as XY[])
      draft.insert('C-LITE', 'FLOODLIGHT', at);
    draft.text('C-TEXT', [18, -18], 1.2, 'Boat Apron');
    draft.text('C-TEXT', [-36, -19.2], 1.2, 'Slip Road');
    draft.text('C-TEXT', [52, 23], 1.2, 'Old Bunker');
  });
  return { dxf: draft.finish(), counts: draft.counts };
}
