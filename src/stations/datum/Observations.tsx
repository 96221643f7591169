'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useEffect, useState } from 'react';
import type { Cue, UnitVerdict } from '@/core/datum/evidence/judge';
import type { Observation } from '@/core/datum/evidence/sizes';
import { seenAs } from '@/core/datum/evidence/words';
import { place } from '@/core/datum/placement';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { formatNumber, metresPer, unitNames, type LengthUnit } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { useOverlay } from '@/project/overlay';
import { Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';

/** Half the side of the mark at an observation, as a share of the board's width. */
const markShare = 0.006;

/** What one observation of a cue is called. */
const oneOf: Record<string, string> = {
  'dimension texts': 'this dimension',
  'numbers beside lines': 'this line',
  'door leaves': 'this door leaf',
  'column sides': 'this column',
  'wall pairs': 'this wall',
  'grid spacings': 'this bay',
  'stair goings': 'this going',
  'overall extent': 'all of it',
};

/** What was seen, each with what it comes to in the chosen unit and its weight; a click shows where. */
export function Observations({
  verdict,
  unit,
  scale,
  drawing,
  placement,
}: {
  verdict: UnitVerdict;
  unit: LengthUnit;
  scale: number;
  drawing: DrawingRow;
  placement: PlacementRow;
}) {
  const [shown, setShown] = useState<string | null>(null);
  const [one, setOne] = useState(0);
  const show = useOverlay((store) => store.show);
  const lookAt = useBoard((board) => board.lookAt);
  useEffect(() => () => show(null), [show]);
  const most = Math.max(1, ...verdict.cues.map((cue) => cue.weight));
  const mark = (observations: readonly Observation[], about: number) => {
    const half = about * markShare;
    const origin = observations[0].at;
    show({
      drawingId: drawing.id,
      origin: [...origin],
      parts: [
        {
          tone: 'evidence',
          lines: Float32Array.from(
            observations.flatMap(({ at: [x, y] }) => {
              const [cx, cy] = [x - origin[0], y - origin[1]];
              return [
                cx - half,
                cy,
                cx,
                cy + half,
                cx,
                cy + half,
                cx + half,
                cy,
                cx + half,
                cy,
                cx,
                cy - half,
                cx,
                cy - half,
                cx - half,
                cy,
              ];
            }),
          ),
        },
      ],
    });
    const placed = observations.map(({ at }) => place(placement, at));
    const [xs, ys] = [placed.map((p) => p[0]), placed.map((p) => p[1])];
    const margin = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), 4) * 0.15;
    lookAt([Math.min(...xs) - margin, Math.min(...ys) - margin, Math.max(...xs) + margin, Math.max(...ys) + margin]);
  };
  const point = (cue: Cue) => {
    if (shown === cue.cue) {
      setShown(null);
      show(null);
      return;
    }
    setShown(cue.cue);
    setOne(0);
    const at = cue.places.map((observation) => observation.at);
    mark(
      cue.places,
      Math.max(
        Math.max(...at.map((p) => p[0])) - Math.min(...at.map((p) => p[0])),
        Math.max(...at.map((p) => p[1])) - Math.min(...at.map((p) => p[1])),
        ...cue.places.map(({ value }) => 4 * value),
      ),
    );
  };
  const step = (cue: Cue, to: number) => {
    setOne(to);
    mark(
      [cue.places[(to + cue.places.length) % cue.places.length]],
      12 * cue.places[(to + cue.places.length) % cue.places.length].value,
    );
  };
  return (
    <Part title="Observations">
      <Box component="ul" aria-label="Observations about the unit" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {verdict.cues.map((cue) => (
          <Box
            component="li"
            key={cue.cue}
            sx={{
              borderBottom: '1px solid var(--mui-palette-divider)',
              background: shown === cue.cue ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
            }}
          >
            <Box
              component="button"
              type="button"
              disabled={cue.places.length === 0}
              aria-pressed={shown === cue.cue}
              onClick={() => point(cue)}
              title={cue.places.length > 0 ? 'Show where' : undefined}
              sx={{
                all: 'unset',
                display: 'grid',
                width: '100%',
                gridTemplateColumns: '1fr 118px 66px',
                alignItems: 'center',
                gap: 1,
                py: 0.5,
                px: 0.5,
                boxSizing: 'border-box',
                cursor: cue.places.length > 0 ? 'pointer' : 'default',
                '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
              }}
            >
              <span>
                {cue.cue}{' '}
                {cue.observations > 1 && (
                  <Box component="span" className="mono" sx={{ color: 'text.secondary' }}>
                    {cue.observations}
                  </Box>
                )}
              </span>
              <Box component="span" className="mono" sx={{ fontSize: 12, textAlign: 'right', whiteSpace: 'nowrap' }}>
                {seenAs(cue, unit, scale)}
              </Box>
              <svg
                width={66}
                height={8}
                role="img"
                aria-label={
                  cue.favours === null
                    ? 'says nothing'
                    : `says ${unitNames[cue.favours]}, weight ${cue.weight.toFixed(1)}`
                }
              >
                <rect
                  width={Math.max(1.5, (cue.weight / most) * 66)}
                  height={8}
                  fill={barColour(cue.favours, verdict.chosen ?? unit)}
                />
              </svg>
            </Box>
            {shown === cue.cue && cue.range !== null && (
              <One
                cue={cue}
                index={(one + cue.places.length) % cue.places.length}
                unit={unit}
                scale={scale}
                step={(by) => step(cue, one + by)}
                here={() => step(cue, one)}
              />
            )}
          </Box>
        ))}
      </Box>
    </Part>
  );
}

/** One observation of a cue at a time, in words: "this door leaf: 0.92 m if millimetres". */
function One({
  cue,
  index,
  unit,
  scale,
  step,
  here,
}: {
  cue: Cue;
  index: number;
  unit: LengthUnit;
  scale: number;
  step: (by: number) => void;
  here: () => void;
}) {
  const metres = cue.places[index].value * metresPer[unit] * scale;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5, px: 0.5, pb: 0.5 }}>
      <Button variant="text" onClick={here} sx={{ flex: 1, justifyContent: 'flex-start', textAlign: 'left' }}>
        {oneOf[cue.cue] ?? 'this one'}: {formatNumber(metres, metres < 10 ? 2 : 1)} m if {unitNames[unit]}
      </Button>
      <span className="mono">
        {index + 1}/{cue.places.length}
      </span>
      <IconButton size="small" aria-label="The one before" onClick={() => step(-1)}>
        <Icon name="before" size={14} />
      </IconButton>
      <IconButton size="small" aria-label="The next one" onClick={() => step(1)}>
        <Icon name="next" size={14} />
      </IconButton>
    </Box>
  );
}

/** Evidence for what is taken is green, against it amber; what says nothing is grey. */
function barColour(favours: string | null, taken: string | null): string {
  if (favours === null) return 'var(--mui-palette-divider)';
  return `var(--mui-palette-zf-${favours === taken ? 'zircon' : 'amber'})`;
}
