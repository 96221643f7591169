'use client';
import { useState } from 'react';
import { besideOther, type Beside, type StoreyDrawing } from '@/core/decisions/beside';
import { hangsOn } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import type { Candidate } from '@/core/reading/candidate';
import { activeDrawings } from './projectRow';
import { useReadings } from './readings';

/** Another drawing of the storey: how this one compares with it, and what only the other one shows. */
export interface OtherDrawing extends Beside {
  id: string;
  /** Kinds of what is only there, one for each. */
  onlyThere: Candidate['kind'][];
}

type Candidates = readonly Candidate[];

/** What two readings come to beside one another: the same for as long as both are the same. */
const known = new WeakMap<Candidates, WeakMap<Candidates, OtherDrawing>>();

interface Read extends StoreyDrawing {
  id: string;
}

function comparison(own: Read, other: Read): OtherDrawing {
  const before = known.get(own.candidates)?.get(other.candidates);
  if (before !== undefined && before.name === other.name) return before;
  const missing = besideOther(other, own).unlike;
  const onlyThere = other.candidates.flatMap(({ key, kind }) => (missing.get(key)?.missing === true ? [kind] : []));
  const made = { id: other.id, ...besideOther(own, other), onlyThere };
  const ofOwn = known.get(own.candidates) ?? new WeakMap<Candidates, OtherDrawing>();
  known.set(own.candidates, ofOwn.set(other.candidates, made));
  return made;
}

/** The other plans that hang on the level of a drawing. */
export function plansBeside(model: Model, { id, levelId }: DrawingRow): DrawingRow[] {
  if (levelId === null) return [];
  return activeDrawings(model).filter(
    (other) => other.id !== id && hangsOn(model, other, levelId) && model.placement[other.id]?.upright === null,
  );
}

/** Compares what was read of a drawing with what was read of the others that hang on its level. */
export function useBeside(model: Model, drawing: DrawingRow): readonly OtherDrawing[] {
  const readings = useReadings((store) => store.readings);
  const readOf = ({ id, name }: DrawingRow): Read[] => {
    const candidates = readings[id]?.result?.candidates;
    return candidates === undefined ? [] : [{ id, name, candidates }];
  };
  const [own] = readOf(drawing);
  const others =
    own === undefined
      ? []
      : plansBeside(model, drawing)
          .flatMap(readOf)
          .map((other) => comparison(own, other));
  return useSameList(others);
}

/** A list that stays the same object while its members do. */
function useSameList<T>(list: readonly T[]): readonly T[] {
  const [kept, keep] = useState(list);
  const same = kept.length === list.length && kept.every((one, i) => one === list[i]);
  if (!same) keep(list);
  return same ? kept : list;
}

/** What other drawings say otherwise of candidates, by their keys. */
export function unlikeIn(others: readonly OtherDrawing[]): Map<string, string> {
  const words = new Map<string, string>();
  for (const { unlike } of others)
    for (const [key, said] of unlike) words.set(key, [words.get(key), said.words].filter(Boolean).join('; '));
  return words;
}
