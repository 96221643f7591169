'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useEffect, useState } from 'react';
import type { MixedBlock } from '@/core/datum/evidence/mixedBlocks';
import type { Observation } from '@/core/datum/evidence/sizes';
import type { Cue, UnitVerdict } from '@/core/datum/evidence/judge';
import { consequences } from '@/core/datum/evidence/plausible';
import { conflict, seenAs } from '@/core/datum/evidence/words';
import { unitLabel } from '@/core/model/commands';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { formatNumber, lengthUnits, metresPer, unitNames, type LengthUnit } from '@/core/units/length';
import { place } from '@/core/datum/placement';
import { useBoard } from '@/board/boardStore';
import { useOverlay } from '@/project/overlay';
import { mixedIn, type Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import type { Replace } from './useReplace';

/** The drawing's unit: what it says of itself, what can be measured in it, what follows, and the person's word. */
export function UnitPart({ drawing, placement, underlay, replace }: { drawing: DrawingRow; placement: PlacementRow; underlay: Underlay | null; replace: Replace }) {
  const [looked, setLooked] = useState<LengthUnit | null>(null);
  const verdict = underlay?.unit ?? null;
  const chosen = looked ?? placement.unit;
  // A scale goes with the unit that it was found in.
  const scale = looked === null || looked === placement.unit ? placement.scale : 1;
  const follows = verdict && consequences(verdict, metresPer[chosen] * scale);
  const against = verdict && conflict(verdict);
  return (
    <>
      <Part title="Unit">
        {against !== null && verdict && <Note kind="look"><b>{against.header}</b> {against.observations}</Note>}
        {verdict && verdict.header === null && <Note kind="look">The header gives no unit.{verdict.chosen === null && ' What was measured does not decide it: check a known size before you take one.'}</Note>}
        {verdict && <Units verdict={verdict} chosen={chosen} choose={setLooked} />}
        {scale !== 1 && <Note kind="look">The drawing is drawn as it is plotted, at 1:{formatNumber(scale, Number.isInteger(scale) ? 0 : 3)}: true sizes are that many times larger. <Button variant="text" onClick={() => replace({ ...placement, scale: 1 }, `${drawing.name} at true size`)}>It is at true size</Button></Note>}
        {verdict && verdict.scale !== placement.scale && placement.scale === 1 && !placement.confirmed && <Note kind="look">The drawing looks as it is plotted, at 1:{verdict.scale}. <Button variant="text" onClick={() => replace({ ...placement, scale: verdict.scale }, `${drawing.name} is at 1:${verdict.scale}`)}>Take 1:{verdict.scale}</Button></Note>}
        {underlay && <MixedNote drawing={drawing} placement={placement} underlay={underlay} />}
        {follows && (
          <Box sx={{ mb: 1 }}>
            <Box component="span" sx={{ color: 'text.secondary' }}>Then this is true:</Box>{' '}
            <span className="mono">{follows.length === 0 ? 'nothing that was recognised' : follows.map(({ words, sound }, i) => <span key={words}>{i > 0 && ' \u00b7 '}<Box component="span" sx={sound ? {} : { color: 'var(--mui-palette-zf-amber)', fontWeight: 600 }}>{words}</Box></span>)}</span>
          </Box>
        )}
        {placement.confirmed && chosen === placement.unit
          ? <Box sx={{ fontWeight: 600, color: 'primary.main' }}>{unitNames[placement.unit]} confirmed</Box>
          : <Button variant="contained" onClick={() => { setLooked(null); const next = { ...placement, unit: chosen, scale, confirmed: true }; replace(next, unitLabel(drawing, next)); }}>Take {unitNames[chosen]}</Button>}
      </Part>
      {verdict && verdict.cues.length > 0 && <Observations verdict={verdict} unit={chosen} scale={scale} drawing={drawing} placement={placement} />}
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

/** Blocks that came in at the size of another unit, each with a way there. */
function MixedNote({ drawing, placement, underlay }: { drawing: DrawingRow; placement: PlacementRow; underlay: Underlay }) {
  const [found, setFound] = useState<{ basis: string; blocks: MixedBlock[] } | null>(null);
  const lookAt = useBoard((board) => board.lookAt);
  useEffect(() => {
    let here = true;
    mixedIn(drawing.id).then((blocks) => { if (here) setFound({ basis: underlay.basis, blocks }); }, () => undefined);
    return () => { here = false; };
  }, [drawing.id, underlay.basis]);
  if (found?.basis !== underlay.basis) return null;
  return found.blocks.map(({ block, inserts, unit, words, places }) => {
    const [x, y] = place(placement, places[0]);
    return <Note key={block} kind="look"><b>Block {block} looks as if it were in {unitNames[unit]}.</b> {words} It is there {inserts === 1 ? 'once' : `${inserts} times`}. <Button variant="text" onClick={() => lookAt([x - 3, y - 3, x + 3, y + 3])}>Show one</Button></Note>;
  });
}

/** Half the side of the mark at an observation, as a share of the board's width. */
const markShare = 0.006;

/** What one observation of a cue is called. */
const oneOf: Record<string, string> = { 'dimension texts': 'this dimension', 'numbers beside lines': 'this line', 'door leaves': 'this door leaf', 'column sides': 'this column', 'wall pairs': 'this wall', 'grid spacings': 'this bay', 'stair goings': 'this going', 'overall extent': 'all of it' };

/** What was seen, each with what it comes to in the chosen unit and its weight; a click shows where. */
function Observations({ verdict, unit, scale, drawing, placement }: { verdict: UnitVerdict; unit: LengthUnit; scale: number; drawing: DrawingRow; placement: PlacementRow }) {
  const [shown, setShown] = useState<string | null>(null);
  const [one, setOne] = useState(0);
  const show = useOverlay((store) => store.show);
  const lookAt = useBoard((board) => board.lookAt);
  useEffect(() => () => show(null), [show]);
  const most = Math.max(1, ...verdict.cues.map((cue) => cue.weight));
  const mark = (observations: readonly Observation[], about: number) => {
    const half = about * markShare;
    const origin = observations[0].at;
    show({ drawingId: drawing.id, origin: [...origin], parts: [{ tone: 'evidence', lines: Float32Array.from(observations.flatMap(({ at: [x, y] }) => { const [cx, cy] = [x - origin[0], y - origin[1]]; return [cx - half, cy, cx, cy + half, cx, cy + half, cx + half, cy, cx + half, cy, cx, cy - half, cx, cy - half, cx - half, cy]; })) }] });
    const placed = observations.map(({ at }) => place(placement, at));
    const [xs, ys] = [placed.map((p) => p[0]), placed.map((p) => p[1])];
    const margin = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), 4) * 0.15;
    lookAt([Math.min(...xs) - margin, Math.min(...ys) - margin, Math.max(...xs) + margin, Math.max(...ys) + margin]);
  };
  const point = (cue: Cue) => {
    if (shown === cue.cue) { setShown(null); show(null); return; }
    setShown(cue.cue);
    setOne(0);
    const at = cue.places.map((observation) => observation.at);
    mark(cue.places, Math.max(Math.max(...at.map((p) => p[0])) - Math.min(...at.map((p) => p[0])), Math.max(...at.map((p) => p[1])) - Math.min(...at.map((p) => p[1])), ...cue.places.map(({ value }) => 4 * value)));
  };
  const step = (cue: Cue, to: number) => { setOne(to); mark([cue.places[(to + cue.places.length) % cue.places.length]], 12 * cue.places[(to + cue.places.length) % cue.places.length].value); };
  return (
    <Part title="Observations">
      <Box component="ul" aria-label="Observations about the unit" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {verdict.cues.map((cue) => (
          <Box component="li" key={cue.cue} sx={{ borderBottom: '1px solid var(--mui-palette-divider)', background: shown === cue.cue ? 'var(--mui-palette-zf-zirconSoft)' : 'none' }}>
            <Box component="button" type="button" disabled={cue.places.length === 0} aria-pressed={shown === cue.cue} onClick={() => point(cue)} title={cue.places.length > 0 ? 'Show where' : undefined} sx={{ all: 'unset', display: 'grid', width: '100%', gridTemplateColumns: '1fr 118px 66px', alignItems: 'center', gap: 1, py: 0.5, px: 0.5, boxSizing: 'border-box', cursor: cue.places.length > 0 ? 'pointer' : 'default', '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' } }}>
              <span>{cue.cue} {cue.observations > 1 && <Box component="span" className="mono" sx={{ color: 'text.secondary' }}>{cue.observations}</Box>}</span>
              <Box component="span" className="mono" sx={{ fontSize: 12, textAlign: 'right', whiteSpace: 'nowrap' }}>{seenAs(cue, unit, scale)}</Box>
              <svg width={66} height={8} role="img" aria-label={cue.favours === null ? 'says nothing' : `says ${unitNames[cue.favours]}, weight ${cue.weight.toFixed(1)}`}>
                <rect width={Math.max(1.5, (cue.weight / most) * 66)} height={8} fill={cue.favours === null ? 'var(--mui-palette-divider)' : cue.favours === verdict.chosen || (verdict.chosen === null && cue.favours === unit) ? 'var(--mui-palette-zf-zircon)' : 'var(--mui-palette-zf-amber)'} />
              </svg>
            </Box>
            {shown === cue.cue && cue.range !== null && <One cue={cue} index={(one + cue.places.length) % cue.places.length} unit={unit} scale={scale} step={(by) => step(cue, one + by)} here={() => step(cue, one)} />}
          </Box>
        ))}
      </Box>
    </Part>
  );
}

/** One observation of a cue at a time, in words: "this door leaf: 0.92 m if millimetres". */
function One({ cue, index, unit, scale, step, here }: { cue: Cue; index: number; unit: LengthUnit; scale: number; step: (by: number) => void; here: () => void }) {
  const metres = cue.places[index].value * metresPer[unit] * scale;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5, px: 0.5, pb: 0.5 }}>
      <Button variant="text" onClick={here} sx={{ flex: 1, justifyContent: 'flex-start', textAlign: 'left' }}>{oneOf[cue.cue] ?? 'this one'}: {formatNumber(metres, metres < 10 ? 2 : 1)} m if {unitNames[unit]}</Button>
      <span className="mono">{index + 1}/{cue.places.length}</span>
      <IconButton size="small" aria-label="The one before" onClick={() => step(-1)}><Icon name="before" size={14} /></IconButton>
      <IconButton size="small" aria-label="The next one" onClick={() => step(1)}><Icon name="next" size={14} /></IconButton>
    </Box>
  );
}
