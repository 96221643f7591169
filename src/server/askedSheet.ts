import type { AskedSheet } from './handover';

/** How sheets are asked for in an address. */
export function askedSheet(searchParams: URLSearchParams): AskedSheet {
  const scale = searchParams.get('scale');
  return {
    paper: searchParams.get('paper'),
    scale: scale === null ? null : Number(scale),
    layers: searchParams.get('layers'),
  };
}
