'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useEffect, useState, type ReactNode } from 'react';
import { faceOn, placementTransform, type Placement } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { changeLevel, levelsUp } from '@/core/model/levels';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { linesOnLayer } from '@/core/tracing/upright/drawnLines';
import { giveHeight, giveSlope, heightsOf, type HeightName } from '@/core/tracing/upright/heights';
import {
  isUpright,
  makeMembers,
  makeUprightColumns,
  type UprightColumn,
  type UprightMember,
} from '@/core/tracing/upright/making';
import { planeOf, type UprightPlane } from '@/core/tracing/upright/plane';
import { takeMembers, type TakenMember } from '@/core/tracing/upright/takeMembers';
import { describeElements } from '@/core/tracing/words';
import { signOf } from '@/core/units/sign';
import { formatLength } from '@/core/units/length';
import { useBoard, type Picked } from '@/board/boardStore';
import { useSelected } from '@/project/selected';
import { useTracing, type WayName } from '@/project/tracing';
import { handlesOf, underlayOf, useUnderlays } from '@/project/underlays';
import { useCommit, useLengths, useModel, useSession } from '@/project/useSession';
import { useView } from '@/project/view';
import { Note, Part } from '@/ui/widgets/Heading';
import { Choices } from './Choices';
import { wayWords } from './words';

const uprightWays: readonly WayName[] = ['upright.member', 'upright.column'];

const heightWords: Record<HeightName, string> = {
  base: 'Pick its base',
  top: 'Pick its top',
  sill: 'Pick its sill',
  head: 'Pick its head',
  start: 'Pick its start',
  end: 'Pick its end',
  height: 'Pick its height',
};

/** What is made and read off in the plane of a section that is seen face on. */
export function UprightPart({ drawing, placement }: { drawing: DrawingRow; placement: PlacementRow }) {
  const { tool, setTool } = useBoard();
  const set = useView((view) => view.set);
  const way = tool.kind === 'trace' ? tool.way : null;
  const plane = planeOf(placement as Placement);
  useEffect(() => () => setTool({ kind: 'look' }), [setTool]);
  if (plane === null) return null;
  // Nobody has given it a line while it stands at zero along x.
  const loose = placement.target.every((value) => value === 0) && placement.turning === 0;
  return (
    <>
      <Part
        title={`On ${drawing.name}`}
        aside={
          <Button size="small" variant="text" onClick={() => set({ faceOn: null })}>
            Back to the plan
          </Button>
        }
      >
        {loose && (
          <Note kind="look">
            It stands along x at the project&rsquo;s zero, where it was put first. Where that is not its line, pick its
            line first: what is made here stands there.{' '}
            <Button
              size="small"
              variant="text"
              onClick={() => set({ station: 'datum', datumPart: 'place', drawingId: drawing.id, benchFolded: false })}
            >
              Go to its line
            </Button>
          </Note>
        )}
        <Choices
          label="How"
          choices={uprightWays.map((name) => ({ name, words: wayWords[name] }))}
          chosen={way}
          choose={(next) => setTool(next === way ? { kind: 'look' } : { kind: 'trace', way: next })}
        />
        <TakeLines drawing={drawing} placement={placement} plane={plane} />
      </Part>
      <Heights plane={plane} drawingId={drawing.id} />
      <LevelHeights drawingId={drawing.id} />
    </>
  );
}

/** What lines of a section are taken as. */
const takenNames = ['members', 'columns'] as const;
type Taken = (typeof takenNames)[number];

const nothingWords: Record<Taken, string> = {
  members: 'Nothing runs beside that line. Draw the member by hand, or take its layer.',
  columns: 'No two lines stand upright beside one another there. Draw the column by hand, or take members.',
};

interface TakeProps {
  drawing: DrawingRow;
  placement: PlacementRow;
  plane: UprightPlane;
}

/** Lines that are clicked become members: pairs of lines by their middle and their depth, single lines as they lie. */
function TakeLines({ drawing, placement, plane }: TakeProps) {
  const { tool, setTool } = useBoard();
  const session = useSession();
  const commit = useCommit();
  const entries = useUnderlays((store) => store.entries);
  const [whole, setWhole] = useState(true);
  const [what, setWhat] = useState<Taken>('members');
  const taking = tool.kind === 'gather';
  const take = async ({ drawingId, path }: { drawingId: string; path: number }, what: Taken) => {
    const underlay = underlayOf(entries, drawing.id);
    if (underlay === null || drawingId !== drawing.id) return;
    const { primitives } = underlay;
    const placed = placementTransform(faceOn(placement as Placement), primitives.origin);
    const taken = takeMembers(linesOnLayer(primitives, primitives.layer[path], placed));
    if (!taken.ok) {
      session.tell({ kind: 'problem', text: taken.message });
      return;
    }
    const own = whole ? taken.value : taken.value.filter(({ paths }) => paths.includes(path));
    const wanted = what === 'columns' ? own.filter(isUpright) : own;
    if (wanted.length === 0) {
      session.tell({ kind: 'problem', text: nothingWords[what] });
      return;
    }
    if (what === 'members') {
      const members = await Promise.all(wanted.map((one) => memberOf(drawing.id, one)));
      void commit((now) => makeMembers(now, plane, members, () => crypto.randomUUID()));
    } else {
      const columns = await Promise.all(wanted.map((one) => columnOf(drawing.id, one)));
      void commit((now) => makeUprightColumns(now, plane, columns, () => crypto.randomUUID()));
    }
  };
  const begin = (next: Taken) => {
    setWhat(next);
    setTool({
      kind: 'gather',
      what: 'lines',
      prompt: whole ? `a line of the layer whose ${next} to take` : `a line of one of the ${next}`,
      take: (line) => void take(line, next),
    });
  };
  return (
    <Box>
      <Choices
        label="Taken from its lines"
        choices={takenNames.map((name) => ({ name, words: `Take ${name} by a click` }))}
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
        Two lines beside one another are a member by its middle, as deep as they lie apart; its width is what is set
        below. Ends go on to the axes that they meet.
      </Box>
    </Box>
  );
}

