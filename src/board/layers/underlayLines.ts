import * as THREE from 'three';
import type { Transform } from '@/core/geometry/transform';
import type { SegmentStore } from '@/core/underlay/segments';

/** An underlay to be pictured. */
export interface PictureSource {
  id: string;
  store: SegmentStore;
  /** From the store's coordinates to the project. */
  transform: Transform;
  /** 1 for each layer that is not shown. */
  hidden: Uint8Array;
  /** Red, green and blue of a colour as drawn, on this background. */
  colour: (drawn: number, layer: number) => number;
  /** Changes whenever colours do. */
  colourKey: string;
  /** How strong the lines are, 1 as they are. */
  strength: number;
  /** Whether line weights are drawn. */
  weights: boolean;
}

/** An underlay's lines as the graphics hold them. */
export interface Loaded {
  source: PictureSource;
  widest: number;
  lines: THREE.LineSegments<THREE.BufferGeometry, THREE.RawShaderMaterial>;
  scene: THREE.Scene;
  index: Uint32Array;
  visible: number;
  drawn: number;
}
const vertexShader = `
precision highp float;
uniform vec3 toX;
uniform vec3 toY;
uniform vec2 shift;
uniform float least;
in vec2 position;
in vec4 tint;
out vec3 shade;
void main() {
  shade = tint.rgb;
  vec3 p = vec3(position, 1.0);
  // The fourth part of the tint is the width in pixels; lines that are too thin for this round are put out of sight.
  vec2 at = tint.a * 255.0 + 0.5 < least ? vec2(2.0) : vec2(dot(toX, p), dot(toY, p)) + shift;
  gl_Position = vec4(at, 0.0, 1.0);
}`;

const fragmentShader = `
precision mediump float;
uniform float strength;
in vec3 shade;
out vec4 colour;
void main() { colour = vec4(shade * strength, strength); }`;

/** Whether a source is drawn as another was. */
export const looksAlike = (a: PictureSource, b: PictureSource): boolean =>
  a.id === b.id &&
  a.store === b.store &&
  a.colourKey === b.colourKey &&
  a.strength === b.strength &&
  a.weights === b.weights &&
  a.transform.every((value, i) => value === b.transform[i]) &&
  a.hidden.every((value, i) => value === b.hidden[i]);

export function load(source: PictureSource): Loaded {
  const count = source.store.layer.length;
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(source.store.xy, 2));
  geometry.setAttribute('tint', new THREE.BufferAttribute(new Uint8Array(count * 8), 4, true));
  tint(geometry, source);
  const index = new Uint32Array(Math.max(2, count * 2));
  const attribute = new THREE.BufferAttribute(index, 1);
  attribute.setUsage(THREE.DynamicDrawUsage);
  geometry.setIndex(attribute);
  const material = new THREE.RawShaderMaterial({
    glslVersion: THREE.GLSL3,
    vertexShader,
    fragmentShader,
    depthTest: false,
    depthWrite: false,
    blending: THREE.NoBlending,
    uniforms: {
      toX: { value: new THREE.Vector3() },
      toY: { value: new THREE.Vector3() },
      strength: { value: source.strength },
      shift: { value: new THREE.Vector2() },
      least: { value: 0 },
    },
  });
  const lines = new THREE.LineSegments(geometry, material);
  lines.frustumCulled = false;
  const scene = new THREE.Scene();
  scene.add(lines);
  return {
    source,
    widest: source.store.weight.reduce((most, weight) => Math.max(most, weight), 1),
    lines,
    scene,
    index,
    visible: 0,
    drawn: 0,
  };
}

/** Gives every vertex the colour its line has on this background. */
export function tint(geometry: THREE.BufferGeometry, { store, colour }: PictureSource): void {
  const attribute = geometry.getAttribute('tint') as THREE.BufferAttribute;
  const bytes = attribute.array as Uint8Array;
  const known = new Map<number, number>();
  for (let i = 0; i < store.colour.length; i += 1) {
    const key = store.layer[i] * 2 ** 25 + store.colour[i];
    let rgb = known.get(key);
    if (rgb === undefined) {
      rgb = colour(store.colour[i], store.layer[i]);
      known.set(key, rgb);
    }
    for (let k = 0; k < 2; k += 1) {
      bytes[8 * i + 4 * k] = rgb >> 16;
      bytes[8 * i + 4 * k + 1] = (rgb >> 8) & 255;
      bytes[8 * i + 4 * k + 2] = rgb & 255;
      bytes[8 * i + 4 * k + 3] = store.weight[i];
    }
  }
  attribute.needsUpdate = true;
}
