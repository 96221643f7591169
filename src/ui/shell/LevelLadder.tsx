'use client';
import { signOf } from '@/core/units/sign';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import { useState } from 'react';
import { belowGround } from '@/core/model/levels';
import type { LevelRow } from '@/core/model/state';
import { formatLength, type LengthStyle } from '@/core/units/length';
import { LevelForm } from './LevelForm';

export interface LadderLevel extends LevelRow {
  drawings: string[];
  repeated: string | null;
}

interface Ladder {
  levels: LadderLevel[];
  present: string | null;
  unit: LengthStyle;
  go: (id: string) => void;
  /** Null for who may only look. */
  edit: Editing | null;
}

interface Editing {
  change: (level: LevelRow, shift: boolean) => void;
  /** Goes to the table of levels, where all of a level can be changed. */
  more: (id: string) => void;
  add: () => void;
}

/** Names closer than this on the ladder would lie on one another. */
const nameRoom = 27;

/** The levels whose names have room, the present one before all others. */
function named(levels: readonly LadderLevel[], at: (elevation: number) => number, present: string | null): Set<string> {
  const kept: LadderLevel[] = [];
  for (const level of [...levels].sort(
    (a, b) =>
      Number(b.id === present) - Number(a.id === present) || Number(a.repeats !== null) - Number(b.repeats !== null),
  ))
    if (kept.every((other) => Math.abs(at(other.elevation) - at(level.elevation)) >= nameRoom)) kept.push(level);
  return new Set(kept.map(({ id }) => id));
}

const signed = (metres: number, unit: LengthStyle) => signOf(metres) + formatLength(metres, unit);

const storeyFill = (here: boolean, below: boolean): string => {
  if (here) return 'var(--mui-palette-zf-zirconSoft)';
  return below ? 'url(#below-ground)' : 'none';
};

