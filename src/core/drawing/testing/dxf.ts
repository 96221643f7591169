import { readDxf, type Reading } from '../reader';
import type { ReadLimits } from '../limits';

/** Group codes and values as the lines of a DXF. */
export const groups = (...pairs: [number, string | number][]): string =>
  pairs.map(([code, value]) => `${code}\n${value}\n`).join('');

interface Parts {
  header?: string;
  tables?: string;
  blocks?: string;
  entities?: string;
}

/** A whole DXF round the parts given. */
export function dxf({ header = '', tables = '', blocks = '', entities = '' }: Parts): string {
  const section = (name: string, body: string) =>
    body === '' ? '' : groups([0, 'SECTION'], [2, name]) + body + groups([0, 'ENDSEC']);
  return (
    section('HEADER', header) +
    section('TABLES', tables) +
    section('BLOCKS', blocks) +
    groups([0, 'SECTION'], [2, 'ENTITIES']) +
    entities +
    groups([0, 'ENDSEC'], [0, 'EOF'])
  );
}

export const line = (x1: number, y1: number, x2: number, y2: number, layer = '0'): string =>
  groups([0, 'LINE'], [8, layer], [10, x1], [20, y1], [11, x2], [21, y2]);

/** A closed polyline of straight sides. */
export const outline = (points: readonly (readonly number[])[], layer = '0'): string =>
  groups(
    [0, 'LWPOLYLINE'],
    [8, layer],
    [90, points.length],
    [70, 1],
    ...points.flatMap(([x, y]): [number, number][] => [
      [10, x],
      [20, y],
    ]),
  );

/** A rectangle about its middle. */
export const box = (layer: string, x: number, y: number, width: number, depth = width): string => {
  const [a, b] = [width / 2, depth / 2];
  return outline(
    [
      [x - a, y - b],
      [x + a, y - b],
      [x + a, y + b],
      [x - a, y + b],
    ],
    layer,
  );
};

export const insert = (
  name: string,
  x: number,
  y: number,
  more: [number, string | number][] = [],
  layer = '0',
): string => groups([0, 'INSERT'], [8, layer], [2, name], [10, x], [20, y], ...more);

export const block = (name: string, body: string, base: [number, number] = [0, 0]): string =>
  groups([0, 'BLOCK'], [8, '0'], [2, name], [70, 0], [10, base[0]], [20, base[1]]) +
  body +
  groups([0, 'ENDBLK'], [8, '0']);

export function readText(text: string, limits?: ReadLimits): Reading {
  const result = readDxf(new TextEncoder().encode(text), limits);
  if (!result.ok) throw new Error(result.message);
  return result.value;
}
