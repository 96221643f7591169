import type { Point } from '@/core/geometry/vector';
import type { ElementKind, ElementRow } from '@/core/kinds/element';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import type { Result } from '@/core/result';
import type { EndlessLine } from '@/core/tracing/reach';
import type { PickedLine } from '../boardStore';
import type { Camera, Size } from '../camera';
import type { Hit } from '../hits';
import type { BoardScene } from '../scene';

/** What the board tells those who mounted it. */
export interface BoardEvents {
  cameraChanged(camera: Camera): void;
  candidateClicked(key: string | null, adding: boolean): void;
  /** A line of an underlay was clicked, or nothing. */
  lineClicked(line: { drawingId: string; path: number } | null): void;
  /** The elements that are selected now. */
  selected(ids: ReadonlySet<string>): void;
  /** Elements in the middle of a gesture; none where it has ended. */
  drafted(elements: readonly ElementRow[]): void;
  /** Something is done to the model. */
  committed(make: (model: Model) => Result<Edit>): void;
  /** Elements are to be deleted. */
  deleted(ids: ReadonlySet<string>): void;
}

/** What the board offers to tools. */
export interface World {
  readonly scene: BoardScene;
  readonly camera: Camera;
  readonly size: Size;
  readonly events: BoardEvents;
  /** How many things the cursor could hold on to, and which of them it does. */
  readonly choice: { chosen: number; of: number };
  hitAt(at: Point): Hit | null;
  elementsInBox(from: Point, to: Point, touching: boolean): ElementRow[];
  lineAt(at: Point): { drawingId: string; path: number } | null;
  /** The line under a point, of held drawings too. */
  anyLineAt(at: Point): { drawingId: string; path: number } | null;
  straightAt(at: Point): PickedLine | null;
  /** The element of some kinds under a point, the nearest. */
  elementAt(at: Point, kinds: readonly ElementKind[] | 'any'): ElementRow | null;
  /** The straight line under a point: of the model, or of a drawing. */
  endlessAt(at: Point): EndlessLine | null;
  redraw(): void;
}
