import { readModel } from '@/core/handover/model/readModel';
import { formats } from './formats';

test('levels whose names read alike have files of their own', async () => {
  const names = ['Upper floor', 'Upper/floor', 'UPPER FLOOR', '\u4e0a\u968e', ''];
  const read = readModel(
    JSON.stringify({
      format: 'zircon-frame-model',
      version: 1,
      unit: 'm',
      levels: names.map((name, i) => ({ id: `L${i}`, name, elevation: 3 * i, height: 3 })),
    }),
  );
  if (!read.ok) throw new Error(read.message);
  const about = { name: 'Fulmar Store', made: new Date(0) };
  for (const [format, ending] of [
    ['svg', 'svg'],
    ['dxf', 'dxf'],
  ] as const) {
    const files = await formats[format](read.value, about);
    const plans = files.map(({ file }) => file).filter((file) => file.startsWith('plan-'));
    expect(new Set(plans.map((file) => file.toLowerCase())).size).toBe(names.length);
    expect(plans[0]).toBe(`plan-Upper_floor.${ending}`);
    expect(plans[3]).toBe(`plan-\u4e0a\u968e.${ending}`);
  }
});
