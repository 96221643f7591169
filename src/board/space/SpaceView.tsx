'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef, useState, type PointerEvent, type ReactNode } from 'react';
import type { Bodies } from '@/core/bodies/bodies';
import type { Tokens } from '@/ui/tokens';
import { useBoard } from '../boardStore';
import type { Size } from '../camera';
import { lookAtBox, nearerBy, orbitBy, slideBy, standardViews, type Orbit, type SpaceBox } from './orbit';
import { SpaceLabels, type SpaceLabel } from './SpaceLabels';
import { SpacePicture, type SpaceLines, type SpaceLook } from './SpacePicture';

/** What is seen in space. */
export interface SpaceScene {
  tokens: Tokens;
  bodies: Bodies;
  /** Drawings at their levels and grid lines, about the origin of the bodies. */
  lines: readonly SpaceLines[];
  /** Values at places of the project. */
  labels: readonly SpaceLabel[];
  /** What there is where the model is empty: the main content of the drawings and the levels' heights. */
  around: SpaceBox;
  selected: ReadonlySet<string>;
  look: SpaceLook;
}

interface Props {
  scene: SpaceScene;
  /** Where it was looked at from last; null is at an angle, all of it. */
  orbit: Orbit | null;
  looked: (orbit: Orbit) => void;
  select: (ids: Iterable<string>) => void;
  children?: ReactNode;
}

/** A press that moves less than this is a click, pixels. */
const dragFrom = 3;
/** The look is told when nothing has moved for this long, milliseconds. */
const restsAfter = 300;

/** The picture of this window, for tests that measure it. */
declare global {
  interface Window {
    zirconSpace?: { picture: SpacePicture; orbit: () => Orbit; lastFrame: () => number; atRest: () => boolean } | null;
  }
}

const help =
  'The model in space: drag or arrow keys turn and tilt it, drag with Shift moves it, plus and minus zoom, Home shows ' +
  'all, a click selects';

/** A picture of the model between React and the GPU. */
class Stage {
  readonly picture: SpacePicture;
  readonly labels: SpaceLabels;
  size: Size;
  orbit: Orbit;
  lastFrame = 0;
  /** Whether there is a look: one that was kept, or all of what there was first. */
  private begun: boolean;
  private scheduled = 0;
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor(
    canvas: HTMLCanvasElement,
    private readonly root: HTMLElement,
    words: HTMLElement,
    orbit: Orbit | null,
    private readonly looked: (orbit: Orbit) => void,
    lost: () => void,
  ) {
    this.picture = new SpacePicture(canvas, lost);
    this.labels = new SpaceLabels(words);
    this.size = this.measured();
    this.begun = orbit !== null;
    this.orbit = orbit ?? lookAtBox([0, 0, 0, 1, 1, 1], this.size, standardViews.askew);
    this.picture.resize(this.size);
  }

  private measured(): Size {
    const { width, height } = this.root.getBoundingClientRect();
    return { width: Math.max(1, Math.round(width)), height: Math.max(1, Math.round(height)) };
  }

  resize(): void {
    this.size = this.measured();
    this.picture.resize(this.size);
    this.draw();
  }

  /** Shows all of a box, where nothing else was looked at before. */
  begin(box: SpaceBox): void {
    if (!this.begun) this.turnTo(lookAtBox(box, this.size, standardViews.askew));
    this.begun = true;
  }

  /** Turns to a look that somebody knows of already. */
  turnTo(orbit: Orbit): void {
    this.orbit = orbit;
    this.draw();
  }

  look(orbit: Orbit): void {
    this.turnTo(orbit);
    clearTimeout(this.resting);
    this.resting = setTimeout(() => {
      this.resting = undefined;
      this.looked(orbit);
    }, restsAfter);
  }

  /** Whether what it knows of is drawn and its look is told. */
  get atRest(): boolean {
    return this.scheduled === 0 && this.resting === undefined;
  }

