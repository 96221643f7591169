'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import type { Differing, DimensionCheck } from '@/core/datum/dimensionCheck';
import { place } from '@/core/datum/placement';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { formatLength, formatNumber, unitNames } from '@/core/units/length';
import { useBoard } from '@/board/boardStore';
import { useOverlay } from '@/project/overlay';
import { useSession, useLengths } from '@/project/useSession';
import { dimensionsOf, type Underlay } from '@/project/underlays';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

/** All dimension texts of the drawing against what lies between their points. */
export function DimensionsPart({
  drawing,
  placement,
  underlay,
}: {
  drawing: DrawingRow;
  placement: PlacementRow;
  underlay: Underlay;
}) {
  const [found, setFound] = useState<{ basis: string; check: DimensionCheck } | null>(null);
  const [shown, setShown] = useState<string | null>(null);
  const lengths = useLengths();
  const { tell } = useSession();
  const show = useOverlay((store) => store.show);
  useEffect(() => () => show(null), [show]);
  const compare = () => {
    void dimensionsOf(drawing.id).then(
      (check) => setFound({ basis: underlay.basis, check }),
      (error: Error) => tell({ kind: 'problem', text: error.message }),
    );
  };
  const check = found?.basis === underlay.basis ? found.check : null;
  const point = ({ handle, ends }: Differing) => {
    setShown(handle);
    const origin = ends[0];
    const lines = ends
      .slice(1)
      .flatMap((end, i) => [ends[i][0] - origin[0], ends[i][1] - origin[1], end[0] - origin[0], end[1] - origin[1]]);
    show({ drawingId: drawing.id, origin: [...origin], parts: [{ tone: 'look', lines: Float32Array.from(lines) }] });
    const at = ends.map((end) => place(placement, end));
    const [xs, ys] = [at.map(([x]) => x), at.map(([, y]) => y)];
    const margin = Math.max(2, Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) * 0.6;
    useBoard
      .getState()
      .lookAt([Math.min(...xs) - margin, Math.min(...ys) - margin, Math.max(...xs) + margin, Math.max(...ys) + margin]);
  };
  const size = (one: Differing, value: number) =>
    one.kind === 'angle' ? `${formatNumber(value, 1)}\u00b0` : formatLength(value, lengths);
  return (
    <Part
      title="Dimensions against what is drawn"
      aside={
        <Button variant="text" onClick={compare}>
          {check ? 'Compare again' : 'Compare all'}
        </Button>
      }
    >
      {check?.total === 0 && <Box>The drawing holds no dimensions.</Box>}
      {check && check.total > 0 && (
        <>
          <Note kind={check.differ.length > 0 ? 'look' : 'plain'}>
            <b>
              {check.total} {check.total === 1 ? 'dimension' : 'dimensions'}:
            </b>{' '}
            {check.agree} agree within 1 mm or half their last digit, {check.differ.length}{' '}
            {check.differ.length === 1 ? 'differs' : 'differ'}
            {check.unread > 0 ? `, ${check.unread} say no length` : ''}.
            {check.writtenIn ? ` They are written in ${unitNames[check.writtenIn]}.` : ''}
          </Note>
          {check.differ.length > 0 && (
            <Table
              label="Dimensions that differ"
              heads={['text', { text: 'says', figures: true }, { text: 'measures', figures: true }, '']}
            >
              {check.differ.slice(0, 200).map((one) => (
                <tr
                  key={one.handle}
                  style={shown === one.handle ? { background: 'var(--mui-palette-zf-zirconSoft)' } : {}}
                >
                  <td>{one.text}</td>
                  <td className="figures">{size(one, one.written)}</td>
                  <td className="figures">{size(one, one.measured)}</td>
                  <td>
                    <Button variant="text" aria-label={`Show ${one.text}`} onClick={() => point(one)}>
                      Show
                    </Button>
                  </td>
                </tr>
              ))}
            </Table>
          )}
          {check.differ.length > 200 && (
            <Box sx={{ color: 'text.secondary' }}>and {check.differ.length - 200} more, which differ less.</Box>
          )}
        </>
      )}
    </Part>
  );
}
