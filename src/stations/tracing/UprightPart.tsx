'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useEffect, useState, type ReactNode } from 'react';
import type { Placement } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { changeLevel, levelsUp } from '@/core/model/levels';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { giveHeight, giveSlope, heightsOf, type HeightName } from '@/core/tracing/upright/heights';
import { planeOf, type UprightPlane } from '@/core/tracing/upright/plane';
import { describeElements } from '@/core/tracing/words';
import { signOf } from '@/core/units/sign';
import { formatLength } from '@/core/units/length';
import { useBoard, type Picked } from '@/board/boardStore';
import { useSelected } from '@/project/selected';
import { useCommit, useLengths, useModel } from '@/project/useSession';
import { useView } from '@/project/view';
import { Note, Part } from '@/ui/widgets/Heading';
import { Choices } from '@/ui/widgets/Choices';
import { TakeUpright } from './TakeUpright';
import { uprightWays, wayWords } from './words';

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
        <TakeUpright drawing={drawing} placement={placement} plane={plane} />
      </Part>
      <Heights plane={plane} drawingId={drawing.id} />
      <LevelHeights drawingId={drawing.id} />
    </>
  );
}

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
