'use client';
import Box from '@mui/material/Box';
import { useMemo } from 'react';
import { counted } from '@/core/model/counted';
import type { Model } from '@/core/model/model';
import { boundariesOf } from '@/core/resolved/boundaries';
import { useMoment } from '@/project/useSession';

/** What bounds an accepted zone, in words. */
function boundsOf(state: Model, decision: string): string | null {
  const element = state.element[state.decision[decision]?.elementId ?? ''];
  if (!element) return null;
  const sides = boundariesOf([...state.index.onLevel(element.levelId)]).get(element.id) ?? [];
  if (sides.length === 0) return null;
  const beyond = [
    ...new Set(
      sides.map((side) => {
        const other = side.beyond === null ? undefined : state.element[side.beyond];
        return other?.kind === 'zone'
          ? other.shape.name || other.shape.number || 'a zone without a name'
          : 'the outside';
      }),
    ),
  ];
  const [walls, openings] = [
    new Set(sides.map(({ wall }) => wall)).size,
    new Set(sides.flatMap((side) => side.openings)).size,
  ];
  const around = `${counted(walls, 'wall')} with ${counted(openings, 'opening')}`;
  return `Bounded by ${around}; beyond lie ${beyond.join(', ')}.`;
}

/** What bounds an accepted zone; asked again only where the model or the zone changes. */
export function ZoneBounds({ decision }: { decision: string }) {
  const moment = useMoment('element', 'decision');
  const bounds = useMemo(() => boundsOf(moment.model, decision), [moment, decision]);
  return bounds === null ? null : <Box sx={{ mb: 1 }}>{bounds}</Box>;
}
