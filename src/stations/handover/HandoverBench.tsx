'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { unitNames } from '@/core/units/length';
import { activeDrawings, orderedLevels, useProject } from '@/project/store';
import { useView } from '@/project/view';
import { BenchHead, Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

/** The model out, in open formats. */
export function HandoverBench() {
  const { id, state } = useProject();
  const setView = useView((view) => view.set);
  const elements = Object.values(state.element);
  const drawings = activeDrawings(state);
  const open = drawings.filter((drawing) => !state.placement[drawing.id]?.confirmed);
  const count = (kind: string, level: string | null) => elements.filter((element) => element.kind === kind && (level === null || element.levelId === level)).length;
  return (
    <>
      <BenchHead title="Handover" about={elements.length === 0 ? 'The model is empty' : `${elements.length} elements`} />
      {elements.length === 0 && <Note kind="plain">Nothing has been accepted yet. <Button variant="text" onClick={() => setView({ station: 'reading' })}>Go to Reading</Button></Note>}
      {open.length > 0 && elements.length > 0 && <Note kind="look">The unit of {open.map((drawing) => drawing.name).join(', ')} is not confirmed; all sizes follow from it. <Button variant="text" onClick={() => setView({ station: 'datum' })}>Go to Datum</Button></Note>}
      {elements.length > 0 && (
        <>
          <Part title="In the model">
            <Table label="In the model" heads={['', { text: 'grid lines', figures: true }, { text: 'columns', figures: true }]}>
              {orderedLevels(state).reverse().map((level) => <tr key={level.id}><td>{level.name}</td><td className="figures" /><td className="figures">{count('column', level.id)}</td></tr>)}
              <tr><td><b>All levels</b></td><td className="figures">{count('grid', null)}</td><td className="figures">{count('column', null)}</td></tr>
            </Table>
          </Part>
          <Part title="Model, as JSON">
            <Box sx={{ color: 'text.secondary', mb: 1 }}>Metres and degrees, in the project{'\u2019'}s coordinates, each element with its source. The schema is in the program{'\u2019'}s documents.</Box>
            <Button variant="contained" href={`/api/projects/${id}/handover/model.json`} download>Save model.json</Button>
          </Part>
          <Part title="Model, as DXF over a drawing">
            <Box sx={{ color: 'text.secondary', mb: 1 }}>On layers of its own, in the drawing{'\u2019'}s unit and on its origin: it lies exactly over the original.</Box>
            {drawings.map((drawing) => (
              <Box key={drawing.id} sx={{ display: 'flex', alignItems: 'center', gap: 1, borderBottom: '1px solid var(--mui-palette-divider)', py: 0.5 }}>
                <Box sx={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>{drawing.name} <Box component="span" sx={{ color: 'text.secondary' }}>in {unitNames[state.placement[drawing.id].unit]}</Box></Box>
                <Button variant="outlined" href={`/api/projects/${id}/handover/model.dxf?drawing=${drawing.id}`} download>Save DXF</Button>
              </Box>
            ))}
          </Part>
        </>
      )}
    </>
  );
}
