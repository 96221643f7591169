'use client';
import { bin, scaleLinear } from 'd3';
import type { Candidate } from '@/core/reading/candidate';
import { promise } from './review';

/** How sure the reading is: a histogram of confidence with a threshold that can be moved. */
export function ConfidenceChart({
  candidates,
  threshold,
  move,
  colour,
}: {
  candidates: Candidate[];
  threshold: number;
  move: (threshold: number) => void;
  colour: string;
}) {
  const [width, height] = [300, 66];
  const x = scaleLinear([0, 1], [0, width]);
  const bins = bin<Candidate, number>()
    .value((candidate) => candidate.confidence)
    .domain([0, 1])
    .thresholds(24)(candidates);
  const y = scaleLinear([0, Math.max(1, ...bins.map((b) => b.length))], [0, height - 4]);
  return (
    <div>
      <svg
        viewBox={`0 0 ${width} ${height + 12}`}
        width="100%"
        role="img"
        aria-label={`Confidence of ${candidates.length} candidates`}
      >
        {bins.map((b) => (
          <rect
            key={b.x0}
            x={x(b.x0!) + 0.5}
            width={Math.max(0, x(b.x1!) - x(b.x0!) - 1)}
            y={height - y(b.length)}
            height={y(b.length)}
            fill={b.x1! > threshold ? colour : 'var(--mui-palette-zf-ink2)'}
            opacity={b.x1! > threshold ? 1 : 0.45}
          />
        ))}
        <path d={`M0 ${height + 0.5}h${width}`} stroke="var(--mui-palette-zf-line)" />
        <path d={`M${x(threshold)} 0V${height}`} stroke="var(--mui-palette-zf-ink)" strokeWidth={1.5} />
        <text x={0} y={height + 11} fontSize={10} fill="var(--mui-palette-zf-ink2)">
          doubtful
        </text>
        <text x={width} y={height + 11} fontSize={10} textAnchor="end" fill="var(--mui-palette-zf-ink2)">
          sure
        </text>
      </svg>
      <input
        type="range"
        min={0}
        max={1}
        step={0.01}
        value={threshold}
        aria-label="Accept from this confidence on"
        onChange={(event) => move(Number(event.target.value))}
        style={{ width: '100%', margin: 0, accentColor: 'var(--mui-palette-zf-zircon)' }}
      />
      <div>{promise(candidates.filter(({ confidence }) => confidence >= threshold))}</div>
    </div>
  );
}
