'use client';
import type { GridLine } from '@/core/kinds/grid';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useEffect, useState } from 'react';
import { fitRigid, type PointPair } from '@/core/datum/fit';
import { asDrawn, place, unplace, type Placement } from '@/core/datum/placement';
import type { Registration } from '@/core/datum/register';
import { degrees, type Point } from '@/core/geometry/vector';
import type { DrawingRow, PlacementRow, ProjectState } from '@/core/model/state';
import { formatNumber } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { gridOfDrawing } from '@/project/grids';
import { useOverlay } from '@/project/overlay';
import { activeDrawings } from '@/project/projectRow';
import { useModel, useSession } from '@/project/useSession';
import { fitGrids, useUnderlays, underlayOf } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { Table } from '@/ui/widgets/Table';
import { pickPoint, placedBox } from './pick';
import { exaggeration, residualArrows, unseen } from './residualArrows';
import type { Replace } from './useReplace';

/** The grid of the project's own elements stands for a drawing in the choice. */
const ownGrid = 'grid';
const millimetres = (metres: number) => `${formatNumber(metres * 1000, metres < 0.01 ? 2 : 0)} mm`;

/** What others are fitted onto comes first: what is shown, is confirmed, and hangs near the ground. */
const rank = (state: ProjectState, drawing: DrawingRow): number =>
  (drawing.setAside ? 1e6 : 0) +
  (state.placement[drawing.id].confirmed ? 0 : 1e5) +
  Math.abs(drawing.levelId === null ? 1e4 : (state.level[drawing.levelId]?.elevation ?? 1e4));

/** A fit that was found: by which placement its points went in, and what it is onto. */
interface Found {
  registration: Registration;
  base: Placement;
  onto: string;
}

/** A point of the drawing, in its own coordinates, and where it belongs in the project. */
interface PickedPair {
  drawn: Point;
  to: Point;
  words: string;
}

/**
 * Fits a drawing onto another, or onto the project's grid: by labels, by the pattern of spacings, or by picked points.
 */
