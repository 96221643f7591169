'use client';
import Box from '@mui/material/Box';
import { useBoard } from '@/board/boardStore';
import { SpaceStrip } from '@/board/space/SpaceStrip';
import { SpaceView } from '@/board/space/SpaceView';
import { SelectionStrip } from '@/board/SelectionStrip';
import { useSelected } from '@/project/selected';
import { useLengths, useModel } from '@/project/useSession';
import { useView } from '@/project/view';
import { useSpaceScene } from './useSpaceScene';

/** The model in space, in place of the plan. @param levelId the present level */
export function DeskSpace({ levelId }: { levelId: string | null }) {
  const { orbit, space, set } = useView();
  const lengths = useLengths();
  const model = useModel('level');
  const scene = useSpaceScene(levelId);
  if (typeof scene === 'string')
    return (
      <Box role="alert" sx={waitingStyle}>
        The model could not be put together: {scene}. Reload the page.
      </Box>
    );
  if (scene === null)
    return (
      <Box role="status" sx={waitingStyle}>
        putting the model together {'\u2026'}
      </Box>
    );
  const level = levelId === null ? undefined : model.level[levelId];
  const box = scene.bodies.box === null ? scene.around : scene.bodies.box;
  const lift = scene.bodies.box === null ? 0 : scene.bodies.origin[2];
  return (
    <SpaceView
      scene={scene}
      orbit={orbit}
      looked={(next) => set({ orbit: next })}
      select={(ids) => useSelected.getState().select(ids)}
    >
      <SelectionStrip />
      <SpaceStrip
        look={space}
        level={level?.name ?? null}
        heights={[box[2] + lift, box[5] + lift]}
        lengths={lengths}
        change={(next) => set({ space: { ...space, ...next } })}
        turn={useBoard.getState().lookFrom}
      />
    </SpaceView>
  );
}

const waitingStyle = {
  position: 'absolute',
  inset: 0,
  display: 'grid',
  placeItems: 'center',
  background: 'var(--mui-palette-zf-board)',
  color: 'text.secondary',
  fontSize: 15,
} as const;
