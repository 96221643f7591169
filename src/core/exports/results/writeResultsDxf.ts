import { DxfWriter } from '@/core/handover/dxf/dxfWriter';
import { Out, type Onto } from '../dxf/onto';
import type { ResultPicture } from './pictures';

/** The layer of a result; words have one of their own. */
const layerOf = ({ layer }: ResultPicture): string => `ZF-RESULT-${layer}`;
const wordsOf = (one: ResultPicture): string => `${layerOf(one)}-TEXT`;

/** Colours by index, one result after another: red, green, blue, magenta, cyan, orange. */
const colours = [1, 3, 5, 6, 4, 30];

/** Points are marked by rings of this radius, metres. */
const spot = 0.1;

/**
 * Results over a plan as a DXF: diagrams, lines and words on layers by what they are, in the unit and on the origin
 * wanted, so that they lie over the plan of the same delivery.
 */
export function writeResultsDxf(pictures: readonly ResultPicture[], onto: Onto): string {
  const layers = pictures.flatMap((one, i) =>
    [layerOf(one), wordsOf(one)].map((name) => ({ name, colour: colours[i % colours.length] })),
  );
  const writer = new DxfWriter(onto.placement.unit, layers);
  const out = new Out(onto);
  for (const one of pictures) {
    const { areas, lines, labels } = one.picture;
    for (const area of areas) writer.polyline(layerOf(one), out.all(area));
    // A line of one point marks it.
    for (const line of lines)
      if (line.length === 1) writer.circle(layerOf(one), out.at(line[0]), out.size(spot));
      else writer.polyline(layerOf(one), out.all(line), { open: true });
    for (const { at, text } of labels) writer.text(wordsOf(one), out.at(at), out.size(one.letters), text);
  }
  return writer.finish();
}