/** A taken member as wide as members are made now, and as deep as it is drawn. */
async function memberOf(drawing: string, { start, end, depth, paths }: TakenMember): Promise<UprightMember> {
  const { shapes } = useTracing.getState();
  const { section } = shapes.beam;
  const width = section.shape === 'rectangle' ? section.width : (depth ?? 0.1);
  const deep = depth === null ? section : ({ shape: 'rectangle', width, depth: rounded(depth) } as const);
  const use = shapes.beam.use ?? 'member';
  return {
    start,
    end,
    source: { drawing, handles: await handlesOf(drawing, paths) },
    like: { ...shapes.beam, use, section: deep },
  };
}

/** A taken column as wide along the section as it is drawn, and as deep as columns are made now. */
async function columnOf(drawing: string, { start, end, depth, paths }: TakenMember): Promise<UprightColumn> {
  const like = useTracing.getState().shapes.column;
  const { section } = like;
  const across = section.shape === 'rectangle' ? section.depth : (depth ?? 0.3);
  return {
    ends: [start, end],
    source: { drawing, handles: await handlesOf(drawing, paths) },
    like: depth === null ? like : { ...like, section: { shape: 'rectangle', width: rounded(depth), depth: across } },
  };
}

/** Depths come out in whole millimetres. */
const rounded = (metres: number): number => Math.max(0.001, Math.round(metres * 1000) / 1000);

/** Asks for one point of the section after another. */
function pickPoints(prompts: readonly string[], drawingId: string, take: (points: Point[]) => void): void {
  const { setTool } = useBoard.getState();
  const ask = (points: Point[]) =>
    setTool({
      kind: 'pick',
      prompt: prompts[points.length],
      of: drawingId,
      take: ({ point }: Picked) => {
        const all = [...points, point];
        if (all.length === prompts.length) take(all);
        else ask(all);
      },
    });
  ask([]);
}

/** Heights read off the section, for what is selected in the plan, in space or here. */
function Heights({ plane, drawingId }: { plane: UprightPlane; drawingId: string }) {
  const model = useModel('element');
  const commit = useCommit();
  const ids = useSelected((store) => store.ids);
  const elements = [...ids].flatMap((id): ElementRow[] => (model.element[id] ? [model.element[id]] : []));
  const names = [...new Set(elements.flatMap(({ kind }) => heightsOf[kind] ?? []))];
  const roofs = elements.some(({ kind }) => kind === 'roof');
  const give = (name: HeightName) =>
    pickPoints(
      [heightWords[name].replace('Pick its', 'height of its')],
      drawingId,
      ([[, z]]) => void commit((now) => giveHeight(now, ids, name, z)),
    );
  const takeSlope = () =>
    useBoard.getState().setTool({
      kind: 'pickLine',
      prompt: 'a line of the slope',
      take: ({ from, to }) => void commit((now) => giveSlope(now, ids, plane, from, to)),
    });
  return (
    <Part title="Heights of what is selected">
      {elements.length === 0 ? (
        <Box sx={{ color: 'text.secondary' }}>
          Select a column, a wall, a window or a roof plane, here or in the plan; then pick its heights in the section.
        </Box>
      ) : (
        <Box sx={{ mb: 0.75 }}>{describeElements(elements)}</Box>
      )}
      <Row>
        {names.map((name) => (
          <Button key={name} size="small" variant="outlined" onClick={() => give(name)}>
            {heightWords[name]}
          </Button>
        ))}
        {roofs && (
          <Button
            size="small"
            variant="outlined"
            onClick={() =>
              pickPoints(
                ['one point of the slope', 'another point of it'],
                drawingId,
                ([a, b]) => void commit((now) => giveSlope(now, ids, plane, a, b)),
              )
            }
          >
            Pick its slope
          </Button>
        )}
        {roofs && (
          <Button size="small" variant="outlined" onClick={takeSlope}>
            Take its slope from a line
          </Button>
        )}
      </Row>
    </Part>
  );
}

/** Elevations of levels read off the section. */
function LevelHeights({ drawingId }: { drawingId: string }) {
  const model = useModel('level');
  const commit = useCommit();
  const lengths = useLengths();
  const [shift, setShift] = useState(false);
  const put = (levelId: string) =>
    pickPoints(
      [`elevation of ${model.level[levelId].name}`],
      drawingId,
      ([[, z]]) =>
        void commit((now) => changeLevel(now, { ...now.level[levelId], elevation: Number(z.toFixed(6)) }, shift)),
    );
  return (
    <Part title="Levels">
      {[...levelsUp(model)].reverse().map(({ id, name, elevation }) => (
        <Box key={id} sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 32 }}>
          <Box sx={{ flex: 1 }}>{name}</Box>
          <span className="mono">
            {signOf(elevation)}
            {formatLength(elevation, lengths)}
          </span>
          <Button size="small" variant="text" aria-label={`Pick the elevation of ${name}`} onClick={() => put(id)}>
            Pick
          </Button>
        </Box>
      ))}
      <FormControlLabel
        control={<Checkbox size="small" checked={shift} onChange={(event) => setShift(event.target.checked)} />}
        label="Levels beyond it go along"
      />
    </Part>
  );
}

function Row({ children }: { children: ReactNode }) {
  return <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>{children}</Box>;
}
