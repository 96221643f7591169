'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useEffect, useState } from 'react';
import { metresPerDrawn, type Placement } from '@/core/datum/placement';
import { counted } from '@/core/model/counted';
import { teach } from '@/core/model/picks';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import {
  countingOnly,
  traits,
  usualTraits,
  type Form,
  type Likeness,
  type Pointed,
  type Trait,
} from '@/core/sorting/alike';
import type { Role } from '@/core/sorting/roles';
import { outlineOf } from '@/core/underlay/outline';
import { ink } from '@/core/underlay/primitives';
import { formatLength, type LengthStyle } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { useOverlay } from '@/project/overlay';
import { alikeIn, type Underlay } from '@/project/underlays';
import { useApply, useLengths } from '@/project/useSession';
import { Note, Part } from '@/ui/widgets/Heading';
import { RoleChoice } from './RoleChoice';

/** Something pointed at: all that it is like, its text, what of it counts, and what is alike by that. */
interface Example {
  like: Likeness;
  text: string;
  counting: ReadonlySet<Trait>;
  paths: number[];
  texts: number[];
}

const formWords: Record<Form, string> = {
  line: 'A straight line',
  chain: 'A chain of lines',
  outline: 'An outline',
  circle: 'A circle',
  text: 'A text',
};

/** Puts one thing right, and with it everything that is like it, on this drawing and, by the role map, on the next. */
export function AlikePart({
  drawing,
  placement,
  underlay,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay;
}) {
  const apply = useApply();
  const lengths = useLengths();
  const { tool, setTool } = useBoard();
  const show = useOverlay((store) => store.show);
  const [example, setExample] = useState<Example | null>(null);
  const { primitives } = underlay;
  const metres = metresPerDrawn(placement as Placement);

  useEffect(() => {
    if (example === null) return;
    show({
      drawingId: drawing.id,
      origin: primitives.origin,
      parts: [{ tone: 'evidence', lines: outlineOf(primitives, example.paths, example.texts) }],
    });
    return () => show(null);
  }, [example, primitives, drawing.id, show]);

  const look = async (like: Likeness, text: string, counting: ReadonlySet<Trait>) => {
    const { paths, texts } = await alikeIn(drawing.id, countingOnly(like, counting), metres);
    setExample({ like, text, counting, paths, texts });
  };
  const point = () =>
    setTool({
      kind: 'gather',
      what: 'things',
      prompt: 'line or text to put right',
      take: ({ drawingId, ...thing }: { drawingId: string } & Pointed) => {
        if (drawingId !== drawing.id) return;
        const text = 'text' in thing ? primitives.texts[thing.text].text : '';
        void alikeIn(drawing.id, thing, metres).then(({ like }) => look(like, text, new Set(usualTraits(like))));
      },
    });
  const toggle = (trait: Trait) => {
    if (example === null) return;
    const counting = new Set(example.counting);
    if (!counting.delete(trait)) counting.add(trait);
    void look(example.like, example.text, counting);
  };
  const keep = (role: Role | null) => {
    if (example === null || role === null) return;
    const like = countingOnly(example.like, example.counting);
    if (apply((now) => teach(now, drawing, [{ role, like }], () => crypto.randomUUID()))) {
      setExample(null);
      setTool({ kind: 'look' });
    }
  };
  const pointing = tool.kind === 'gather' && tool.what === 'things';
  return (
    <Part title="One, and all that is like it">
      {example === null && (
        <Note kind="plain">
          Point at one line or text that has no role or a wrong one. What is like it gets the role too, and a role map
          takes the lesson to the next drawing.
        </Note>
      )}
      {example !== null && (
        <>
          <Box role="status" sx={{ mb: 0.5 }}>
            {formWords[example.like.form]}; alike on this drawing:{' '}
            <span className="mono">{(example.paths.length + example.texts.length).toLocaleString('en')}</span>
          </Box>
          <Box sx={{ display: 'flex', flexDirection: 'column', mb: 0.5 }}>
            {traits.map((trait) => {
              const words = traitWords(example, trait, lengths);
              return words === null ? null : (
                <FormControlLabel
                  key={trait}
                  control={
                    <Checkbox size="small" checked={example.counting.has(trait)} onChange={() => toggle(trait)} />
                  }
                  label={words}
                />
              );
            })}
          </Box>
          <RoleChoice label="Role of all alike" role={undefined} choose={keep} />
        </>
      )}
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        <Button variant="outlined" onClick={pointing ? () => setTool({ kind: 'look' }) : point}>
          {pointing ? 'Stop pointing' : 'Point at one'}
        </Button>
        {example !== null && (
          <Button variant="text" onClick={() => setExample(null)}>
            Clear
          </Button>
        )}
      </Box>
    </Part>
  );
}

/** What a trait of an example says; null where it has none. */
function traitWords({ like, text }: Example, trait: Trait, lengths: LengthStyle): string | null {
  switch (trait) {
    case 'layer':
      return `on layer ${like.layer}`;
    case 'colour':
      return like.colour === ink ? 'in black or white' : `in colour #${like.colour!.toString(16).padStart(6, '0')}`;
    case 'written':
      return like.written === null ? null : `written like \u201c${text}\u201d`;
    case 'size': {
      const [length, area] = like.size!;
      const shown = formatLength(length, lengths);
      if (like.form === 'text') return `${shown} high`;
      return area > 0 ? `${shown} round, ${area.toFixed(2)} m\u00b2 within` : `${shown} long`;
    }
  }
}

/** A likeness in a list: what of it counts. */
export function likenessWords({ form, corners, layer, colour, size, written }: Likeness): string {
  const parts = [
    corners === null ? form : `${form} of ${counted(corners, 'corner')}`,
    layer === null ? '' : `on ${layer}`,
    colour === null ? '' : 'of one colour',
    size === null ? '' : 'of one size',
    written === null ? '' : `written ${written}`,
  ];
  return parts.filter(Boolean).join(', ');
}
