/** Long work tells how far it is. */
export interface Progress {
  /** Told now and then how much of the work is done, from 0 to 1. */
  tell: (share: number) => void;
}
