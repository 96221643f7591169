import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { columnsOf, type Schedule } from './table';

/** A drawing of a project with its report. */
export interface TakenDrawing {
  name: string;
  revision: number;
  /** The level that it hangs on; empty where it hangs on none. */
  level: string;
  report: IntakeFile;
}

const total = (lines: readonly { count: number }[]): number => lines.reduce((sum, { count }) => sum + count, 0);

/**
 * What came of the drawings that a model was made of, as tables: the drawings with how much of each was read, then read
 * and left out by kind, layer and block. None where there are no drawings.
 */
export function intakeTables(drawings: readonly TakenDrawing[]): Schedule[] {
  if (drawings.length === 0) return [];
  return [
    {
      name: 'drawings',
      columns: columnsOf(
        'drawing',
        'level',
        'revision',
        'file',
        'header unit',
        'read',
        'left out',
        'warnings',
        'SHA-256',
      ),
      rows: drawings.map(({ name, level, revision, report }) => [
        name,
        level,
        revision,
        report.file,
        report.unit.header ?? '',
        total(report.read),
        total(report.leftOut),
        report.warnings.length,
        report.sha256,
      ]),
    },
    {
      name: 'intake',
      columns: columnsOf('drawing', 'what', 'kind', 'layer', 'block', 'entities', 'reason', 'remedy'),
      rows: drawings.flatMap(({ name, report }) =>
        report.account.map(({ kind, layer, block, entities, reason, remedy }) => [
          name,
          reason === null ? 'read' : 'left out',
          kind,
          layer,
          block ?? '',
          entities,
          reason ?? '',
          remedy ?? '',
        ]),
      ),
    },
  ];
}
