/** Saves something as a JSON file on the person's own disk. */
export function saveJson(name: string, content: unknown): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([`${JSON.stringify(content, null, 1)}\n`], { type: 'application/json' }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
