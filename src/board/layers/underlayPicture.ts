import * as THREE from 'three';
import { apply, determinant, invert } from '@/core/geometry/transform';
import { visibleSegments } from '@/core/underlay/segments';
import type { Camera, Size } from '@/board/camera';
import { load, looksAlike, tint, type Loaded, type PictureSource } from './underlayLines';

/** Where a line is drawn again to be wider, a pair for each further pixel. */
const beside: [number, number][] = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
  [1, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
];

interface Picture {
  target: THREE.WebGLRenderTarget;
  camera: Camera;
}

/**
 * The picture reaches this much beyond the board on every side, as a share of its size, so that a pan has something to
 * show.
 */
const margin = 0.2;

const pasteVertex = `
precision highp float;
uniform vec4 window;
in vec3 position;
out vec2 at;
void main() {
  at = window.xy + (position.xy * 0.5 + 0.5) * window.zw;
  gl_Position = vec4(position.xy, 0.0, 1.0);
}`;

const pasteFragment = `
precision mediump float;
uniform sampler2D picture;
in vec2 at;
out vec4 colour;
void main() {
  bool inside = at.x >= 0.0 && at.x <= 1.0 && at.y >= 0.0 && at.y <= 1.0;
  colour = inside ? texture(picture, at) : vec4(0.0);
}`;

/**
 * Pictures underlays on the GPU. A picture of the view and a margin round it is made a share at a time and kept;
 * while the view moves, the last picture is moved with it and the next is made behind it, so that a frame costs
 * the same however many lines there are. What cannot be seen is not drawn at all.
 */
export class UnderlayPicture {
  private renderer: THREE.WebGLRenderer;
  private loaded = new Map<string, Loaded>();
  private shown: Picture | null = null;
  private making: (Picture & { share: number }) | null = null;
  private spare: THREE.WebGLRenderTarget[] = [];
  private stale = true;
  private size: Size = { width: 1, height: 1 };
  private ratio = 1;
  /** Segments a frame; follows how long frames take. */
  private budget = 6000;
  private lastFrame = 0;
  private flat = new THREE.OrthographicCamera(-1, 1, 1, -1, -1, 1);
  private paste: THREE.Mesh<THREE.BufferGeometry, THREE.RawShaderMaterial>;
  private pasteScene = new THREE.Scene();

