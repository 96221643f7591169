'use client';
import { useMemo } from 'react';
import { changeLevel, hangsOn, insertLevel, levelsUp } from '@/core/model/levels';
import type { LevelRow } from '@/core/model/state';
import { activeDrawings } from '@/project/projectRow';
import { useMayEdit, useMoment, useCommit, useLengths } from '@/project/useSession';
import { useView } from '@/project/view';
import { LevelLadder } from '@/ui/shell/LevelLadder';

/** The level ladder of the opened project. */
export function DeskLadder({ present }: { present: string | null }) {
  const moment = useMoment('level', 'drawing', 'placement');
  const { drawingId, set } = useView();
  const lengths = useLengths();
  const commit = useCommit();
  const mayEdit = useMayEdit();
  const plans = useMemo(() => {
    const { model } = moment;
    return activeDrawings(model).filter(({ id }) => model.placement[id]?.upright === null);
  }, [moment]);
  const levels = useMemo(() => {
    const { model } = moment;
    return levelsUp(model).map((level) => ({
      ...level,
      drawings: plans.filter((drawing) => hangsOn(model, drawing, level.id)).map(({ name }) => name),
      repeated: level.repeats === null ? null : (model.level[level.repeats]?.name ?? null),
    }));
  }, [moment, plans]);
  const go = (levelId: string) => {
    const there = plans.find(
      (drawing) => drawing.levelId !== null && !drawing.setAside && hangsOn(moment.model, drawing, levelId),
    );
    set({ levelId, drawingId: there?.id ?? drawingId, faceOn: null });
  };
  const add = () => {
    const top = levels[levels.length - 1];
    if (top) void commit((now) => insertLevel(now, top.id, 'above', crypto.randomUUID()));
  };
  const change = (level: LevelRow, shift: boolean) => void commit((now) => changeLevel(now, level, shift));
  const more = (levelId: string) => set({ station: 'datum', datumPart: 'levels', benchFolded: false, levelId });
  return (
    <LevelLadder
      unit={lengths}
      present={present}
      levels={levels}
      go={go}
      edit={mayEdit ? { change, add, more } : null}
    />
  );
}
