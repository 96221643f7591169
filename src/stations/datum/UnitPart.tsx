'use client';
import { unitLabel } from '@/core/model/drawings';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { consequences } from '@/core/datum/evidence/plausible';
import { conflict } from '@/core/datum/evidence/words';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { formatNumber, metresPer, unitNames, type LengthUnit } from '@/core/units/length';
import { valueOf } from '@/project/useAnswer';
import { useUnderlays, type Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { MixedNote } from './MixedNote';
import { Observations } from './Observations';
import { UnitChart } from './UnitChart';
import type { Replace } from './useReplace';
import { useVerdict } from './useVerdict';

/** The drawing's unit: what it says of itself, what can be measured in it, what follows, and the person's word. */
export function UnitPart({
  drawing,
  placement,
  underlay,
  replace,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay | null;
  replace: Replace;
}) {
  const [looked, setLooked] = useState<LengthUnit | null>(null);
  const answer = useVerdict(drawing.id, underlay);
  const verdict = valueOf(answer);
  const problem = useUnderlays(({ entries }) => entries[drawing.id]?.problem ?? null);
  const measuring = answer === null && problem === null;
  const chosen = looked ?? placement.unit;
  // A scale goes with the unit that it was found in.
  const scale = looked === null || looked === placement.unit ? placement.scale : 1;
  const follows = verdict && consequences(verdict, metresPer[chosen] * scale);
  const against = verdict && conflict(verdict);
  return (
    <>
      <Part title="Unit">
        {against !== null && verdict && (
          <Note kind="look">
            <b>{against.header}</b> {against.observations}
          </Note>
        )}
        {verdict && verdict.header === null && (
          <Note kind="look">
            The header gives no unit.
            {verdict.chosen === null &&
              ' What was measured does not decide it: check a known size before you take one.'}
          </Note>
        )}
        {verdict && <UnitChart verdict={verdict} chosen={chosen} choose={setLooked} />}
        {scale !== 1 && (
          <Note kind="look">
            The drawing is drawn as it is plotted, at 1:{formatNumber(scale, Number.isInteger(scale) ? 0 : 3)}: true
            sizes are that many times larger.{' '}
            <Button variant="text" onClick={() => replace({ ...placement, scale: 1 }, `${drawing.name} at true size`)}>
              It is at true size
            </Button>
          </Note>
        )}
        {verdict && verdict.scale !== placement.scale && placement.scale === 1 && !placement.confirmed && (
          <Note kind="look">
            The drawing looks as it is plotted, at 1:{verdict.scale}.{' '}
            <Button
              variant="text"
              onClick={() =>
                replace({ ...placement, scale: verdict.scale }, `${drawing.name} is at 1:${verdict.scale}`)
              }
            >
              Take 1:{verdict.scale}
            </Button>
          </Note>
        )}
        {follows && (
          <Box sx={{ mb: 1 }}>
            <Box component="span" sx={{ color: 'text.secondary' }}>
              Then this is true:
            </Box>{' '}
            <span className="mono">
              {follows.length === 0
                ? 'nothing that was recognised'
                : follows.map(({ words, sound }, i) => (
                    <span key={words}>
                      {i > 0 && ' \u00b7 '}
                      <Box
                        component="span"
                        sx={{
                          whiteSpace: 'nowrap',
                          ...(sound ? {} : { color: 'var(--mui-palette-zf-amber)', fontWeight: 600 }),
                        }}
                      >
                        {words}
                      </Box>
                    </span>
                  ))}
            </span>
          </Box>
        )}
        {measuring && !placement.confirmed && (
          <Box role="status" sx={{ color: 'text.secondary', mb: 1 }}>
            measuring the drawing {'\u2026'}
          </Box>
        )}
        {placement.confirmed && chosen === placement.unit ? (
          <Box sx={{ fontWeight: 600, color: 'primary.main' }}>{unitNames[placement.unit]} confirmed</Box>
        ) : (
          <Button
            variant="contained"
            // The evidence comes first: it would also push the button away from under the pointer.
            disabled={measuring}
            onClick={() => {
              setLooked(null);
              const next = { ...placement, unit: chosen, scale, confirmed: true };
              replace(next, unitLabel(drawing, next));
            }}
          >
            Take {unitNames[chosen]}
          </Button>
        )}
        {underlay && (
          <Box sx={{ mt: 1 }}>
            <MixedNote drawing={drawing} placement={placement} underlay={underlay} />
          </Box>
        )}
      </Part>
      {verdict && verdict.cues.length > 0 && (
        <Observations verdict={verdict} unit={chosen} scale={scale} drawing={drawing} placement={placement} />
      )}
    </>
  );
}
