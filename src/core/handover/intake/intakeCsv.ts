import type { IntakeFile } from './writeIntake';

/** A cell of a CSV (RFC 4180). What a spreadsheet would take for a formula is given as text. */
function cell(value: string | number | null): string {
  if (value === null) return '';
  const text = typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : String(value);
  return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
}

/**
 * The account of an intake as a table: read and left out by kind, layer and block, then missing files, then warnings.
 */
export function intakeCsv(intake: IntakeFile): string {
  const rows: (string | number | null)[][] = [
    ['what', 'kind', 'layer', 'block', 'entities', 'primitives', 'reason', 'remedy'],
  ];
  for (const line of intake.account)
    rows.push([
      line.reason === null ? 'read' : 'left out',
      line.kind,
      line.layer,
      line.block ?? '(model space)',
      line.entities,
      line.primitives,
      line.reason,
      line.remedy,
    ]);
  for (const { kind, path, name } of intake.references)
    rows.push([
      'missing file',
      kind,
      null,
      name || null,
      null,
      null,
      path,
      'Ask for the drawing with its references bound in, or for that file.',
    ]);
  for (const { code, message, line, handle } of intake.warnings)
    rows.push([
      'warning',
      code,
      null,
      null,
      null,
      null,
      message,
      [line > 0 ? `line ${line}` : '', handle ? `handle ${handle}` : ''].filter(Boolean).join(', '),
    ]);
  return rows.map((row) => row.map(cell).join(',')).join('\r\n') + '\r\n';
}
