'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { put } from '@/core/model/edits';
import { orderedLevels, useProject } from '@/project/store';
import { useDrawing } from '@/project/useDrawing';
import { DrawingChoice } from '@/ui/widgets/DrawingChoice';
import { BenchHead, Part } from '@/ui/widgets/Heading';
import { NoDrawing } from '@/ui/widgets/NoDrawing';
import { MeasurePart } from './MeasurePart';
import { OriginPart } from './OriginPart';
import { RegistrationPart } from './RegistrationPart';
import { UnitPart } from './UnitPart';
import { useReplace } from './useReplace';

/** Unit, origin and level of a drawing, and measuring to check them. */
export function DatumBench() {
  const subject = useDrawing();
  const { state, commit } = useProject();
  const { replace, question } = useReplace();
  if (!subject) return <NoDrawing title="Datum" />;
  const { drawing, placement, underlay } = subject;
  return (
    <>
      <BenchHead title="Datum" about={<DrawingChoice drawingId={drawing.id} />} />
      <UnitPart drawing={drawing} placement={placement} underlay={underlay} replace={replace} />
      <OriginPart drawing={drawing} placement={placement} replace={replace} />
      <RegistrationPart key={drawing.id} drawing={drawing} placement={placement} replace={replace} />
      <MeasurePart placement={placement} />
      <Part title="Level">
        <Select
          size="small" fullWidth displayEmpty value={drawing.levelId ?? ''} inputProps={{ 'aria-label': 'Level of the drawing' }}
          onChange={(event) => void commit((now) => {
            const levelId = event.target.value || null;
            return { label: `${drawing.name} at ${levelId ? now.level[levelId].name : 'no level'}`, changes: [put('drawing', { ...now.drawing[drawing.id], levelId })] };
          })}
        >
          <MenuItem value="">No level yet</MenuItem>
          {orderedLevels(state).map((level) => <MenuItem key={level.id} value={level.id}>{level.name}</MenuItem>)}
        </Select>
      </Part>
      {question}
    </>
  );
}
