'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useState } from 'react';
import { asDrawn, type Placement } from '@/core/datum/placement';
import { registerByGrid, type Registration } from '@/core/datum/register';
import { degrees } from '@/core/geometry/vector';
import { roleId } from '@/core/model/commands';
import type { GridLine } from '@/core/model/elements';
import type { DrawingRow, PlacementRow, ProjectState } from '@/core/model/state';
import { formatNumber, metresPer } from '@/core/units/length';
import { activeDrawings, useProject } from '@/project/store';
import { readInWorker, useUnderlays, underlayOf } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import type { Replace } from './useReplace';

/** The grid of the project's own elements stands for a drawing in the choice. */
const ownGrid = 'grid';
const millimetres = (metres: number) => `${formatNumber(metres * 1000, metres < 0.01 ? 2 : 0)} mm`;

/** Fits a drawing onto another, or onto the project's grid, by the crossings of equal labels. */
export function RegistrationPart({ drawing, placement, replace }: { drawing: DrawingRow; placement: PlacementRow; replace: Replace }) {
  const state = useProject((store) => store.state);
  const entries = useUnderlays((store) => store.entries);
  const own = Object.values(state.element).flatMap((element) => (element.kind === 'grid' && element.source?.drawing !== drawing.id ? [element.shape as GridLine] : []));
  const others = activeDrawings(state).filter((other) => other.id !== drawing.id && underlayOf(entries, other.id) !== null);
  const targets = [...(own.length > 0 ? [{ id: ownGrid, name: 'the project\u2019s grid' }] : []), ...others.map(({ id, name }) => ({ id, name }))];
  const [onto, setOnto] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [found, setFound] = useState<{ registration: Registration | null; problem: string | null; onto: string } | null>(null);
  if (targets.length === 0) return null;
  const target = targets.find(({ id }) => id === onto) ?? targets[0];

  const gridOf = async (id: string, at: Placement): Promise<GridLine[]> => {
    const underlay = underlayOf(entries, id);
    if (!underlay) return [];
    const { candidates } = await readInWorker(id, at, rolesOf(state, id, underlay.layers), []);
    return candidates.flatMap((candidate) => (candidate.kind === 'grid' ? [candidate.element] : []));
  };
  const fit = () => {
    setBusy(true);
    void (async () => {
      try {
        const there = target.id === ownGrid ? own : await gridOf(target.id, state.placement[target.id] as Placement);
        const result = registerByGrid(await gridOf(drawing.id, asDrawn(placement.unit)), there);
        setFound({ registration: result.ok ? result.value : null, problem: result.ok ? null : result.message, onto: target.name });
      } catch (error) { setFound({ registration: null, problem: (error as Error).message, onto: target.name }); }
      setBusy(false);
    })();
  };
  const accept = ({ fit: { centre, target: to, turning } }: Registration) => {
    const units = metresPer[placement.unit];
    replace({ ...placement, origin: [centre[0] / units, centre[1] / units], target: [to[0], to[1]], turning }, `${drawing.name} fitted onto ${found?.onto ?? 'the grid'}`);
    setFound(null);
  };
  return (
    <Part title="Fit onto another drawing">
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Select size="small" value={target.id} onChange={(event) => { setOnto(event.target.value); setFound(null); }} inputProps={{ 'aria-label': 'Fit onto' }} sx={{ flex: 1, minWidth: 0 }}>
          {targets.map(({ id, name }) => <MenuItem key={id} value={id}>{name}</MenuItem>)}
        </Select>
        <Button variant="outlined" disabled={busy} onClick={fit}>Fit by the grid</Button>
      </Box>
      {busy && <Box role="status" sx={{ color: 'text.secondary', mt: 1 }}>reading both grids {'\u2026'}</Box>}
      {found?.problem && <Box sx={{ mt: 1 }}><Note kind="look">{found.problem}</Note></Box>}
      {found?.registration && <Found registration={found.registration} accept={() => accept(found.registration!)} drop={() => setFound(null)} />}
    </Part>
  );
}

const rolesOf = (state: ProjectState, drawingId: string, layers: readonly { name: string }[]) => layers.map(({ name }) => state.role[roleId(drawingId, name)]?.role ?? null);

/** What a fit comes to: how well it fits, what does not, and the person's word. */
function Found({ registration: { fit, outliers, differences }, accept, drop }: { registration: Registration; accept: () => void; drop: () => void }) {
  const worst = [...fit.residuals].sort((a, b) => b.away - a.away);
  return (
    <Box role="group" aria-label="The fit" sx={{ border: '1px solid var(--mui-palette-divider)', borderRadius: '5px', p: 1.5, mt: 1 }}>
      <Box><b>{fit.residuals.length} crossings</b> fit within <span className="mono">{millimetres(worst[0].away)}</span>, turned by <span className="mono">{formatNumber(degrees(fit.turning), 3)}{'\u00b0'}</span>.</Box>
      {outliers.length > 0 && <Box sx={{ mt: 1 }}><Note kind="look">{outliers.length} {outliers.length === 1 ? 'crossing does' : 'crossings do'} not fit and {outliers.length === 1 ? 'was' : 'were'} left aside: {outliers.slice(0, 5).map(({ name, away }) => `${name} by ${millimetres(away)}`).join(', ')}{outliers.length > 5 ? ' and others' : ''}.</Note></Box>}
      {differences.map(({ between, here, there }) => <Note key={between} kind="look">The spacing between {between} differs by {millimetres(Math.abs(here - there))}: {formatNumber(here, 3)} m here, {formatNumber(there, 3)} m there.</Note>)}
      <Table label="Residuals" heads={['crossing', { text: 'misses by', figures: true }]}>
        {worst.slice(0, 5).map(({ name, away }) => <tr key={name}><td>{name}</td><td className="figures">{millimetres(away)}</td></tr>)}
      </Table>
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}><Button variant="contained" onClick={accept}>Place it so</Button><Button variant="text" onClick={drop}>Leave it</Button></Box>
    </Box>
  );
}
