import type { ElementRow } from '@/core/kinds/element';
import type { Wall } from '@/core/kinds/wall';
import type { Zone } from '@/core/kinds/zone';
import { boundariesOf } from './boundaries';

const wall = (id: string, start: [number, number], end: [number, number], thickness: number): ElementRow => ({
  id,
  levelId: 'L',
  source: null,
  kind: 'wall',
  shape: { start, end, thickness, height: null, bulge: 0, outer: false } satisfies Wall,
});
const zone = (id: string, x1: number, y1: number, x2: number, y2: number, holes: Zone['holes'] = []): ElementRow => ({
  id,
  levelId: 'L',
  source: null,
  kind: 'zone',
  shape: {
    name: id,
    number: '',
    outline: [
      [x1, y1],
      [x2, y1],
      [x2, y2],
      [x1, y2],
    ],
    holes,
    height: null,
  },
});
const door = (id: string, host: string, offset: number): ElementRow => ({
  id,
  levelId: 'L',
  source: null,
  kind: 'opening',
  shape: { wall: host, use: 'door', offset, width: 0.9, height: 2.1, sill: 0 },
});

/** Two rooms of 3 by 4 m by centre lines, parted by a wall of 0.1; all others are 0.2 thick. */
const house = [
  wall('south', [0, 0], [6, 0], 0.2),
  wall('north', [0, 4], [6, 4], 0.2),
  wall('west', [0, 0], [0, 4], 0.2),
  wall('east', [6, 0], [6, 4], 0.2),
  wall('middle', [3, 0], [3, 4], 0.1),
  zone('Store', 0.1, 0.1, 2.95, 3.9),
  zone('Office', 3.05, 0.1, 5.9, 3.9),
  door('inner', 'middle', 1.5),
  door('front', 'south', 4),
];
const of = (id: string) =>
  boundariesOf(house)
    .get(id)!
    .map(({ wall: name, length, beyond, openings }) => [name, Number(length.toFixed(6)), beyond, openings.join()])
    .sort();

test('each room knows its walls, how much of them, what lies beyond, and the openings in its part', () => {
  expect(of('Store')).toEqual([
    ['middle', 3.8, 'Office', 'inner'],
    ['north', 2.85, null, ''],
    ['south', 2.85, null, ''],
    ['west', 3.8, null, ''],
  ]);
  // The front door lies in the office's part of the wall that both rooms have.
  expect(of('Office')).toEqual([
    ['east', 3.8, null, ''],
    ['middle', 3.8, 'Store', 'inner'],
    ['north', 2.85, null, ''],
    ['south', 2.85, null, 'front'],
  ]);
});

test('a core that stands free bounds the hall round it from inside', () => {
  const core = [
    wall('a', [5, 5], [8, 5], 0.2),
    wall('b', [8, 5], [8, 8], 0.2),
    wall('c', [8, 8], [5, 8], 0.2),
    wall('d', [5, 8], [5, 5], 0.2),
  ];
  const bounded = boundariesOf([
    ...core,
    zone('Hall', 0, 0, 20, 20, [
      [
        [4.9, 4.9],
        [8.1, 4.9],
        [8.1, 8.1],
        [4.9, 8.1],
      ],
    ]),
    zone('Core', 5.1, 5.1, 7.9, 7.9),
  ]);
  expect(
    bounded
      .get('Hall')!
      .map(({ wall: name, beyond }) => [name, beyond])
      .sort(),
  ).toEqual([
    ['a', 'Core'],
    ['b', 'Core'],
    ['c', 'Core'],
    ['d', 'Core'],
  ]);
  expect(bounded.get('Core')!.every(({ beyond }) => beyond === 'Hall')).toBe(true);
});

test('a curved wall bounds a room with all its chords as one stretch', () => {
  // Half a circle of radius 3 about (3, 0) below a room of 6 by 4, in 36 chords on the inner face of radius 2.9.
  const chords = Array.from({ length: 37 }, (_, i): [number, number] => {
    const angle = Math.PI + (Math.PI * i) / 36;
    return [3 + 2.9 * Math.cos(angle), 2.9 * Math.sin(angle)];
  });
  const apse: ElementRow = {
    id: 'apse',
    levelId: 'L',
    source: null,
    kind: 'wall',
    shape: { start: [0, 0], end: [6, 0], thickness: 0.2, height: null, bulge: 1, outer: true },
  };
  const chapel: ElementRow = {
    id: 'Chapel',
    levelId: 'L',
    source: null,
    kind: 'zone',
    shape: { name: 'Chapel', number: '', outline: [...chords, [5.9, 3.9], [0.1, 3.9]], holes: [], height: null },
  };
  // A quarter round the wall, 3 pi / 2 m of its centre line, stands the middle of a door.
  const all = boundariesOf([
    apse,
    chapel,
    wall('north', [0, 4], [6, 4], 0.2),
    door('garden', 'apse', (3 * Math.PI) / 2 - 0.45),
  ]).get('Chapel')!;
  expect(all.map(({ openings }) => openings)).toEqual([['garden'], []]);
  const found = all.map(({ wall: name, length, beyond }) => [name, Number(length.toFixed(2)), beyond]);
  // 36 chords of 2 r sin(2.5 degrees) each.
  expect(found).toEqual([
    ['apse', Number((36 * 2 * 2.9 * Math.sin(Math.PI / 72)).toFixed(2)), null],
    ['north', 5.8, null],
  ]);
});

test('walls that only pass near a room do not bound it', () => {
  expect(
    boundariesOf([
      zone('Room', 0, 0, 4, 4),
      wall('far', [0, 5], [4, 5], 0.2),
      wall('across', [2, -3], [2, 7], 0.2),
    ]).get('Room'),
  ).toEqual([]);
});
