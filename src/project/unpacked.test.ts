import { strToU8, zipSync } from 'fflate';
import { unpacked } from './unpacked';

const zip = (content: Record<string, string>, level: 0 | 6 = 6): File =>
  new File(
    [
      new Uint8Array(
        zipSync(Object.fromEntries(Object.entries(content).map(([name, text]) => [name, strToU8(text)])), { level }),
      ),
    ],
    'set.zip',
  );

test.each([0, 6] as const)('drawings come out under their own names, at level %i; the rest is named', async (level) => {
  const long = '0\nSECTION\n'.repeat(40_000);
  const result = await unpacked(
    zip(
      {
        'plans/Ground.DXF': long,
        'upper.dxf': '0\nEOF\n',
        'house.ifc': 'ISO-10303-21;',
        'plans/read me.txt': 'x',
        '__MACOSX/plans/._Ground.dxf': 'x',
      },
      level,
    ),
    false,
  );
  if (!result.ok) throw new Error(result.message);
  const { drawings, others } = result.value;
  expect(drawings.map(({ name }) => name)).toEqual(['Ground.DXF', 'upper.dxf', 'house.ifc']);
  expect(await drawings[0].text()).toBe(long);
  expect(others).toEqual(['read me.txt']);
});

test('where an office converts files, everything in a zip comes out', async () => {
  const result = await unpacked(zip({ 'plans/ground.plan': 'x', '__MACOSX/._ground.plan': 'x' }), true);
  expect(result.ok && result.value.drawings.map(({ name }) => name)).toEqual(['ground.plan']);
});

test('a damaged zip, one without drawings and a text that is no zip are said', async () => {
  const whole = new Uint8Array(
    await zip({ 'a.dxf': Array.from({ length: 9999 }, (_, i) => i * i).join() }).arrayBuffer(),
  );
  const broken = whole.slice();
  broken.fill(255, 60, 200);
  expect(await unpacked(new File([broken], 'set.zip'), false)).toMatchObject({
    ok: false,
    message: expect.stringContaining('set.zip cannot be unpacked') as string,
  });
  expect(await unpacked(zip({ 'a.pdf': 'x', 'b.pdf': 'y' }), false)).toEqual({
    ok: false,
    message: 'set.zip holds no DXF and no IFC, but a.pdf, b.pdf. Ask for the drawings as DXF.',
  });
  expect(await unpacked(new File(['nothing of the kind'], 'odd.zip'), false)).toMatchObject({ ok: false });
});
