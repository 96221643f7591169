import fc from 'fast-check';
import { onSurvey, survey as site } from '../../../demo/yard';
import { apply } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { metresPer } from '@/core/units/length';
import {
  asDrawn,
  betweenPlacements,
  faceOn,
  mirrorAbout,
  place,
  placementTransform,
  placeUpright,
  putOn,
  resize,
  turnAbout,
  unplace,
  type Placement,
  fromOtherSide,
} from './placement';
import { fromAxes, fromSurvey, surveyOfDrawing, surveyPlacement, toAxes, toSurvey, type Survey } from './survey';

const rounded = (p: readonly number[], places = 9) => p.map((v) => Number(v.toFixed(places)) + 0);
const quarter = Math.PI / 2;

test('a point is shifted, scaled, turned and set on the target', () => {
  expect(
    rounded(place({ ...asDrawn('mm'), origin: [1000, 2000], target: [5, 5], turning: quarter }, [2000, 2000])),
  ).toEqual([5, 6]);
  // Mirrored first: one metre to the right of the origin is one to its left, which a quarter turn makes one below.
  expect(
    rounded(
      place({ ...asDrawn('mm'), origin: [1000, 2000], target: [5, 5], turning: quarter, mirrored: true }, [2000, 2000]),
    ),
  ).toEqual([5, 4]);
  // 54 mm on paper at 1:100 are 5.4 m.
  expect(rounded(place(asDrawn('mm', 100), [54, 0]))).toEqual([5.4, 0]);
});

const number = (size: number) => fc.double({ min: -size, max: size, noNaN: true });
const placements: fc.Arbitrary<Placement> = fc.record({
  unit: fc.constantFrom('mm' as const, 'cm' as const, 'm' as const, 'in' as const, 'ft' as const),
  scale: fc.constantFrom(1, 50, 100),
  origin: fc.tuple(number(1e7), number(1e7)),
  target: fc.tuple(number(1000), number(1000)),
  turning: number(4),
  mirrored: fc.boolean(),
  upright: fc.constant(null),
});

test('placing and taking back returns the coordinates, at survey coordinates too', () => {
  fc.assert(
    fc.property(placements, number(1e5), number(1e5), (p, dx, dy) => {
      const point: Point = [p.origin[0] + dx, p.origin[1] + dy];
      const back = unplace(p, place(p, point));
      const size = Math.max(1, Math.hypot(...point), Math.hypot(...p.origin));
      // A target of a thousand metres is 1e6 mm: what is added there and taken away again costs its last digits.
      expect(Math.hypot(back[0] - point[0], back[1] - point[1]) / size).toBeLessThan(1e-9);
      const local = apply(placementTransform(p, p.origin), [dx, dy]);
      const direct = place(p, point);
      expect(Math.hypot(local[0] - direct[0], local[1] - direct[1]) / (metresPer[p.unit] * p.scale)).toBeLessThan(1e-5);
    }),
  );
});

test('what stood by one placement is carried to the other', () => {
  const from = asDrawn('m');
  const to = { ...asDrawn('mm'), origin: [10, 20] as Point };
  expect(rounded(apply(betweenPlacements(from, to), place(from, [4010, 20])))).toEqual([4, 0]);
});

test('putting, turning, mirroring and resizing leave the point they are about where it is', () => {
  fc.assert(
    fc.property(placements, number(500), number(500), number(3), (p, x, y, by) => {
      const about: Point = [x, y];
      const drawn = unplace(p, about);
      for (const next of [
        putOn(p, drawn, about),
        turnAbout(p, about, by),
        mirrorAbout(p, about),
        resize(p, about, 'cm', 1),
      ]) {
        const at = place(next, drawn);
        expect(Math.hypot(at[0] - x, at[1] - y)).toBeLessThan(
          1e-6 * metresPer[next.unit] * Math.max(next.scale, 1) * 1000 + 1e-6,
        );
      }
    }),
  );
});

