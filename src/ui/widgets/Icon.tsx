/** Line icons on a 20 by 20 field. */
const paths = {
  undo: 'M7 4 3 8l4 4M3 8h8a5 5 0 0 1 0 10H8',
  redo: 'M13 4l4 4-4 4M17 8H9a5 5 0 0 0 0 10h3',
  light:
    'M10 6.500a3.500 3.500 0 1 0 0 7 3.500 3.500 0 0 0 0-7M10 1.500v2M10 16.500v2M1.500 ' +
    '10h2M16.500 10h2M4 4l1.400 1.400M14.600 14.600 16 16M4 16l1.400-1.400M14.600 5.400 16 4',
  dark: 'M16.500 12.500A7 7 0 0 1 7.500 3.500a7 7 0 1 0 9 9z',
  close: 'M5 5l10 10M15 5 5 15',
  more: 'M4 10h.01M10 10h.01M16 10h.01',
  fold: 'M12 4l-6 6 6 6M16 4v12',
  unfold: 'M8 4l6 6-6 6M4 4v12',
  whole: 'M3 7V3h4M13 3h4v4M17 13v4h-4M7 17H3v-4M7 10h6M10 7v6',
  plus: 'M10 4v12M4 10h12',
  minus: 'M4 10h12',
  bring: 'M10 3v9M6 8.500l4 4 4-4M3 14v3h14v-3',
  before: 'M12.5 4.5 7 10l5.5 5.5',
  next: 'M7.5 4.5 13 10l-5.5 5.5',
  up: 'M10 16V5M5.500 9.500 10 5l4.500 4.500',
  down: 'M10 4v11M5.500 10.500 10 15l4.500-4.500',
  alone:
    'M10 6.500a3.500 3.500 0 1 0 0 7 3.500 3.500 0 0 0 0-7M3 3l2.500 2.500M17 3l-2.500 2.500M3 17l2.500-2.500M17 17l-2.500-2.500',
  stack: 'M10 2.500 17.500 6 10 9.500 2.500 6zM2.500 10l7.500 3.500 7.500-3.500M2.500 14l7.500 3.500 7.500-3.500',
  bookmark: 'M5 3h10v14l-5-3.5L5 17z',
  beside: 'M2.500 4h15v12h-15zM11 4v12',
  guide:
    'M10 5.500C8 4 5 3.500 2.500 4v12c2.500-.5 5.500 0 7.500 1.500 2-1.500 5-2 7.500-1.500V4C15 3.500 12 4 10 5.500zM10 5.500v12',
  measure: 'M2.500 13.500l11-11 4 4-11 11zM5.500 10.500l2 2M8.500 7.500l2 2M11.500 4.500l2 2',
  shown:
    'M1.500 10S4.500 4.500 10 4.500 18.500 10 18.500 10 15.500 15.500 10 15.500 1.500 10 ' +
    '1.500 10zM10 7.500a2.500 2.500 0 1 0 0 5 2.500 2.500 0 0 0 0-5',
  hidden:
    'M3 3l14 14M4.500 6.500C2.500 8.200 1.500 10 1.500 10S4.500 15.500 10 15.500c1.300 0 ' +
    '2.500-.3 3.500-.8M8 4.700c.6-.1 1.300-.2 2-.2 5.500 0 8.500 5.500 8.500 5.500s-.7 1.300-2 2.600',
} as const;

export type IconName = keyof typeof paths;

export function Icon({ name, size = 18 }: { name: IconName; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 20 20"
      fill="none"
      stroke="currentColor"
      strokeWidth={name === 'more' ? 2.6 : 1.6}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      <path d={paths[name]} />
    </svg>
  );
}

/** The mark of the house: a cut crystal, seen as a frame. */
export function Mark() {
  return (
    <svg
      width={24}
      height={24}
      viewBox="0 0 24 24"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.6}
      strokeLinejoin="round"
      aria-hidden
    >
      <path d="M12 2 20 7.500v9L12 22 4 16.500v-9z" />
      <path d="M4 7.500 12 12l8-4.500M12 12v10M8 5l4 7 4-7" />
    </svg>
  );
}
