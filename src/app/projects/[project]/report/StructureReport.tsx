import type { Model } from '@/core/model/model';
import type { ShownResult, StructureView } from '@/core/structure/view';
import { kilonewtons, placeNames } from '@/stations/proof/trialWords';
import { Table } from '@/ui/widgets/Table';
import { Chapter, TakenForGranted } from './Chapter';
import { figures } from './figures';

/** The structural trial on paper: sums, supports, columns taken down, what can move, and what was taken for granted. */
export function StructureReport({ view, model }: { view: StructureView; model: Model }) {
  const last = view.results[view.results.length - 1];
  return (
    <>
      <Chapter title="Structure: the sum of forces">
        <Table label="Sums" heads={['case', ...figures('applied, kN', 'reactions, kN', 'difference, kN')]}>
          {view.results.map(({ id, applied, reactions }) => (
            <tr key={id}>
              <td>{id}</td>
              <td className="figures">{kilonewtons(-applied[2])}</td>
              <td className="figures">{kilonewtons(reactions[2])}</td>
              <td className="figures">{kilonewtons(applied[2] + reactions[2])}</td>
            </tr>
          ))}
        </Table>
      </Chapter>
      {view.findings.length > 0 && (
        <Chapter title="Structure: what was found">
          <ul>
            {view.findings.map(({ message, remedy }, i) => (
              <li key={i}>
                {message} {remedy}
              </li>
            ))}
          </ul>
        </Chapter>
      )}
      {last !== undefined && <Columns view={view} result={last} model={model} />}
      {last !== undefined && <Supports view={view} result={last} model={model} />}
      <TakenForGranted trial="Structure" assumed={view.assumed} />
    </>
  );
}

interface ResultProps {
  view: StructureView;
  result: ShownResult;
  model: Model;
}

function Columns({ result: { id, lines }, model }: ResultProps) {
  const named = placeNames(model);
  if (lines.length === 0) return null;
  return (
    <Chapter title={`Structure: columns taken down, ${id}`}>
      <Table
        label="Columns"
        heads={['at', 'storey', ...figures('carried, kN', 'by hand, kN', 'area by hand, m\u00b2')]}
      >
        {lines.flatMap(({ position, storeys }) =>
          storeys.map(({ element, level, carried, byHand, area }, i) => (
            <tr key={element}>
              <td>{i === 0 ? named([...position, 0]) : ''}</td>
              <td>{model.level[level]?.name ?? ''}</td>
              <td className="figures">{Number.isFinite(carried) ? kilonewtons(carried) : 'unknown'}</td>
              <td className="figures">{kilonewtons(byHand)}</td>
              <td className="figures">{area.toFixed(1)}</td>
            </tr>
          )),
        )}
      </Table>
    </Chapter>
  );
}

function Supports({ view, result: { id, supports }, model }: ResultProps) {
  const named = placeNames(model);
  return (
    <Chapter title={`Structure: what supports carry, ${id}`}>
      <Table label="Supports" heads={['at', ...figures('x, kN', 'y, kN', 'z, kN')]}>
        {supports.map(({ node, value }) => (
          <tr key={node}>
            <td>{named(view.nodes[node].position)}</td>
            {[0, 1, 2].map((i) => (
              <td key={i} className="figures">
                {kilonewtons(value[i])}
              </td>
            ))}
          </tr>
        ))}
      </Table>
    </Chapter>
  );
}
