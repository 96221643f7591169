'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import type { DrawingRow } from '@/core/model/state';
import { formatNumber, metresPer, unitNames, type LengthUnit } from '@/core/units/length';
import { useIntake } from '@/project/useIntake';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { TabLine } from '@/ui/widgets/TabLine';
import { count } from './format';
import { LeftOut } from './LeftOut';
import { OriginPart } from './OriginPart';
import { OverviewPicture } from './Overview';

const views = [
  { name: 'kind', word: 'By kind' },
  { name: 'layer', word: 'By layer' },
  { name: 'block', word: 'By block' },
] as const;
type View = (typeof views)[number]['name'];

const figure = (n: number) => n.toLocaleString('en');

/** Lists of a report show this many lines until more are asked for. */
const shortList = 40;

/** The intake report of one drawing. @param unit in which its lengths are, as far as that is known */
export function IntakeReport({ drawing, unit }: { drawing: DrawingRow; unit: LengthUnit }) {
  const { address, report, problem } = useIntake(drawing.fileId);
  const [view, setView] = useState<View>('kind');
  if (problem !== null) return <Note kind="wrong">{problem}</Note>;
  if (report === null) return null;
  const total = report.read.reduce((sum, row) => sum + row.count, 0);
  const lost = report.leftOut.reduce((sum, row) => sum + row.count, 0);
  const csv = address.replace(/\.json$/, '.csv');
  return (
    <>
      <Part
        title="Intake report"
        aside={
          <Box>
            <Button variant="text" href={`${address}?download`}>
              Save as JSON
            </Button>
            <Button variant="text" href={csv}>
              as CSV
            </Button>
          </Box>
        }
      >
        <ShareBar read={total} lost={lost} />
        <Box sx={{ color: 'text.secondary', my: 1, overflowWrap: 'anywhere' }}>
          <HeaderFacts report={report} drawing={drawing} />
        </Box>
        {report.overview && (
          <OverviewPicture overview={report.overview} main={report.extents.main} strays={report.strays} />
        )}
        <Extents report={report} unit={unit} />
      </Part>
      <OriginPart fileId={drawing.fileId} />
      <Part
        title={lost === 0 ? 'Nothing was left out' : `Left out: ${figure(lost)} ${lost === 1 ? 'entity' : 'entities'}`}
      >
        <LeftOut lines={report.leftOut} />
      </Part>
      {report.references.length > 0 && (
        <Part title={`Missing files: ${report.references.length}`}>
          {report.references.map(({ kind, path, name }) => (
            <Box
              key={path}
              sx={{ borderBottom: '1px solid var(--mui-palette-divider)', py: 0.75, overflowWrap: 'anywhere' }}
            >
              <b>{kind}</b> <span className="mono">{path}</span>
              {name && (
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {' '}
                  as block {name}
                </Box>
              )}
            </Box>
          ))}
        </Part>
      )}
      <Part title="Read">
        <TabLine label="Account" tabs={views} present={view} turn={setView} />
        {view === 'kind' && (
          <Table
            label="Read by kind"
            heads={['kind', { text: 'entities', figures: true }, { text: 'lines', figures: true }]}
          >
            {report.read.map((row) => (
              <tr key={row.kind}>
                <td>{row.kind}</td>
                <td className="figures">{figure(row.count)}</td>
                <td className="figures">{figure(row.primitives)}</td>
              </tr>
            ))}
          </Table>
        )}
        {view === 'layer' && (
          <Lines
            label="Read by layer"
            head="layer"
            rows={report.layers.map((layer) => ({
              name: layer.name,
              about: kindsOf(layer.kinds),
              entities: layer.entities,
              lines: layer.primitives,
            }))}
          />
        )}
        {view === 'block' && (
          <Lines
            label="Read by block"
            head="block"
            rows={report.blocks.map((block) => ({
              name: block.name,
              about: block.reference
                ? `missing: ${block.reference}`
                : `${kindsOf(block.kinds) || 'empty'}; inserted ${figure(block.inserted)} ${block.inserted === 1 ? 'time' : 'times'}`,
              entities: block.entities,
              lines: block.primitives,
            }))}
          />
        )}
      </Part>
      {report.warnings.length > 0 && (
        <Part title={`Warnings: ${report.warnings.length}`}>
          {report.warnings.map((warning, i) => (
            <Box key={i} sx={{ borderBottom: '1px solid var(--mui-palette-divider)', py: 0.75 }}>
              {warning.message}
              {warning.handle ? ` (handle ${warning.handle})` : ''}
            </Box>
          ))}
        </Part>
      )}
    </>
  );
}

