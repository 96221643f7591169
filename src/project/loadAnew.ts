/** Goes to an address of this server and loads everything anew: nothing of who was here before stays in the window. */
export function loadAnew(path: string): void {
  const { location } = window;
  location.href = path;
}
