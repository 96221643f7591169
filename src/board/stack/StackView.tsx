'use client';
import type { ElementRow } from '@/core/kinds/element';
import { outlinesOf } from '@/core/kinds/kinds';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import { apply } from '@/core/geometry/transform';
import type { LevelRow } from '@/core/model/state';
import { mainContent } from '@/core/underlay/mainContent';
import type { Tokens } from '@/ui/tokens';
import type { Size } from '../camera';
import type { BoardDrawing } from '../scene';
import { lookAtBox, nearerBy, orbitBy, slideBy, type Orbit } from './orbit';
import { StackPicture, type Standing, type StackLines } from './StackPicture';

/**
 * What is stacked: the drawings with the heights of the levels they hang on, or where they stand upright, and the model
 * of each level.
 */
export interface StackScene {
  tokens: Tokens;
  drawings: (BoardDrawing & { heights: number[]; stands: Standing | null })[];
  elementsOn: (levelId: string) => ElementRow[];
  levels: LevelRow[];
}

const rgb = (colour: string): number => parseInt(colour.slice(1), 16);

/**
 * All levels over one another, to be turned and tilted. Drag turns, drag with Shift or the other button moves, the
 * wheel comes nearer.
 */
export function StackView({ scene }: { scene: StackScene }) {
  const root = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const state = useRef<{ picture: StackPicture; orbit: Orbit; size: Size; draw: () => void; scene: StackScene } | null>(
    null,
  );

  useEffect(() => {
    const box = root.current!.getBoundingClientRect();
    const size = { width: Math.round(box.width), height: Math.round(box.height) };
    const picture = new StackPicture(canvas.current!);
    picture.resize(size);
    let scheduled = 0;
    const here = {
      picture,
      orbit: lookAtBox([0, 0, 0, 1, 1, 1], size),
      size,
      scene,
      draw: () => {
        if (scheduled === 0)
          scheduled = requestAnimationFrame(() => {
            scheduled = 0;
            picture.frame(here.orbit, here.size);
          });
      },
    };
    state.current = here;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      here.orbit = nearerBy(here.orbit, Math.exp(-event.deltaY * 0.0016));
      here.draw();
    };
    const element = root.current!;
    element.addEventListener('wheel', wheel, { passive: false });
    const observer = new ResizeObserver(() => {
      const now = element.getBoundingClientRect();
      here.size = { width: Math.round(now.width), height: Math.round(now.height) };
      picture.resize(here.size);
      here.draw();
    });
    observer.observe(element);
    return () => {
      cancelAnimationFrame(scheduled);
      observer.disconnect();
      element.removeEventListener('wheel', wheel);
      picture.dispose();
      state.current = null;
    };
  }, []); // eslint-disable-line react-hooks/exhaustive-deps -- the picture is made once; scenes come to it below

  useEffect(() => {
    const here = state.current;
    if (!here) return;
    const { tokens } = scene;
    here.picture.setContent(
      scene.drawings.flatMap((drawing) =>
        drawing.heights.map((elevation) => ({
          id: drawing.id,
          store: drawing.underlay.segments,
          transform: drawing.transform,
          elevation,
          stands: drawing.stands,
          hidden: drawing.hidden,
          colour: rgb(tokens.underlay),
          strength: 1 - drawing.display.fade,
        })),
      ),
      modelLines(scene),
    );
    here.scene = scene;
    here.draw();
  }, [scene]);

  const ids = scene.drawings.map(({ id }) => id).join();
  useEffect(() => {
    const here = state.current;
    if (!here) return;
    here.orbit = lookAtBox(contentBox(here.scene), here.size);
    here.draw();
  }, [ids]);

  const change = (next: (orbit: Orbit) => Orbit) => {
    const here = state.current;
    if (here) {
      here.orbit = next(here.orbit);
      here.draw();
    }
  };
  const keys: Record<string, (orbit: Orbit) => Orbit> = {
    ArrowLeft: (o) => orbitBy(o, -20, 0),
    ArrowRight: (o) => orbitBy(o, 20, 0),
    ArrowUp: (o) => orbitBy(o, 0, -12),
    ArrowDown: (o) => orbitBy(o, 0, 12),
    '+': (o) => nearerBy(o, 1.4),
    '=': (o) => nearerBy(o, 1.4),
    '-': (o) => nearerBy(o, 1 / 1.4),
    Home: (o) => lookAtBox(contentBox(state.current!.scene), state.current?.size ?? { width: 1, height: 1 }) ?? o,
  };
  return (
    <Box
      ref={root}
      tabIndex={0}
      role="application"
      aria-label="Stack of all levels: drag or arrow keys turn and tilt it, plus and minus zoom, Home shows all"
      onKeyDown={(event) => {
        const act = keys[event.key];
        if (act) {
          event.preventDefault();
          change(act);
        }
      }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onContextMenu={(event) => event.preventDefault()}
      onPointerMove={(event) => {
        if (event.buttons === 0) return;
        const { movementX, movementY } = event;
        change((orbit) =>
          event.shiftKey || event.buttons > 1
            ? slideBy(orbit, movementX, movementY)
            : orbitBy(orbit, movementX, movementY),
        );
      }}
      sx={{
        position: 'absolute',
        inset: 0,
        background: 'var(--mui-palette-zf-board)',
        touchAction: 'none',
        cursor: 'grab',
        '& canvas': { width: '100%', height: '100%' },
        '&:focus-visible': { outlineOffset: -2 },
      }}
    >
      <canvas ref={canvas} aria-hidden />
    </Box>
  );
}

