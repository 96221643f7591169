'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useEffect } from 'react';
import { groupBy } from '@/core/groupBy';
import type { ElementRow } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { levelsUp, sourceLevel } from '@/core/model/levels';
import { changeField, heldByKind, holdElements, putOnLevel, similarTo } from '@/core/tracing/chosen';
import { clipOf } from '@/core/tracing/copied';
import { fitZones } from '@/core/tracing/fitted';
import { joinElements } from '@/core/tracing/parts';
import { removeElements } from '@/core/tracing/removed';
import { setOffElements } from '@/core/tracing/setOff';
import { useBoard } from '@/board/boardStore';
import { useOwnOptions } from '@/project/photometries';
import { keepClip } from '@/project/clipboard';
import { useSelected } from '@/project/selected';
import { useTracing, type WayName } from '@/project/tracing';
import { useCommit, useLengths, useModel, useSession } from '@/project/useSession';
import { useView } from '@/project/view';
import { Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { NumberField } from '@/ui/widgets/NumberField';
import { ShapeFields } from '@/ui/widgets/ShapeFields';
import { AxesPart } from './AxesPart';
import { Choices } from '@/ui/widgets/Choices';
import { MarksPart } from './MarksPart';
import { PastePart } from './PastePart';
import { SelectTree } from './SelectTree';
import { TiesPart } from './TiesPart';
import { pointedWays, selectionWays, wayWords } from './words';

const newId = () => crypto.randomUUID();

/** What is selected: its facts, its values, and what can be done with it. */
export function ChangePart() {
  const model = useModel('element', 'level');
  const { ids } = useSelected();
  const { tool, setTool } = useBoard();
  const axesShown = useTracing((tracing) => tracing.axesShown);
  const way = tool.kind === 'trace' ? tool.way : null;
  const elements = [...ids].flatMap((id) => model.element[id] ?? []);
  const turn = (next: WayName) => setTool(next === way ? { kind: 'look' } : { kind: 'trace', way: next });
  useEffect(() => () => setTool({ kind: 'look' }), [setTool]);
  const choices = (names: readonly WayName[], disabled = false) =>
    names.map((name) => ({ name, words: wayWords[name], disabled }));
  return (
    <>
      <SelectPart elements={elements} />
      {elements.length === 0 && <SelectTree />}
      {elements.length > 0 && <ValuesPart key={[...ids].join()} elements={elements} />}
      {elements.length > 0 && <TiesPart elements={elements} />}
      <Part title="With what is selected">
        <Choices
          label="With what is selected"
          choices={choices(selectionWays, elements.length === 0)}
          chosen={way}
          choose={turn}
        />
        {way === 'change.copy' && <CopyCount />}
        <AtOnce elements={elements} />
      </Part>
      <Part title="On the board">
        <Choices label="On the board" choices={choices(pointedWays)} chosen={way} choose={turn} />
      </Part>
      <PastePart way={way} turn={turn} />
      {elements.some(({ kind }) => kind === 'column' || kind === 'beam' || kind === 'zone') && (
        <MarksPart ids={[...ids]} />
      )}
      {(axesShown || elements.some(({ kind }) => kind === 'beam' || kind === 'column')) && (
        <AxesPart elements={elements} />
      )}
      {elements.length > 0 && <SelectTree />}
      <HeldPart />
    </>
  );
}

function CopyCount() {
  const { copies, set } = useTracing();
  return (
    <NumberField
      label="Copies in a row"
      value={copies}
      least={1}
      most={200}
      width={140}
      change={(next) => set({ copies: Math.round(next ?? 1) })}
    />
  );
}

/** Ways to select, and what is selected by kind. */
function SelectPart({ elements }: { elements: readonly ElementRow[] }) {
  const model = useModel('element');
  const { select, ids } = useSelected();
  const levelId = sourceLevel(
    model,
    useView((view) => view.levelId),
  );
  const groups = [...groupBy(elements, ({ kind }) => kind)];
  return (
    <Part title={elements.length === 0 ? 'Nothing is selected' : `${elements.length} selected`}>
      {elements.length === 0 ? (
        <Box sx={{ color: 'text.secondary', mb: 1 }}>
          Click on elements, with Ctrl on more; Shift and a drag selects what lies inside a box, with Alt also what it
          touches.
        </Box>
      ) : (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mb: 1 }}>
          {groups.map(([kind, members]) => (
            <Button key={kind} size="small" variant="text" onClick={() => select(members.map(({ id }) => id))}>
              <span className="mono">{members.length}</span>&nbsp;{kinds[kind].names[members.length === 1 ? 0 : 1]}
            </Button>
          ))}
          <Button size="small" variant="text" onClick={() => select(similarTo(model, levelId, ids))}>
            All like these
          </Button>
          <Button size="small" variant="text" onClick={() => select([])}>
            None
          </Button>
        </Box>
      )}
    </Part>
  );
}