/** A small section through the building, to scale: levels at their elevations, drawings hung on them. */
export function LevelLadder({ levels, present, unit, go, edit }: Ladder) {
  const [editing, setEditing] = useState<{ id: string; anchor: Element } | null>(null);
  const [low, high] = [
    Math.min(0, ...levels.map((level) => level.elevation)),
    Math.max(...levels.map((level) => level.elevation + level.height), 1),
  ];
  const [top, bottom, x, width] = [28, 400, 60, 26];
  const at = (elevation: number) => bottom - ((elevation - low) / (high - low)) * (bottom - top);
  const edited = levels.find((level) => level.id === editing?.id);
  const names = named(levels, at, present);
  const ground = at(0);
  return (
    <Box
      component="aside"
      aria-label="Levels"
      sx={{
        width: 112,
        flex: 'none',
        display: 'flex',
        flexDirection: 'column',
        background: 'var(--mui-palette-zf-panel)',
        borderLeft: '1px solid var(--mui-palette-divider)',
        overflowY: 'auto',
      }}
    >
      <Box sx={{ px: 1.25, pt: 1.25, fontWeight: 600, color: 'text.secondary' }}>Levels</Box>
      <svg
        viewBox="0 0 111 430"
        width="100%"
        role="list"
        aria-label="Levels, from the section"
        style={{ fontFamily: "'Overpass', sans-serif" }}
      >
        <defs>
          <pattern id="below-ground" width={6} height={6} patternUnits="userSpaceOnUse">
            <path d="M0 6 6 0" stroke="var(--mui-palette-zf-slab)" strokeWidth={0.7} />
          </pattern>
        </defs>
        {levels.map((level) => {
          const here = level.id === present;
          const [y, roof] = [at(level.elevation), at(level.elevation + level.height)];
          return (
            <g key={level.id} role="listitem">
              <g
                role="button"
                tabIndex={0}
                aria-pressed={here}
                aria-label={[
                  level.name,
                  signed(level.elevation, unit),
                  ...(belowGround(level) ? ['below ground'] : []),
                  ...(level.repeated ? [`repeats ${level.repeated}`] : []),
                ].join(', ')}
                style={{ cursor: 'pointer' }}
                onClick={() => go(level.id)}
                onDoubleClick={(event) => edit && setEditing({ id: level.id, anchor: event.currentTarget })}
                onKeyDown={(event) => {
                  if (event.key === 'Enter' || event.key === ' ') {
                    event.preventDefault();
                    go(level.id);
                  }
                  if (event.key === 'F2' && edit) setEditing({ id: level.id, anchor: event.currentTarget });
                }}
              >
                <title>
                  {level.name}
                  {level.repeated ? `, repeats ${level.repeated}` : ''}
                </title>
                <rect x={0} y={roof} width={111} height={Math.max(2, y - roof)} fill="transparent" />
                <rect
                  x={x}
                  y={roof}
                  width={width}
                  height={Math.max(2, y - roof)}
                  fill={storeyFill(here, belowGround(level))}
                  stroke="var(--mui-palette-zf-line)"
                  strokeDasharray={level.repeats === null ? undefined : '2 3'}
                />
                <path
                  d={`M${x - 3} ${y}h${width + 6}`}
                  stroke={here ? 'var(--mui-palette-zf-zircon)' : 'var(--mui-palette-zf-ink)'}
                  strokeWidth={2.2}
                />
                {names.has(level.id) && (
                  <>
                    <text
                      x={6}
                      y={y - 17}
                      fontSize={11.5}
                      fontWeight={600}
                      fill={here ? 'var(--mui-palette-zf-zircon)' : 'var(--mui-palette-zf-ink)'}
                      textLength={level.name.length > 7 ? 46 : undefined}
                      lengthAdjust="spacingAndGlyphs"
                    >
                      {level.name.length > 10 ? `${level.name.slice(0, 9)}\u2026` : level.name}
                    </text>
                    <text
                      x={6}
                      y={y - 5}
                      fontSize={9}
                      fontFamily="'Overpass Mono', monospace"
                      fill="var(--mui-palette-zf-ink2)"
                    >
                      {signed(level.elevation, unit)}
                    </text>
                  </>
                )}
              </g>
              {level.drawings.slice(0, 4).map((name, i) => (
                <g key={name + String(i)}>
                  <title>{name}</title>
                  <path d={`M${x + width} ${(y + roof) / 2 + i * 7}h5`} stroke="var(--mui-palette-zf-ink2)" />
                  <rect
                    x={x + width + 5}
                    y={(y + roof) / 2 - 8 + i * 7}
                    width={9}
                    height={16}
                    fill="var(--mui-palette-zf-panel)"
                    stroke="var(--mui-palette-zf-ink2)"
                  />
                </g>
              ))}
            </g>
          );
        })}
        <g aria-hidden>
          <path
            d={`M2 ${ground}h${x - 10}M${x + width + 10} ${ground}h13`}
            stroke="var(--mui-palette-zf-slab)"
            strokeWidth={1.5}
          />
          <path
            d={
              [4, 12, 20].map((from) => `M${from + 5} ${ground}l-4 5`).join('') +
              [x + width + 12, x + width + 19].map((from) => `M${from + 4} ${ground}l-4 5`).join('')
            }
            stroke="var(--mui-palette-zf-slab)"
          />
        </g>
      </svg>
      {edit !== null && (
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 0.5, px: 1, pb: 1.5 }}>
          <Button
            variant="text"
            disabled={present === null}
            onClick={(event) => present && setEditing({ id: present, anchor: event.currentTarget })}
          >
            Edit level
          </Button>
          <Button variant="text" onClick={edit.add}>
            Add level
          </Button>
          <Button variant="text" disabled={present === null} onClick={() => present && edit.more(present)}>
            Table
          </Button>
        </Box>
      )}
      <Popover
        open={edited !== undefined}
        anchorEl={editing?.anchor ?? null}
        onClose={() => setEditing(null)}
        anchorOrigin={{ vertical: 'center', horizontal: 'left' }}
        transformOrigin={{ vertical: 'center', horizontal: 'right' }}
      >
        {edited && edit && (
          <LevelForm
            key={edited.id}
            level={rowOf(edited)}
            lengths={unit}
            levels={levels}
            done={() => setEditing(null)}
            change={edit.change}
            more={() => edit.more(edited.id)}
          />
        )}
      </Popover>
    </Box>
  );
}

/** The level without what the ladder knows of it. */
const rowOf = ({ drawings: _, repeated: __, ...row }: LadderLevel): LevelRow => row;
