import { readDxf } from '@/core/drawing/reader';
import { truthPlan } from './plans/truthPlan';

/** A plan that fits a tile, on layers that say what they are. */
const tile = { type: 'clinic', style: { unit: 'mm', turn: 'none', layers: 'english', sheet: 'bare' } } as const;

/** A drawing of about so many entities: one plan with known truth again and again, side by side, in millimetres. */
export function tiled(entities: number): { dxf: string; roles: Record<string, string> } {
  const plan = truthPlan(0, { dirty: true, ...tile });
  const groups = plan.dxf.split(/\r?\n/);
  const start = groups.findIndex((line, i) => line.trim() === '2' && groups[i + 1] === 'ENTITIES') + 2;
  let end = start;
  while (!(groups[end].trim() === '0' && groups[end + 1] === 'ENDSEC')) end += 2;
  const single = readDxf(new TextEncoder().encode(plan.dxf));
  if (!single.ok) throw new Error(single.message);
  const each = single.value.drawing.blocks[single.value.drawing.model].count;
  const copies = Math.ceil(entities / each);
  const side = Math.ceil(Math.sqrt(copies));
  const body: string[] = [];
  for (let n = 0; n < copies; n += 1) {
    const [dx, dy] = [(n % side) * 70_000, Math.floor(n / side) * 50_000];
    for (let i = start; i < end; i += 2) {
      const code = Number(groups[i]);
      const value = groups[i + 1];
      let moved;
      if (code === 10 || code === 11) moved = String(Number(value) + dx);
      else if (code === 20 || code === 21) moved = String(Number(value) + dy);
      else if (code === 5) moved = (0x1000 + n * 0x10000 + parseInt(value, 16)).toString(16).toUpperCase();
      else moved = value;

      body.push(groups[i], moved);
    }
  }
  return { dxf: [...groups.slice(0, start), ...body, ...groups.slice(end)].join('\n'), roles: plan.roles };
}
