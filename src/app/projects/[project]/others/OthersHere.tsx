'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import { useState } from 'react';
import type { Model } from '@/core/model/model';
import type { Other } from '@/project/others';
import { useModel, useOthers } from '@/project/useSession';
import { useView } from '@/project/view';
import { lookOf } from '@/ui/others';
import { lookAtElements } from '../finding/found';
import { nameOf } from './nameOf';

/** So many others are shown by their lines beside the count. */
const linesShown = 3;

/** Who else has the project open: their lines, and where they are when asked. Nothing where nobody else is here. */
export function OthersHere() {
  const others = useOthers();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  if (others.length === 0) return null;
  return (
    <>
      <Button
        size="small"
        variant="text"
        aria-haspopup="dialog"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ color: 'text.secondary', gap: 0.75, whiteSpace: 'nowrap' }}
      >
        {others.slice(0, linesShown).map(({ window, place }) => (
          <OtherLine key={window} place={place} width={18} />
        ))}
        {others.length === 1 ? '1 other here' : `${others.length} others here`}
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': 'Others here' } }}
      >
        <Box sx={{ p: 1.5, width: 380, maxHeight: 400, overflowY: 'auto' }}>
          {others.map((other) => (
            <OtherRow key={other.window} other={other} close={() => setAnchor(null)} />
          ))}
        </Box>
      </Popover>
    </>
  );
}

/** A piece of the line that somebody is outlined with on the board. */
function OtherLine({ place, width }: { place: number; width: number }) {
  const { colour, pattern } = lookOf(place);
  return (
    <svg width={width} height={4} aria-hidden style={{ flex: 'none' }}>
      <line
        x2={width}
        y1={2}
        y2={2}
        stroke={`var(--mui-palette-zf-${colour})`}
        strokeWidth={2.5}
        strokeDasharray={pattern.join(' ')}
      />
    </svg>
  );
}

/** Where somebody is, in words. */
function whereabouts(model: Model, { station, levelId, faceOn, count }: Other): string {
  const on = faceOn === null ? model.level[levelId ?? '']?.name : model.drawing[faceOn]?.name;
  return [
    station.slice(0, 1).toUpperCase() + station.slice(1),
    ...(on === undefined ? [] : [on]),
    ...(count === 0 ? [] : [`${count.toLocaleString('en')} selected`]),
  ].join(', ');
}

function OtherRow({ other, close }: { other: Other; close: () => void }) {
  const model = useModel('level', 'drawing', 'element');
  const look = () => {
    const { levelId, faceOn, selected } = other;
    // What is selected on another level is not what is looked at.
    const elements = selected.flatMap((id) => model.element[id] ?? []).filter((row) => row.levelId === levelId);
    useView.getState().set({ levelId, faceOn, inSpace: false, only: null });
    if (faceOn === null && elements.length > 0) lookAtElements(model, elements);
    close();
  };
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.25, py: 0.5 }}>
      <OtherLine place={other.place} width={36} />
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ fontWeight: 600, overflow: 'hidden', textOverflow: 'ellipsis' }}>{nameOf(other)}</Box>
        <Box sx={{ color: 'text.secondary' }}>{whereabouts(model, other)}</Box>
      </Box>
      <Button size="small" variant="outlined" onClick={look}>
        Look there
      </Button>
    </Box>
  );
}
