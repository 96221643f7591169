import * as v from 'valibot';
import { tableSchemas } from '@/core/model/state';
import { drawnName, key, textUpTo, uuid } from './limits';

const id = '0b0e7c0a-1111-4222-8333-444455556666';

describe('what a row may hold', () => {
  it('has ids in one form', () => {
    expect(v.is(uuid, id)).toBe(true);
    expect(v.is(uuid, id.toUpperCase())).toBe(false);
    expect(v.is(uuid, `{${id}}`)).toBe(false);
  });

  it.each([
    ['NUL', 'a\0b'],
    ['the first half of a pair alone', 'a\ud83d'],
    ['the second half alone', '\ude00b'],
    ['halves in the wrong order', '\ude00\ud83d'],
  ])('has no text with %s', (_, text) => {
    expect(v.is(textUpTo(10), text)).toBe(false);
  });

  it('has whole pairs and every other character', () => {
    expect(v.is(textUpTo(10), '\ud83d\ude00 \u00e9\u4e2d\u0007')).toBe(true);
  });

  it('has names and keys that an index can hold, whatever their script', () => {
    expect(v.is(drawnName, '\u4e2d'.repeat(600))).toBe(true);
    expect(v.is(drawnName, 'a'.repeat(601))).toBe(false);
    // 801 characters of three bytes each.
    expect(v.is(key, '\u4e2d'.repeat(801))).toBe(false);
    expect(v.is(key, 'a'.repeat(2000))).toBe(true);
  });

  it('has the id of a role and of a decision as their fields make it', () => {
    const role = { drawingId: id, layer: 'WALLS', role: 'wall', suggested: false, shown: true };
    expect(v.is(tableSchemas.role, { ...role, id: `${id}/WALLS` })).toBe(true);
    expect(v.is(tableSchemas.role, { ...role, id: `${id}/Walls` })).toBe(false);
    const decision = { drawingId: id, key: 'wall:1A', verdict: 'rejected', elementId: null };
    expect(v.is(tableSchemas.decision, { ...decision, id: `${id}/wall:1A` })).toBe(true);
    expect(v.is(tableSchemas.decision, { ...decision, id: `${id}/wall:1B` })).toBe(false);
  });

  it('has a survey within the nets of the earth', () => {
    const project = { id, name: 'P', displayUnit: 'm' };
    const survey = { easting: 5e5, northing: 6e6, elevation: 3, north: 0.1 };
    expect(v.is(tableSchemas.project, { ...project, survey })).toBe(true);
    expect(v.is(tableSchemas.project, { ...project, survey: { ...survey, easting: 1e308 } })).toBe(false);
  });
});
