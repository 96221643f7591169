import { Doubles, Growable } from '@/core/drawing/growable';

/** What a path carries besides its vertices. */
export interface PathOwner {
  layer: number;
  colour: number;
  kind: number;
  chain: number;
  pen: number;
  elevation: number;
  entity: number;
  top: number;
}

/** Paths while a drawing is flattened. */
export class Paths {
  start = new Growable(new Uint32Array(1024));
  xy = new Doubles(4096);
  bulge = new Doubles(2048);
  layer = new Growable(new Uint16Array(1024));
  colour = new Growable(new Uint32Array(1024));
  flags = new Growable(new Uint8Array(1024));
  entity = new Growable(new Uint32Array(1024));
  top = new Growable(new Uint32Array(1024));
  kind = new Growable(new Uint8Array(1024));
  chain = new Growable(new Uint32Array(1024));
  pen = new Growable(new Uint16Array(1024));
  elevation = new Growable(new Float32Array(1024));

  begin(owner: PathOwner, flags: number): void {
    this.start.push(this.bulge.length);
    this.layer.push(owner.layer);
    this.colour.push(owner.colour);
    this.flags.push(flags);
    this.entity.push(owner.entity);
    this.top.push(owner.top);
    this.kind.push(owner.kind);
    this.chain.push(owner.chain);
    this.pen.push(owner.pen);
    this.elevation.push(owner.elevation);
  }

  vertex(x: number, y: number, bulge: number): void {
    this.xy.push(x);
    this.xy.push(y);
    this.bulge.push(bulge);
  }

  get count(): number {
    return this.layer.length;
  }

  finish() {
    this.start.push(this.bulge.length);
    return {
      start: this.start.finish(),
      xy: this.xy.finish(),
      bulge: this.bulge.finish(),
      layer: this.layer.finish(),
      colour: this.colour.finish(),
      flags: this.flags.finish(),
      entity: this.entity.finish(),
      top: this.top.finish(),
      kind: this.kind.finish(),
      chain: this.chain.finish(),
      pen: this.pen.finish(),
      elevation: this.elevation.finish(),
    };
  }
}
