import type { XY } from '../demo/building';
import { Draft } from '../demo/draft';
import type { LengthUnit } from '@/core/units/length';
import { headerCodeOf, metresPer } from '@/core/units/length';
import { seeded } from './mutate';

const layers = ['A-GRID', 'A-COLS', 'A-WALL', 'A-DOOR', 'A-DIMS', 'A-ROOM', 'A-STAIR', 'A-FURN'].map((name, i) => ({
  name,
  colour: i + 1,
}));

/** What a plan of unknown unit may hold; at least three of these are in each. */
const features = ['grid', 'columns', 'walls', 'doors', 'dimensions', 'loose numbers', 'stairs', 'rooms'] as const;

/**
 * A small plan as offices draw them, in a unit, with a header that says something or nothing. Sizes are round in the
 * unit's own system
 * and vary as buildings do; what the plan holds varies too.
 * @param header the unit that the header names, or null
 * @param scale true sizes per drawn size, with a note of it where it is not 1
 */
export function unitPlan(unit: LengthUnit, header: LengthUnit | null, seed: number, scale = 1): string {
  const random = seeded(seed * 7919 + 17);
  const between = (low: number, high: number) => low + random() * (high - low);
  const imperial = unit === 'in' || unit === 'ft';
  const round = (metres: number, metric: number, inches: number) =>
    imperial
      ? Math.max(1, Math.round(metres / (inches * 0.0254))) * inches * 0.0254
      : Math.max(1, Math.round(metres / metric)) * metric;
  const draft = new Draft(1 / metresPer[unit] / scale, header === null ? 0 : headerCodeOf[header], layers);
  const shuffled = [...features].sort(() => random() - 0.5);
  const has = new Set<string>(shuffled.slice(0, 3 + Math.floor(random() * 6)));
  const [nx, ny] = [2 + Math.floor(random() * 5), 1 + Math.floor(random() * 3)];
  const run = (n: number) => {
    const at = [0];
    for (let i = 0; i < n; i += 1) at.push(at[i] + round(between(3.4, 8.2), 0.1, 12));
    return at;
  };
  const [xs, ys] = [run(nx), run(ny)];
  const [right, top] = [xs[nx], ys[ny]];
  const thick = round(between(0.1, 0.36), 0.01, 1);
  const column = round(between(0.25, 0.6), 0.05, 2);
  let written;
  if (imperial) written = 'feet';
  else if (random() < 0.5) written = 'mm';
  else if (random() < 0.5) written = 'm';
  else written = 'cm';

  const write = (metres: number): string => {
    if (written === 'feet') {
      const inches = Math.round(metres / 0.0254);
      return `${Math.floor(inches / 12)}'-${inches % 12}"`;
    }
    if (written === 'mm') return String(Math.round(metres * 1000));
    if (written === 'cm') return String(Math.round(metres * 100));
    return metres.toFixed(2);
  };
  const place = (p: XY): XY => p;
  draft.through(place, 0, () => {
    if (has.has('grid')) {
      const radius = between(0.35, 0.7);
      xs.forEach((x, i) => {
        draft.line('A-GRID', [x, -2], [x, top + 2]);
        draft.circle('A-GRID', [x, -2 - radius], radius);
        draft.text('A-GRID', [x, -2 - radius], radius * 0.8, String(i + 1));
      });
      ys.forEach((y, i) => {
        draft.line('A-GRID', [-2, y], [right + 2, y]);
        draft.circle('A-GRID', [-2 - radius, y], radius);
        draft.text('A-GRID', [-2 - radius, y], radius * 0.8, 'ABCDEF'[i]);
      });
    }
    if (has.has('columns'))
      for (const x of xs)
        for (const y of ys)
          draft.rectangle('A-COLS', [x - column / 2, y - column / 2], [x + column / 2, y + column / 2]);
    if (has.has('walls'))
      for (const half of [-thick / 2, thick / 2]) {
        for (const y of [0, top]) draft.line('A-WALL', [0, y + half], [right, y + half]);
        for (const x of xs) draft.line('A-WALL', [x + half, 0], [x + half, top]);
      }
    if (has.has('doors'))
      for (let i = 0; i < nx; i += 1) {
        const [leaf, x] = [round(between(0.72, 1.02), 0.05, 2), xs[i] + 1.2];
        draft.line('A-DOOR', [x, 0], [x, leaf]);
        draft.arc('A-DOOR', [x, 0], leaf, 0, 90);
      }
    if (has.has('dimensions'))
      for (let i = 0; i < nx; i += 1)
        draft.dimension('A-DIMS', [xs[i], 0], [xs[i + 1], 0], [xs[i], -3.4], write(xs[i + 1] - xs[i]));
    if (has.has('loose numbers'))
      for (let i = 0; i < nx; i += 1) {
        draft.line('A-DIMS', [xs[i], top + 3], [xs[i + 1], top + 3]);
        draft.text('A-DIMS', [(xs[i] + xs[i + 1]) / 2, top + 3.25], 0.22, write(xs[i + 1] - xs[i]));
      }
    if (has.has('stairs')) {
      const going = round(between(0.25, 0.31), 0.01, 0.5);
      for (let i = 0; i < 12; i += 1) draft.line('A-STAIR', [right + 3 + i * going, 0], [right + 3 + i * going, 1.2]);
    }
    if (has.has('rooms'))
      for (let i = 0; i < nx; i += 1)
        draft.text(
          'A-ROOM',
          [(xs[i] + xs[i + 1]) / 2, top / 2],
          between(0.14, 0.4),
          ['Store', 'Lab', 'Office', 'Mess', 'Plant', 'Hall'][i % 6],
        );
    if (scale !== 1) draft.text('A-ROOM', [right / 2, -5], 0.4, `Plan 1:${scale}`);
    // Furniture, which is no column and no wall.
    for (let i = 0; i < 4; i += 1) {
      const [x, y] = [between(0.5, right - 1.5), between(0.5, top - 1)];
      draft.rectangle('A-FURN', [x, y], [x + between(0.5, 1.8), y + between(0.4, 0.9)]);
    }
  });
  return draft.finish();
}
