'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useRef } from 'react';
import { contradiction, type MarkPlace } from '@/core/reading/beams/markPlaces';
import { Note } from '@/ui/widgets/Heading';
import type { Target } from './target';

/** The first place of a mark is looked at when the mark is another one, where possible on the drawing that is there. */
export function useFollowed(
  places: readonly MarkPlace[] | null,
  drawingId: string | undefined,
  go: (target: Target) => void,
): void {
  const followed = useRef<readonly MarkPlace[] | null>(null);
  useEffect(() => {
    if (followed.current === places || places === null || places.length === 0) return;
    followed.current = places;
    const best = places.find((one) => one.drawingId === drawingId && one.what !== 'mark') ?? places[0];
    go(targetOf(best));
  });
}

/** A place stands in the middle of its text; a row's in its key, perhaps with a word such as "Type" before it. */
const targetOf = ({ drawingId, at: [x, y], height, words, what }: MarkPlace): Target => {
  const letters = what === 'row' ? 6 : words.length;
  const half = (0.35 * letters + 0.5) * height;
  return {
    drawingId,
    height,
    corners: [
      [x - half, y - height],
      [x + half, y - height],
      [x + half, y + height],
      [x - half, y + height],
    ],
  };
};

const placeWords: Record<MarkPlace['what'], string> = { row: 'schedule', title: 'title', mark: 'plan' };

/** Where drawings have something of a mark, to be gone to. */
export function Marks({
  mark,
  places,
  go,
  names,
}: {
  mark: string;
  /** Null while they are sought. */
  places: readonly MarkPlace[] | null;
  go: (target: Target) => void;
  names: (id: string) => string;
}) {
  const against = places === null ? null : contradiction(mark.toUpperCase(), places, names);
  return (
    <Box role="region" aria-label={`Places of ${mark}`} sx={marksStyle}>
      {places === null && (
        <span role="status">
          looking for {mark} {'\u2026'}
        </span>
      )}
      {places?.length === 0 && <span>No open drawing has anything of {mark}.</span>}
      {places?.slice(0, 12).map((one) => (
        <Button
          key={`${one.drawingId} ${one.at.join()}`}
          size="small"
          variant="outlined"
          title={`${placeWords[one.what]} in ${names(one.drawingId)}`}
          onClick={() => go(targetOf(one))}
        >
          <span className="mono">{one.words}</span>&nbsp;({placeWords[one.what]}, {names(one.drawingId)})
        </Button>
      ))}
      {against !== null && <Note kind="look">{against}</Note>}
    </Box>
  );
}

const marksStyle = {
  display: 'flex',
  flexWrap: 'wrap',
  gap: 0.5,
  px: 1,
  py: 0.5,
  fontSize: 12,
  maxHeight: 132,
  overflowY: 'auto',
  borderBottom: '1px solid var(--mui-palette-divider)',
} as const;
