'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { disciplines, plainWish, type DeliveryWish } from '@/core/exports/deliveries/wish';
import { lengthUnits } from '@/core/units/length';
import { useDeliveries } from '@/project/deliveries';
import { projectRowOf } from '@/project/projectRow';
import { useModel, useSession } from '@/project/useSession';
import { Note, Part } from '@/ui/widgets/Heading';
import { WishPart } from './WishPart';
import { WrittenPart } from './WrittenPart';

/** What is missing from a wish before it can be written, as a sentence; null where nothing is. */
function missingIn({ name, formats, content }: DeliveryWish): string | null {
  if (name.trim() === '') return 'Give it a name.';
  if (formats.length === 0) return 'Choose at least one format.';
  return content.length === 0 ? 'Choose something to hand over.' : null;
}

/** The model out to one receiver at once: written in the background, read again, kept with what it was made from. */
export function DeliveriesPart() {
  const session = useSession();
  const shown = projectRowOf(useModel('project')).displayUnit;
  const [wish, setWish] = useState<DeliveryWish>(() =>
    plainWish(disciplines[0], lengthUnits.find((unit) => unit === shown) ?? 'ft'),
  );
  const deliveries = useDeliveries(session);
  const missing = missingIn(wish);
  return (
    <>
      {session.mayEdit && (
        <Part title="A delivery">
          <WishPart wish={wish} change={(part) => setWish((before) => ({ ...before, ...part }))} />
          <Button variant="contained" disabled={missing !== null} onClick={() => void deliveries.write(wish)}>
            Write it
          </Button>
          {missing !== null && (
            <Box component="span" sx={{ ml: 1, color: 'text.secondary' }}>
              {missing}
            </Box>
          )}
        </Part>
      )}
      {deliveries.problem !== null && <Note kind="wrong">{deliveries.problem}</Note>}
      <WrittenPart deliveries={deliveries} again={setWish} />
    </>
  );
}