  draw = (): void => {
    if (this.scheduled !== 0) return;
    this.scheduled = requestAnimationFrame(() => {
      this.scheduled = 0;
      const begun = performance.now();
      this.picture.frame(this.orbit, this.size);
      this.labels.place(this.orbit, this.size);
      this.lastFrame = performance.now() - begun;
    });
  };

  dispose(): void {
    cancelAnimationFrame(this.scheduled);
    clearTimeout(this.resting);
    this.picture.dispose();
  }
}

/**
 * The model in space, to be turned and tilted. Drag turns, drag with Shift or the other button moves, the wheel comes
 * nearer, a click selects.
 */
export function SpaceView({ scene, orbit, looked, select, children }: Props) {
  const root = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const words = useRef<HTMLDivElement>(null);
  const stage = useRef<Stage | null>(null);
  const latest = useRef({ looked, orbit });
  const pressed = useRef<{ x: number; y: number; moved: boolean } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    latest.current = { looked, orbit };
  });
  useEffect(() => {
    const element = root.current!;
    let made: Stage;
    try {
      made = new Stage(
        canvas.current!,
        element,
        words.current!,
        latest.current.orbit,
        (now) => latest.current.looked(now),
        () => setProblem('The browser took the graphics away. Reload the page.'),
      );
    } catch {
      queueMicrotask(() => setProblem('The browser gives no graphics in space. Turn hardware acceleration on.'));
      return;
    }
    stage.current = made;
    window.zirconSpace = {
      picture: made.picture,
      orbit: () => made.orbit,
      lastFrame: () => made.lastFrame,
      atRest: () => made.atRest,
    };
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      made.look(nearerBy(made.orbit, Math.exp(-event.deltaY * 0.0016)));
    };
    element.addEventListener('wheel', wheel, { passive: false });
    const observer = new ResizeObserver(() => made.resize());
    observer.observe(element);
    return () => {
      observer.disconnect();
      element.removeEventListener('wheel', wheel);
      made.dispose();
      stage.current = null;
      window.zirconSpace = null;
    };
  }, []);
  useContent(stage, scene);
  useWish(stage, scene.around);
  useEffect(() => {
    // Another look was asked for, by a view or by its name.
    const here = stage.current;
    if (here && orbit !== null && orbit !== here.orbit) here.turnTo(orbit);
  }, [orbit]);
  const change = (next: (from: Orbit) => Orbit) => stage.current?.look(next(stage.current.orbit));
  const all = (from: Orbit): Orbit =>
    lookAtBox(stage.current?.picture.box ?? scene.around, stage.current?.size ?? { width: 1, height: 1 }, from);
  const click = (event: PointerEvent<HTMLDivElement>) => {
    const here = stage.current;
    if (!here) return;
    const box = event.currentTarget.getBoundingClientRect();
    const id = here.picture.pick(here.orbit, here.size, [event.clientX - box.left, event.clientY - box.top]);
    select(pickedWith(scene.selected, id, event.shiftKey));
  };
  return (
    <Box sx={{ position: 'absolute', inset: 0 }}>
      <Box
        ref={root}
        tabIndex={0}
        role="application"
        aria-label={help}
        onKeyDown={(event) => {
          const act = event.key === 'Home' ? all : keyActs[event.key];
          if (event.key === 'Escape') select([]);
          if (!act || event.ctrlKey || event.metaKey || event.altKey) return;
          event.preventDefault();
          change(act);
        }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          pressed.current = { x: event.clientX, y: event.clientY, moved: false };
        }}
        onPointerUp={(event) => {
          if (pressed.current?.moved === false && event.button === 0) click(event);
          pressed.current = null;
        }}
        onContextMenu={(event) => event.preventDefault()}
        onPointerMove={(event) => {
          const press = pressed.current;
          if (press === null || event.buttons === 0) return;
          const [dx, dy] = [event.clientX - press.x, event.clientY - press.y];
          if (!press.moved && Math.hypot(dx, dy) < dragFrom) return;
          pressed.current = { x: event.clientX, y: event.clientY, moved: true };
          const slides = event.shiftKey || event.buttons > 1;
          change((from) => (slides ? slideBy(from, dx, dy) : orbitBy(from, dx, dy)));
        }}
        sx={groundStyle}
      >
        <canvas ref={canvas} aria-hidden />
        <Box ref={words} className="mono" sx={wordsStyle} />
      </Box>
      {problem !== null && (
        <Box role="alert" sx={problemStyle}>
          {problem}
        </Box>
      )}
      {children}
    </Box>
  );
}