export function RegistrationPart({
  drawing,
  placement,
  replace,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  replace: Replace;
}) {
  const state = useModel('project', 'level', 'library', 'drawing', 'placement', 'role', 'pick', 'element');
  const entries = useUnderlays((store) => store.entries);
  const session = useSession();
  const invite = useOverlay((store) => store.invite);
  const own = Object.values(state.element).flatMap((element) =>
    element.kind === 'grid' && element.source?.drawing !== drawing.id ? [element.shape as GridLine] : [],
  );
  const others = activeDrawings(state)
    .filter(
      (other) =>
        other.id !== drawing.id && state.placement[other.id].upright === null && underlayOf(entries, other.id) !== null,
    )
    .sort((a, b) => rank(state, a) - rank(state, b));
  const targets = [
    ...(own.length > 0 ? [{ id: ownGrid, name: 'the project\u2019s grid' }] : []),
    ...others.map(({ id, name }) => ({ id, name })),
  ];
  const [onto, setOnto] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [found, setFound] = useState<Found | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [pairs, setPairs] = useState<PickedPair[]>([]);
  const target = targets.find(({ id }) => id === onto) ?? targets[0];
  const targetId = target?.id ?? ownGrid;
  // Both drawings are seen while one is fitted onto the other, whatever level they hang on.
  useEffect(() => {
    invite([drawing.id, ...(targetId === ownGrid ? [] : [targetId])]);
    return () => invite([]);
  }, [invite, drawing.id, targetId]);
  if (placement.upright !== null)
    return (
      <Part title="Fit onto another drawing">
        <Box sx={{ color: 'text.secondary' }}>
          A section stands on a line of the plan; its place is given under Place.
        </Box>
      </Part>
    );
  if (!target)
    return (
      <Part title="Fit onto another drawing">
        <Box sx={{ color: 'text.secondary' }}>
          There is nothing to fit onto yet: bring in another drawing, or accept a grid at Reading.
        </Box>
      </Part>
    );

  const base: Placement = { ...asDrawn(placement.unit, placement.scale), mirrored: placement.mirrored };
  const clear = () => {
    setFound(null);
    setProblem(null);
  };
  const fitBy = (way: 'labels' | 'spacings') => {
    setBusy(true);
    clear();
    void (async () => {
      try {
        const there = target.id === ownGrid ? own : await gridOfDrawing(state, target.id, state.placement[target.id]);
        const here = await gridOfDrawing(state, drawing.id, base);
        const result = await fitGrids(way, here, there);
        if (result.ok) {
          setFound({
            registration: result.value.registration,
            base: result.value.mirrored ? { ...base, mirrored: !base.mirrored } : base,
            onto: target.name,
          });
          lookAtPoints(result.value.registration.fit.residuals.map(({ to }) => to));
        } else setProblem(result.message);
      } catch (error) {
        setProblem((error as Error).message);
      }
      setBusy(false);
    })();
  };
  const look = (id: string) => {
    const underlay = underlayOf(entries, id);
    const box = underlay && placedBox(state.placement[id], underlay);
    if (box) useBoard.getState().lookAt(box);
  };
  const pickPair = () => {
    clear();
    look(drawing.id);
    pickPoint(session, `point of ${drawing.name}`, drawing.id, (from) => {
      look(target.id);
      pickPoint(session, `where it belongs on ${target.name}`, null, (to) => {
        if (to.drawingId === drawing.id) {
          setProblem(`Both points were picked on ${drawing.name}. The second one belongs to ${target.name}.`);
          return;
        }
        setPairs((before) => {
          const next = [...before, { drawn: from.drawingPoint, to: to.point, words: from.words }];
          const result =
            next.length < 2
              ? null
              : fitRigid(
                  next.map((pair, i): PointPair => ({
                    name: `pair ${i + 1}`,
                    from: place(base, pair.drawn),
                    to: pair.to,
                  })),
                );
          if (result && !result.ok) setProblem(result.message);
          if (result?.ok)
            setFound({ registration: { fit: result.value, outliers: [], differences: [] }, base, onto: target.name });
          return next;
        });
      });
    });
  };
  const accept = ({ registration: { fit }, base: from, onto: name }: Found) => {
    const { centre, target: to, turning } = fit;
    const origin = unplace(from, centre);
    replace(
      { ...placement, mirrored: from.mirrored, origin: [origin[0], origin[1]], target: [to[0], to[1]], turning },
      `${drawing.name} fitted onto ${name}`,
    );
    clear();
    setPairs([]);
  };
  return (
    <Part title="Fit onto another drawing">
      <Select
        size="small"
        fullWidth
        value={target.id}
        onChange={(event) => {
          setOnto(event.target.value);
          clear();
          setPairs([]);
        }}
        inputProps={{ 'aria-label': 'Fit onto' }}
        sx={{ mb: 1 }}
      >
        {targets.map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </Select>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" disabled={busy} onClick={() => fitBy('labels')}>
          By grid labels
        </Button>
        <Button variant="outlined" disabled={busy} onClick={() => fitBy('spacings')}>
          By spacings
        </Button>
        <Button variant="outlined" disabled={busy} onClick={pickPair}>
          {pairs.length === 0 ? 'By picked points' : 'Pick another pair'}
        </Button>
      </Box>
      {busy && (
        <Box role="status" sx={{ color: 'text.secondary', mt: 1 }}>
          reading both grids {'\u2026'}
        </Box>
      )}
      {pairs.length > 0 && (
        <Box component="ol" aria-label="Picked pairs" sx={{ listStyle: 'none', m: 0, mt: 1, p: 0 }}>
          {pairs.map((pair, i) => (
            <Box
              component="li"
              key={`${pair.drawn.join()} ${pair.to.join()}`}
              sx={{ display: 'flex', alignItems: 'center', gap: 1 }}
            >
              <span className="mono">{i + 1}</span>
              <Box component="span" sx={{ flex: 1 }}>
                {pair.words}
              </Box>
              <IconButton
                size="small"
                aria-label={`Drop pair ${i + 1}`}
                onClick={() => {
                  setPairs(pairs.filter((_, k) => k !== i));
                  clear();
                }}
              >
                <Icon name="close" size={14} />
              </IconButton>
            </Box>
          ))}
          {pairs.length === 1 && (
            <Box component="li" sx={{ color: 'text.secondary' }}>
              One pair more fixes the place; a third shows how well it fits.
            </Box>
          )}
        </Box>
      )}
      {problem && (
        <Box sx={{ mt: 1 }}>
          <Note kind="look">{problem}</Note>
        </Box>
      )}
      {found && (
        <FoundFit
          found={found}
          drawingId={drawing.id}
          placement={placement}
          accept={() => accept(found)}
          drop={clear}
        />
      )}
    </Part>
  );
}

/** Shows where the points of a fit belong. */
function lookAtPoints(points: readonly Point[]): void {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const margin = 0.1 * Math.max(10, Math.max(...xs) - Math.min(...xs));
  useBoard
    .getState()
    .lookAt([Math.min(...xs) - margin, Math.min(...ys) - margin, Math.max(...xs) + margin, Math.max(...ys) + margin]);
}

/** What a fit comes to: how well it fits, what does not, and the person's word. */
function FoundFit({
  found,
  drawingId,
  placement,
  accept,
  drop,
}: {
  found: Found;
  drawingId: string;
  placement: Placement;
  accept: () => void;
  drop: () => void;
}) {
  const {
    registration: { fit, outliers, differences },
    base,
    onto,
  } = found;
  const show = useOverlay((store) => store.show);
  const worst = [...fit.residuals].sort((a, b) => b.away - a.away);
  const factor = exaggeration(worst[0].away);
  useEffect(() => {
    show({ drawingId, ...residualArrows(fit, placement, factor) });
    return () => show(null);
  }, [show, drawingId, fit, placement, factor]);
  return (
    <Box
      role="group"
      aria-label="The fit"
      sx={{ border: '1px solid var(--mui-palette-divider)', borderRadius: '5px', p: 1.5, mt: 1 }}
    >
      <Box>
        <b>{fit.residuals.length} points</b> fit onto {onto} within{' '}
        <span className="mono">{millimetres(worst[0].away)}</span>, turned by{' '}
        <span className="mono">
          {formatNumber(degrees(fit.turning), 3)}
          {'\u00b0'}
        </span>
        {base.mirrored !== placement.mirrored ? ', and turned over' : ''}.
      </Box>
      {outliers.length > 0 && (
        <Box sx={{ mt: 1 }}>
          <Note kind="look">
            {outliers.length} {outliers.length === 1 ? 'crossing does' : 'crossings do'} not fit and{' '}
            {outliers.length === 1 ? 'was' : 'were'} left aside:{' '}
            {outliers
              .slice(0, 5)
              .map(({ name, away }) => `${name} by ${millimetres(away)}`)
              .join(', ')}
            {outliers.length > 5 ? ' and others' : ''}.
          </Note>
        </Box>
      )}
      {differences.map(({ between, here, there }) => (
        <Note key={between} kind="look">
          The spacing between {between} differs by {millimetres(Math.abs(here - there))}: {formatNumber(here, 3)} m
          here, {formatNumber(there, 3)} m there.
        </Note>
      ))}
      <Box sx={{ maxHeight: 190, overflowY: 'auto' }} tabIndex={0} aria-label="All residuals">
        <Table
          label="Residuals"
          heads={[
            'point',
            { text: 'across', figures: true },
            { text: 'up', figures: true },
            { text: 'misses by', figures: true },
          ]}
        >
          {worst.map(({ name, away, fitted, to }) => (
            <tr key={name}>
              <td>{name}</td>
              <td className="figures">{signed(to[0] - fitted[0])}</td>
              <td className="figures">{signed(to[1] - fitted[1])}</td>
              <td className="figures">{millimetres(away)}</td>
            </tr>
          ))}
        </Table>
      </Box>
      <Box sx={{ color: 'text.secondary', mt: 0.5 }}>
        {worst[0].away < unseen
          ? 'The points meet; on the board each is a cross.'
          : `On the board each miss is an arrow, ${factor === 1 ? 'true to size' : `${formatNumber(factor, 0)} times as long`}.`}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        <Button variant="contained" onClick={accept}>
          Apply
        </Button>
        <Button variant="text" onClick={drop}>
          Cancel
        </Button>
      </Box>
    </Box>
  );
}

const signed = (metres: number) => `${metres > 5e-6 ? '+' : ''}${formatNumber(metres * 1000, 2)}`;
