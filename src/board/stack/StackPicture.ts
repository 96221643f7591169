import * as THREE from 'three';
import type { Transform } from '@/core/geometry/transform';
import { direction, type Point } from '@/core/geometry/vector';
import type { SegmentStore } from '@/core/underlay/segments';
import type { Size } from '../camera';
import { projectionOf, type Orbit } from './orbit';

/** Where an upright drawing stands in the plan: the start of its line, and its direction in radians. */
export interface Standing {
  at: Point;
  turning: number;
}

/**
 * A drawing in the stack: its lines, where they lie in the plan and at which height; or, upright, along their line and
 * at true heights.
 */
export interface StackSource {
  id: string;
  store: SegmentStore;
  transform: Transform;
  elevation: number;
  stands: Standing | null;
  hidden: Uint8Array;
  colour: number;
  strength: number;
}

/** Lines of the model in space, as x y z of both ends. */
export interface StackLines {
  points: Float32Array;
  colour: number;
}

/** Of one drawing at most this many lines are drawn, the longest; the stack is an overview. */
const mostLines = 40_000;

const vertexShader = `
precision highp float;
uniform vec4 toX;
uniform vec4 toY;
in vec3 position;
void main() { gl_Position = vec4(dot(toX, vec4(position, 1.0)), dot(toY, vec4(position, 1.0)), 0.0, 1.0); }`;

const fragmentShader = `
precision mediump float;
uniform vec3 tint;
uniform float strength;
out vec4 colour;
void main() { colour = vec4(tint * strength, strength); }`;

/** Pictures the levels of a project over one another in a parallel projection. */
export class StackPicture {
  private renderer: THREE.WebGLRenderer;
  private scene = new THREE.Scene();
  private flat = new THREE.OrthographicCamera(-1, 1, 1, -1, -1, 1);

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({
      canvas,
      alpha: true,
      antialias: true,
      premultipliedAlpha: true,
      depth: false,
      stencil: false,
    });
    this.renderer.setClearColor(0x000000, 0);
  }

  resize({ width, height }: Size): void {
    this.renderer.setPixelRatio(window.devicePixelRatio || 1);
    this.renderer.setSize(width, height, false);
  }

  /** Takes what is to be seen. */
  setContent(sources: readonly StackSource[], lines: readonly StackLines[]): void {
    this.clear();
    for (const source of sources) this.add(placedLines(source), source.colour, source.strength);
    for (const { points, colour } of lines) this.add(points, colour, 1);
  }

  frame(orbit: Orbit, size: Size): void {
    const { toX, toY } = projectionOf(orbit, size);
    for (const child of this.scene.children) {
      const { uniforms } = (child as THREE.LineSegments<THREE.BufferGeometry, THREE.RawShaderMaterial>).material;
      (uniforms.toX.value as THREE.Vector4).set(...toX);
      (uniforms.toY.value as THREE.Vector4).set(...toY);
    }
    this.renderer.render(this.scene, this.flat);
  }

  dispose(): void {
    this.clear();
    this.renderer.dispose();
  }

  private add(points: Float32Array, colour: number, strength: number): void {
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(points, 3));
    const material = new THREE.RawShaderMaterial({
      glslVersion: THREE.GLSL3,
      vertexShader,
      fragmentShader,
      depthTest: false,
      depthWrite: false,
      blending: THREE.NoBlending,
      uniforms: {
        toX: { value: new THREE.Vector4() },
        toY: { value: new THREE.Vector4() },
        tint: {
          value: new THREE.Vector3(((colour >> 16) & 255) / 255, ((colour >> 8) & 255) / 255, (colour & 255) / 255),
        },
        strength: { value: strength },
      },
    });
    const lines = new THREE.LineSegments(geometry, material);
    lines.frustumCulled = false;
    this.scene.add(lines);
  }

  private clear(): void {
    for (const child of [...this.scene.children]) {
      const lines = child as THREE.LineSegments<THREE.BufferGeometry, THREE.RawShaderMaterial>;
      lines.geometry.dispose();
      lines.material.dispose();
      this.scene.remove(lines);
    }
  }
}

/** The longest shown lines of a drawing, placed; the store has them by length, the longest first. */
export function placedLines({
  store,
  transform: t,
  elevation,
  stands,
  hidden,
}: Pick<StackSource, 'store' | 'transform' | 'elevation' | 'stands' | 'hidden'>): Float32Array {
  const count = Math.min(store.layer.length, mostLines);
  const points = new Float32Array(count * 6);
  const [c, s] = direction(stands?.turning ?? 0);
  let n = 0;
  for (let i = 0; i < store.layer.length && n < count; i += 1) {
    if (hidden[store.layer[i]] === 1) continue;
    for (let end = 0; end < 2; end += 1) {
      const [x, y] = [store.xy[4 * i + 2 * end], store.xy[4 * i + 2 * end + 1]];
      const [u, v] = [t[0] * x + t[2] * y + t[4], t[1] * x + t[3] * y + t[5]];
      points.set(
        stands === null ? [u, v, elevation] : [stands.at[0] + c * u, stands.at[1] + s * u, v],
        6 * n + 3 * end,
      );
    }
    n += 1;
  }
  return points.slice(0, n * 6);
}
