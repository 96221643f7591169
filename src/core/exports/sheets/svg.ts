import type { Mark, Sheet, Stroke } from './sheet';

/** A capital is this share of its letters' size in the face that ships. */
const capital = 0.7;
const ink = '#1c2b2d';

/** Hundredths of a millimetre are finer than any pen. */
const mm = (value: number): string => String(Number(value.toFixed(2)) + 0);
const escapes: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string): string =>
  text.replace(/[\u0000-\u001f\u007f]/g, ' ').replace(/[&<>"]/g, (sign) => escapes[sign]);

const pathOf = (points: readonly (readonly [number, number])[], closed: boolean): string =>
  points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${mm(x)} ${mm(y)}`).join('') + (closed ? 'Z' : '');

const penOf = ({ width, dashes }: Stroke): string =>
  ` stroke="${ink}" stroke-width="${width}"${dashes === undefined ? '' : ` stroke-dasharray="${dashes.join(' ')}"`}`;

function markText(mark: Mark): string {
  if (mark.kind === 'line') return `<path d="${pathOf(mark.points, mark.closed)}" fill="none"${penOf(mark.stroke)}/>`;
  if (mark.kind === 'circle') {
    const [x, y] = mark.at;
    return `<circle cx="${mm(x)}" cy="${mm(y)}" r="${mm(mark.radius)}" fill="#fff"${penOf(mark.stroke)}/>`;
  }
  if (mark.kind === 'area') {
    const tone = Math.round(255 * mark.grey);
    const d = mark.rings.map((ring) => pathOf(ring, true)).join('');
    const pen = mark.stroke === null ? '' : penOf(mark.stroke);
    return `<path d="${d}" fill="rgb(${tone},${tone},${tone})" fill-rule="evenodd"${pen}/>`;
  }
  const [x, y] = mark.at;
  const turn = mark.turn === 0 ? '' : ` transform="rotate(${mm(mark.turn)} ${mm(x)} ${mm(y)})"`;
  const weight = mark.bold ? ' font-weight="700"' : '';
  const size = mm(mark.height / capital);
  return `<text x="${mm(x)}" y="${mm(y)}" font-size="${size}" text-anchor="${mark.anchor}"${weight}${turn}>${escaped(mark.text)}</text>`;
}

/**
 * A sheet as SVG at its true size: one unit is a millimetre.
 * @param font the face that ships, WOFF2 in base 64; other programs have it not
 */
export function sheetSvg({ name, width, height, marks }: Sheet, font: string | null = null): string {
  const face =
    font === null
      ? ''
      : `<style>@font-face{font-family:Overpass;src:url(data:font/woff2;base64,${font}) format("woff2")}</style>`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">`,
    `<title>${escaped(name)}</title>`,
    face,
    `<rect width="${width}" height="${height}" fill="#fff"/>`,
    `<g font-family="Overpass, sans-serif" fill="${ink}" stroke-linejoin="round">`,
    ...marks.map(markText),
    '</g>',
    '</svg>',
    '',
  ]
    .filter((line, i, all) => line !== '' || i === all.length - 1)
    .join('\n');
}
