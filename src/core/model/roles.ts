import type { Role } from '@/core/sorting/roles';
import { counted } from './counted';
import { put, type Edit } from './edits';
import type { DrawingRow, RoleRow } from './state';

export const roleId = (drawingId: string, layer: string): string => `${drawingId}/${layer}`;

export function setRole(drawing: DrawingRow, rows: readonly RoleRow[], role: Role | null): Edit {
  return {
    label: `${rows.length === 1 ? rows[0].layer : counted(rows.length, 'layer')}: ${role ?? 'no role'}`,
    changes: rows.map((row) => put('role', { ...row, drawingId: drawing.id, role, suggested: false })),
  };
}

export function showLayers(rows: readonly RoleRow[], shown: boolean): Edit {
  return {
    label: `${shown ? 'Show' : 'Hide'} ${rows.length === 1 ? rows[0].layer : counted(rows.length, 'layer')}`,
    changes: rows.map((row) => put('role', { ...row, shown })),
  };
}
