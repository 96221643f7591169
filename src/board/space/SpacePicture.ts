import * as THREE from 'three';
import type { Bodies, BodyPart } from '@/core/bodies/bodies';
import { boxesOf, firstMet, meansRather, type Met } from '@/core/bodies/ray';
import type { ElementKind } from '@/core/kinds/element';
import type { Tokens } from '@/ui/tokens';
import type { Size } from '../camera';
import { projectionOf, rayThrough, type Orbit, type SpaceBox } from './orbit';
import { faceFragment, faceVertex, lineFragment, lineVertex } from './shaders';

/** What of the model is seen in space, and how. */
export interface SpaceLook {
  /** The level that is seen alone; null for all. */
  levelId: string | null;
  /** Nothing above this elevation is seen; null where nothing is cut. */
  cut: number | null;
  /** Whether faces let through what lies behind them. */
  through: boolean;
  /** Whether elements are seen as their axes instead of true. */
  axes: boolean;
}

/** Lines beside the model: of drawings, and grid lines; three numbers a point, about the bodies' origin. */
export interface SpaceLines {
  points: Float32Array;
  colour: string;
  strength: number;
}

/** One part of the model with what pictures it. */
interface Shown {
  part: BodyPart;
  boxes: Float32Array;
  faces: THREE.Mesh<THREE.BufferGeometry, THREE.RawShaderMaterial>;
  edges: THREE.LineSegments<THREE.BufferGeometry, THREE.RawShaderMaterial>;
  axes: THREE.LineSegments<THREE.BufferGeometry, THREE.RawShaderMaterial>;
}

type Uniform<T> = { value: T };

/** Kinds that stand for areas and openings always let through what lies behind them, by this strength. */
const panes: Partial<Record<ElementKind, number>> = {
  zone: 0.16,
  outdoor: 0.4,
  opening: 0.35,
  calculationArea: 0.2,
  areaLoad: 0.25,
};
/** Faces that let through are this strong. */
const throughStrength = 0.16;
/** Edges are drawn in the kind's colour, this strong; axes fully. */
const edgeStrength = 0.75;
/** A click this near to an axis means it, pixels. */
const axisReach = 8;
const endless = 1e9;

const vectorOf = (colour: string): THREE.Vector3 => {
  const value = parseInt(colour.slice(1), 16);
  return new THREE.Vector3(((value >> 16) & 255) / 255, ((value >> 8) & 255) / 255, (value & 255) / 255);
};

/** Pictures the model in space on the GPU, in parallel projection. Nothing is made anew while it is turned. */
export class SpacePicture {
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly flat = new THREE.OrthographicCamera(-1, 1, 1, -1, -1, 1);
  private readonly shared = {
    toX: { value: new THREE.Vector4() },
    toY: { value: new THREE.Vector4() },
    toZ: { value: new THREE.Vector4() },
    cut: { value: endless } as Uniform<number>,
  };
  private shown: Shown[] = [];
  private lines: THREE.LineSegments[] = [];
  private marked: THREE.Object3D[] = [];
  private bodies: Bodies | null = null;
  private tokens: Tokens | null = null;
  private look: SpaceLook = { levelId: null, cut: null, through: false, axes: false };
  private selected: ReadonlySet<string> = new Set();

  /** @param lost called when the browser takes the graphics away */
  constructor(canvas: HTMLCanvasElement, lost: () => void) {
    canvas.addEventListener('webglcontextlost', lost);
    this.renderer = new THREE.WebGLRenderer({ canvas, alpha: true, antialias: true, premultipliedAlpha: true });
    this.renderer.setClearColor(0x000000, 0);
  }

  resize({ width, height }: Size): void {
    this.renderer.setPixelRatio(window.devicePixelRatio || 1);
    this.renderer.setSize(width, height, false);
  }

  /** Takes the model. */
  setBodies(bodies: Bodies, tokens: Tokens): void {
    for (const { faces, edges, axes } of this.shown) this.take(faces, edges, axes);
    this.bodies = bodies;
    this.tokens = tokens;
    this.shown = bodies.parts.map((part) => this.picture(part, tokens));
    this.applyLook();
    this.markSelected();
  }

  setLines(lines: readonly SpaceLines[]): void {
    this.take(...this.lines);
    this.lines = lines.map(({ points, colour, strength }) => {
      const made = this.linesOf(points, vectorOf(colour), strength);
      this.scene.add(made);
      return made;
    });
  }