  /** @param lost called when the browser takes the graphics away */
  constructor(canvas: HTMLCanvasElement, lost: () => void) {
    this.renderer = new THREE.WebGLRenderer({
      canvas,
      alpha: true,
      antialias: false,
      premultipliedAlpha: true,
      depth: false,
      stencil: false,
    });
    this.renderer.autoClear = false;
    this.renderer.sortObjects = false;
    this.renderer.setClearColor(0x000000, 0);
    canvas.addEventListener('webglcontextlost', (event) => {
      event.preventDefault();
      lost();
    });
    canvas.addEventListener('webglcontextrestored', () => {
      this.stale = true;
    });
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(new Float32Array([-1, -1, 0, 3, -1, 0, -1, 3, 0]), 3));
    this.paste = new THREE.Mesh(
      geometry,
      new THREE.RawShaderMaterial({
        glslVersion: THREE.GLSL3,
        vertexShader: pasteVertex,
        fragmentShader: pasteFragment,
        uniforms: { picture: { value: null }, window: { value: new THREE.Vector4() } },
        depthTest: false,
        depthWrite: false,
        transparent: true,
        blending: THREE.CustomBlending,
        blendSrc: THREE.OneFactor,
        blendDst: THREE.OneMinusSrcAlphaFactor,
      }),
    );
    this.paste.frustumCulled = false;
    this.pasteScene.add(this.paste);
  }

  resize(size: Size, ratio: number): void {
    if (size.width === this.size.width && size.height === this.size.height && ratio === this.ratio) return;
    this.size = size;
    this.ratio = ratio;
    this.renderer.setPixelRatio(ratio);
    this.renderer.setSize(size.width, size.height, false);
    for (const picture of [this.shown, this.making]) picture?.target.dispose();
    for (const target of this.spare) target.dispose();
    this.spare = [];
    this.shown = null;
    this.making = null;
    this.stale = true;
  }

  /** Takes the underlays to show. @returns whether anything is to be drawn anew */
  setSources(sources: readonly PictureSource[]): boolean {
    const before = [...this.loaded.values()].map((loaded) => loaded.source);
    if (before.length === sources.length && sources.every((source, i) => looksAlike(source, before[i]))) return false;
    const wanted = new Set(sources.map((source) => source.id));
    for (const [id, loaded] of this.loaded) if (!wanted.has(id)) this.unload(id, loaded);
    // In the order in which they are asked for, so that what is last lies on top.
    const loaded = sources.map((source): [string, Loaded] => [source.id, this.loadedFor(source)]);
    this.loaded = new Map(loaded);
    this.giveBackMaking();
    this.stale = true;
    return true;
  }

  private loadedFor(source: PictureSource): Loaded {
    const known = this.loaded.get(source.id);
    if (known === undefined) return load(source);
    if (known.source.store !== source.store) {
      this.unload(source.id, known);
      return load(source);
    }
    if (known.source.colourKey !== source.colourKey) tint(known.lines.geometry, source);
    known.lines.material.uniforms.strength.value = source.strength;
    known.source = source;
    return known;
  }

  private unload(id: string, { lines }: Loaded): void {
    lines.geometry.dispose();
    lines.material.dispose();
    this.loaded.delete(id);
  }

  /** A picture that will not be finished leaves its target to the next. */
  private giveBackMaking(): void {
    if (this.making !== null) this.spare.push(this.making.target);
    this.making = null;
  }

  /** What the GPU keeps: render targets, and buffers of lines. */
  held(): { targets: number; buffers: number } {
    const targets = this.spare.length + Number(this.shown !== null) + Number(this.making !== null);
    return { targets, buffers: this.renderer.info.memory.geometries };
  }

  /**
   * Draws one frame.
   * @param calm whether nobody moves anything
   * @returns whether another frame has something to add
   */
  frame(camera: Camera, calm: boolean): boolean {
    const now = performance.now();
    const since = now - this.lastFrame;
    this.lastFrame = now;
    if (this.making && since < 500) this.budget = budgetAfter(this.budget, since, calm ? pace.calm : pace.busy);
    if (!this.making && (this.stale || !this.shown || !this.covers(this.shown.camera, camera))) this.begin(camera);
    if (this.making) this.proceed(this.making);
    this.show(camera);
    return this.making !== null;
  }

  /** Whether a picture shows all of a view, at its scale. */
  private covers(picture: Camera, view: Camera): boolean {
    const scale = view.metresPerPixel / picture.metresPerPixel;
    const reach = (length: number) => length * margin * 0.9 * picture.metresPerPixel;
    return (
      Math.abs(scale - 1) < 1e-9 &&
      Math.abs(view.x - picture.x) <= reach(this.size.width) &&
      Math.abs(view.y - picture.y) <= reach(this.size.height)
    );
  }

  private begin(camera: Camera): void {
    // Whole pixels on either side, so that the picture lies on the screen's own pixels when it is pasted.
    const [width, height] = [this.size.width, this.size.height].map(
      (length) => Math.round(length * this.ratio) + 2 * Math.ceil(length * margin * this.ratio),
    );
    const target =
      this.spare.pop() ??
      new THREE.WebGLRenderTarget(width, height, {
        samples: 4,
        depthBuffer: false,
        magFilter: THREE.LinearFilter,
        minFilter: THREE.LinearFilter,
        generateMipmaps: false,
      });
    this.renderer.setRenderTarget(target);
    this.renderer.clear();
    const [halfWidth, halfHeight] = [
      (width / 2 / this.ratio) * camera.metresPerPixel,
      (height / 2 / this.ratio) * camera.metresPerPixel,
    ];
    for (const loaded of this.loaded.values()) {
      const { transform, store, hidden } = loaded.source;
      const back = invert(transform);
      const corners = [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ].map(([sx, sy]) => apply(back, [camera.x + sx * halfWidth, camera.y + sy * halfHeight]));
      const [xs, ys] = [corners.map((p) => p[0]), corners.map((p) => p[1])];
      const factor = Math.sqrt(Math.abs(determinant(transform)));
      loaded.visible = visibleSegments(
        store,
        [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)],
        camera.metresPerPixel / factor / this.ratio,
        hidden,
        loaded.index,
      );
      loaded.drawn = 0;
      const attribute = loaded.lines.geometry.index as THREE.BufferAttribute;
      attribute.clearUpdateRanges();
      attribute.addUpdateRange(0, loaded.visible);
      attribute.needsUpdate = loaded.visible > 0;
      // The map from the store to the picture is put together in 64 bits; only its six numbers become 32.
      const uniforms = loaded.lines.material.uniforms;
      const [a, b, c, d, e, f] = transform;
      (uniforms.toX.value as THREE.Vector3).set(a / halfWidth, c / halfWidth, (e - camera.x) / halfWidth);
      (uniforms.toY.value as THREE.Vector3).set(b / halfHeight, d / halfHeight, (f - camera.y) / halfHeight);
    }
    this.making = { target, camera, share: 0 };
    this.stale = false;
  }

  private proceed(making: Picture): void {
    let left = Math.round(this.budget) * 2;
    this.renderer.setRenderTarget(making.target);
    for (const loaded of this.loaded.values()) {
      if (loaded.drawn >= loaded.visible || left <= 0) continue;
      const count = Math.min(left, loaded.visible - loaded.drawn);
      loaded.lines.geometry.setDrawRange(loaded.drawn, count);
      this.drawRounds(loaded, making.target);
      loaded.drawn += count;
      left -= count;
    }
    if ([...this.loaded.values()].some(({ drawn, visible }) => drawn < visible)) return;
    if (this.shown) this.spare.push(this.shown.target);
    this.shown = { target: making.target, camera: making.camera };
    this.making = null;
  }

  /** Draws a share of the lines; wide ones once more for each pixel beside. */
  private drawRounds({ scene, lines, source, widest }: Loaded, target: THREE.WebGLRenderTarget): void {
    const uniforms = lines.material.uniforms;
    const rounds = source.weights && widest > 1 ? beside.slice(0, 2 * (widest - 1)) : [];
    [[0, 0], ...rounds].forEach(([x, y], i) => {
      uniforms.least.value = i === 0 ? 0 : 2 + Math.floor((i - 1) / 2);
      (uniforms.shift.value as THREE.Vector2).set(
        (2 * x * this.ratio) / target.width,
        (2 * y * this.ratio) / target.height,
      );
      this.renderer.render(scene, this.flat);
    });
  }

  /** Pastes the kept picture where the view now has it; the first one while it is made. */
  private show(camera: Camera): void {
    this.renderer.setRenderTarget(null);
    this.renderer.clear();
    const picture = this.shown ?? this.making;
    if (picture === null) return;
    const { target, camera: made } = picture;
    const scale = camera.metresPerPixel / made.metresPerPixel;
    const [width, height] = [target.width / this.ratio, target.height / this.ratio];
    const whole = (pixels: number) =>
      Math.abs(scale - 1) < 1e-9 ? Math.round(pixels * this.ratio) / this.ratio : pixels;
    const [dx, dy] = [
      whole((camera.x - made.x) / made.metresPerPixel),
      whole((camera.y - made.y) / made.metresPerPixel),
    ];
    const [w, h] = [(this.size.width * scale) / width, (this.size.height * scale) / height];
    const uniforms = this.paste.material.uniforms;
    (uniforms.window.value as THREE.Vector4).set(0.5 + dx / width - w / 2, 0.5 + dy / height - h / 2, w, h);
    uniforms.picture.value = target.texture;
    this.renderer.render(this.pasteScene, this.flat);
  }

  dispose(): void {
    this.setSources([]);
    for (const target of [this.shown?.target, ...this.spare]) target?.dispose();
    this.paste.geometry.dispose();
    this.paste.material.dispose();
    this.renderer.dispose();
  }
}

/**
 * What frames may take from one to the next while a picture is made, milliseconds: above `most` each draws fewer
 * segments, below `least` more. Somebody who moves the view sees every frame that is late; who looks on does not.
 */
const pace = { busy: { least: 22, most: 40 }, calm: { least: 60, most: 120 } };

/**
 * Segments of the next frame: fewer where the last one took long, more where it was short.
 * @param since milliseconds
 */
function budgetAfter(budget: number, since: number, { least, most }: { least: number; most: number }): number {
  if (since > most) return Math.max(1500, budget * 0.6);
  return since < least ? Math.min(400_000, budget * 1.4) : budget;
}
