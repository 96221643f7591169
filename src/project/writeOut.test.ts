import { put, remove, type Change } from '@/core/model/edits';
import { plainLevel } from '@/core/model/levels';
import { atOnce } from '@/core/stepwise';
import { writingOut } from './writeOut';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

test.each([1, 999, 1000, 1001, 2500])('%i changes written out in pieces are the JSON of all of them', async (count) => {
  const changes = Array.from({ length: count }, (_, n): Change =>
    n % 3 === 0
      ? remove('level', uuid(n))
      : put('level', { ...plainLevel, id: uuid(n), name: `L\u00e9vel "${n}"`, elevation: n / 3, height: 3 }),
  );
  const head = { seen: 7, clientId: uuid(1), window: uuid(2), label: 'Ends like []}}' };
  const text = await atOnce(writingOut(head, changes)).text();
  expect(JSON.parse(text)).toEqual({
    seen: 7,
    clientId: uuid(1),
    window: uuid(2),
    edit: { label: head.label, changes },
  });
});
