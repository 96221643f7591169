'use client';
import { keyOf, useAnswer } from '@/project/useAnswer';
import { useModel, useCommit, useProjectRow } from '@/project/useSession';
import { recipeOf, setRecipe } from '@/core/model/drawings';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import Tooltip from '@mui/material/Tooltip';
import { useState } from 'react';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import {
  freshStep,
  stepKinds,
  stepWords,
  type Recipe,
  type RecipeStep,
  type Step,
  type StepKind,
} from '@/core/underlay/recipe/steps';
import type { DisplayUnit } from '@/core/units/length';
import { suggestSteps, type Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { Icon, type IconName } from '@/ui/widgets/Icon';
import { RecipeShelf } from './RecipeShelf';
import { stepDetail } from './stepDetail';
import { StepForm } from './StepForm';
import { usePreview } from './usePreview';

const bringIntoView = (element: HTMLElement | null) => element?.scrollIntoView({ block: 'nearest' });

/** A step that is looked at: a new one, or one of the recipe by its place. */
type Draft = { at: number | null; step: Step };

/** The clean-up of one drawing: what is suggested, the steps, and the shelf of kept recipes. */
export function RecipePart({
  drawing,
  placement,
  underlay,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay | null;
}) {
  const state = useModel('recipe', 'display', 'drawing');
  const commit = useCommit();
  const unit = useProjectRow().displayUnit;
  const recipe = recipeOf(state, drawing.id);
  const [draft, setDraft] = useState<Draft | null>(null);
  const set = (steps: Recipe, label: string) => commit(() => setRecipe(drawing.id, steps, label));
  const add = (steps: Step[]) =>
    void set(
      [...recipe, ...steps.map((step) => ({ id: crypto.randomUUID(), on: true, step }))],
      steps.length === 1
        ? `Clean ${drawing.name}: ${stepWords[steps[0].kind].name.toLowerCase()}`
        : `Clean ${drawing.name}: ${steps.length} steps`,
    );
  const apply = () => {
    if (draft === null) return;
    if (draft.at === null) add([draft.step]);
    else
      void set(
        recipe.map((entry, i) => (i === draft.at ? { ...entry, step: draft.step } : entry)),
        `Change ${stepWords[draft.step.kind].name.toLowerCase()} of ${drawing.name}`,
      );
    setDraft(null);
  };
  const move = (i: number, by: number) => {
    const steps = [...recipe];
    [steps[i], steps[i + by]] = [steps[i + by], steps[i]];
    void set(steps, `Move ${stepWords[recipe[i].step.kind].name.toLowerCase()} of ${drawing.name}`);
  };
  const words = usePreview(drawing.id, underlay, draft?.step ?? null, draft?.at ?? null);

  if (underlay === null) return <Note kind="plain">The drawing is being opened.</Note>;
  return (
    <>
      {!placement.confirmed && (
        <Note kind="look">The unit is not confirmed yet; tolerances in millimetres follow from it.</Note>
      )}
      <Suggested drawing={drawing} underlay={underlay} take={add} look={(step) => setDraft({ at: null, step })} />
      <Part
        title={recipe.length === 0 ? 'No step yet' : `Steps: ${recipe.length}`}
        aside={<AddStep add={(kind) => setDraft({ at: null, step: freshStep(kind) })} />}
      >
        <Box component="ol" aria-label="Steps of the recipe" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {recipe.map((entry, i) => (
            <StepLine
              key={entry.id}
              entry={entry}
              unit={unit}
              words={underlay.counts[entry.id]?.words ?? null}
              open={draft?.at === i}
              first={i === 0}
              last={i === recipe.length - 1}
              toggle={() =>
                void set(
                  recipe.map((other) => (other.id === entry.id ? { ...other, on: !other.on } : other)),
                  `${entry.on ? 'Skip' : 'Use'} ${stepWords[entry.step.kind].name.toLowerCase()} of ${drawing.name}`,
                )
              }
              look={() => setDraft(draft?.at === i ? null : { at: i, step: entry.step })}
              up={() => move(i, -1)}
              down={() => move(i, 1)}
              remove={() => {
                setDraft(null);
                void set(
                  recipe.filter((other) => other.id !== entry.id),
                  `Remove ${stepWords[entry.step.kind].name.toLowerCase()} of ${drawing.name}`,
                );
              }}
            />
          ))}
        </Box>
        {draft !== null && (
          <Box
            role="group"
            ref={bringIntoView}
            aria-label={`${stepWords[draft.step.kind].name}: values`}
            sx={{ border: '1px solid var(--mui-palette-divider)', borderRadius: '5px', p: 1.5, mt: 1 }}
          >
            <Box sx={{ fontWeight: 600 }}>{stepWords[draft.step.kind].name}</Box>
            <Box sx={{ color: 'text.secondary', mb: 1 }}>{stepWords[draft.step.kind].about}</Box>
            <StepForm
              key={`${draft.at ?? 'new'}/${draft.step.kind}`}
              step={draft.step}
              change={(step) => setDraft({ ...draft, step })}
              underlay={underlay}
              placement={placement}
              unit={unit}
            />
            <Box role="status" sx={{ my: 1 }}>
              {words === null ? (
                'counting \u2026'
              ) : (
                <>
                  Touches <b>{words}</b>, shown in amber.
                </>
              )}
            </Box>
            <Box sx={{ display: 'flex', gap: 1 }}>
              <Button variant="contained" onClick={apply}>
                Apply
              </Button>
              <Button variant="text" onClick={() => setDraft(null)}>
                {draft.at === null ? 'Cancel' : 'Close'}
              </Button>
            </Box>
          </Box>
        )}
      </Part>
      <RecipeShelf
        drawing={drawing}
        recipe={recipe}
        use={(name, steps) =>
          void set(
            [
              ...recipe.filter(({ step }) => step.kind === 'region'),
              ...steps.map((entry) => ({ ...entry, id: crypto.randomUUID() })),
            ],
            `Recipe ${name} for ${drawing.name}`,
          )
        }
      />
    </>
  );
}

/** What the file shows that a recipe could mend. */
function Suggested({
  drawing,
  underlay,
  take,
  look,
}: {
  drawing: DrawingRow;
  underlay: Underlay;
  take: (steps: Step[]) => void;
  look: (step: Step) => void;
}) {
  const answer = useAnswer(keyOf(drawing.id, underlay.basis), () => suggestSteps(drawing.id));
  if (answer === null)
    return (
      <Box role="status" sx={{ color: 'text.secondary', mb: 2 }}>
        looking for dirt {'\u2026'}
      </Box>
    );
  if (!answer.ok) return <Note kind="wrong">{answer.message}</Note>;
  const suggestions = answer.value;
  if (suggestions.length === 0) return null;
  return (
    <Part title="Suggested">
      <Box
        sx={{
          borderLeft: '3px solid var(--mui-palette-zf-amber)',
          background: 'var(--mui-palette-zf-amberSoft)',
          borderRadius: '0 5px 5px 0',
          px: 1.5,
          py: 1,
        }}
      >
        <Box component="ul" aria-label="Suggested steps" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {suggestions.map(({ step, count }, i) => (
            <Box component="li" key={i} sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 30 }}>
              <Box sx={{ flex: 1 }}>
                <b>{count.words}</b>{' '}
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {verbs[step.kind]}
                </Box>
              </Box>
              <Button
                variant="text"
                sx={{ minWidth: 0, px: 1 }}
                aria-label={`Look at ${count.words}`}
                onClick={() => look(step)}
              >
                Look
              </Button>
              <Button
                variant="text"
                sx={{ minWidth: 0, px: 1 }}
                aria-label={`Apply ${count.words}`}
                onClick={() => take([step])}
              >
                Apply
              </Button>
            </Box>
          ))}
        </Box>
        <Button variant="contained" sx={{ mt: 1 }} onClick={() => take(suggestions.map(({ step }) => step))}>
          {suggestions.length === 1 ? 'Apply it' : `Apply all ${suggestions.length}`}
        </Button>
      </Box>
    </Part>
  );
}

