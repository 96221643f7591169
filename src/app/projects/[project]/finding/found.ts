import { faceOn, place, type Placement } from '@/core/datum/placement';
import { fromSurvey } from '@/core/datum/survey';
import { boxOf, type Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import type { ElementRow } from '@/core/kinds/element';
import { boxOfElement, kinds, nameWords, sizeWords } from '@/core/kinds/kinds';
import { counted } from '@/core/model/counted';
import { hangsOn } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import { findElements } from '@/core/tracing/findElements';
import { calledOf } from '@/core/tracing/words';
import { findTexts, holdsAll, wordsOf } from '@/core/underlay/findTexts';
import { textBox } from '@/core/underlay/textBox';
import { displayUnits, formatLength } from '@/core/units/length';
import { parseTyped } from '@/core/units/typed';
import { useBoard } from '@/board/boardStore';
import { keyOf } from '@/project/keys';
import { activeDrawings, lengthsOf, projectRowOf } from '@/project/projectRow';
import { useSelected } from '@/project/selected';
import type { Session } from '@/project/session';
import { handlesIn, underlayOf, useUnderlays, type Underlay } from '@/project/underlays';
import { useView } from '@/project/view';
import type { Found } from '@/ui/shell/FindOrDo';
import type { Command } from './commands';

/** Offered at most of each sort: what is more is found by typing more. */
const most = { elements: 12, texts: 12, commands: 60 };
/** So far about what was found the board looks, metres; and about a text, in heights of it. */
const around = { element: 3, place: 5, heights: 8 };

/** What is offered for what is typed: places and lengths, elements, texts, and what can be done. */
export function foundFor(session: Session, commands: readonly Command[], typed: string): Found[] {
  const words = wordsOf(typed);
  const found = [
    ...typedFound(session, typed),
    ...elementsFound(session.model, words),
    ...commandsFound(commands, words),
    ...layersFound(session, words),
    ...textsFound(session.model, words),
  ];
  // What is of one group stands together, where the first of it stood.
  return [...groupBy(found, ({ group }) => group).values()].flat();
}

function commandsFound(commands: readonly Command[], words: readonly string[]): Found[] {
  const found = commands.filter(({ group, words: own }) => holdsAll(`${group} ${own}`.toLowerCase(), words));
  // "roof" means the roof and not Proof: what begins a word goes before what stands within one.
  const begins = ({ group, words: own }: Command): boolean => {
    const text = ` ${group} ${own}`.toLowerCase();
    return words.every((word) => text.includes(` ${word}`));
  };
  return [...found.filter(begins), ...found.filter((command) => !begins(command))]
    .slice(0, most.commands)
    .map(({ act, ...command }) => (act === undefined ? command : { ...command, key: keyOf(act) }));
}

function elementsFound(model: Model, words: readonly string[]): Found[] {
  const found = findElements(model, words);
  const offered = found.slice(0, most.elements).map((element) => ({
    group: 'Element',
    words: elementWords(model, element),
    run: () => goTo(model, [element]),
  }));
  if (found.length < 2) return offered;
  const all = {
    group: 'Element',
    words: `Select all ${counted(found.length, 'element')}`,
    run: () => goTo(model, found),
  };
  return [...offered, all];
}

function elementWords(model: Model, element: ElementRow): string {
  const level = element.levelId === null ? 'no level' : (model.level[element.levelId]?.name ?? 'no level');
  const room = element.kind === 'zone' ? element.shape.name : '';
  const called = nameWords(element) === '' ? kinds[element.kind].names[0] : calledOf(element);
  return [[called, room].filter(Boolean).join(' '), sizeWords(element), level].filter(Boolean).join(', ');
}

/** Selects elements and looks at them. */
function goTo(model: Model, elements: readonly ElementRow[]): void {
  useSelected.getState().select(elements.map(({ id }) => id));
  lookAtElements(model, elements);
}

/** Looks at elements, on the level of the first. */
export function lookAtElements(model: Model, elements: readonly ElementRow[]): void {
  const [first] = elements;
  const level = first?.levelId ?? null;
  useView.getState().set({ faceOn: null, ...(level === null ? {} : { levelId: level }) });
  const boxes = elements
    .filter(({ levelId }) => levelId === level)
    .flatMap((element): Box[] => {
      const box = boxOfElement(element, model.index.hostOf(element));
      return box === null ? [] : [box];
    });
  if (boxes.length === 0) return;
  const [minX, minY, maxX, maxY] = boxOf(
    boxes.flatMap(([x1, y1, x2, y2]): Point[] => [
      [x1, y1],
      [x2, y2],
    ]),
    around.element,
  );
  useBoard.getState().lookAt([minX, minY, maxX, maxY]);
}

/** Layers, for the elements that were read from them. */
function layersFound({ model, tell }: Session, words: readonly string[]): Found[] {
  if (words.length === 0) return [];
  const { entries } = useUnderlays.getState();
  return activeDrawings(model).flatMap((drawing): Found[] =>
    (underlayOf(entries, drawing.id)?.layers ?? [])
      .filter(({ name }) => holdsAll(`elements of layer ${name} ${drawing.name}`.toLowerCase(), words))
      .slice(0, most.elements)
      .map(({ name }) => ({
        group: 'Elements by layer',
        words: `Elements of layer ${name} of ${drawing.name}`,
        about: 'Selects what was read from lines on this layer.',
        run: () => {
          void handlesIn(drawing.id, name).then((handles) => {
            const on = new Set(handles);
            const own = Object.values(model.element).filter(
              ({ source }) => source?.drawing === drawing.id && source.handles.some((handle) => on.has(handle)),
            );
            if (own.length > 0) goTo(model, own);
            else tell({ kind: 'info', text: `No element was read from layer ${name} of ${drawing.name}.` });
          });
        },
      })),
  );
}

/** Texts of all drawings, also of those that are set aside. */
function textsFound(model: Model, words: readonly string[]): Found[] {
  const { entries } = useUnderlays.getState();
  const found: Found[] = [];
  for (const drawing of activeDrawings(model)) {
    const underlay = underlayOf(entries, drawing.id);
    if (underlay === null) continue;
    for (const i of findTexts(underlay.primitives, words, most.texts - found.length))
      found.push({
        group: 'Text',
        words: `\u201c${underlay.primitives.texts[i].text.replace(/\s+/g, ' ').slice(0, 80)}\u201d`,
        about: `in ${drawing.name}${drawing.setAside ? ', which is set aside: opens in the second view' : ''}`,
        run: () => goToText(model, drawing, underlay, i),
      });
    if (found.length >= most.texts) break;
  }
  return found;
}

/** Looks at a text where its drawing is shown; what is not shown comes into the second view. */
function goToText(model: Model, drawing: DrawingRow, underlay: Underlay, i: number): void {
  const text = underlay.primitives.texts[i];
  const { set, levelId } = useView.getState();
  if (drawing.setAside) {
    set({ beside: { drawingId: drawing.id, follows: false, camera: null, find: text.text } });
    return;
  }
  const placement = model.placement[drawing.id];
  const stands = placement.upright !== null;
  const own = drawing.levelId !== null && !hangsOn(model, drawing, levelId) ? { levelId: drawing.levelId } : {};
  set({ drawingId: drawing.id, inSpace: false, faceOn: stands ? drawing.id : null, only: null, ...own });
  const [ox, oy] = underlay.primitives.origin;
  const seen = stands ? faceOn(placement as Placement) : (placement as Placement);
  const corners = textBox(text).map(([x, y]) => place(seen, [x + ox, y + oy]));
  const [minX, minY, maxX, maxY] = boxOf(corners);
  const reach = around.heights * Math.max(maxY - minY, 1e-3);
  // A section seen face on is there at the next picture.
  setTimeout(() => useBoard.getState().lookAt([minX - reach, minY - reach, maxX + reach, maxY + reach]));
}

const numbers = /^(-?[^,;\s]+)\s*[,;\s]\s*(-?[^,;\s]+)$/;

/** A length, to be measured off; two of them, a place. */
function typedFound({ model }: Session, typed: string): Found[] {
  const lengths = lengthsOf(model);
  const text = typed.trim();
  if (!/\d/.test(text)) return [];
  const length = parseTyped(text, lengths);
  if (length.ok) return length.value > 0 ? [measureOff(length.value, model)] : [];
  const pair = numbers.exec(text.replace(/^\(|\)$/g, ''));
  const parts = (pair?.slice(1) ?? []).map((part) => parseTyped(part, lengths));
  if (parts.length !== 2 || !parts[0].ok || !parts[1].ok) return [];
  const p: Point = [parts[0].value, parts[1].value];
  const { survey } = projectRowOf(model);
  const shown = p.map((value) => formatLength(value, lengths)).join(', ');
  return [
    { group: 'Place', words: `Go to ${shown}`, about: 'In the project\u2019s coordinates.', run: () => goToPlace(p) },
    ...(survey === null
      ? []
      : [
          {
            group: 'Place',
            words: `Go to easting ${formatLength(p[0], 'm')}, northing ${formatLength(p[1], 'm')}`,
            about: 'In the survey\u2019s coordinates.',
            run: () => goToPlace(fromSurvey(survey, p)),
          },
        ]),
  ];
}

function goToPlace([x, y]: Point): void {
  useView.getState().set({ inSpace: false, faceOn: null });
  useBoard.getState().lookAt([x - around.place, y - around.place, x + around.place, y + around.place]);
}

function measureOff(length: number, model: Model): Found {
  const lengths = lengthsOf(model);
  const others = displayUnits.filter((unit) => unit !== lengths.unit).map((unit) => formatLength(length, unit));
  return {
    group: 'Measure',
    words: `Measure off ${formatLength(length, lengths)}`,
    about: `From a point that is clicked, towards the pointer. It is ${others.join(', ')}.`,
    run: () => {
      useView.getState().set({ inSpace: false });
      useBoard.getState().setTool({ kind: 'measure', mode: 'distance', length });
    },
  };
}
