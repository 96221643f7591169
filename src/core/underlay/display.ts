import * as v from 'valibot';

/** How a drawing's underlay is shown. */
export const colourModes = ['drawn', 'inverted', 'ink', 'layer'] as const;
export type ColourMode = (typeof colourModes)[number];

const layerColour = v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/, 'A colour is # and six hexadecimal digits.'));

export const displaySchema = v.strictObject({
  colours: v.picklist(colourModes),
  /** The colours chosen for layers, by name; used where `colours` is `layer`. */
  layerColours: v.record(v.pipe(v.string(), v.maxLength(300)), layerColour),
  /** 0 as strong as drawn, 1 not to be seen. */
  fade: v.pipe(v.number(), v.minValue(0), v.maxValue(0.9)),
  /** Drawn over the model instead of under it. */
  above: v.boolean(),
  /** Cannot be selected or moved; still there to snap to. */
  held: v.boolean(),
  /** On which levels it is seen: where it hangs, or everywhere. */
  levels: v.picklist(['own', 'all']),
  /** Whether it is part of the stack seen in space. */
  stacked: v.boolean(),
  lineTypes: v.boolean(),
  lineWeights: v.boolean(),
});
export type Display = v.InferOutput<typeof displaySchema>;

export const plainDisplay: Display = {
  colours: 'ink',
  layerColours: {},
  fade: 0,
  above: false,
  held: false,
  levels: 'own',
  stacked: true,
  lineTypes: false,
  lineWeights: false,
};
