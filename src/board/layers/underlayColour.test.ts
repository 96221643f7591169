import { plainDisplay, type Display } from '@/core/underlay/display';
import { ink } from '@/core/underlay/primitives';
import { dark, light } from '@/ui/tokens';
import type { BoardDrawing, BoardScene } from '@/board/scene';
import { colourKey, underlayColour } from './underlayColour';

const scene = (tokens: typeof light) => ({ tokens, dark: tokens === dark }) as BoardScene;
const drawing = (part: Partial<Display>) =>
  ({
    display: { ...plainDisplay, colours: 'drawn', ...part },
    underlay: {
      layers: [
        { name: 'WALL', hidden: false, empty: false },
        { name: 'GRID', hidden: false, empty: false },
      ],
    },
  }) as unknown as BoardDrawing;
const parts = (rgb: number) => [(rgb >> 16) & 255, (rgb >> 8) & 255, rgb & 255];

test('as drawn, a red stays the reddest of its parts and leans towards the board', () => {
  const [r, g, b] = parts(underlayColour(scene(light), drawing({}), 0xff0000, 0));
  expect(r).toBeGreaterThan(Math.max(g, b) + 60);
});

test('inverted, a yellow meant for a black ground is a blue; ink stays ink', () => {
  const [r, , b] = parts(underlayColour(scene(light), drawing({ colours: 'inverted' }), 0xffff00, 0));
  expect(b).toBeGreaterThan(r + 60);
  expect(underlayColour(scene(light), drawing({ colours: 'inverted' }), ink, 0)).toBe(
    underlayColour(scene(light), drawing({}), ink, 0),
  );
});

test('in one ink all is the same, whatever was drawn', () => {
  for (const tokens of [light, dark])
    expect(
      new Set(
        [0xff0000, 0x00ff00, ink].map((drawn) => underlayColour(scene(tokens), drawing({ colours: 'ink' }), drawn, 0)),
      ).size,
    ).toBe(1);
});

test('a colour chosen for a layer is shown as it was chosen, and only there and only in that mode', () => {
  const chosen = { layerColours: { WALL: '#2244cc' } };
  expect(underlayColour(scene(dark), drawing({ ...chosen, colours: 'layer' }), 0xff0000, 0)).toBe(0x2244cc);
  expect(underlayColour(scene(dark), drawing({ ...chosen, colours: 'layer' }), 0xff0000, 1)).not.toBe(0x2244cc);
  expect(underlayColour(scene(dark), drawing(chosen), 0xff0000, 0)).not.toBe(0x2244cc);
});

test('colours are made anew when the ground, the mode or a chosen colour changes, and else not', () => {
  const key = (tokens: typeof light, part: Partial<Display>) => colourKey(scene(tokens), drawing(part));
  expect(key(light, { fade: 0.5, held: true })).toBe(key(light, {}));
  expect(
    new Set([
      key(light, {}),
      key(dark, {}),
      key(light, { colours: 'ink' }),
      key(light, { colours: 'layer' }),
      key(light, { colours: 'layer', layerColours: { WALL: '#000000' } }),
    ]).size,
  ).toBe(5);
});
