import { lazy, type ComponentType, type LazyExoticComponent } from 'react';

/** While the server is away a part is asked for again after this long, milliseconds. */
const askedAgainAfter = 1500;

/** A part of the workspace that comes when it is first shown, or was made ready before. */
export interface Later {
  Part: LazyExoticComponent<ComponentType>;
  ready: () => void;
}

/** @param load fetches the part's code */
export function later(load: () => Promise<ComponentType>): Later {
  let coming: Promise<{ default: ComponentType }> | null = null;
  const come = () => (coming ??= fetched(load));
  return { Part: lazy(come), ready: () => void come() };
}

async function fetched(load: () => Promise<ComponentType>): Promise<{ default: ComponentType }> {
  for (;;) {
    try {
      return { default: await load() };
    } catch {
      await new Promise((resolve) => setTimeout(resolve, askedAgainAfter));
    }
  }
}
