/** What every file of ISO 10303-21 begins with: IFC is written so. */
const opening = 'ISO-10303-21';

/** Whether a file is one of a building by its first bytes. */
export const isBuilding = (head: Uint8Array): boolean =>
  String.fromCharCode(...head.subarray(0, 64))
    .replace(/^\u00ef\u00bb\u00bf/, '')
    .trimStart()
    .startsWith(opening);