  setLook(look: SpaceLook): void {
    this.look = look;
    this.applyLook();
    this.markSelected();
  }

  setSelected(ids: ReadonlySet<string>): void {
    this.selected = ids;
    this.markSelected();
  }

  /** The box that is seen, about the project's zero; null where there is nothing. */
  get box(): SpaceBox | null {
    if (this.bodies?.box == null) return null;
    const { box, origin } = this.bodies;
    return [
      box[0] + origin[0],
      box[1] + origin[1],
      box[2] + origin[2],
      box[3] + origin[0],
      box[4] + origin[1],
      box[5] + origin[2],
    ];
  }

  frame(orbit: Orbit, size: Size): void {
    const about = this.aboutOrigin(orbit);
    const { toX, toY, toZ } = projectionOf(about, size, this.reachFrom(about));
    this.shared.toX.value.set(...toX);
    this.shared.toY.value.set(...toY);
    this.shared.toZ.value.set(...toZ);
    this.renderer.render(this.scene, this.flat);
  }

  /** The element that a click at a pixel means; null where there is none. */
  pick(orbit: Orbit, size: Size, pixels: readonly [number, number]): string | null {
    const about = this.aboutOrigin(orbit);
    if (this.look.axes) return this.nearestAxis(about, size, pixels);
    const ray = rayThrough(about, size, pixels, this.reachFrom(about));
    let first: Met | null = null;
    for (const { part, boxes, faces } of this.shown) {
      if (!faces.visible) continue;
      const met = firstMet(part, boxes, ray, this.shared.cut.value);
      if (met !== null && (first === null || meansRather(met, first))) first = met;
    }
    return first?.elementId ?? null;
  }

  /** What the GPU keeps, for tests. */
  held(): { geometries: number } {
    return { geometries: this.renderer.info.memory.geometries };
  }

  dispose(): void {
    for (const { faces, edges, axes } of this.shown) this.take(faces, edges, axes);
    this.take(...this.lines, ...this.marked);
    this.renderer.dispose();
  }

  private aboutOrigin(orbit: Orbit): Orbit {
    const [ox, oy, oz] = this.bodies?.origin ?? [0, 0, 0];
    return { ...orbit, x: orbit.x - ox, y: orbit.y - oy, z: orbit.z - oz };
  }

  /** How far from the place that is looked at anything lies, metres. */
  private reachFrom({ x, y, z }: Orbit): number {
    const box = this.bodies?.box ?? [0, 0, 0, 1, 1, 1];
    const far = (axis: number, at: number): number => Math.max(Math.abs(box[axis] - at), Math.abs(box[axis + 3] - at));
    // Drawings may reach further than the model.
    return 2 * Math.hypot(far(0, x), far(1, y), far(2, z)) + 100;
  }

  private picture(part: BodyPart, tokens: Tokens): Shown {
    const tint = vectorOf(tokens[part.kind]);
    const pane = panes[part.kind];
    const faces = new THREE.Mesh(geometryOf(part.triangles), this.material(faceFragment, faceVertex, tint, pane ?? 1));
    faces.material.uniforms.ground = { value: vectorOf(tokens.board) };
    faces.material.side = THREE.DoubleSide;
    faces.frustumCulled = false;
    const edges = this.linesOf(part.edges, tint, edgeStrength);
    const axes = this.linesOf(part.axes, tint, 1);
    this.scene.add(faces, edges, axes);
    return { part, boxes: boxesOf(part), faces, edges, axes };
  }

  private linesOf(points: Float32Array, tint: THREE.Vector3, strength: number): Shown['edges'] {
    const lines = new THREE.LineSegments(geometryOf(points), this.material(lineFragment, lineVertex, tint, strength));
    lines.material.transparent = strength < 1;
    lines.frustumCulled = false;
    lines.renderOrder = 1;
    return lines;
  }

  private material(fragment: string, vertex: string, tint: THREE.Vector3, strength: number): THREE.RawShaderMaterial {
    return new THREE.RawShaderMaterial({
      glslVersion: THREE.GLSL3,
      vertexShader: vertex,
      fragmentShader: fragment,
      premultipliedAlpha: true,
      uniforms: { ...this.shared, tint: { value: tint }, strength: { value: strength } },
    });
  }

