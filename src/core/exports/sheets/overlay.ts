import type { Picture } from '@/core/structure/picture';
import type { Onto } from './onto';
import { letters, pens, type Mark } from './sheet';

/** What is laid over a drawing: a picture in metres of the drawing, and what it is called. */
export interface Overlay {
  title: string;
  picture: Picture;
  /** Height of its words, metres; as small texts are where it is left out. */
  letters?: number;
}

/** Diagrams and tints are this light, from black to white. */
const grey = { area: 0.82, tint: [0.95, 0.55] } as const;

/** A line of one point marks it, by a ring of this radius, millimetres. */
const spot = 0.8;

/** Smaller letters cannot be read, millimetres. */
const finest = 0.9;

/** Tints lie beneath a drawing. */
export const tintMarks = ({ tints = [] }: Picture, onto: Onto): Mark[] =>
  tints.map(({ outline, holes, share }) => ({
    kind: 'area',
    rings: [outline, ...holes].map(onto.all),
    grey: grey.tint[0] + (grey.tint[1] - grey.tint[0]) * Math.max(0, Math.min(1, share)),
    stroke: null,
  }));

/** Diagrams, lines and words over a drawing. */
export const pictureMarks = ({ picture: { areas, lines, labels }, letters: high }: Overlay, onto: Onto): Mark[] => [
  ...areas.map((area): Mark => ({ kind: 'area', rings: [onto.all(area)], grey: grey.area, stroke: pens.fine })),
  ...lines.map((line): Mark =>
    line.length === 1
      ? { kind: 'circle', at: onto.at(line[0]), radius: spot, stroke: pens.plain }
      : { kind: 'line', points: onto.all(line), closed: false, stroke: pens.plain },
  ),
  ...labels.map(({ at, text }): Mark => ({
    kind: 'text',
    at: onto.at(at),
    text,
    height: high === undefined ? letters.small : Math.min(letters.small, Math.max(finest, (high * 1000) / onto.scale)),
    anchor: 'middle',
    turn: 0,
  })),
];
