import type { Candidate } from '@/core/reading/candidate';
import type { Tokens } from '@/ui/tokens';
import type { Camera, Size } from '../camera';
import type { BoardScene } from '../scene';

/** What drawing needs: where, how it is looked at, and what there is. */
export interface Pen {
  context: CanvasRenderingContext2D;
  camera: Camera;
  size: Size;
  scene: BoardScene;
}

/** Colour and dash of something that is a candidate (broken) or part of the model (solid). */
export function stroke({ context, scene }: Pen, candidate: Candidate | null, own: keyof Tokens): void {
  const chosen = candidate !== null && scene.chosen.has(candidate.key);
  context.strokeStyle = candidate?.doubt ? scene.tokens.amber : scene.tokens[own];
  const plain = candidate === null ? 1.25 : 1.5;
  context.lineWidth = chosen ? 2.25 : plain;
}
