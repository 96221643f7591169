import { sectionName } from '@/core/kinds/section';
import type { LibraryRow } from '@/core/kinds/libraryEntry';
import { confidenceOf, type Candidate, type Evidence } from './candidate';
import type { Scene } from './scene';

/** The section or construction that a layer means. */
export type Meaning = LibraryRow;

/** A size drawn further than this from what its layer means deserves a look, metres. */
const differs = 0.005;

/** Gives candidates the size that their layer means, where it means one; what was drawn otherwise is said. */
export function applyMeanings(
  candidates: readonly Candidate[],
  scene: Scene,
  meanings: readonly (Meaning | null)[],
): Candidate[] {
  return candidates.map((candidate) => {
    for (const layer of scene.layersOf(candidate.handles)) {
      const meaning = meanings[layer];
      const meant = meaning ? withMeaning(candidate, meaning) : null;
      if (meant !== null) return meant;
    }
    return candidate;
  });
}

/** A candidate made of what its layer means; null where that is nothing for its kind. */
function withMeaning(candidate: Candidate, meaning: Meaning): Candidate | null {
  if (meaning.kind === 'section' && (candidate.kind === 'column' || candidate.kind === 'beam')) {
    const drawn = sectionName(candidate.element.section);
    return meant(
      { ...candidate, element: { ...candidate.element, section: meaning.section } } as Candidate,
      meaning,
      drawn === sectionName(meaning.section) ? null : drawn,
    );
  }
  if (
    (meaning.kind === 'wall' && candidate.kind === 'wall') ||
    (meaning.kind === 'slab' && candidate.kind === 'slab')
  ) {
    const drawn = candidate.element.thickness;
    // A slab's thickness is not drawn.
    const off = candidate.kind === 'wall' && Math.abs(drawn - meaning.thickness) > differs;
    return meant(
      { ...candidate, element: { ...candidate.element, thickness: meaning.thickness } } as Candidate,
      meaning,
      off ? `${(drawn * 1000).toFixed(0)} mm` : null,
    );
  }
  if (meaning.kind === 'glazing' && candidate.kind === 'opening' && candidate.element.use === 'window')
    return meant({ ...candidate }, meaning, null);
  return null;
}

function meant(candidate: Candidate, { id, name }: Meaning, drawn: string | null): Candidate {
  const evidence: Evidence[] = [
    ...candidate.evidence,
    {
      text: drawn === null ? `its layer means ${name}` : `its layer means ${name}, and it is drawn as ${drawn}`,
      weight: drawn === null ? 0.5 : -1,
    },
  ];
  const doubt = drawn === null ? candidate.doubt : [candidate.doubt, `drawn as ${drawn}`].filter(Boolean).join(', ');
  return { ...candidate, libraryId: id, evidence, confidence: confidenceOf(candidate.kind, evidence), doubt };
}