  private applyLook(): void {
    const { levelId, cut, through, axes } = this.look;
    this.shared.cut.value = cut === null ? endless : cut - (this.bodies?.origin[2] ?? 0);
    for (const one of this.shown) {
      const here = levelId === null || one.part.levelId === levelId;
      one.faces.visible = one.edges.visible = here && !axes;
      one.axes.visible = here && axes;
      const pane = panes[one.part.kind] ?? 1;
      const strength = through ? Math.min(pane, throughStrength) : pane;
      const { material } = one.faces;
      material.uniforms.strength.value = strength;
      material.transparent = strength < 1;
      material.depthWrite = strength === 1;
      one.faces.renderOrder = strength === 1 ? 0 : 2;
    }
  }

  /** What is selected is drawn again over everything, in the colour of selections. */
  private markSelected(): void {
    this.take(...this.marked);
    this.marked = [];
    if (this.tokens === null || this.selected.size === 0) return;
    const [faces, lines]: number[][] = [[], []];
    for (const { part, faces: own, axes } of this.shown) {
      if (!own.visible && !axes.visible) continue;
      part.elements.forEach((id, i) => {
        if (!this.selected.has(id)) return;
        if (own.visible) copy(part.triangles, part.triangleEnds, i, faces);
        copy(
          ...(own.visible ? ([part.edges, part.edgeEnds] as const) : ([part.axes, part.axisEnds] as const)),
          i,
          lines,
        );
      });
    }
    const tint = vectorOf(this.tokens.zircon);
    const filled = new THREE.Mesh(
      geometryOf(Float32Array.from(faces)),
      this.material(lineFragment, lineVertex, tint, 0.45),
    );
    filled.material.transparent = true;
    filled.material.depthWrite = false;
    filled.material.side = THREE.DoubleSide;
    filled.frustumCulled = false;
    filled.renderOrder = 3;
    const outlined = this.linesOf(Float32Array.from(lines), tint, 1);
    outlined.material.depthTest = false;
    outlined.renderOrder = 4;
    this.scene.add(filled, outlined);
    this.marked = [filled, outlined];
  }

  private nearestAxis(orbit: Orbit, size: Size, [px, py]: readonly [number, number]): string | null {
    const { toX, toY } = projectionOf(orbit, size, 1);
    let best: { id: string; away: number } | null = null;
    for (const { part, axes } of this.shown) {
      if (!axes.visible) continue;
      part.elements.forEach((id, i) => {
        for (let at = i === 0 ? 0 : part.axisEnds[i - 1]; at < part.axisEnds[i]; at += 6) {
          const ends = [at, at + 3].map((k): [number, number] => {
            const [x, y, z] = [part.axes[k], part.axes[k + 1], part.axes[k + 2]];
            return [
              ((toX[0] * x + toX[1] * y + toX[2] * z + toX[3] + 1) * size.width) / 2,
              ((1 - (toY[0] * x + toY[1] * y + toY[2] * z + toY[3])) * size.height) / 2,
            ];
          });
          const away = awayFromPiece(ends[0], ends[1], px, py);
          if (away <= axisReach && (best === null || away < best.away)) best = { id, away };
        }
      });
    }
    return (best as { id: string } | null)?.id ?? null;
  }

  /** Takes things out of the scene and gives back what the GPU keeps of them. */
  private take(...things: THREE.Object3D[]): void {
    for (const thing of things) {
      this.scene.remove(thing);
      if (thing instanceof THREE.Mesh || thing instanceof THREE.LineSegments) {
        thing.geometry.dispose();
        thing.material.dispose();
      }
    }
  }
}

function geometryOf(points: Float32Array): THREE.BufferGeometry {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(points, 3));
  return geometry;
}

/** Copies the numbers of one body. */
function copy(numbers: Float32Array, ends: Uint32Array, i: number, to: number[]): void {
  for (let at = i === 0 ? 0 : ends[i - 1]; at < ends[i]; at += 1) to.push(numbers[at]);
}

function awayFromPiece([ax, ay]: [number, number], [bx, by]: [number, number], px: number, py: number): number {
  const [dx, dy] = [bx - ax, by - ay];
  const share = Math.min(1, Math.max(0, ((px - ax) * dx + (py - ay) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(ax + share * dx - px, ay + share * dy - py);
}
