'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { kinds } from '@/core/kinds/kinds';
import { groupBy } from '@/core/groupBy';
import { counted } from '@/core/model/counted';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { judged, type Judged } from '@/core/proof/acceptances';
import { severities } from '@/core/proof/finding';
import { rules } from '@/core/proof/prove';
import { closeMirror, findingsIn } from '@/project/mirror';
import { openProject } from '@/project/openProject';
import { projectRowOf } from '@/project/projectRow';
import type { Session } from '@/project/session';
import { cancelTrial, runTrial, useTrial } from '@/project/trial';
import { Table } from '@/ui/widgets/Table';
import { Gone } from '../Gone';
import { Chapter } from './Chapter';
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
        const found = await findingsIn(session.model);
        if (here) setOpened({ session, findings: judged(found, session.model), problem: null });
        await runTrial(session.model);
      } catch (error) {
        if (here) setOpened({ session: null, findings: null, problem: (error as Error).message });
      }
    };
    void open();
    return () => {
      here = false;
      cancelTrial();
      closeMirror();
    };
  }, [id]);
  return opened;
}

/** A report of Proof that prints well: what was checked, what is open, what was accepted and why, and the trial. */
export function Report({ id }: { id: string }) {
  const { session, findings, problem } = useOpened(id);
  const { view, problem: untried } = useTrial();
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
    <Box component="main" sx={paper}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2 }}>
        <Box component="h1" sx={{ m: 0, fontSize: 24, flex: 1 }}>
          {projectRowOf(model).name}: report of Proof
        </Box>
        <Box sx={{ '@media print': { display: 'none' } }}>
          <Button variant="outlined" href={`/projects/${id}`} sx={{ mr: 1 }}>
            Back to the project
          </Button>
          <Button variant="contained" onClick={() => window.print()}>
            Print
          </Button>
        </Box>
      </Box>
      <Box sx={{ color: 'text.secondary', mb: 2 }}>
        The model after step <span className="mono">{history.version}</span>
        {history.savedAt === null ? '' : `, saved ${new Date(history.savedAt).toLocaleString('en-GB')}`}
      </Box>
      <Contents model={model} />
      <Checked findings={findings} />
      <Open findings={findings.filter(({ accepted }) => accepted === null)} />
      <Accepted findings={findings.filter(({ accepted }) => accepted !== null)} />
      {untried !== null && <Chapter title="Structure">It could not be calculated: {untried}</Chapter>}
      {view === null && untried === null && (
        <Chapter title="Structure">
          <span role="status">Calculating &hellip;</span>
        </Chapter>
      )}
      {view !== null && <StructureReport view={view} model={model} />}
    </Box>
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
        {rules.map(({ name }) => {
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

const paper = {
  maxWidth: 980,
  mx: 'auto',
  p: 4,
  minHeight: '100vh',
  background: 'var(--mui-palette-zf-panel)',
  fontSize: 13,
  '& tr': { breakInside: 'avoid' },
  '@media print': { p: 0, maxWidth: 'none', background: 'none' },
} as const;
