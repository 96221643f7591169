'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { hangsOn } from '@/core/model/levels';
import { activeDrawings } from '@/project/projectRow';
import { useModel } from '@/project/useSession';
import { useView } from '@/project/view';

/** Which drawing a bench is about; plain words where there is only one. */
export function DrawingChoice({ drawingId }: { drawingId: string }) {
  const drawings = activeDrawings(useModel('level', 'drawing'));
  const { levelId, set } = useView();
  const state = useModel('level', 'drawing');
  // A drawing of another level is seen there.
  const take = (id: string) => {
    const own = state.drawing[id]?.levelId ?? null;
    set({
      drawingId: id,
      faceOn: null,
      ...(own !== null && !hangsOn(state, state.drawing[id], levelId) ? { levelId: own } : {}),
    });
  };
  const here = drawings.find((drawing) => drawing.id === drawingId);
  if (drawings.length < 2) return <>{here ? `${here.fileName}, revision ${here.revision}` : ''}</>;
  return (
    <Select
      size="small"
      variant="standard"
      value={drawingId}
      onChange={(event) => take(event.target.value)}
      inputProps={{ 'aria-label': 'Drawing' }}
    >
      {drawings.map((drawing) => (
        <MenuItem key={drawing.id} value={drawing.id}>
          {drawing.name}
        </MenuItem>
      ))}
    </Select>
  );
}
