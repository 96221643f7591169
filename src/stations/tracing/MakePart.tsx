'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useEffect } from 'react';
import { elementKinds, isReadKind, type ElementKind, type Shaped } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { withChanges } from '@/core/kinds/putRight';
import { sectionName } from '@/core/kinds/section';
import type { LibraryRow } from '@/core/model/state';
import { useBoard } from '@/board/boardStore';
import { useOwnOptions } from '@/project/photometries';
import { useTracing, type WayName } from '@/project/tracing';
import { useLengths, useModel } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { RoleMark } from '@/ui/widgets/RoleMark';
import { ShapeFields } from '@/ui/widgets/ShapeFields';
import { Choices } from '@/ui/widgets/Choices';
import { HoldPart } from './HoldPart';
import { TakePart } from './TakePart';
import { UprightPart } from './UprightPart';
import { WaySettings } from './WaySettings';
import { waysOf, wayWords } from './words';

/** Turns the board to a way of making, or away from it where it is the one of the moment. */
function useWay(): { way: WayName | null; turn: (way: WayName) => void } {
  const { tool, setTool } = useBoard();
  const way = tool.kind === 'trace' ? tool.way : null;
  return { way, turn: (next) => setTool(next === way ? { kind: 'look' } : { kind: 'trace', way: next }) };
}

/** What is to be made, and how; in the plan, or in the plane of a section that is seen face on. */
export function MakePart() {
  const model = useModel('drawing', 'placement');
  const facing = useView((view) => view.faceOn);
  const [drawing, placement] = facing === null ? [] : [model.drawing[facing], model.placement[facing]];
  if (drawing === undefined || placement?.upright == null) return <MakeInPlan />;
  return (
    <>
      <UprightPart drawing={drawing} placement={placement} />
      <Part title="Members become">
        <Becomes kind="beam" />
      </Part>
      <Part title="Columns become">
        <Becomes kind="column" />
      </Part>
      <HoldPart />
    </>
  );
}

/** Made in the plan: from the drawing, or by hand. */
function MakeInPlan() {
  const { kind, ways, set } = useTracing();
  const { way, turn } = useWay();
  const setTool = useBoard((board) => board.setTool);
  const begin = (next: WayName) => {
    set({ ways: { ...ways, [kind]: next } });
    turn(next);
  };
  // What the bench asked for ends with it.
  useEffect(() => () => setTool({ kind: 'look' }), [setTool]);
  return (
    <>
      <Part title="Make">
        <KindChoice
          kind={kind}
          choose={(next) => {
            set({ kind: next });
            setTool({ kind: 'look' });
          }}
        />
      </Part>
      {isReadKind(kind) && <TakePart kind={kind} />}
      <Part title="By hand">
        <Choices
          label="How"
          choices={waysOf[kind].map((name) => ({ name, words: wayWords[name] }))}
          chosen={way}
          choose={begin}
        />
        <WaySettings kind={kind} way={way ?? ways[kind] ?? waysOf[kind][0]} />
      </Part>
      <Part title="It becomes">
        <Becomes kind={kind} />
      </Part>
      <HoldPart />
    </>
  );
}

const markOf = (kind: ElementKind) => (kind === 'opening' ? 'door' : kind);
const capital = (words: string): string => words[0].toUpperCase() + words.slice(1);

function KindChoice({ kind, choose }: { kind: ElementKind; choose: (kind: ElementKind) => void }) {
  return (
    <Box role="radiogroup" aria-label="Kind" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
      {elementKinds.map((name) => (
        <ButtonBase
          key={name}
          role="radio"
          aria-checked={kind === name}
          onClick={() => choose(name)}
          sx={{
            display: 'flex',
            gap: 0.75,
            px: 0.9,
            py: 0.4,
            minHeight: 26,
            border: '1px solid',
            borderColor: kind === name ? 'text.primary' : 'divider',
            borderRadius: '4px',
            fontSize: 13,
            fontWeight: kind === name ? 600 : 400,
          }}
        >
          <RoleMark role={markOf(name)} />
          {capital(kinds[name].names[0])}
        </ButtonBase>
      ))}
    </Box>
  );
}

/** What new elements are like, to be changed before they are made. */
function Becomes({ kind }: { kind: ElementKind }) {
  const lengths = useLengths();
  const { shapes, set } = useTracing();
  const more = useOwnOptions();
  const like = { kind, shape: shapes[kind] } as Shaped;
  return (
    <>
      <LibraryChoice kind={kind} />
      <ShapeFields
        things={[like]}
        more={more}
        lengths={lengths}
        places={false}
        set={(label, value) => set({ shapes: { ...shapes, [kind]: withChanges(like, new Map([[label, value]])) } })}
      />
    </>
  );
}

const kindsOfEntries: Partial<Record<ElementKind, LibraryRow['kind']>> = {
  column: 'section',
  beam: 'section',
  wall: 'wall',
  slab: 'slab',
};

/** The size of something from an entry of the library. */
const sizeOf = (entry: LibraryRow) => {
  if (entry.kind === 'section') return { section: entry.section };
  return entry.kind === 'glazing' || entry.kind === 'photometry' ? {} : { thickness: entry.thickness };
};

function LibraryChoice({ kind }: { kind: ElementKind }) {
  const model = useModel('library');
  const { shapes, set } = useTracing();
  const entries = Object.values(model.library)
    .filter((entry) => entry.kind === kindsOfEntries[kind])
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  if (entries.length === 0) return null;
  const like = shapes[kind] as unknown as Record<string, unknown>;
  const present = entries.find((entry) =>
    Object.entries(sizeOf(entry)).every(([name, value]) => JSON.stringify(like[name]) === JSON.stringify(value)),
  );
  return (
    <TextField
      select
      fullWidth
      size="small"
      label="From the library"
      value={present?.id ?? ''}
      onChange={({ target }) => {
        const entry = model.library[target.value];
        set({ shapes: { ...shapes, [kind]: { ...shapes[kind], ...sizeOf(entry) } } });
      }}
      sx={{ mt: 0.75, mb: 1.25 }}
    >
      {entries.map((entry) => (
        <MenuItem key={entry.id} value={entry.id}>
          {entry.name}
          {entry.kind === 'section' && entry.name !== sectionName(entry.section)
            ? ` (${sectionName(entry.section)})`
            : ''}
        </MenuItem>
      ))}
    </TextField>
  );
}
