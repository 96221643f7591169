/** Lets the window do what waits. */
export const turn = () => new Promise<void>((resolve) => setTimeout(resolve));
