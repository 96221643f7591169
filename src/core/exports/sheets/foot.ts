import { radians, type Point } from '@/core/geometry/vector';
import type { Layout } from './onto';
import { foot, margin } from './paper';
import { greys, letters, pens, rectangle, type Mark } from './sheet';

const { small, usual, large } = letters;

/** What the title block says, and where north is: degrees clockwise from up, null where nothing lies in plan. */
export interface FootWords {
  title: string;
  below: string;
  north: number | null;
}

export const elevationWords = (elevation: number): string =>
  `${elevation < 0 ? '\u2212' : '+'}${Math.abs(elevation).toFixed(3)} m`;

/** Beneath the drawing: a scale bar, what fills mean, north, and the title block. */
export function footMarks(layout: Layout, words: FootWords): Mark[] {
  const { width, height } = layout;
  const top = height - margin - foot + 6;
  return [
    ...scaleBar(layout.scale, [margin + 8, height - margin - 10]),
    ...legend([margin + 8, top]),
    ...(words.north === null ? [] : northArrow(words.north, [width - margin - 112, height - margin - foot / 2])),
    ...titleBlock(words, layout, [width - margin - 96, top - 2]),
  ];
}

/** A bar of a round length of at least four centimetres, in four parts. */
function scaleBar(scale: number, [x, y]: Point): Mark[] {
  const least = (40 * scale) / 1000;
  const step = 10 ** Math.floor(Math.log10(least));
  const metres = [1, 2, 5, 10].map((factor) => factor * step).find((length) => length >= least) ?? 10 * step;
  const long = (metres * 1000) / scale;
  return [
    ...[0, 1, 2, 3].map((i): Mark => ({
      kind: 'area',
      rings: [rectangle(x + (long * i) / 4, y, x + (long * (i + 1)) / 4, y + 1.6)],
      grey: i % 2 === 0 ? greys.column : 1,
      stroke: pens.thin,
    })),
    ...[0, metres].map((value): Mark => ({
      kind: 'text',
      at: [x + (value * 1000) / scale, y - 1.4],
      text: `${value} m`,
      height: small,
      anchor: 'middle',
      turn: 0,
    })),
  ];
}

const legend = ([x, y]: Point): Mark[] =>
  (
    [
      ['wall', greys.wall],
      ['column', greys.column],
      ['slab', greys.slab],
    ] as const
  ).flatMap(([word, grey], i): Mark[] => {
    const left = x + i * 28;
    return [
      { kind: 'area', rings: [rectangle(left, y, left + 6, y + 3.4)], grey, stroke: pens.thin },
      { kind: 'text', at: [left + 8, y + 2.8], text: word, height: small, anchor: 'start', turn: 0 },
    ];
  });

/** @param north degrees clockwise from up */
function northArrow(north: number, [x, y]: Point): Mark[] {
  const turned = ([dx, dy]: Point): Point => {
    const [c, s] = [Math.cos(radians(north)), Math.sin(radians(north))];
    return [x + c * dx - s * dy, y + s * dx + c * dy];
  };
  const arrow: Point[] = [
    [0, -8],
    [2.6, 6],
    [0, 3.6],
    [-2.6, 6],
  ];
  return [
    { kind: 'area', rings: [arrow.map(turned)], grey: greys.column, stroke: pens.thin },
    { kind: 'text', at: turned([0, -9.4]), text: 'N', height: usual, anchor: 'middle', turn: 0, bold: true },
  ];
}

function titleBlock({ title, below }: FootWords, { project, scale, paper, date }: Layout, [x, y]: Point): Mark[] {
  const [wide, tall] = [96, foot - 4];
  const line = (text: string, down: number, height: number, bold = false): Mark => ({
    kind: 'text',
    at: [x + 4, y + down],
    text,
    height,
    anchor: 'start',
    turn: 0,
    ...(bold ? { bold: true as const } : {}),
  });
  return [
    { kind: 'area', rings: [rectangle(x, y, x + wide, y + tall)], grey: 1, stroke: pens.strong },
    line(project, 8, usual, true),
    line(title, 18, large, true),
    line(below, 25, usual),
    line(`1:${scale} on ${paper}`, 32, usual),
    { kind: 'text', at: [x + wide - 4, y + 32], text: date, height: usual, anchor: 'end', turn: 0 },
  ];
}
