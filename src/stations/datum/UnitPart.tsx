'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { judgeUnit } from '@/core/datum/unitEvidence';
import { unitLabel } from '@/core/model/commands';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { mainContent } from '@/core/underlay/mainContent';
import { formatNumber, lengthUnits, metresPer, unitNames, type LengthUnit } from '@/core/units/length';
import type { Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import type { Replace } from './useReplace';

/** The drawing's unit: what the header says, what each unit would make of the plan, and the person's word. */
export function UnitPart({ drawing, placement, underlay, replace }: { drawing: DrawingRow; placement: PlacementRow; underlay: Underlay | null; replace: Replace }) {
  const [looked, setLooked] = useState<LengthUnit | null>(null);
  const facts = useMemo(() => {
    if (!underlay) return null;
    const box = mainContent(underlay.primitives);
    const size: [number, number] | null = box && [box[1][0] - box[0][0], box[1][1] - box[0][1]];
    return { size, verdict: judgeUnit(underlay.insUnits, size && Math.max(...size)) };
  }, [underlay]);
  const chosen = looked ?? placement.unit;
  const metres = (length: number, unit: LengthUnit) => {
    const value = length * metresPer[unit];
    return formatNumber(value, value < 10 ? 2 : value < 1000 ? 1 : 0);
  };
  const header = facts?.verdict.header ?? null;
  const likeliest = facts && lengthUnits.reduce((a, b) => (facts.verdict.probabilities[b] > facts.verdict.probabilities[a] ? b : a));
  return (
    <Part title="Unit">
      {facts && header !== null && likeliest !== header && facts.size && (
        <Note kind="look"><b>The header says {unitNames[header]}.</b> The plan would then be {metres(Math.max(...facts.size), header)} m across; {unitNames[likeliest!]} make it {metres(Math.max(...facts.size), likeliest!)} m.</Note>
      )}
      {facts && header === null && <Note kind="look">The header gives no unit. Check a known size before you take one.</Note>}
      <Box role="radiogroup" aria-label="Unit of the drawing" sx={{ mb: 1.25 }}>
        {lengthUnits.map((unit) => {
          const here = unit === chosen;
          return (
            <Box key={unit} component="label" sx={{ display: 'grid', gridTemplateColumns: '18px 78px 1fr auto', alignItems: 'center', gap: 1, py: 0.5, px: 0.75, cursor: 'pointer', borderBottom: '1px solid var(--mui-palette-divider)', background: here ? 'var(--mui-palette-zf-zirconSoft)' : 'none' }}>
              <input type="radio" name="unit" checked={here} onChange={() => setLooked(unit)} style={{ accentColor: 'var(--mui-palette-zf-zircon)', margin: 0 }} />
              <span>{unitNames[unit]}</span>
              <Box component="span" className="mono" sx={{ fontSize: 11.5, textAlign: 'right', whiteSpace: 'nowrap', letterSpacing: '-0.02em' }}>{facts?.size ? `${metres(facts.size[0], unit)} \u00d7 ${metres(facts.size[1], unit)} m` : ''}</Box>
              <Box component="span" sx={{ width: 40 }} title={facts ? `probability ${facts.verdict.probabilities[unit].toFixed(3)}` : undefined}>
                <svg width={40} height={8} aria-hidden><rect width={40 * (facts?.verdict.probabilities[unit] ?? 0)} height={8} fill={unit === header ? 'var(--mui-palette-zf-amber)' : 'var(--mui-palette-zf-zircon)'} /></svg>
              </Box>
            </Box>
          );
        })}
      </Box>
      {facts && <Box sx={{ fontSize: 12, color: 'text.secondary', mb: 1 }}>The bars weigh {facts.verdict.cues.map((cue) => `${cue.cue} (${cue.seen})`).join(' and ')}. Measure a size you know before you rely on them.</Box>}
      {placement.confirmed && chosen === placement.unit
        ? <Box sx={{ fontWeight: 600, color: 'primary.main' }}>{unitNames[placement.unit]} confirmed</Box>
        : <Button variant="contained" onClick={() => { setLooked(null); const next = { ...placement, unit: chosen, confirmed: true }; replace(next, unitLabel(drawing, next)); }}>Take {unitNames[chosen]}</Button>}
    </Part>
  );
}
