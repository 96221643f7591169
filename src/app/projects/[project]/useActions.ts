'use client';
import { useMemo } from 'react';
import { acceptCandidates, displayOf, showLayers } from '@/core/model/commands';
import { put, type Change } from '@/core/model/edits';
import { elementKinds, type GridLine } from '@/core/model/elements';
import { kindNames } from '@/core/reading/candidate';
import type { ProjectState } from '@/core/model/state';
import { gridCrossings } from '@/core/reading/grid/crossings';
import { measureModes } from '@/core/datum/measure';
import { displayUnits, unitNames } from '@/core/units/length';
import { levelsUp } from '@/core/model/levels';
import { useBoard } from '@/board/boardStore';
import { activeDrawings, projectRowOf, useProject } from '@/project/store';
import { useReadings, verdictOf } from '@/project/readings';
import { datumParts, intakeParts, readingParts, sortingParts, stationNames, useView } from '@/project/view';
import type { Action } from '@/ui/shell/FindOrDo';
import { useScheme } from '@/ui/widgets/useScheme';

/** Everything that the search box can find or do. */
export function useActions(): Action[] {
  const store = useProject();
  const { state, commit, history } = store;
  const { readings } = useReadings();
  const setView = useView((view) => view.set);
  const { lookAt, setTool } = useBoard();
  const { dark, toggle } = useScheme();
  return useMemo(() => {
    const actions: Action[] = [
      ...stationNames.map((station): Action => ({
        group: 'Station',
        words: station[0].toUpperCase() + station.slice(1),
        run: () => setView({ station, benchFolded: false }),
      })),
      { group: 'Board', words: 'Show all', run: () => lookAt('all') },
      { group: 'Board', words: 'Show all levels in space', run: () => setView({ stacked: true }) },
      { group: 'Board', words: 'Show the plan', run: () => setView({ stacked: false }) },
      ...measureModes.map((mode): Action => ({
        group: 'Board',
        words: `Measure ${mode === 'angle' || mode === 'area' ? 'an' : 'a'} ${mode}`,
        run: () => {
          setView({ station: 'datum', datumPart: 'measure', benchFolded: false });
          setTool({ kind: 'measure', mode });
        },
      })),
      { group: 'Program', words: dark ? 'Light colours' : 'Dark colours', run: toggle },
      ...(history.undo === null
        ? []
        : [{ group: 'Program', words: `Undo ${history.undo}`, run: () => void store.undo() }]),
      ...(history.redo === null
        ? []
        : [{ group: 'Program', words: `Redo ${history.redo}`, run: () => void store.redo() }]),
      ...displayUnits.map((unit): Action => ({
        group: 'Project unit',
        words: `Show lengths in ${unitNames[unit]}`,
        run: () =>
          void commit((now) => ({
            label: `Lengths in ${unitNames[unit]}`,
            changes: [
              put('project', { ...projectRowOf({ state: now, id: store.id }), displayUnit: unit, places: null }),
            ],
          })),
      })),
      ...levelsUp(state).map((level): Action => ({
        group: 'Level',
        words: level.name,
        run: () => setView({ levelId: level.id, faceOn: null }),
      })),
    ];
    for (const part of datumParts)
      actions.push({
        group: 'Datum',
        words: `Open ${part} of Datum`,
        run: () => setView({ station: 'datum', benchFolded: false, datumPart: part }),
      });
    for (const part of sortingParts)
      actions.push({
        group: 'Sorting',
        words: `Open ${{ layers: 'layers', blocks: 'blocks', picked: 'picked lines', maps: 'role maps' }[part]}`,
        run: () => setView({ station: 'sorting', benchFolded: false, sortingPart: part }),
      });
    for (const part of readingParts)
      actions.push({
        group: 'Parts of Reading',
        words: `Open ${{ review: 'the review of candidates', library: 'the library', numbering: 'the numbering of grid lines', settings: 'what reading takes for granted' }[part]}`,
        run: () => setView({ station: 'reading', benchFolded: false, readingPart: part }),
      });
    for (const axes of [{ id: null, name: 'the project' }, ...(projectRowOf(store)?.axes ?? [])])
      actions.push({ group: 'Axes', words: `Work along ${axes.name}`, run: () => setView({ axesId: axes.id }) });
    for (const part of intakeParts)
      actions.push({
        group: 'Intake',
        words: `Open ${part}`,
        run: () => setView({ station: 'intake', benchFolded: false, intakePart: part }),
      });
    for (const drawing of activeDrawings(state)) {
      const { held } = displayOf(state, drawing.id);
      const change = (label: string, make: (now: ProjectState) => Change) => () =>
        void commit((now) => ({ label, changes: [make(now)] }));
      actions.push(
        {
          group: 'Drawing',
          words: `Take ${drawing.name} in hand`,
          run: () => setView({ drawingId: drawing.id, ...(drawing.levelId ? { levelId: drawing.levelId } : {}) }),
        },
        {
          group: 'Drawing',
          words: `${drawing.setAside ? 'Bring back' : 'Set aside'} ${drawing.name}`,
          run: change(`${drawing.setAside ? 'Bring back' : 'Set aside'} ${drawing.name}`, (now) =>
            put('drawing', { ...now.drawing[drawing.id], setAside: !drawing.setAside }),
          ),
        },
        {
          group: 'Drawing',
          words: `${held ? 'Release' : 'Hold'} ${drawing.name}`,
          run: change(`${drawing.name}: ${held ? 'released' : 'held'}`, (now) =>
            put('display', { ...displayOf(now, drawing.id), held: !held }),
          ),
        },
      );
      if (state.placement[drawing.id]?.upright != null) {
        actions.push({
          group: 'Drawing',
          words: `Look at ${drawing.name} face on`,
          run: () => setView({ faceOn: drawing.id, drawingId: drawing.id }),
        });
        continue;
      }
      for (const kind of elementKinds) {
        const open = (readings[drawing.id]?.result?.candidates ?? []).filter(
          (candidate) => candidate.kind === kind && verdictOf(state, drawing.id, candidate.key) === 'open',
        );
        if (open.length > 0)
          actions.push({
            group: 'Reading',
            words: `Accept all ${kindNames[kind][1]} of ${drawing.name} (${open.length})`,
            run: () => void commit((now) => acceptCandidates(now, drawing, open, () => crypto.randomUUID())),
          });
      }
      for (const row of Object.values(state.role)) {
        if (row.drawingId === drawing.id)
          actions.push({
            group: 'Layer',
            words: `${row.shown ? 'Hide' : 'Show'} layer ${row.layer} of ${drawing.name}`,
            run: () => void commit((now) => showLayers([now.role[row.id]], !row.shown)),
          });
      }
    }
    const grid = Object.values(state.element).flatMap((element) =>
      element.kind === 'grid' ? [element.shape as GridLine] : [],
    );
    for (const {
      name,
      point: [x, y],
    } of gridCrossings(grid))
      actions.push({ group: 'Crossing', words: `Go to ${name}`, run: () => lookAt([x - 5, y - 5, x + 5, y + 5]) });
    return actions;
  }, [store, state, commit, history, readings, setView, lookAt, setTool, dark, toggle]);
}
