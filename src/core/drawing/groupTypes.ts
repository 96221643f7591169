/** What the value of a group is to a reader. Ownership, subclass markers and extended data are not read. */
export const GroupType = { text: 0, real: 1, whole: 2, skip: 3, handle: 4 } as const;

/** The type of each group code from 0 to 1071 (DXF reference, group code value types). */
export const groupTypes = Uint8Array.from({ length: 1072 }, (_, code) => {
  const within = (...ranges: [number, number][]) => ranges.some(([low, high]) => code >= low && code <= high);
  if (code === 5 || code === 105) return GroupType.handle;
  if (code === 100 || code === 102 || code === 330 || code === 360 || code >= 999) return GroupType.skip;
  if (within([10, 59], [110, 149], [210, 239], [460, 469])) return GroupType.real;
  if (within([60, 99], [160, 179], [270, 299], [370, 389], [400, 409], [420, 429], [440, 459])) return GroupType.whole;
  return GroupType.text;
});
