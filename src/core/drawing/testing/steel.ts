/**
 * The outline of a rolled steel section of two flanges and a web about its middle, without fillets: twelve corners,
 * counter-clockwise.
 */
export function steelOutline(width: number, depth: number, web: number, flange: number): [number, number][] {
  const [x, y, inner, foot] = [width / 2, depth / 2, web / 2, depth / 2 - flange];
  const half: [number, number][] = [
    [x, -y],
    [x, -foot],
    [inner, -foot],
    [inner, foot],
    [x, foot],
    [x, y],
  ];
  return [...half, ...half.map(([dx, dy]): [number, number] => [-dx, -dy])];
}