/** The values of what is selected, where it is of one kind; what differs says so, and is changed for all. */
function ValuesPart({ elements }: { elements: readonly ElementRow[] }) {
  const model = useModel('element', 'level');
  const commit = useCommit();
  const lengths = useLengths();
  const more = useOwnOptions();
  const ids = elements.map(({ id }) => id);
  const [first] = elements;
  const alike = elements.every(({ kind }) => kind === first.kind);
  const levels = levelsUp(model).filter(({ repeats }) => repeats === null);
  const own = new Set(elements.map(({ levelId }) => levelId));
  return (
    <Part title="Its values">
      {alike && (
        <ShapeFields
          things={elements}
          more={more}
          lengths={lengths}
          set={(label, value) => void commit((now) => changeField(now, ids, label, value))}
        />
      )}
      {!alike && (
        <Box sx={{ color: 'text.secondary', mb: 1 }}>Of several kinds: choose one above to change values.</Box>
      )}
      <TextField
        select
        size="small"
        label={own.size > 1 ? 'Level, various' : 'Level'}
        value={own.size === 1 ? ([...own][0] ?? '') : ''}
        sx={{ width: 200, mt: 0.75 }}
        onChange={({ target }) => void commit((now) => putOnLevel(now, ids, target.value))}
      >
        {levels.map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
    </Part>
  );
}

/** What needs no point on the board. */
function AtOnce({ elements }: { elements: readonly ElementRow[] }) {
  const commit = useCommit();
  const lengths = useLengths();
  const session = useSession();
  const { setOff: by, gap, set } = useTracing();
  const ids = elements.map(({ id }) => id);
  const none = elements.length === 0;
  const keep = () => {
    const clip = clipOf(session.model, ids);
    const kept = keepClip(clip);
    session.tell(
      kept
        ? { kind: 'info', text: `${clip.elements.length} elements are kept to be pasted, here or in another project.` }
        : { kind: 'problem', text: 'The browser has no room to keep so much. Copy less at once.' },
    );
  };
  return (
    <>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mb: 1.5 }}>
        <Button
          size="small"
          variant="outlined"
          disabled={elements.length !== 2}
          onClick={() => void commit((now) => joinElements(now, ids))}
        >
          Join
        </Button>
        <Button size="small" variant="outlined" disabled={none} onClick={keep}>
          Keep to paste
        </Button>
        <Button
          size="small"
          variant="outlined"
          disabled={none}
          onClick={() => void commit((now) => holdElements(now, ids, true))}
        >
          Hold
        </Button>
        {elements.some(({ kind }) => kind === 'zone') && (
          <Button size="small" variant="outlined" onClick={() => void commit((now) => fitZones(now, ids, gap))}>
            Fit zones to walls
          </Button>
        )}
        <Button
          size="small"
          variant="outlined"
          disabled={none}
          onClick={() => void commit((now) => removeElements(now, ids))}
        >
          Delete
        </Button>
      </Box>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <LengthField label="Set off by" value={by} lengths={lengths} width={130} change={(setOff) => set({ setOff })} />
        <Button
          size="small"
          variant="outlined"
          disabled={none}
          onClick={() => void commit((now) => setOffElements(now, ids, by, newId))}
        >
          To the left, outwards
        </Button>
        <Button
          size="small"
          variant="outlined"
          disabled={none}
          onClick={() => void commit((now) => setOffElements(now, ids, -by, newId))}
        >
          Right, inwards
        </Button>
      </Box>
    </>
  );
}

/** What somebody has checked, and how it is let go. */
function HeldPart() {
  const model = useModel('element');
  const commit = useCommit();
  const held = heldByKind(model);
  if (held.length === 0) return null;
  return (
    <Part title="Held">
      <Box sx={{ color: 'text.secondary', mb: 0.75 }}>Checked: there to snap to, not to be changed.</Box>
      {held.map(([kind, members]) => (
        <Box key={kind} sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
          <span>
            <span className="mono">{members.length}</span> {kinds[kind].names[members.length === 1 ? 0 : 1]}
          </span>
          <Button
            size="small"
            variant="text"
            onClick={() =>
              void commit((now) =>
                holdElements(
                  now,
                  members.map(({ id }) => id),
                  false,
                ),
              )
            }
          >
            Let go
          </Button>
        </Box>
      ))}
    </Part>
  );
}
