'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { radians } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { counted } from '@/core/model/counted';
import { sourceLevel } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { tidyEdit, type Tidied } from '@/core/tracing/tidy/tidy';
import { tidySteps, type TidyStep } from '@/core/tracing/tidy/workpiece';
import { lineOf } from '@/core/tracing/restrung';
import { tidyInWorker } from '@/project/underlays';
import { useSelected } from '@/project/selected';
import { useCommit, useLengths, useModel, useSession } from '@/project/useSession';
import { useView } from '@/project/view';
import { Note, Part } from '@/ui/widgets/Heading';
import { LengthField } from '@/ui/widgets/LengthField';
import { NumberField } from '@/ui/widgets/NumberField';
import { useWorkingAngle } from './useWorkingAngle';

const stepWords: Record<TidyStep, string> = {
  doubles: 'merge what is there twice',
  straighten: 'straighten to the axes',
  grid: 'align to the grid',
  ends: 'pull ends together',
  extend: 'extend walls and beams to meet',
  overlaps: 'join what lies over one another',
  cut: 'cut where they meet and cross',
  outlines: 'close outlines',
  slivers: 'remove slivers',
};

/** Usual values: ends a few centimetres apart are meant to meet, directions half a degree off to be straight. */
const usual = { tolerance: 0.03, angle: 0.5 };

/** What a tidy-up found, and of which state of the model. */
interface Found {
  tidied: Tidied;
  version: number;
}

/** The elements that are tidied: those selected with what is in them, or all of the level. */
function rowsOf(model: Model, levelId: string | null, selected: ReadonlySet<string>, scope: Scope): ElementRow[] {
  const own = levelId === null ? [] : [...model.index.onLevel(levelId)];
  if (scope === 'level') return own;
  return own.filter((row) => selected.has(row.kind === 'opening' ? row.shape.wall : row.id));
}

type Scope = 'level' | 'selection';

/** Tidies the analytical model: shown on the board with counts before it is done. */
export function TidyPart() {
  const model = useModel('element', 'level');
  const session = useSession();
  const commit = useCommit();
  const lengths = useLengths();
  const turned = useWorkingAngle();
  const looked = useView((view) => view.levelId);
  const selected = useSelected((store) => store.ids);
  const [steps, setSteps] = useState<readonly TidyStep[]>(tidySteps);
  const [tolerance, setTolerance] = useState(usual.tolerance);
  const [angle, setAngle] = useState(usual.angle);
  const [scope, setScope] = useState<Scope>('level');
  const [found, setFound] = useState<Found | null>(null);
  const [working, setWorking] = useState(false);
  const levelId = sourceLevel(model, looked);
  const version = model.levelVersion(levelId);
  const drop = () => {
    setFound(null);
    session.draft.clear();
  };
  useEffect(() => () => session.draft.clear(), [session]);

  const look = async () => {
    setWorking(true);
    const rows = rowsOf(model, levelId, selected, scope);
    const grid = [...model.ofKind('grid')].flatMap((element) => lineOf(element) ?? []);
    try {
      const tidied = await tidyInWorker(rows, { steps, tolerance, angle: radians(angle), axes: turned, grid });
      setFound({ tidied, version });
      session.draft.set(tidied.changed);
    } catch (error) {
      session.tell({ kind: 'problem', text: (error as Error).message });
    }
    setWorking(false);
  };
  const apply = () => {
    const { tidied } = found!;
    drop();
    void commit((now) => {
      const made = tidyEdit(now, tidied);
      if (!made.ok) return made;
      if (made.value.left > 0)
        session.tell({
          kind: 'info',
          text: `${counted(made.value.left, 'element')} stayed as they were: tidying would have broken them.`,
        });
      return made.value.edit;
    });
  };
  const stale = found !== null && found.version !== version;
  return (
    <>
      <Part title="Tidy the model">
        {tidySteps.map((step) => (
          <Box key={step} sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  checked={steps.includes(step)}
                  onChange={(_, on) => {
                    drop();
                    setSteps(on ? [...steps, step] : steps.filter((other) => other !== step));
                  }}
                />
              }
              label={stepWords[step]}
              sx={{ '& .MuiFormControlLabel-label': { fontSize: 13 }, minHeight: 28, mr: 0 }}
            />
            <span className="mono">{found?.tidied.counts[step] ?? ''}</span>
          </Box>
        ))}
      </Part>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mb: 1.5 }}>
        <LengthField
          label="Within"
          value={tolerance}
          lengths={lengths}
          least={0.0001}
          width="100%"
          change={(next) => {
            drop();
            setTolerance(next);
          }}
        />
        <NumberField
          label="Straight within, degrees"
          value={angle}
          least={0}
          most={10}
          change={(next) => {
            drop();
            setAngle(next ?? usual.angle);
          }}
        />
        <TextField
          select
          size="small"
          label="Of"
          value={scope}
          onChange={(event) => {
            drop();
            setScope(event.target.value === 'selection' ? 'selection' : 'level');
          }}
        >
          <MenuItem value="level">this level</MenuItem>
          <MenuItem value="selection" disabled={selected.size === 0}>
            what is selected
          </MenuItem>
        </TextField>
      </Box>
      {found !== null && <FoundNote found={found.tidied} stale={stale} />}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button variant="outlined" disabled={working || steps.length === 0} onClick={() => void look()}>
          {working ? 'Looking ...' : 'Show what changes'}
        </Button>
        {found !== null && !stale && isSomething(found.tidied) && (
          <Button variant="contained" onClick={apply}>
            Apply
          </Button>
        )}
        {found !== null && (
          <Button variant="text" onClick={drop}>
            Cancel
          </Button>
        )}
      </Box>
    </>
  );
}

const isSomething = ({ changed, merged, gone }: Tidied): boolean => changed.length + merged.length + gone.length > 0;

function FoundNote({ found, stale }: { found: Tidied; stale: boolean }) {
  if (stale) return <Note kind="look">The level has changed since. Have it shown again.</Note>;
  if (!isSomething(found)) return <Note kind="plain">Nothing to tidy up: everything meets within this distance.</Note>;
  const parts = [
    counted(found.changed.length, 'element') + ' changed',
    ...(found.merged.length > 0 ? [`${found.merged.length} merged into others`] : []),
    ...(found.gone.length > 0 ? [`${found.gone.length} removed`] : []),
  ];
  return <Note kind="plain">{parts.join(', ')}; shown on the board.</Note>;
}
