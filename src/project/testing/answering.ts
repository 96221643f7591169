/** A worker whose script cannot be loaded, or which answers each question; as comlink asks it. */
export class Answering extends EventTarget {
  ended = false;

  constructor(private readonly loads: boolean) {
    super();
    if (!loads) setTimeout(() => this.dispatchEvent(new Event('error')));
  }

  postMessage({ id, path }: { id: string; path: string[] }): void {
    if (!this.loads || id === undefined) return;
    const value = `answer to ${path.join('.')}`;
    setTimeout(() => this.dispatchEvent(new MessageEvent('message', { data: { id, type: 'RAW', value } })));
  }

  terminate(): void {
    this.ended = true;
  }
}