const verbs: Record<StepKind, string> = {
  strays: 'to drop',
  leaveOutKinds: 'to leave out',
  duplicates: 'to merge',
  straighten: 'to straighten',
  closeGaps: 'to close',
  flattenHeights: 'to flatten',
  listUsed: 'not to list',
  leaveOutLayers: 'to leave out',
  leaveOutBlocks: 'to leave out',
  region: 'to cut',
  chopArcs: 'to chop',
  curves: 'to refine',
};

function AddStep({ add }: { add: (kind: StepKind) => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button variant="outlined" aria-haspopup="menu" onClick={(event) => setAnchor(event.currentTarget)}>
        Add a step
      </Button>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)}>
        {stepKinds.map((kind) => (
          <MenuItem
            key={kind}
            onClick={() => {
              setAnchor(null);
              add(kind);
            }}
          >
            {stepWords[kind].name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}

interface StepLineProps {
  entry: RecipeStep;
  unit: DisplayUnit;
  words: string | null;
  open: boolean;
  first: boolean;
  last: boolean;
  toggle: () => void;
  look: () => void;
  up: () => void;
  down: () => void;
  remove: () => void;
}

function StepLine({
  entry: { on, step },
  unit,
  words,
  open,
  first,
  last,
  toggle,
  look,
  up,
  down,
  remove,
}: StepLineProps) {
  const { name } = stepWords[step.kind];
  const detail = stepDetail(step, unit);
  const act = (icon: IconName, label: string, press: () => void, disabled = false) => (
    <Tooltip title={label}>
      <span>
        <IconButton
          size="small"
          aria-label={`${label}: ${name}`}
          disabled={disabled}
          onClick={press}
          sx={{ width: 26, height: 26 }}
        >
          <Icon name={icon} size={15} />
        </IconButton>
      </span>
    </Tooltip>
  );
  return (
    <Box
      component="li"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 0.5,
        borderBottom: '1px solid var(--mui-palette-divider)',
        py: 0.25,
        background: open ? 'var(--mui-palette-zf-zirconSoft)' : 'none',
      }}
    >
      <Switch size="small" checked={on} onChange={toggle} slotProps={{ input: { 'aria-label': `Use ${name}` } }} />
      <Box
        component="button"
        type="button"
        onClick={look}
        aria-expanded={open}
        sx={{
          all: 'unset',
          flex: 1,
          minWidth: 0,
          cursor: 'pointer',
          opacity: on ? 1 : 0.6,
          '&:focus-visible': { outline: '2px solid var(--mui-palette-primary-main)' },
        }}
      >
        <Box>
          <b>{name}</b>
          {detail && (
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {' '}
              {detail}
            </Box>
          )}
        </Box>
        <Box sx={{ fontSize: 12, color: 'text.secondary' }}>{on ? (words ?? 'counting \u2026') : 'not used'}</Box>
      </Box>
      {act('up', 'Earlier', up, first)}
      {act('down', 'Later', down, last)}
      {act('close', 'Delete', remove)}
    </Box>
  );
}
