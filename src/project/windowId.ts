/** This window's id, the same after a reload, so that the list of edits can say which window made them. */
export function windowId(): string {
  const kept = sessionStorage.getItem('zircon-window');
  const id = kept ?? crypto.randomUUID();
  if (kept === null) sessionStorage.setItem('zircon-window', id);
  return id;
}
