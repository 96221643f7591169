import * as v from 'valibot';
import { readJsonFile } from './jsonFile';

const schema = v.strictObject({
  format: v.literal('demo'),
  rows: v.array(v.strictObject({ size: v.pipe(v.number(), v.minValue(0, 'A size is zero or more.')) })),
});
const read = (text: string) =>
  readJsonFile(schema, text, { what: 'a demo', savedAt: 'Datum', expected: 'an object with format "demo" and rows' });

test('what is of the schema is given; else it is said what is wrong, where, and what was expected', () => {
  expect(read('{"format":"demo","rows":[{"size":1}]}')).toEqual({
    ok: true,
    value: { format: 'demo', rows: [{ size: 1 }] },
  });
  expect(read('{"format":')).toEqual({
    ok: false,
    message: 'The file is not JSON. A demo is a JSON file that was saved at Datum.',
  });
  expect(read('[]')).toMatchObject({
    ok: false,
    message: expect.stringMatching(/^This is not a demo: .*Expected an object with format "demo" and rows\.$/),
  });
  expect(read('{"format":"demo","rows":[{"size":1},{"size":-2}]}')).toEqual({
    ok: false,
    message: 'This is not a demo: rows.1.size a size is zero or more. Expected an object with format "demo" and rows.',
  });
});
