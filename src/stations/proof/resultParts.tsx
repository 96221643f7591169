import { elementOf } from '@/core/resolved/elementOf';
import Box from '@mui/material/Box';
import { useMemo } from 'react';
import type { Point } from '@/core/geometry/vector';
import type { Model } from '@/core/model/model';
import { lineOf } from '@/core/structure/takeDown';
import { shownSteps, type ShownResult, type StructureView } from '@/core/structure/view';
import { useBoard } from '@/board/boardStore';
import { useSelected } from '@/project/selected';
import { useModel } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { ResultTable, type ResultRow } from './ResultTable';
import { TakeDownStrip } from './TakeDownStrip';
import { kilonewtons, placeNames } from './trialWords';

interface ResultProps {
  view: StructureView;
  result: ShownResult;
}

/** So far about a place the board looks, metres. */
const around = 4;
/** Selects an element and looks at a place of it, on its level. */
function goTo(model: Model, element: string, [x, y]: Point): void {
  const row = model.element[elementOf(element)];
  if (row !== undefined) {
    useSelected.getState().select([row.id]);
    if (row.levelId !== null) useView.getState().set({ levelId: row.levelId, faceOn: null, inSpace: false });
  }
  useBoard.getState().lookAt([x - around, y - around, x + around, y + around]);
}

/** The line of columns that is selected, or the one that carries most, taken down through the storeys. */
export function ColumnPart({ result }: ResultProps) {
  const model = useModel('level', 'element');
  const selected = useSelected(({ ids }) => ids);
  const named = useMemo(() => placeNames(model), [model]);
  const own = [...selected].map((id) => lineOf(result.lines, id)).find((line) => line !== null);
  const greatest = result.lines.reduce<ShownResult['lines'][number] | null>((best, line) => {
    const carried = (one: typeof line): number => one.storeys[one.storeys.length - 1].carried || 0;
    return best === null || carried(line) > carried(best) ? line : best;
  }, null);
  const line = own ?? greatest;
  if (line === null) return null;
  return (
    <Part title={`Taken down along ${named([...line.position, 0])}`}>
      <TakeDownStrip line={line} model={model} />
      {own === undefined && (
        <Box sx={{ color: 'text.secondary', fontSize: 12 }}>
          The line that carries most. Select a column to see its own.
        </Box>
      )}
    </Part>
  );
}

const kilo = (value: number): string => kilonewtons(value);

/** What each support carries. */
export function SupportPart({ view, result }: ResultProps) {
  const model = useModel('level', 'element');
  const rows = useMemo(() => {
    const named = placeNames(model);
    const over = new Map<number, string>();
    for (const { nodes, element } of view.members) for (const node of nodes) over.set(node, element);
    return result.supports.map(({ node, value }): ResultRow => {
      const { position, name } = view.nodes[node];
      return {
        key: name,
        name: named(position),
        figures: [value[2], Math.hypot(value[0], value[1])],
        go: () => goTo(model, over.get(node) ?? '', [position[0], position[1]]),
      };
    });
  }, [view, result, model]);
  return <ResultTable title="Supports" head="place" heads={['upright, kN', 'across, kN']} rows={rows} words={kilo} />;
}

/** N, Vz and My among the six inner forces. */
const told = [0, 2, 4];

/** The greatest forces inside each member. */
export function MemberPart({ view, result }: ResultProps) {
  const model = useModel('element');
  const rows = useMemo(
    () =>
      view.members.flatMap(({ element, kind, start, end, sound }, m): ResultRow[] => {
        if (!sound) return [];
        const row = model.element[elementOf(element)];
        const mark = row?.kind === 'beam' || row?.kind === 'column' ? row.shape.mark : '';
        const figures = told.map((force) => {
          let most = 0;
          for (let k = 0; k <= shownSteps; k += 1) {
            const value = result.inner[(m * (shownSteps + 1) + k) * 6 + force];
            if (Math.abs(value) > Math.abs(most)) most = value;
          }
          return most;
        });
        const middle: Point = [(start[0] + end[0]) / 2, (start[1] + end[1]) / 2];
        return [{ key: `M${m + 1}`, name: `${kind} ${mark}`.trim(), figures, go: () => goTo(model, element, middle) }];
      }),
    [view, result, model],
  );
  return <ResultTable title="Members" head="member" heads={['N, kN', 'Vz, kN', 'My, kNm']} rows={rows} words={kilo} />;
}

/** How far each level is displaced across. */
export function DriftPart({ result: { drift } }: { result: ShownResult }) {
  const model = useModel('level');
  if (drift.length === 0) return null;
  return (
    <Part title="Displaced across">
      <Table label="Displacement of levels" heads={['level', { text: 'mm', figures: true }]}>
        {drift.map(({ level, across }) => (
          <tr key={level}>
            <td>{model.level[level]?.name ?? level}</td>
            <td className="figures">{(across * 1000).toFixed(2)}</td>
          </tr>
        ))}
      </Table>
    </Part>
  );
}