const kindsOf = (kinds: Record<string, number>) =>
  Object.entries(kinds)
    .sort((a, b) => b[1] - a[1])
    .map(([kind, n]) => `${figure(n)} ${kind}`)
    .join(', ');

function HeaderFacts({ report, drawing }: { report: IntakeFile; drawing: DrawingRow }) {
  const facts = [
    drawing.fileName,
    report.dxfVersion,
    ...(report.codePage && report.dxfVersion < 'AC1021' ? [report.codePage] : []),
    `header unit ${report.unit.header ? unitNames[report.unit.header] : 'not given'}`,
  ];
  if (report.header.measurement !== null) facts.push(report.header.measurement === 0 ? 'imperial' : 'metric');
  if (report.header.dimensionFactor !== null && report.header.dimensionFactor !== 1)
    facts.push(`dimensions times ${formatNumber(report.header.dimensionFactor, 4)}`);
  return <>{[...facts, count(report.layers.length, 'layer'), count(report.blocks.length, 'block')].join(', ')}</>;
}

function Extents({ report, unit }: { report: IntakeFile; unit: LengthUnit }) {
  const { all, main } = report.extents;
  if (!all || !main) return <Box sx={{ color: 'text.secondary' }}>Nothing in it can be drawn.</Box>;
  const size = ([low, high]: NonNullable<typeof all>) =>
    `${formatNumber(high[0] - low[0], 2)} \u00d7 ${formatNumber(high[1] - low[1], 2)}`;
  const far = Math.max(0, ...report.strays.map(({ away }) => away));
  return (
    <Box sx={{ '& .mono': { whiteSpace: 'nowrap' } }}>
      Main content <span className="mono">{size(main)}</span>, all of it <span className="mono">{size(all)}</span> (
      {unit}).
      {report.strays.length > 0 && (
        <>
          {' '}
          <Box component="b" sx={{ color: 'var(--mui-palette-zf-amber)' }}>
            {report.strays.length === 1 ? '1 stray' : `${report.strays.length} strays`}, the furthest{' '}
            {formatNumber(far * metresPer[unit], far * metresPer[unit] < 10 ? 2 : 0)} m away.
          </Box>
        </>
      )}
    </Box>
  );
}

function Lines({
  label,
  head,
  rows,
}: {
  label: string;
  head: string;
  rows: { name: string; about: string; entities: number; lines: number }[];
}) {
  const [all, setAll] = useState(false);
  const shown = all ? rows : rows.slice(0, shortList);
  return (
    <>
      <Table label={label} heads={[head, { text: 'entities', figures: true }, { text: 'lines', figures: true }]}>
        {shown.map((row) => (
          <tr key={row.name}>
            <td style={{ overflowWrap: 'anywhere' }}>
              {row.name}
              <Box sx={{ fontSize: 11.5, color: 'text.secondary' }}>{row.about}</Box>
            </td>
            <td className="figures">{figure(row.entities)}</td>
            <td className="figures">{figure(row.lines)}</td>
          </tr>
        ))}
      </Table>
      {rows.length > shown.length && (
        <Button variant="text" onClick={() => setAll(true)}>
          Show all {figure(rows.length)}
        </Button>
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
      <Box sx={{ fontSize: 12, color: 'text.secondary' }}>
        <span className="mono">{figure(read)}</span> read
        {lost > 0 && (
          <>
            , <span className="mono">{figure(lost)}</span> left out
          </>
        )}
      </Box>
    </Box>
  );
}