/** Hands what is seen to the picture, each part of it only where it is another. */
function useContent(stage: { readonly current: Stage | null }, scene: SpaceScene): void {
  const { bodies, tokens, lines, labels, look, selected, around } = scene;
  useEffect(() => {
    const here = stage.current;
    if (!here) return;
    here.picture.setBodies(bodies, tokens);
    here.begin(here.picture.box ?? around);
    here.draw();
  }, [stage, bodies, tokens]); // eslint-disable-line react-hooks/exhaustive-deps -- what is around is asked once
  useEffect(() => {
    stage.current?.picture.setLines(lines);
    stage.current?.draw();
  }, [stage, lines]);
  useEffect(() => {
    stage.current?.labels.set(labels);
    stage.current?.draw();
  }, [stage, labels]);
  const { levelId, cut, through, axes } = look;
  useEffect(() => {
    stage.current?.picture.setLook({ levelId, cut, through, axes });
    stage.current?.draw();
  }, [stage, levelId, cut, through, axes]);
  useEffect(() => {
    stage.current?.picture.setSelected(selected);
    stage.current?.draw();
  }, [stage, selected]);
}

/** Fulfils wishes to look from somewhere. */
function useWish(stage: { readonly current: Stage | null }, around: SpaceBox): void {
  const wish = useBoard((board) => board.spaceWish);
  useEffect(() => {
    const here = stage.current;
    if (!here || wish === null) return;
    useBoard.getState().lookFrom(null);
    here.look(lookAtBox(here.picture.box ?? around, here.size, standardViews[wish]));
  }, [stage, wish, around]);
}

/** What is selected after a click on an element, or on nothing; with Shift it is added or taken away. */
function pickedWith(selected: ReadonlySet<string>, id: string | null, adding: boolean): string[] {
  if (id === null) return adding ? [...selected] : [];
  if (!adding) return [id];
  return selected.has(id) ? [...selected].filter((other) => other !== id) : [...selected, id];
}

const keyActs: Record<string, (orbit: Orbit) => Orbit> = {
  ArrowLeft: (orbit) => orbitBy(orbit, -20, 0),
  ArrowRight: (orbit) => orbitBy(orbit, 20, 0),
  ArrowUp: (orbit) => orbitBy(orbit, 0, -12),
  ArrowDown: (orbit) => orbitBy(orbit, 0, 12),
  '+': (orbit) => nearerBy(orbit, 1.4),
  '=': (orbit) => nearerBy(orbit, 1.4),
  '-': (orbit) => nearerBy(orbit, 1 / 1.4),
};

const groundStyle = {
  position: 'absolute',
  inset: 0,
  background: 'var(--mui-palette-zf-board)',
  touchAction: 'none',
  cursor: 'grab',
  '&:active': { cursor: 'grabbing' },
  '& canvas': { width: '100%', height: '100%' },
  '&:focus-visible': { outlineOffset: -2 },
} as const;

/** Values at their places; they take no clicks. */
const wordsStyle = {
  position: 'absolute',
  inset: 0,
  overflow: 'hidden',
  pointerEvents: 'none',
  '& span': {
    position: 'absolute',
    left: 0,
    top: 0,
    px: 0.25,
    fontSize: 11,
    fontWeight: 600,
    borderRadius: '2px',
    background: 'color-mix(in srgb, var(--mui-palette-zf-board) 80%, transparent)',
  },
} as const;

const problemStyle = {
  position: 'absolute',
  left: '50%',
  top: '45%',
  transform: 'translate(-50%, -50%)',
  color: 'text.secondary',
  fontSize: 15,
} as const;
