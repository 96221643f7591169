'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import type { Cue, UnitVerdict } from '@/core/datum/evidence/judge';
import { consequences, conflict, seenAs } from '@/core/datum/evidence/words';
import { unitLabel } from '@/core/model/commands';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { lengthUnits, unitNames, type LengthUnit } from '@/core/units/length';
import { place, type Placement } from '@/core/datum/placement';
import { useBoard } from '@/board/boardStore';
import { useOverlay } from '@/project/overlay';
import type { Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import type { Replace } from './useReplace';

/** The drawing's unit: what it says of itself, what can be measured in it, what follows, and the person's word. */
export function UnitPart({ drawing, placement, underlay, replace }: { drawing: DrawingRow; placement: PlacementRow; underlay: Underlay | null; replace: Replace }) {
  const [looked, setLooked] = useState<LengthUnit | null>(null);
  const verdict = underlay?.unit ?? null;
  const chosen = looked ?? placement.unit;
  const against = verdict && conflict(verdict);
  return (
    <>
      <Part title="Unit">
        {against !== null && verdict && <Note kind="look"><b>{against.header}</b> {against.observations}</Note>}
        {verdict && verdict.header === null && <Note kind="look">The header gives no unit.{verdict.chosen === null && ' What was measured does not decide it: check a known size before you take one.'}</Note>}
        {verdict && <Units verdict={verdict} chosen={chosen} choose={setLooked} />}
        {verdict && <Box sx={{ mb: 1 }}><Box component="span" sx={{ color: 'text.secondary' }}>Then this is true:</Box> <span className="mono">{consequences(verdict, chosen).join(' \u00b7 ') || 'nothing that was recognised'}</span></Box>}
        {placement.confirmed && chosen === placement.unit
          ? <Box sx={{ fontWeight: 600, color: 'primary.main' }}>{unitNames[placement.unit]} confirmed</Box>
          : <Button variant="contained" onClick={() => { setLooked(null); const next = { ...placement, unit: chosen, confirmed: true }; replace(next, unitLabel(drawing, next)); }}>Take {unitNames[chosen]}</Button>}
      </Part>
      {verdict && verdict.cues.length > 0 && <Observations verdict={verdict} unit={chosen} drawing={drawing} placement={placement} />}
    </>
  );
}

function Units({ verdict, chosen, choose }: { verdict: UnitVerdict; chosen: LengthUnit; choose: (unit: LengthUnit) => void }) {
  return (
    <Box role="radiogroup" aria-label="Unit of the drawing" sx={{ mb: 1 }}>
      {lengthUnits.map((unit) => {
        const here = unit === chosen;
        const probability = verdict.probabilities[unit];
        return (
          <Box key={unit} component="label" sx={{ display: 'grid', gridTemplateColumns: '18px 92px 1fr 48px', alignItems: 'center', gap: 1, py: 0.25, px: 0.75, cursor: 'pointer', borderBottom: '1px solid var(--mui-palette-divider)', background: here ? 'var(--mui-palette-zf-zirconSoft)' : 'none' }}>
            <input type="radio" name="unit" aria-label={unitNames[unit]} checked={here} onChange={() => choose(unit)} style={{ accentColor: 'var(--mui-palette-zf-zircon)', margin: 0 }} />
            <span>{unitNames[unit]}</span>
            <svg width="100%" height={10} aria-hidden><rect width={`${Math.max(0.4, probability * 100)}%`} height={10} fill={unit === verdict.header && unit !== verdict.chosen ? 'var(--mui-palette-zf-amber)' : 'var(--mui-palette-zf-zircon)'} /></svg>
            <Box component="span" className="mono" sx={{ fontSize: 12, textAlign: 'right' }} aria-label={`probability ${probability.toFixed(3)}`}>{probability.toFixed(3)}</Box>
          </Box>
        );
      })}
    </Box>
  );
}

/** Half the side of the mark at an observation, as a share of the board's width. */
const markShare = 0.006;

/** What was seen, each with what it comes to in the chosen unit and its weight; a click shows where. */
function Observations({ verdict, unit, drawing, placement }: { verdict: UnitVerdict; unit: LengthUnit; drawing: DrawingRow; placement: PlacementRow }) {
  const [shown, setShown] = useState<string | null>(null);
  const show = useOverlay((store) => store.show);
  const lookAt = useBoard((board) => board.lookAt);
  useEffect(() => () => show(null), [show]);
  const most = Math.max(1, ...verdict.cues.map((cue) => cue.weight));
  const point = (cue: Cue) => {
    if (shown === cue.cue) { setShown(null); show(null); return; }
    setShown(cue.cue);
    const at = cue.places.map((observation) => observation.at);
    const placed = at.map((p) => place(placement as Placement, p));
    const [xs, ys] = [placed.map((p) => p[0]), placed.map((p) => p[1])];
    const spread = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), 4);
    const drawnSpread = Math.max(Math.max(...at.map((p) => p[0])) - Math.min(...at.map((p) => p[0])), Math.max(...at.map((p) => p[1])) - Math.min(...at.map((p) => p[1])), ...cue.places.map(({ value }) => 4 * value));
    const half = drawnSpread * markShare;
    const origin = at[0];
    show({ drawingId: drawing.id, origin: [...origin], parts: [{ tone: 'evidence', lines: Float32Array.from(at.flatMap(([x, y]) => { const [cx, cy] = [x - origin[0], y - origin[1]]; return [cx - half, cy, cx, cy + half, cx, cy + half, cx + half, cy, cx + half, cy, cx, cy - half, cx, cy - half, cx - half, cy]; })) }] });
    const margin = spread * 0.15;
    lookAt([Math.min(...xs) - margin, Math.min(...ys) - margin, Math.max(...xs) + margin, Math.max(...ys) + margin]);
  };
  return (
    <Part title="Observations">
      <Box component="ul" aria-label="Observations about the unit" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {verdict.cues.map((cue) => (
          <Box component="li" key={cue.cue} sx={{ borderBottom: '1px solid var(--mui-palette-divider)', background: shown === cue.cue ? 'var(--mui-palette-zf-zirconSoft)' : 'none' }}>
            <Box component="button" type="button" disabled={cue.places.length === 0} aria-pressed={shown === cue.cue} onClick={() => point(cue)} title={cue.places.length > 0 ? 'Show where' : undefined} sx={{ all: 'unset', display: 'grid', width: '100%', gridTemplateColumns: '1fr 118px 66px', alignItems: 'center', gap: 1, py: 0.5, px: 0.5, boxSizing: 'border-box', cursor: cue.places.length > 0 ? 'pointer' : 'default', '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' } }}>
              <span>{cue.cue} {cue.observations > 1 && <Box component="span" className="mono" sx={{ color: 'text.secondary' }}>{cue.observations}</Box>}</span>
              <Box component="span" className="mono" sx={{ fontSize: 12, textAlign: 'right', whiteSpace: 'nowrap' }}>{seenAs(cue, unit)}</Box>
              <svg width={66} height={8} role="img" aria-label={cue.favours === null ? 'says nothing' : `says ${unitNames[cue.favours]}, weight ${cue.weight.toFixed(1)}`}>
                <rect width={Math.max(1.5, (cue.weight / most) * 66)} height={8} fill={cue.favours === null ? 'var(--mui-palette-divider)' : cue.favours === verdict.chosen || (verdict.chosen === null && cue.favours === unit) ? 'var(--mui-palette-zf-zircon)' : 'var(--mui-palette-zf-amber)'} />
              </svg>
            </Box>
          </Box>
        ))}
      </Box>
    </Part>
  );
}
