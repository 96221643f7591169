import fc from 'fast-check';
import { asDrawn } from '@/core/datum/placement';
import { dxf, groups, line, outline, readText } from '@/core/drawing/testing/dxf';
import { toleranceFor } from '@/core/patterns/settings';
import { read } from '@/core/reading/read';
import { Scene } from '@/core/reading/scene';
import { flatten } from '@/core/underlay/flatten';
import { alikeIn, countingOnly, likenessOf, patternOf, usualTraits, type Likeness, type Trait } from './alike';
import type { Role } from './roles';

const square = (x: number, y: number, side: number, layer: string, turned = 0): string =>
  outline(
    [0, 1, 2, 3].map((i) => {
      const angle = turned + (i * Math.PI) / 2 + Math.PI / 4;
      return [x + side * Math.SQRT1_2 * Math.cos(angle), y + side * Math.SQRT1_2 * Math.sin(angle)];
    }),
    layer,
  );
const text = (x: number, y: number, words: string, layer: string): string =>
  groups([0, 'TEXT'], [8, layer], [10, x], [20, y], [40, 0.3], [1, words]);

function plan(entities: string) {
  const { drawing } = readText(dxf({ entities }));
  return { drawing, primitives: flatten(drawing) };
}

const only = (like: Likeness, ...traits: Trait[]) => countingOnly(like, new Set(traits));

test('a text is written as letters and figures in turn', () => {
  expect(['B12', 'C7', ' Fl\u00e4che 12,5 m\u00b2 ', '4', 'WC'].map(patternOf)).toEqual([
    'A9',
    'A9',
    'A 9,9 A\u00b2',
    '9',
    'A',
  ]);
});

test('squares of one size are alike however they are turned, others of another size or on another layer are not', () => {
  // 400 mm; a square of 406 mm has 1.5 % more around it.
  const { drawing, primitives } = plan(
    square(0, 0, 0.4, 'X') + square(6, 0, 0.4, 'X', 0.3) + square(12, 0, 0.406, 'X') + square(0, 6, 0.4, 'Y'),
  );
  const like = likenessOf(drawing, primitives, { path: 0 }, 1);
  expect(like).toMatchObject({ form: 'outline', corners: 4, layer: 'X' });
  expect(like.size![0]).toBeCloseTo(1.6, 9);
  expect(like.size![1]).toBeCloseTo(0.16, 9);
  const found = (...traits: Trait[]) => alikeIn(drawing, primitives, only(like, ...traits), 1).paths;
  expect(found('layer', 'size')).toEqual([0, 1]);
  expect(found('size')).toEqual([0, 1, 3]);
  expect(found('layer')).toEqual([0, 1, 2]);
  expect(found()).toEqual([0, 1, 2, 3]);
});

test('what is like something is like it in a drawing in another unit', () => {
  const [metres, millimetres] = [plan(square(0, 0, 0.4, 'X')), plan(square(0, 0, 400, 'X') + square(900, 0, 500, 'X'))];
  const like = likenessOf(metres.drawing, metres.primitives, { path: 0 }, 1);
  expect(alikeIn(millimetres.drawing, millimetres.primitives, only(like, 'size'), 0.001).paths).toEqual([0]);
});

test('texts are alike by how they are written, a layer counts by a pattern too', () => {
  const { drawing, primitives } = plan(text(0, 0, 'B1', 'N-1') + text(3, 0, 'B22', 'N-2') + text(6, 0, '4.02', 'N-1'));
  const like = only(likenessOf(drawing, primitives, { text: 0 }, 1), 'layer', 'written');
  expect(alikeIn(drawing, primitives, like, 1)).toEqual({ paths: [], texts: [0] });
  expect(alikeIn(drawing, primitives, { ...like, layer: 'n-*' }, 1).texts).toEqual([0, 1]);
});

test('whatever is pointed at is like itself, with everything about it counting', () => {
  const side = fc.double({ min: 0.05, max: 50, noNaN: true });
  fc.assert(
    fc.property(side, side, fc.double({ min: 0, max: 6, noNaN: true }), (a, b, turned) => {
      const { drawing, primitives } = plan(
        square(0, 0, a, 'X', turned) + line(0, 0, b, a, 'Y') + text(1, 1, 'R 4', 'Z'),
      );
      for (const thing of [{ path: 0 }, { path: 1 }, { text: 0 }]) {
        const like = likenessOf(drawing, primitives, thing, 1);
        const { paths, texts } = alikeIn(drawing, primitives, like, 1);
        expect('path' in thing ? paths : texts).toEqual(['path' in thing ? thing.path : thing.text]);
      }
    }),
    { numRuns: 50 },
  );
});

test('a lesson has everything alike read as columns, on a layer that says walls, and leaves the rest as it is', () => {
  // Two posts of 400 mm and a room of 5 m by 4 m between two lines 200 mm apart, all on one layer of walls.
  const rooms = (x1: number, y1: number, x2: number, y2: number) =>
    line(x1, y1, x2, y1, 'W') + line(x2, y1, x2, y2, 'W') + line(x2, y2, x1, y2, 'W') + line(x1, y2, x1, y1, 'W');
  const { drawing, primitives } = plan(
    square(2, 2, 0.4, 'W') + square(4, 2, 0.4, 'W') + rooms(0, 0, 5.4, 4.4) + rooms(0.2, 0.2, 5.2, 4.2),
  );
  const like = likenessOf(drawing, primitives, { path: 0 }, 1);
  const roles: Role[] = drawing.layers.map(() => 'wall');
  const kindsWith = (lessons: { like: Likeness; role: Role }[]) => {
    const picked = { lines: new Map<string, Role>(), blocks: new Map<string, Role>(), alike: lessons };
    const scene = new Scene(drawing, primitives, asDrawn('m'), roles, picked);
    return read({ scene, tolerance: toleranceFor('m') }).candidates.map(({ kind }) => kind);
  };
  const count = (kinds: string[], kind: string) => kinds.filter((other) => other === kind).length;
  const taught = kindsWith([{ like: countingOnly(like, new Set(usualTraits(like))), role: 'column' }]);
  expect([count(kindsWith([]), 'column'), count(taught, 'column')]).toEqual([0, 2]);
  expect([count(taught, 'wall'), count(taught, 'zone')]).toEqual([4, 1]);
});
