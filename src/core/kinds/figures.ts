/** Figures of facts, in the units that sizes of building parts are told in. */
export const metres = (value: number): string => `${value.toFixed(2)} m`;
export const millimetres = (value: number): string => `${(value * 1000).toFixed(0)} mm`;
export const squareMetres = (value: number): string => `${value.toFixed(2)} m\u00b2`;
