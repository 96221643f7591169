'use client';
import Box from '@mui/material/Box';
import { useEffect, useState } from 'react';
import { kinds } from '@/core/kinds/kinds';
import { groupBy } from '@/core/groupBy';
import { counted } from '@/core/model/counted';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { judged, type Judged } from '@/core/proof/acceptances';
import { comparisonRules } from '@/core/comparison/findings';
import { inOrder, severities } from '@/core/proof/finding';
import { rules } from '@/core/proof/prove';
import { closeComparisons, compareAll, useComparisons } from '@/project/comparisons';
import { closeHeat, runHeat, useHeat } from '@/project/heat';
import { closeLight, runLight, useLight } from '@/project/light';
import { closeMirror, findingsIn } from '@/project/mirror';
import { openProject } from '@/project/openProject';
import { projectRowOf } from '@/project/projectRow';
import type { Session } from '@/project/session';
import { cancelTrial, runTrial, useTrial } from '@/project/trial';
import { closeUnderlays } from '@/project/underlays';
import { openView, useView } from '@/project/view';
import { Table } from '@/ui/widgets/Table';
import { Gone } from '../Gone';
import { Chapter } from './Chapter';
import { DrawingsReport } from './DrawingsReport';
import { HeatReport } from './HeatReport';
import { LightReport } from './LightReport';
import { Sheet } from './Sheet';
import { StructureReport } from './StructureReport';

/** A project with what the rules found in it; a sentence where it cannot be opened. */
interface Opened {
  session: Session | null;
  findings: Judged[] | null;
  problem: string | null;
}

/** Opens a project as it is now, asks the rules and calculates it. */
function useOpened(id: string): Opened {
  const [opened, setOpened] = useState<Opened>({ session: null, findings: null, problem: null });
  useEffect(() => {
    let here = true;
    const open = async () => {
      try {
        const session = await openProject(id);
        if (here) setOpened({ session, findings: null, problem: null });
        await openView(id);
        const [found] = await Promise.all([findingsIn(session.model), compareAll(session, () => here)]);
        const beside = Object.values(useComparisons.getState().made).flatMap(({ findings }) => findings);
        if (here)
          setOpened({ session, findings: judged(inOrder([...found, ...beside]), session.model), problem: null });
        await runTrial(session);
        if (here && session.model.count('element') > 0) await runHeat(session);
        if (here && [...session.model.ofKind('luminaire')].length > 0) await runLight(session);
      } catch (error) {
        if (here) setOpened({ session: null, findings: null, problem: (error as Error).message });
      }
    };
    void open();
    return () => {
      here = false;
      cancelTrial();
      closeHeat();
      closeLight();
      closeMirror();
      closeComparisons();
      closeUnderlays();
    };
  }, [id]);
  return opened;
}

/** A report of Proof that prints well: what was checked, what is open, what was accepted and why, and the trial. */
export function Report({ id }: { id: string }) {
  const { session, findings, problem } = useOpened(id);
  const { view, problem: untried } = useTrial();
  const heat = useHeat(({ view: made }) => made);
  const light = useLight(({ view: made }) => made);
  const made = useComparisons((store) => store.made);
  const tolerance = useView((look) => look.driftTolerance);
  if (problem !== null) return <Gone message={problem} />;
  if (session === null || findings === null)
    return (
      <Box role="status" sx={{ p: 4 }}>
        Putting the report together &hellip;
      </Box>
    );
  const { model } = session;
  const { history } = session.facts.getState();
  return (
    <Sheet
      project={id}
      title={`${projectRowOf(model).name}: report of Proof`}
      about={
        <>
          The model after step <span className="mono">{history.version}</span>
          {history.savedAt === null ? '' : `, saved ${new Date(history.savedAt).toLocaleString('en-GB')}`}
        </>
      }
    >
      <Contents model={model} />
      <Checked findings={findings} />
      <DrawingsReport model={model} made={made} tolerance={tolerance} />
      <Open findings={findings.filter(({ accepted }) => accepted === null)} />
      <Accepted findings={findings.filter(({ accepted }) => accepted !== null)} />
      {untried !== null && <Chapter title="Structure">It could not be calculated: {untried}</Chapter>}
      {view === null && untried === null && (
        <Chapter title="Structure">
          <span role="status">Calculating &hellip;</span>
        </Chapter>
      )}
      {view !== null && <StructureReport view={view} model={model} />}
      {heat !== null && heat.zones.length > 0 && <HeatReport view={heat} />}
      {light !== null && <LightReport view={light} model={model} />}
    </Sheet>
  );
}

/** How many elements of each kind each level has. */
function Contents({ model }: { model: Model }) {
  const levels = [...levelsUp(model)].reverse();
  const own = groupBy(Object.values(model.element), ({ levelId }) => levelId);
  return (
    <Chapter title="The model">
      <Table label="Elements of levels" heads={['level', { text: 'elevation, m', figures: true }, 'elements']}>
        {levels.map(({ id, name, elevation }) => (
          <tr key={id}>
            <td>{name}</td>
            <td className="figures">{elevation.toFixed(3)}</td>
            <td>
              {[...groupBy(own.get(id) ?? [], ({ kind }) => kind)]
                .map(([kind, rows]) => `${rows.length} ${kinds[kind].names[rows.length === 1 ? 0 : 1]}`)
                .join(', ') || 'none'}
            </td>
          </tr>
        ))}
      </Table>
    </Chapter>
  );
}

/** Every rule that was asked, with what it found. */
function Checked({ findings }: { findings: readonly Judged[] }) {
  const heads = [...severities.map((severity) => `${severity}s`), 'accepted'];
  return (
    <Chapter title="What was checked">
      <Table label="Rules" heads={['rule', ...heads.map((text) => ({ text, figures: true as const }))]}>
        {[...rules.map(({ name }) => name), ...comparisonRules].map((name) => {
          const own = findings.filter(({ finding }) => finding.rule === name);
          const open = own.filter(({ accepted }) => accepted === null);
          return (
            <tr key={name}>
              <td>{name}</td>
              {severities.map((severity) => (
                <td key={severity} className="figures">
                  {open.filter(({ finding }) => finding.severity === severity).length}
                </td>
              ))}
              <td className="figures">{own.length - open.length}</td>
            </tr>
          );
        })}
      </Table>
    </Chapter>
  );
}

const place = ([x, y, z]: readonly number[]): string => [x, y, z].map((v) => v.toFixed(2)).join(', ');

function Open({ findings }: { findings: readonly Judged[] }) {
  return (
    <Chapter title={`Open: ${counted(findings.length, 'finding')}`}>
      {findings.length === 0 && 'Nothing is open.'}
      {findings.length > 0 && (
        <Table label="Open findings" heads={['what', 'place, m', 'what to do']}>
          {findings.map(({ finding }, i) => (
            <tr key={i}>
              <td>
                <b>{finding.severity}</b> {finding.message}
              </td>
              <td className="mono">{place(finding.position)}</td>
              <td>{finding.remedy}</td>
            </tr>
          ))}
        </Table>
      )}
    </Chapter>
  );
}

function Accepted({ findings }: { findings: readonly Judged[] }) {
  if (findings.length === 0) return null;
  return (
    <Chapter title={`Accepted: ${counted(findings.length, 'finding')}`}>
      <Table label="Accepted findings" heads={['what', 'why']}>
        {findings.map(({ finding, accepted }) => (
          <tr key={accepted!.id}>
            <td>{finding.message}</td>
            <td>{accepted!.reason}</td>
          </tr>
        ))}
      </Table>
    </Chapter>
  );
}
