import { line, dxf, readText } from '@/core/drawing/testing/dxf';
import { asDrawn } from '@/core/datum/placement';
import { decisionRow } from '@/core/model/state';
import { toleranceFor } from '@/core/patterns/settings';
import { flatten } from '@/core/underlay/flatten';
import * as v from 'valibot';
import { keyOf } from './candidate';
import { read } from './read';
import { Scene } from './scene';

test('a key names the entities in order, each once', () => {
  expect(keyOf('wall', ['2B', '1A', '2B'])).toBe('wall:1A+2B');
});

test('a wall of hundreds of pieces can be decided on: its key is short enough to be stored, and its own', () => {
  // Two walls, 40 m apart, each face in 400 pieces of 0.25 m that touch.
  const faces = [0, 0.2, 40, 40.2].map((y) =>
    Array.from({ length: 400 }, (_, i) => line(i / 4, y, (i + 1) / 4, y)).join(''),
  );
  const { drawing } = readText(dxf({ entities: faces.join('') }));
  const scene = new Scene(
    drawing,
    flatten(drawing),
    asDrawn('m'),
    drawing.layers.map(() => 'wall'),
  );
  const { candidates } = read({ scene, tolerance: toleranceFor('m') });
  const walls = candidates.filter(({ kind }) => kind === 'wall');
  expect(walls.map(({ handles }) => handles.length)).toEqual([800, 800]);
  expect(new Set(walls.map(({ key }) => key)).size).toBe(2);
  for (const { key } of walls) {
    const drawingId = '8ba157f4-79d3-4913-91d1-b211b4a56499';
    const row = { id: `${drawingId}/${key}`, drawingId, key, verdict: 'accepted', elementId: null, seen: null };
    expect(v.safeParse(decisionRow, row).success).toBe(true);
  }
});
