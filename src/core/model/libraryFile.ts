import * as v from 'valibot';
import { readJsonFile } from '@/core/jsonFile';
import type { Result } from '@/core/result';
import { put, type Edit } from './edits';
import { libraryRow, type LibraryRow } from '@/core/kinds/libraryEntry';
import type { ProjectState } from './state';

type Entry = LibraryRow extends infer R ? (R extends LibraryRow ? Omit<R, 'id'> : never) : never;

/** Sections and constructions as a file for the next job; lengths in metres. */
export interface LibraryFile {
  format: 'zircon-frame-library';
  version: 1;
  entries: Entry[];
}

const entry = v.variant(
  'kind',
  libraryRow.options.map(({ entries: { id: _, ...rest } }) => v.strictObject(rest)) as never,
) as unknown as v.GenericSchema<unknown, Entry>;
const schema = v.strictObject({
  format: v.literal('zircon-frame-library'),
  version: v.literal(1),
  entries: v.pipe(v.array(entry), v.maxLength(5000)),
});

export const libraryFileOf = (state: Pick<ProjectState, 'library'>): LibraryFile => ({
  format: 'zircon-frame-library',
  version: 1,
  entries: Object.values(state.library)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))
    .map(({ id: _, ...rest }) => rest as Entry),
});

/** A library from the text of a file. */
export const readLibraryFile = (text: string): Result<LibraryFile> =>
  readJsonFile(schema, text, {
    what: 'a library',
    savedAt: 'Reading',
    expected: 'an object with format "zircon-frame-library", version 1 and entries of sections and constructions',
  });

/**
 * Adds a file's entries; those whose name the library has are left as they are there.
 * @param newId gives a fresh UUID
 */
export function bringLibrary(
  state: ProjectState,
  file: LibraryFile,
  newId: () => string,
): { edit: Edit; known: string[] } {
  const taken = new Set(Object.values(state.library).map(({ name }) => name.toLowerCase()));
  const known: string[] = [];
  const changes = file.entries.flatMap((row) => {
    if (taken.has(row.name.toLowerCase())) {
      known.push(row.name);
      return [];
    }
    taken.add(row.name.toLowerCase());
    return [put('library', { ...row, id: newId() } as LibraryRow)];
  });
  return {
    edit: { label: `Bring ${changes.length} ${changes.length === 1 ? 'entry' : 'entries'} into the library`, changes },
    known,
  };
}
