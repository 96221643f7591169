'use client';
import Box from '@mui/material/Box';
import type { BuildingReport } from '@/core/handover/intake/buildingReport';
import { formatNumber } from '@/core/units/length';
import { Table } from '@/ui/widgets/Table';
import { LeftOut } from './LeftOut';

/** What of a building came onto the plans of its storeys, and what did not. */
export function CutPart({ report }: { report: BuildingReport }) {
  const lost = report.leftOut.reduce((sum, { count }) => sum + count, 0);
  return (
    <>
      <Box sx={{ color: 'text.secondary', mb: 1 }}>
        {report.schema}, cut {cutWords(report)}.
      </Box>
      <Table
        label="Read of the building"
        heads={['in the building', { text: 'count', figures: true }, { text: 'on plans', figures: true }]}
      >
        {report.read.map(({ kind, count, drawn }) => (
          <tr key={kind}>
            <td>{kind}</td>
            <td className="figures">{count.toLocaleString('en')}</td>
            <td className="figures">{drawn.toLocaleString('en')}</td>
          </tr>
        ))}
      </Table>
      <Box component="b" sx={{ display: 'block', mt: 1 }}>
        {lost === 0 ? 'All of it is on plans.' : `On no plan: ${lost.toLocaleString('en')}`}
      </Box>
      <LeftOut lines={report.leftOut} />
      {report.warnings.map((warning) => (
        <Box key={warning} sx={{ py: 0.75, color: 'var(--mui-palette-zf-amber)' }}>
          {warning}
        </Box>
      ))}
    </>
  );
}

/** How high above the floors it was cut: once where that is the same of all. */
function cutWords({ storeys }: BuildingReport): string {
  const heights = storeys.map(({ elevation, cut }) => `${formatNumber(cut - elevation, 2)} m above`);
  if (new Set(heights).size === 1) return `${heights[0]} each floor`;
  return storeys.map(({ name }, i) => `${heights[i]} ${name}`).join(', ');
}
