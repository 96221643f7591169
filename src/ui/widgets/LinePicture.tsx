/** A small picture of straight lines, given as x1 y1 x2 y2 each, fitted into its frame. */
export function LinePicture({
  lines,
  width,
  height,
  colour = 'var(--mui-palette-zf-ink2)',
}: {
  lines: ArrayLike<number>;
  width: number;
  height: number;
  colour?: string;
}) {
  let [low, left, high, right] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < lines.length; i += 2) {
    left = Math.min(left, lines[i]);
    right = Math.max(right, lines[i]);
    low = Math.min(low, lines[i + 1]);
    high = Math.max(high, lines[i + 1]);
  }
  const scale = Math.min(width / Math.max(right - left, 1e-9), height / Math.max(high - low, 1e-9)) * 0.9;
  const [cx, cy] = [(left + right) / 2, (low + high) / 2];
  let path = '';
  const at = (i: number) =>
    `${(width / 2 + (lines[i] - cx) * scale).toFixed(1)} ${(height / 2 - (lines[i + 1] - cy) * scale).toFixed(1)}`;
  for (let i = 0; i < lines.length; i += 4) path += `M${at(i)}L${at(i + 2)}`;
  return (
    <svg
      width={width}
      height={height}
      aria-hidden
      style={{
        flex: 'none',
        background: 'var(--mui-palette-zf-board)',
        border: '1px solid var(--mui-palette-divider)',
        borderRadius: 4,
      }}
    >
      <path d={path} fill="none" stroke={colour} strokeWidth={0.7} />
    </svg>
  );
}
