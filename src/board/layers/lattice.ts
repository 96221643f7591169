import type { Camera, Size } from '../camera';

/** Dots of the ground are at least this far apart, pixels, and less than five times that. */
const closest = 24;

/** Moves the dots of the ground with the view: their spacing is a power of five metres. */
export function moveLattice({ style }: HTMLElement, { x, y, metresPerPixel }: Camera, { width, height }: Size): void {
  const spacing = 5 ** Math.ceil(Math.log(closest * metresPerPixel) / Math.log(5)) / metresPerPixel;
  const [left, top] = [width / 2 - x / metresPerPixel, height / 2 + y / metresPerPixel];
  style.backgroundSize = `${spacing}px ${spacing}px`;
  style.backgroundPosition = `${left % spacing}px ${top % spacing}px`;
}
