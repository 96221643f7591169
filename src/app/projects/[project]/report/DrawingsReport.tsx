import { toneOf } from '@/core/comparison/compare';
import type { Model } from '@/core/model/model';
import type { DrawingBeside } from '@/project/comparisons';
import { activeDrawings } from '@/project/projectRow';
import { Table } from '@/ui/widgets/Table';
import { Chapter } from './Chapter';

const sumOf = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0);

interface DrawingsReportProps {
  model: Model;
  made: Readonly<Record<string, DrawingBeside>>;
  /** Metres that an element may lie off its lines. */
  tolerance: number;
}

/** The drawings against the model, one line each: how much of them is in it, how near, and what they say otherwise. */
export function DrawingsReport({ model, made, tolerance }: DrawingsReportProps) {
  const drawings = activeDrawings(model);
  if (drawings.length === 0) return null;
  return (
    <Chapter title="Compared with the drawings">
      <Table
        label="Drawings"
        heads={[
          'drawing',
          { text: 'in the model', figures: true },
          { text: `off by over ${(1000 * tolerance).toFixed(0)} mm`, figures: true },
          { text: 'dimensions: agree', figures: true },
          { text: 'differ', figures: true },
          { text: 'no element', figures: true },
          { text: 'areas: differ', figures: true },
        ]}
      >
        {drawings.map(({ id, name }) => (
          <tr key={id}>
            <td>{name}</td>
            <Figures beside={made[id]} tolerance={tolerance} />
          </tr>
        ))}
      </Table>
    </Chapter>
  );
}

function Figures({ beside, tolerance }: { beside: DrawingBeside | undefined; tolerance: number }) {
  if (beside?.levels) {
    const { agree, differ, without } = beside.levels;
    return (
      <td colSpan={6}>
        {agree} elevations agree with a level, {differ.length} differ, {without.length} belong to none
      </td>
    );
  }
  if (!beside?.plan) return <td colSpan={6}>{beside?.problem ?? 'comparing \u2026'}</td>;
  const { coverage, drift, dimensions, areas } = beside.plan;
  const drawn = sumOf(coverage.map((row) => row.drawn));
  const covered = sumOf(coverage.map((row) => row.covered));
  const figures = [
    drawn > 0 ? `${((100 * covered) / drawn).toFixed(1)} % of ${drawn.toFixed(0)} m` : 'no roles',
    `${drift.filter((one) => toneOf(one, tolerance) === 'off').length} of ${drift.length}`,
    String(dimensions.agree),
    String(dimensions.differ.length),
    String(dimensions.without.length),
    String(areas.differ.length),
  ];
  return figures.map((figure, i) => (
    <td key={i} className="figures">
      {figure}
    </td>
  ));
}
