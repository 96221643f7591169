'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import { useState } from 'react';
import { signOf } from '@/core/units/sign';
import { formatLength, type LengthStyle } from '@/core/units/length';
import { standardViewNames, standardViews, type StandardView } from './orbit';

/** What of the model is seen, and how. */
export interface SpaceChoice {
  /** Whether the present level is seen alone. */
  alone: boolean;
  cut: number | null;
  through: boolean;
  axes: boolean;
}

interface Props {
  look: SpaceChoice;
  /** The name of the present level; null where there is none. */
  level: string | null;
  /** The least and the greatest height of what is seen, metres. */
  heights: readonly [number, number];
  lengths: LengthStyle;
  change: (look: Partial<SpaceChoice>) => void;
  turn: (view: StandardView) => void;
}

/** How the model in space is looked at: from where, which levels, cut, see-through, true or as axes. */
export function SpaceStrip({ look, level, heights, lengths, change, turn }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [low, high] = heights;
  const cut = look.cut ?? high;
  return (
    <Box component="section" aria-label="How the model is seen" sx={stripStyle}>
      <Button variant="text" aria-haspopup="menu" onClick={(event) => setAnchor(event.currentTarget)}>
        Look from {'\u2026'}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {standardViewNames.map((name) => (
          <MenuItem
            key={name}
            onClick={() => {
              setAnchor(null);
              turn(name);
            }}
          >
            {standardViews[name].words}
          </MenuItem>
        ))}
      </Menu>
      <Turn
        on={look.alone}
        words={level === null ? 'One level alone' : `Only ${level}`}
        disabled={level === null}
        press={() => change({ alone: !look.alone })}
      />
      <Turn on={look.through} words="See through" press={() => change({ through: !look.through })} />
      <Turn on={look.axes} words="Axes" press={() => change({ axes: !look.axes })} />
      <Turn
        on={look.cut !== null}
        words={look.cut === null ? 'Cut' : `Cut at ${signOf(cut)}${formatLength(cut, lengths)}`}
        press={() => change({ cut: look.cut === null ? low + (high - low) / 2 : null })}
      />
      {look.cut !== null && (
        <Slider
          size="small"
          aria-label="Height of the cut"
          min={low}
          max={high}
          step={0.05}
          value={cut}
          valueLabelDisplay="off"
          getAriaValueText={(value) => formatLength(value, lengths)}
          onChange={(_, value) => change({ cut: Number(value) })}
          sx={{ width: 110, mx: 1 }}
        />
      )}
    </Box>
  );
}

interface TurnProps {
  on: boolean;
  words: string;
  press: () => void;
  disabled?: boolean;
}

function Turn({ on, words, press, disabled = false }: TurnProps) {
  return (
    <Button
      variant="text"
      aria-pressed={on}
      disabled={disabled}
      onClick={press}
      sx={{ background: on ? 'var(--mui-palette-zf-zirconSoft)' : 'none' }}
    >
      {words}
    </Button>
  );
}

const stripStyle = {
  position: 'absolute',
  left: 10,
  bottom: 10,
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  gap: 0.5,
  maxWidth: 'calc(100% - 80px)',
  px: 0.75,
  py: 0.25,
  border: '1px solid var(--mui-palette-divider)',
  borderRadius: '5px',
  background: 'var(--mui-palette-zf-panel)',
} as const;
