import type { StaticImageData } from 'next/image';
import type { StationName } from '@/project/view';
import datum from '../../../docs/screenshots/datum.png';
import handover from '../../../docs/screenshots/handover.png';
import intake from '../../../docs/screenshots/intake.png';
import proof from '../../../docs/screenshots/proof.png';
import reading from '../../../docs/screenshots/reading-evidence.png';
import sorting from '../../../docs/screenshots/sorting.png';
import tracing from '../../../docs/screenshots/tracing.png';

/** What a station is for, what is done there in which order, and what to watch. */
export interface GuideWords {
  title: string;
  picture: StaticImageData;
  about: string;
  steps: string[];
  watch: string;
}

export const guideWords: Record<StationName, GuideWords> = {
  intake: {
    title: 'Intake',
    picture: intake,
    about: 'Drawings come in here, and each is told in full: what was read, what was left out, and why.',
    steps: [
      'Drop DXF files on the bench, several at once, or an IFC, of which each storey becomes a plan. Any can be cancelled.',
      'Look at what was left out in the report. What has a remedy says it.',
      'Under Recipe, clean up: strays, doubles, gaps, lines a little askew. Each step says how many lines it touches before it is applied.',
      'Several plans on one sheet: Plans cuts them apart, each into a drawing of its own.',
      'A new revision goes over the old one under Revisions; what it changes is told at Reading.',
    ],
    watch: 'Nothing disappears silently: read and left out add up to what the file holds.',
  },
  datum: {
    title: 'Datum',
    picture: datum,
    about: 'Unit, place and height of every drawing, with the evidence for them. Half an hour here saves a day later.',
    steps: [
      'Unit: look at the cues, and confirm. Where they contradict one another, measure something that you know.',
      'Fit: lay a plan on the others by its grid, by its spacings, or by two points.',
      'Levels: heights and storeys; typical storeys repeat another. A section gives them under Place, once it stands upright.',
      'Project: the unit that lengths are shown in, north and survey, further axes for wings that stand askew.',
    ],
    watch:
      'When a unit or a place is put right later, everything that came from the drawing can go along; it is shown before.',
  },
  sorting: {
    title: 'Sorting',
    picture: sorting,
    about:
      'Which layers are grid lines, columns, beams, walls, openings, slabs and zones, and which are none of these.',
    steps: [
      'Go through the suggested roles; each says why. One click confirms a layer.',
      'Blocks and picked lines may have roles of their own, which go before those of their layers.',
      'One and all that is like it: point at one line or text, say what it is, and all of its like follow.',
      'Keep the roles as a role map: it goes to the next drawing of that office.',
    ],
    watch: 'A layer without a role is not read. The course counts how many have one.',
  },
  reading: {
    title: 'Reading',
    picture: reading,
    about: 'What the drawing says becomes candidates, each with its evidence and how sure it is. You decide.',
    steps: [
      'Go through the kinds. Accept what is surer than a threshold at once; the threshold says how many of these will be wrong.',
      'Look at doubtful ones on the board. Evidence, other readings and "all like it" stand beside the list.',
      'Rooms that are open show their gap; marks show the schedule that gives their size.',
      'What another drawing of the level shows otherwise is told in the list.',
    ],
    watch: 'Accepting is an edit like any other: it can be undone, and rejected candidates can be reopened.',
  },
  tracing: {
    title: 'Tracing',
    picture: tracing,
    about: 'What was not read is taken from lines with one click, or drawn, and what is there is put right.',
    steps: [
      'Choose what is to be made, then point at its lines: what they would become is shown before the click.',
      'Or draw: hold on to points, lock a direction with Shift, type lengths, angles and coordinates.',
      'On a section that is seen face on, members, columns and heights are made at their true height.',
      'Tidy brings near misses together; each step shows what it would move.',
    ],
    watch: 'What somebody has checked can be held: then nothing moves it.',
  },
  proof: {
    title: 'Proof',
    picture: proof,
    about: 'What is wrong with the model before a calculation says it: found by rules, and by calculating it here.',
    steps: [
      'Go through the errors first; a click shows the place and selects the elements, J and K go to the next and the one before.',
      'Put right what is said, by the button where the remedy is certain; what may stay is accepted with a reason.',
      'Warnings may be meant: sizes out of proportion, ends that nearly meet, rooms no door leads into.',
      'Drawings: see how much of each drawing is in the model, how near, and which dimensions say something else.',
      'Structure: calculate, look at the sum first, then at what can move freely, then at a column line beside its count by hand.',
    ],
    watch:
      'Nothing found means that these rules found nothing, not that nothing is wrong. Read what was taken for granted.',
  },
  handover: {
    title: 'Handover',
    picture: handover,
    about: 'What goes out, in open formats, and what could not be resolved.',
    steps: [
      'Look at what is told first: an element without a level or an opening beyond its wall is not written.',
      'Save the model as model.json or as DXF, in the project\u2019s or in survey coordinates.',
    ],
    watch: 'Every element names the drawing and the entities that it came from.',
  },
};
