import { fuzzCase, seedFiles } from './fuzzCase';

test('of three hundred damaged files none throws, none hangs, none comes out empty without a word', () => {
  const seeds = seedFiles();
  const wrong: string[] = [];
  for (let number = 0; number < 300; number += 1) {
    const end = fuzzCase(seeds, number);
    if (end !== null) wrong.push(`file ${number}: ${end}`);
  }
  expect(wrong).toEqual([]);
});
