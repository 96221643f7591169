import type { Shapes } from './elements';

/**
 * A short text that two shapes share only if they are alike to a tenth of a millimetre (FNV-1a over 53 bits of two
 * halves).
 */
export function signatureOf(shape: Shapes[keyof Shapes]): string {
  const text = JSON.stringify(shape, (_, value: unknown) =>
    typeof value === 'number' ? Math.round(value * 1e4) / 1e4 + 0 : value,
  );
  let [a, b] = [0x811c9dc5, 0x01000193];
  for (let i = 0; i < text.length; i += 1) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x01000193) >>> 0;
    b = Math.imul(b ^ text.charCodeAt(text.length - 1 - i), 0x85ebca6b) >>> 0;
  }
  return `${a.toString(36)}${b.toString(36)}`;
}
