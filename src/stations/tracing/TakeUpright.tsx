import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useState } from 'react';
import { faceOn, placementTransform, type Placement } from '@/core/datum/placement';
import type { Source } from '@/core/kinds/element';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { ok, type Result } from '@/core/result';
import { linesOnLayer } from '@/core/tracing/upright/drawnLines';
import {
  isUpright,
  makeMembers,
  makeUprightColumns,
  type UprightColumn,
  type UprightMember,
} from '@/core/tracing/upright/making';
import { makeUprightOpenings, type UprightOpening } from '@/core/tracing/upright/openings';
import type { UprightPlane } from '@/core/tracing/upright/plane';
import { isSlope, makeUprightRoofs, type UprightRoof } from '@/core/tracing/upright/roofs';
import { takeMembers, type DrawnLine, type TakenMember } from '@/core/tracing/upright/takeMembers';
import { takeOpenings, type TakenOpening } from '@/core/tracing/upright/takeOpenings';
import { useBoard } from '@/board/boardStore';
import { useTracing } from '@/project/tracing';
import { handlesOf, underlayOf, useUnderlays } from '@/project/underlays';
import { useCommit, useSession } from '@/project/useSession';
import { Choices } from '@/ui/widgets/Choices';

/** How something is taken: what lines show of it, and what is made of that. */
interface Taking<T extends { paths: number[] }, D> {
  words: string;
  /** Where lines show none. */
  nothing: string;
  find: (lines: readonly DrawnLine[]) => Result<T[]>;
  drawn: (taken: T, source: Source) => D;
  make: (model: Model, plane: UprightPlane, drawn: readonly D[], newId: () => string) => Result<Edit>;
}

/** Members of a kind among those that lines show. */
const among =
  (fits: (member: TakenMember) => boolean) =>
  (lines: readonly DrawnLine[]): Result<TakenMember[]> => {
    const taken = takeMembers(lines);
    return taken.ok ? ok(taken.value.filter(fits)) : taken;
  };

const members: Taking<TakenMember, UprightMember> = {
  words: 'members',
  nothing: 'Nothing runs beside that line. Draw the member by hand, or take its layer.',
  find: takeMembers,
  drawn: memberOf,
  make: makeMembers,
};
const columns: Taking<TakenMember, UprightColumn> = {
  words: 'columns',
  nothing: 'No two lines stand upright beside one another there. Draw the column by hand, or take members.',
  find: among(isUpright),
  drawn: columnOf,
  make: makeUprightColumns,
};
const openings: Taking<TakenOpening, UprightOpening> = {
  words: 'openings',
  nothing: 'That line belongs to no rectangle. Draw the opening by its corners, or take its layer.',
  find: takeOpenings,
  drawn: ({ corners }, source) => ({ corners, source, like: useTracing.getState().shapes.opening }),
  make: makeUprightOpenings,
};
const roofs: Taking<TakenMember, UprightRoof> = {
  words: 'roof planes',
  nothing: 'No line rises there as a roof plane does. Draw the plane from eaves to ridge, or take its layer.',
  find: among(isSlope),
  drawn: roofOf,
  make: makeUprightRoofs,
};

/** What is taken of lines that were clicked; a sentence where that is nothing. */
type Take = (clicked: Clicked) => Promise<Result<(model: Model) => Result<Edit>>>;
interface Clicked {
  lines: readonly DrawnLine[];
  path: number;
  whole: boolean;
  drawing: string;
  plane: UprightPlane;
}

function takingOf<T extends { paths: number[] }, D>({ nothing, find, drawn, make }: Taking<T, D>): Take {
  return async ({ lines, path, whole, drawing, plane }) => {
    const found = find(lines);
    if (!found.ok) return found;
    const wanted = whole ? found.value : found.value.filter(({ paths }) => paths.includes(path));
    if (wanted.length === 0) return { ok: false, message: nothing };
    const all = await Promise.all(
      wanted.map(async (one) => drawn(one, { drawing, handles: await handlesOf(drawing, one.paths) })),
    );
    return ok((model) => make(model, plane, all, () => crypto.randomUUID()));
  };
}

