import { Readable } from 'node:stream';
import type { Transaction } from 'kysely';
import { defaultLimits } from '@/core/drawing/limits';
import { packDrawing } from '@/core/drawing/packDrawing';
import { readDxf } from '@/core/drawing/reader';
import { digest } from '@/core/handover/intake/digest';
import { plainLevel } from '@/core/model/levels';
import type { LevelRow } from '@/core/model/state';
import type { Database } from '@/server/database/schema';
import { beginFile, storeDerived, storeFile } from '@/server/files';
import { demoFiles } from './demoFiles';

export type DemoFile = keyof typeof demoFiles;

/** Reads one of the demo's drawings and keeps it with what follows from it. */
export async function readDemoFile(tx: Transaction<Database>, name: DemoFile) {
  const bytes = new TextEncoder().encode(demoFiles[name]());
  const reading = readDxf(bytes);
  if (!reading.ok) throw new Error(reading.message);
  const file = await storeFile(tx, await beginFile(tx), Readable.from([bytes]));
  const { drawing, primitives, intake, unit, picture } = digest(name, file.sha256, reading.value, defaultLimits);
  await storeDerived(tx, file.id, { columns: packDrawing(drawing), intake, picture });
  return { file: { id: file.id, name }, drawing, primitives, intake, unit };
}

export const demoName = 'Marram Point Field Station';

export const demoLevels: Omit<LevelRow, 'id'>[] = [
  { ...plainLevel, name: 'Basement', elevation: -3.15, height: 3.15, kind: 'foundation' },
  { ...plainLevel, name: 'Ground', elevation: 0, height: 3.9, kind: 'ground' },
  { ...plainLevel, name: 'Upper', elevation: 3.9, height: 3.6 },
  { ...plainLevel, name: 'Roof', elevation: 7.5, height: 1.1, kind: 'roof' },
];
