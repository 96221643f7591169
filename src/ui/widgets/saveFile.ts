/** Saves something as a JSON file on the person's own disk. */
export const saveJson = (name: string, content: unknown): void =>
  saveText(name, `${JSON.stringify(content, null, 1)}\n`, 'application/json');

/** Saves a text as a file on the person's own disk. @param type its media type */
export function saveText(name: string, text: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