const takings = {
  members: { words: members.words, take: takingOf(members) },
  columns: { words: columns.words, take: takingOf(columns) },
  openings: { words: openings.words, take: takingOf(openings) },
  roofs: { words: roofs.words, take: takingOf(roofs) },
} as const;
type Taken = keyof typeof takings;
const takenNames: readonly Taken[] = ['members', 'columns', 'openings', 'roofs'];

interface TakeProps {
  drawing: DrawingRow;
  placement: PlacementRow;
  plane: UprightPlane;
}

/** Lines that are clicked become members, columns, openings or roof planes. */
export function TakeUpright({ drawing, placement, plane }: TakeProps) {
  const { tool, setTool } = useBoard();
  const session = useSession();
  const commit = useCommit();
  const entries = useUnderlays((store) => store.entries);
  const [whole, setWhole] = useState(true);
  const [what, setWhat] = useState<Taken>('members');
  const taking = tool.kind === 'gather';
  const take = async ({ drawingId, path }: { drawingId: string; path: number }, next: Taken) => {
    const underlay = underlayOf(entries, drawing.id);
    if (underlay === null || drawingId !== drawing.id) return;
    const { primitives } = underlay;
    const placed = placementTransform(faceOn(placement as Placement), primitives.origin);
    const lines = linesOnLayer(primitives, primitives.layer[path], placed);
    const taken = await takings[next].take({ lines, path, whole, drawing: drawing.id, plane });
    if (taken.ok) void commit(taken.value);
    else session.tell({ kind: 'problem', text: taken.message });
  };
  const begin = (next: Taken) => {
    setWhat(next);
    const { words } = takings[next];
    setTool({
      kind: 'gather',
      what: 'lines',
      prompt: whole ? `a line of the layer whose ${words} to take` : `a line of one of the ${words}`,
      take: (line) => void take(line, next),
    });
  };
  return (
    <Box>
      <Choices
        label="Taken from its lines"
        choices={takenNames.map((name) => ({ name, words: `Take ${takings[name].words} by a click` }))}
        chosen={taking ? what : null}
        choose={(next) => (taking && next === what ? setTool({ kind: 'look' }) : begin(next))}
      />
      <FormControlLabel
        control={
          <Checkbox
            size="small"
            checked={whole}
            onChange={(event) => {
              setWhole(event.target.checked);
              setTool({ kind: 'look' });
            }}
          />
        }
        label="All of the layer"
      />
      <Box sx={{ color: 'text.secondary', fontSize: 12, mt: 0.5 }}>
        Two lines beside one another are a member by its middle, or a roof plane by the lower one; a rectangle is an
        opening of the wall that stands there. What the section does not show is as it is set below.
      </Box>
    </Box>
  );
}

/** A taken member as wide as members are made now, and as deep as it is drawn. */
function memberOf({ start, end, depth }: TakenMember, source: Source): UprightMember {
  const { beam } = useTracing.getState().shapes;
  const { section } = beam;
  const width = section.shape === 'rectangle' ? section.width : (depth ?? 0.1);
  const deep = depth === null ? section : ({ shape: 'rectangle', width, depth: rounded(depth) } as const);
  return { start, end, source, like: { ...beam, use: beam.use ?? 'member', section: deep } };
}

/** A taken column as wide along the section as it is drawn, and as deep as columns are made now. */
function columnOf({ start, end, depth }: TakenMember, source: Source): UprightColumn {
  const like = useTracing.getState().shapes.column;
  const { section } = like;
  const across = section.shape === 'rectangle' ? section.depth : (depth ?? 0.3);
  return {
    ends: [start, end],
    source,
    like: depth === null ? like : { ...like, section: { shape: 'rectangle', width: rounded(depth), depth: across } },
  };
}

/** A taken roof plane by its underside, as thick as it is drawn. */
function roofOf({ start, end, depth }: TakenMember, source: Source): UprightRoof {
  const like = useTracing.getState().shapes.roof;
  if (depth === null) return { ends: [start, end], like, source };
  const [dx, dy] = [end[0] - start[0], end[1] - start[1]];
  const below = (depth / 2) * (Math.hypot(dx, dy) / Math.abs(dx));
  return {
    ends: [
      [start[0], start[1] - below],
      [end[0], end[1] - below],
    ],
    like: { ...like, thickness: rounded(depth) },
    source,
  };
}

/** Depths come out in whole millimetres. */
const rounded = (metres: number): number => Math.max(0.001, Math.round(metres * 1000) / 1000);