test('worked: a quarter turn about (10, 0), and its mirror image', () => {
  const p = asDrawn('m');
  expect(rounded(place(turnAbout(p, [10, 0], quarter), [12, 0]))).toEqual([10, 2]);
  expect(rounded(place(mirrorAbout(p, [10, 0]), [12, 1]))).toEqual([8, 1]);
  // Mirrored after a quarter turn: (12, 0) stood at (10, 2), which lies on the mirror line; (10, -1) stood at (11, 0)
  // and goes to (9, 0).
  const both = mirrorAbout(turnAbout(p, [10, 0], quarter), [10, 0]);
  expect(rounded(place(both, [12, 0]))).toEqual([10, 2]);
  expect(rounded(place(both, [10, -1]))).toEqual([9, 0]);
  expect(rounded(place(mirrorAbout(both, [10, 0]), [10, -1]))).toEqual([11, 0]);
});

test('an upright drawing stands on its line at true heights', () => {
  // A section in mm on the line from (2, 3) towards +y; its point (1000, 500) stands at the line's start, 0.5 m below
  // zero.
  const p: Placement = { ...asDrawn('mm'), origin: [1000, 500], target: [2, 3], turning: quarter, upright: -0.5 };
  expect(rounded(placeUpright(p, [5000, 4400]))).toEqual([2, 7, 3.4]);
  expect(rounded(place(faceOn(p), [5000, 4400]))).toEqual([4, 3.4]);
  expect(rounded(placeUpright({ ...p, mirrored: true }, [5000, 4400]))).toEqual([2, -1, 3.4]);
  // Seen from behind it runs the other way from its start; seen so twice it is as it was.
  expect(rounded(placeUpright(fromOtherSide(p), [5000, 4400]))).toEqual([2, -1, 3.4]);
  expect(rounded(placeUpright(fromOtherSide(fromOtherSide(p)), [5000, 4400]))).toEqual([2, 7, 3.4]);
});

describe('the survey', () => {
  const survey: Survey = {
    easting: site.zero[0],
    northing: site.zero[1],
    elevation: 4.2,
    north: (site.turn * Math.PI) / 180,
  };

  test('the yard\u2019s own formula and the survey\u2019s give the same coordinates, and lead back', () => {
    for (const p of [
      [0, 0],
      [32.7, 17.25],
      [-60, -22],
    ] as Point[]) {
      const [east, north] = onSurvey([p[0], p[1]]);
      const there = toSurvey(survey, p);
      expect(Math.hypot(there[0] - east, there[1] - north)).toBeLessThan(1e-8);
      const back = fromSurvey(survey, there);
      expect(Math.hypot(back[0] - p[0], back[1] - p[1])).toBeLessThan(1e-8);
    }
  });

  test('a drawing at survey coordinates that is placed says where the project lies', () => {
    const placed = surveyPlacement(survey, 'mm');
    expect(surveyOfDrawing(placed, 4.2)).toEqual({
      easting: expect.closeTo(survey.easting, 6),
      northing: expect.closeTo(survey.northing, 6),
      elevation: 4.2,
      north: expect.closeTo(survey.north, 12),
    });
  });

  test('north is told clockwise: turned by a quarter, the survey\u2019s north is the project\u2019s east', () => {
    const east: Survey = { easting: 100, northing: 200, elevation: 0, north: quarter };
    expect(rounded(toSurvey(east, [7, 0]))).toEqual([100, 207]);
    expect(rounded(toSurvey(east, [0, 7]))).toEqual([93, 200]);
  });
});

test('working axes of a turned wing: worked corners, and there and back', () => {
  const wing = { origin: [37.2, 2.4] as Point, angle: Math.atan2(3, 4) };
  // 5 along a 3-4-5 direction is 4 across and 3 up.
  expect(rounded(fromAxes(wing, [5, 0]))).toEqual([41.2, 5.4]);
  expect(rounded(toAxes(wing, [41.2, 5.4]))).toEqual([5, 0]);
  expect(rounded(toAxes(wing, [34.2, 6.4]))).toEqual([0, 5]);
});
