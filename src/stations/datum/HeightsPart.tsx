'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useState } from 'react';
import { faceOn, place } from '@/core/datum/placement';
import { markAgreement, signedMetres, type SectionHeights } from '@/core/datum/sectionHeights';
import { levelsUp, takeElevations, type ReadElevation } from '@/core/model/levels';
import type { DrawingRow, LevelRow, PlacementRow } from '@/core/model/state';
import { formatNumber } from '@/core/units/length';
import { keyOf, useAnswer } from '@/project/useAnswer';
import { useModel, useCommit } from '@/project/useSession';
import { heightsIn, type Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

/** A height that was found in the section: written, or the edge of a slab. */
interface Found {
  key: string;
  name: string;
  elevation: number;
  aside: string;
  doubtful: boolean;
}

/** A level this close to a height is meant by it, metres. */
const near = 0.75;

/** For a height the level it is meant for, `new`, or `none`. */
type Choice = string;

/** Storey heights read from an upright drawing, to be taken over as levels. */
export function HeightsPart({
  drawing,
  placement,
  underlay,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay;
}) {
  const state = useModel('level');
  const commit = useCommit();
  const answer = useAnswer(keyOf(drawing.id, underlay.basis), () => heightsIn(drawing.id));
  const [choices, setChoices] = useState<Record<string, Choice>>({});
  const levels = levelsUp(state);
  if (answer === null)
    return (
      <Part title="Storey heights">
        <Box role="status" sx={{ color: 'text.secondary' }}>
          reading the heights {'\u2026'}
        </Box>
      </Part>
    );
  const read = answer.ok ? answer.value : answer;
  if (!read.ok)
    return (
      <Part title="Storey heights">
        <Note kind="look">{read.message}</Note>
      </Part>
    );
  const found = heightsOf(read.value, placement);
  const choice = (height: Found): Choice => choices[height.key] ?? suggestion(height, found, levels);
  const wanted = found.flatMap((height): ReadElevation[] => {
    const to = choice(height);
    return to === 'none'
      ? []
      : [
          {
            name: height.name || `Level ${signedMetres(height.elevation)}`,
            elevation: height.elevation,
            levelId: to === 'new' ? null : to,
          },
        ];
  });
  const changes = wanted.filter(
    ({ levelId, elevation }) => levelId === null || Math.abs(state.level[levelId].elevation - elevation) > 5e-4,
  );
  return (
    <Part title="Storey heights">
      <Box sx={{ mb: 0.5 }}>
        {read.value.marks.length > 0
          ? `${read.value.marks.length} elevations are written in the section.`
          : 'No elevations are written; these are the tops of what looks like slabs.'}
      </Box>
      <Table label="Storey heights" heads={['height', { text: 'elevation', figures: true }, 'becomes']}>
        {found.map((height) => (
          <tr key={height.key}>
            <td>
              {height.name || height.aside}
              {height.doubtful && (
                <Box component="span" sx={{ color: 'var(--mui-palette-zf-amber)' }}>
                  {' '}
                  {height.aside}
                </Box>
              )}
            </td>
            <td className="figures">{signedMetres(height.elevation)} m</td>
            <td>
              <Select
                size="small"
                variant="standard"
                value={choice(height)}
                inputProps={{ 'aria-label': `What ${height.name || signedMetres(height.elevation)} becomes` }}
                onChange={(event) => setChoices({ ...choices, [height.key]: event.target.value })}
              >
                <MenuItem value="none">nothing</MenuItem>
                <MenuItem value="new">a new level</MenuItem>
                {levels.map(({ id, name }) => (
                  <MenuItem key={id} value={id}>
                    {name}
                  </MenuItem>
                ))}
              </Select>
            </td>
          </tr>
        ))}
      </Table>
      <Button
        variant="contained"
        sx={{ mt: 1 }}
        disabled={changes.length === 0}
        onClick={() => {
          // What was made a level is one now; what is to be nothing stays so.
          setChoices(Object.fromEntries(Object.entries(choices).filter(([, to]) => to === 'none')));
          void commit((now) => takeElevations(now, wanted, () => crypto.randomUUID()));
        }}
      >
        {changes.length === 0
          ? 'The levels are so'
          : `Take over ${changes.length} ${changes.length === 1 ? 'height' : 'heights'}`}
      </Button>
    </Part>
  );
}

/** Written heights; without any, the slabs as they stand by the placement. */
function heightsOf({ marks, slabs }: SectionHeights, placement: PlacementRow): Found[] {
  if (marks.length > 0)
    return marks.map(({ name, elevation, off }) => ({
      key: `mark ${elevation}`,
      name,
      elevation,
      doubtful: Math.abs(off) > markAgreement,
      aside: `drawn ${formatNumber(Math.abs(off) * 1000, 0)} mm ${off > 0 ? 'higher' : 'lower'}`,
    }));
  const upright = faceOn(placement);
  return slabs.map(({ at, thickness }) => {
    const elevation = Number(place(upright, at)[1].toFixed(6));
    return {
      key: `slab ${elevation}`,
      name: '',
      elevation,
      doubtful: false,
      aside: `slab ${thickness === null ? '' : `of ${formatNumber(thickness * 1000, 0)} mm`}`,
    };
  });
}

/** A level of nearly the height or of the name, if no other height is nearer to it; else a new one. */
function suggestion(height: Found, all: readonly Found[], levels: readonly LevelRow[]): Choice {
  if (height.doubtful) return 'none';
  const level = [...levels].sort(
    (a, b) => Math.abs(a.elevation - height.elevation) - Math.abs(b.elevation - height.elevation),
  )[0];
  if (!level || Math.abs(level.elevation - height.elevation) > near) return 'new';
  const nearest = [...all].sort(
    (a, b) => Math.abs(level.elevation - a.elevation) - Math.abs(level.elevation - b.elevation),
  )[0];
  return nearest === height ? level.id : 'new';
}
