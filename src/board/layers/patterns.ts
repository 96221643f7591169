import type { ElementKind } from '@/core/kinds/element';
import type { Tokens } from '@/ui/tokens';

interface Filling {
  size: number;
  draw: (tile: CanvasRenderingContext2D) => void;
}

/** One even tint. */
const solid = (alpha: number): Filling => ({
  size: 8,
  draw: (tile) => {
    tile.globalAlpha = alpha;
    tile.fillRect(0, 0, 8, 8);
  },
});

/**
 * How the fillings of kinds differ beside their hue, so that they can be told apart in grey and in print: drawn on a
 * tile of eight pixels.
 */
const fillings: Record<ElementKind, Filling> = {
  grid: { size: 8, draw: () => undefined },
  column: {
    size: 4,
    draw: (tile) => {
      tile.globalAlpha = 0.55;
      tile.fillRect(0, 0, 4, 4);
      tile.globalAlpha = 1;
      tile.fillRect(0, 0, 2, 2);
      tile.fillRect(2, 2, 2, 2);
    },
  },
  beam: {
    size: 8,
    draw: (tile) => {
      tile.globalAlpha = 0.25;
      tile.fillRect(0, 0, 8, 8);
    },
  },
  wall: {
    size: 8,
    draw: (tile) => {
      tile.globalAlpha = 0.3;
      tile.fillRect(0, 0, 8, 8);
      tile.globalAlpha = 0.9;
      tile.beginPath();
      for (const x of [-8, 0, 8]) {
        tile.moveTo(x, 8);
        tile.lineTo(x + 8, 0);
      }
      tile.lineWidth = 1.4;
      tile.stroke();
    },
  },
  opening: {
    size: 8,
    draw: (tile) => {
      tile.globalAlpha = 0.35;
      tile.fillRect(0, 0, 8, 8);
    },
  },
  slab: {
    size: 8,
    draw: (tile) => {
      tile.globalAlpha = 0.16;
      tile.fillRect(0, 0, 8, 8);
    },
  },
  zone: {
    size: 8,
    draw: (tile) => {
      tile.globalAlpha = 0.08;
      tile.fillRect(0, 0, 8, 8);
      tile.globalAlpha = 0.7;
      tile.fillRect(3, 3, 1.5, 1.5);
    },
  },
  outdoor: {
    size: 8,
    draw: (tile) => {
      tile.globalAlpha = 0.12;
      tile.fillRect(0, 0, 8, 8);
      tile.globalAlpha = 0.8;
      tile.fillRect(1, 2, 1, 3);
      tile.fillRect(5, 5, 1, 3);
    },
  },
  roof: {
    size: 8,
    draw: (tile) => {
      tile.globalAlpha = 0.1;
      tile.fillRect(0, 0, 8, 8);
      tile.globalAlpha = 0.5;
      tile.fillRect(0, 2, 8, 0.8);
      tile.fillRect(2, 2, 0.8, 6);
    },
  },
  support: {
    size: 4,
    draw: (tile) => {
      tile.globalAlpha = 0.3;
      tile.fillRect(0, 0, 4, 4);
      tile.globalAlpha = 0.9;
      tile.fillRect(0, 0, 4, 1.4);
    },
  },
  pointLoad: solid(0.8),
  lineLoad: solid(0.45),
  areaLoad: {
    size: 12,
    draw: (tile) => {
      tile.globalAlpha = 0.06;
      tile.fillRect(0, 0, 12, 12);
      tile.globalAlpha = 0.6;
      tile.fillRect(5, 3, 1.2, 6);
    },
  },
  luminaire: solid(0.6),
  contour: solid(0.5),
  calculationArea: {
    size: 10,
    draw: (tile) => {
      tile.globalAlpha = 0.5;
      tile.fillRect(4, 5, 3, 0.8);
      tile.fillRect(5, 4, 0.8, 3);
    },
  },
};

const made = new Map<string, CanvasPattern | string>();

/** The filling of a kind in the colours of a scheme. */
export function patternOf(
  context: CanvasRenderingContext2D,
  tokens: Tokens,
  kind: ElementKind,
): CanvasPattern | string {
  const key = `${kind} ${tokens[kind]}`;
  const known = made.get(key);
  if (known !== undefined) return known;
  const { size, draw } = fillings[kind];
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = size;
  const tile = canvas.getContext('2d')!;
  tile.fillStyle = tile.strokeStyle = tokens[kind];
  draw(tile);
  const pattern = context.createPattern(canvas, 'repeat') ?? tokens[kind];
  made.set(key, pattern);
  return pattern;
}
