import type { ElementKind } from '@/core/kinds/element';
import type { Role } from '@/core/sorting/roles';
import type { Tokens } from '@/ui/tokens';

/** What has a mark: a role, or a kind of element. */
type Marked = Role | Exclude<ElementKind, 'opening'>;

const tokenOf: Record<Marked, keyof Tokens> = {
  grid: 'grid',
  column: 'column',
  beam: 'beam',
  wall: 'wall',
  door: 'opening',
  window: 'opening',
  slab: 'slab',
  slabOpening: 'slab',
  zone: 'zone',
  outdoor: 'outdoor',
  label: 'ink2',
  ignore: 'line',
  mixed: 'zircon',
  roof: 'roof',
  support: 'support',
  pointLoad: 'pointLoad',
  lineLoad: 'lineLoad',
  areaLoad: 'areaLoad',
  luminaire: 'luminaire',
  terrain: 'contour',
  contour: 'contour',
  calculationArea: 'calculationArea',
};

/** Two lines of as much height. */
const hills = 'M0 6c4-6 9 2 14-3M0 12c4-6 9 2 14-3';

/** Roles differ by pattern as well as by hue. */
const strokes: Record<Marked, string> = {
  grid: 'M7 0v5M7 7v1M7 10v4',
  column: '',
  beam: 'M0 5h14M0 9h14',
  wall: 'M-2 8 8-2M0 12 12 0M4 14 14 4M9 15l6-6',
  door: 'M3 12V3M3 3a9 9 0 0 1 9 9',
  window: 'M0 5h14M0 7h14M0 9h14',
  slab: '',
  slabOpening: 'M1 1l12 12M13 1 1 13',
  zone: '',
  outdoor: 'M3 4v3M9 3v3M6 9v3M11 9v3',
  label: 'M3 4h8M7 4v7',
  ignore: 'M3 7h8',
  mixed: 'M1 7h12M7 1v12',
  roof: 'M1 4h12M4 4v9M10 4v9',
  support: 'M1 7 7 1l6 6-6 6zM3 7h8',
  pointLoad: 'M7 1v12M2 10l10-6M2 4l10 6',
  lineLoad: 'M1 5h12v4H1z',
  areaLoad: 'M4 4v6M7 4v6M10 4v6',
  luminaire: 'M1 3l12 2v4L1 11z',
  terrain: hills,
  contour: hills,
  calculationArea: 'M4 3v3M2.5 4.5h3M10 3v3M8.5 4.5h3M7 8v3M5.5 9.5h3',
};

/** Marks that stand by themselves. */
const unframed: readonly Marked[] = [
  'grid',
  'door',
  'label',
  'ignore',
  'support',
  'pointLoad',
  'lineLoad',
  'luminaire',
  'terrain',
  'contour',
];

export function RoleMark({ role }: { role: Marked }) {
  const colour = `var(--mui-palette-zf-${tokenOf[role]})`;
  const checks =
    role === 'column'
      ? [0, 1, 2, 3].flatMap((i) =>
          [0, 1, 2, 3]
            .filter((j) => (i + j) % 2 === 0)
            .map((j) => <rect key={`${i}${j}`} x={1 + i * 3} y={1 + j * 3} width={3} height={3} fill={colour} />),
        )
      : null;
  const dots =
    role === 'zone'
      ? [3, 7, 11].flatMap((x) => [3, 7, 11].map((y) => <circle key={`${x}${y}`} cx={x} cy={y} r={1} fill={colour} />))
      : null;
  return (
    <svg width={14} height={14} viewBox="0 0 14 14" aria-hidden style={{ flex: 'none' }}>
      {role === 'slab' && <rect x={1} y={1} width={12} height={12} fill={colour} opacity={0.45} />}
      {checks}
      {dots}
      <path d={strokes[role]} stroke={colour} strokeWidth={1.5} fill="none" />
      {!unframed.includes(role) && <rect x={0.5} y={0.5} width={13} height={13} fill="none" stroke={colour} />}
    </svg>
  );
}