/** minX, minY, minZ, maxX, maxY, maxZ of the main content of all drawings, and of the levels' heights. */
function contentBox({ drawings, levels }: StackScene): [number, number, number, number, number, number] {
  const box: [number, number, number, number, number, number] = [
    Infinity,
    Infinity,
    Math.min(0, ...levels.map(({ elevation }) => elevation)),
    -Infinity,
    -Infinity,
    Math.max(1, ...levels.map(({ elevation, height }) => elevation + height)),
  ];
  for (const {
    underlay: { primitives },
    transform,
    stands,
  } of drawings) {
    if (stands !== null) continue;
    const main = mainContent(primitives);
    if (!main) continue;
    const [ox, oy] = primitives.origin;
    for (const [x, y] of [main[0], main[1], [main[0][0], main[1][1]], [main[1][0], main[0][1]]]) {
      const [px, py] = apply(transform, [x - ox, y - oy]);
      [box[0], box[1], box[3], box[4]] = [
        Math.min(box[0], px),
        Math.min(box[1], py),
        Math.max(box[3], px),
        Math.max(box[4], py),
      ];
    }
  }
  return box[0] > box[3] ? [0, 0, box[2], 10, 10, box[5]] : box;
}

/** Columns as prisms over their level's height, grid lines on each level that has a drawing. */
function modelLines({ tokens, elementsOn, levels, drawings }: StackScene): StackLines[] {
  const columns: number[] = [];
  const walls: number[] = [];
  const grid: number[] = [];
  const heights = new Set(drawings.flatMap(({ heights: own, stands }) => (stands === null ? own : [])));
  for (const { id, elevation: low, height } of levels) {
    const high = low + height;
    for (const element of elementsOn(id)) {
      if (element.kind === 'grid') {
        if (element.shape.kind === 'line' && heights.has(low))
          grid.push(...element.shape.start, low, ...element.shape.end, low);
        continue;
      }
      if (element.kind !== 'column' && element.kind !== 'wall') continue;
      const outline = outlinesOf(element)[0];
      const lines = element.kind === 'column' ? columns : walls;
      outline.forEach((p, i) => {
        const q = outline[(i + 1) % outline.length];
        lines.push(...p, low, ...q, low, ...p, high, ...q, high, ...p, low, ...p, high);
      });
    }
  }
  return [
    { points: Float32Array.from(grid), colour: rgb(tokens.grid) },
    { points: Float32Array.from(columns), colour: rgb(tokens.column) },
    { points: Float32Array.from(walls), colour: rgb(tokens.wall) },
  ].filter(({ points }) => points.length > 0);
}
