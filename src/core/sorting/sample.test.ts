import { dxf, line, readText } from '@/core/drawing/testing/dxf';
import { flatten } from '@/core/underlay/flatten';
import { pathCount } from '@/core/underlay/primitives';
import { middlePart } from './sample';

/** A field of 31 by 31 short lines, one a metre. */
const field = flatten(
  readText(
    dxf({
      entities: Array.from({ length: 31 * 31 }, (_, i) => {
        const [x, y] = [i % 31, Math.floor(i / 31)];
        return line(x, y, x + 0.5, y, 'A');
      }).join(''),
    }),
  ).drawing,
);

describe('the part of a large drawing that is looked at', () => {
  it('is the square about the middle', () => {
    const part = middlePart(field, 11 * 11);
    expect(pathCount(part)).toBe(121);
    const xs = Array.from({ length: 121 }, (_, path) => part.xy[2 * part.start[path]] + part.origin[0]);
    const ys = Array.from({ length: 121 }, (_, path) => part.xy[2 * part.start[path] + 1] + part.origin[1]);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([10, 20]);
    expect([Math.min(...ys), Math.max(...ys)]).toEqual([10, 20]);
  });

  it('is the whole of a smaller one', () => {
    expect(middlePart(field, 31 * 31)).toBe(field);
  });
});
