'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { DrawingRow } from '@/core/model/state';
import { unitNames } from '@/core/units/length';
import { useIntake } from '@/project/useIntake';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { count } from './format';

/** The intake report of one drawing. */
export function IntakeReport({ drawing }: { drawing: DrawingRow }) {
  const { address, report, problem } = useIntake(drawing.fileId);
  if (problem !== null) return <Note kind="wrong">{problem}</Note>;
  if (report === null) return null;
  const total = report.read.reduce((sum, row) => sum + row.count, 0);
  const lost = report.leftOut.reduce((sum, row) => sum + row.count, 0);
  return (
    <>
      <Part title="Intake report" aside={<Button variant="text" href={`${address}?download`}>Save as JSON</Button>}>
        <Box sx={{ color: 'text.secondary', mb: 1, overflowWrap: 'anywhere' }}>{drawing.fileName}, {report.dxfVersion}, header unit {report.unit.header ? unitNames[report.unit.header] : 'not given'}, {count(report.layers.length, 'layer')}</Box>
        <ShareBar read={total} lost={lost} />
        <Table label="Read" heads={['Read', { text: 'entities', figures: true }, { text: 'lines', figures: true }]}>
          {report.read.map((row) => <tr key={row.kind}><td>{row.kind}</td><td className="figures">{row.count.toLocaleString('en')}</td><td className="figures">{row.primitives.toLocaleString('en')}</td></tr>)}
        </Table>
      </Part>
      <Part title={lost === 0 ? 'Nothing was left out' : `Left out: ${lost.toLocaleString('en')} ${lost === 1 ? 'entity' : 'entities'}`}>
        {report.leftOut.map((row) => (
          <Box key={row.kind + row.reason} sx={{ borderBottom: '1px solid var(--mui-palette-divider)', py: 0.75 }}>
            <b>{row.count.toLocaleString('en')} {row.kind}</b> {'\u2013'} {row.reason} <Box component="span" sx={{ color: 'text.secondary' }}>{row.remedy}</Box>
          </Box>
        ))}
      </Part>
      {report.warnings.length > 0 && (
        <Part title={`Warnings: ${report.warnings.length}`}>
          {report.warnings.map((warning, i) => <Box key={i} sx={{ borderBottom: '1px solid var(--mui-palette-divider)', py: 0.75 }}>{warning.message}{warning.handle ? ` (handle ${warning.handle})` : ''}</Box>)}
        </Part>
      )}
    </>
  );
}

/** What was read beside what was left out, to scale. */
function ShareBar({ read, lost }: { read: number; lost: number }) {
  const share = read + lost === 0 ? 0 : read / (read + lost);
  return (
    <Box sx={{ mb: 1 }}>
      <svg width="100%" height={10} role="img" aria-label={`${read} of ${read + lost} entities read`}>
        <rect width="100%" height={10} fill="var(--mui-palette-zf-amber)" opacity={lost > 0 ? 0.8 : 0} />
        <rect width={`${share * 100}%`} height={10} fill="var(--mui-palette-zf-zircon)" />
      </svg>
      <Box sx={{ fontSize: 12, color: 'text.secondary' }}><span className="mono">{read.toLocaleString('en')}</span> read{lost > 0 && <>, <span className="mono">{lost.toLocaleString('en')}</span> left out</>}</Box>
    </Box>
  );
}
