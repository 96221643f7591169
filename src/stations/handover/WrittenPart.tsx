'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Link from '@mui/material/Link';
import { useEffect, useState } from 'react';
import { countedIn, differences, placedIn, type DeliveryReport } from '@/core/exports/deliveries/report';
import type { DeliveryWish } from '@/core/exports/deliveries/wish';
import type { JobView } from '@/core/jobs';
import type { useDeliveries } from '@/project/deliveries';
import { useFacts, useMayEdit } from '@/project/useSession';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';
import { Running } from '@/ui/widgets/Running';
import { sizeWords } from './deliveryWords';

type Deliveries = ReturnType<typeof useDeliveries>;

interface OfDeliveries {
  deliveries: Deliveries;
  /** Takes a wish up again. */
  again: (wish: DeliveryWish) => void;
}

/** What was written, the last first. */
export function WrittenPart({ deliveries, again }: OfDeliveries) {
  const { deliveries: all } = deliveries;
  return (
    <Part title="Written">
      {all === null && <Box role="status">Looking &hellip;</Box>}
      {all?.length === 0 && <Box sx={{ color: 'text.secondary' }}>Nothing has been handed over yet.</Box>}
      {all?.map((job) => (
        <Delivery key={job.id} job={job} deliveries={deliveries} again={again} />
      ))}
    </Part>
  );
}

function Delivery({ job, deliveries, again }: OfDeliveries & { job: JobView }) {
  const version = useFacts(({ history }) => history.version);
  const mayEdit = useMayEdit();
  if (job.request.kind !== 'delivery') return null;
  const { wish } = job.request;
  const forget = () => void deliveries.forget(job.id);
  return (
    <Box
      component="article"
      aria-label={wish.name}
      sx={{ borderTop: '1px solid var(--mui-palette-divider)', py: 1, overflowWrap: 'anywhere' }}
    >
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline', gap: 1 }}>
        <b>{wish.name}</b>
        <Box component="span" sx={{ color: 'text.secondary', fontSize: 12 }}>
          {new Date(job.createdAt).toLocaleString('en-GB')}
          {job.version === null ? '' : `, step ${job.version}`}
        </Box>
      </Box>
      {(job.state === 'waiting' || job.state === 'running') && (
        <Running share={job.done} doing="Writing" of="the formats" cancel={forget} />
      )}
      {job.state === 'failed' && <Note kind="wrong">{job.message}</Note>}
      {job.state === 'done' && job.version !== null && job.version !== version && (
        <Note kind="look">The model has changed since: this is as it was.</Note>
      )}
      {job.state === 'done' && <Files job={job} deliveries={deliveries} />}
      {mayEdit && job.state !== 'waiting' && job.state !== 'running' && (
        <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
          <Button size="small" variant="text" onClick={() => again(wish)}>
            Take it up again
          </Button>
          <Button size="small" variant="text" onClick={forget}>
            Delete
          </Button>
        </Box>
      )}
    </Box>
  );
}

/** The files of a delivery, once it is known that what came back is what was written, or somebody has accepted it. */
function Files({ job, deliveries }: { job: JobView; deliveries: Deliveries }) {
  const [report, setReport] = useState<DeliveryReport | null>(null);
  const [accepted, accept] = useState(false);
  const { reportOf } = deliveries;
  useEffect(() => {
    let here = true;
    void reportOf(job).then((told) => {
      if (here) setReport(told);
    });
    return () => {
      here = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what was told of a delivery never changes
  }, [job.id]);
  if (report === null) return <Box role="status">Looking &hellip;</Box>;
  const odd = differences(report.readBack);
  const counted = countedIn(report.readBack);
  const placed = placedIn(report.readBack);
  return (
    <>
      {odd.length === 0 ? (
        <Box sx={{ color: 'text.secondary', fontSize: 12, mb: 0.5 }}>
          Read again: all {figures(counted)} things counted came back.
          {placed > 0 && ` ${figures(placed)} of ${figures(placed)} elements agree within 0.1 mm.`}
        </Box>
      ) : (
        <Note kind="wrong">
          {odd.map((sentence) => (
            <div key={sentence}>{sentence}</div>
          ))}
          <FormControlLabel
            control={<Checkbox size="small" checked={accepted} onChange={(_, on) => accept(on)} />}
            label="Hand it over all the same"
          />
        </Note>
      )}
      {(odd.length === 0 || accepted) && (
        <>
          <Table label={`Files of ${report.wish.name}`} heads={['file', { text: 'size', figures: true }, 'SHA-256']}>
            {job.files.map(({ id, name, size, sha256 }) => (
              <tr key={id}>
                <td>
                  <Link href={deliveries.addressOf(job.id, id)} download>
                    {name}
                  </Link>
                </td>
                <td className="figures">{sizeWords(size)}</td>
                <td className="mono" title={sha256}>
                  {sha256.slice(0, 8)}
                </td>
              </tr>
            ))}
          </Table>
          <Button
            size="small"
            variant="outlined"
            href={deliveries.addressOf(job.id)}
            download
            aria-label={`Save all of ${report.wish.name}`}
            sx={{ mt: 1 }}
          >
            Save all as one zip
          </Button>
        </>
      )}
    </>
  );
}

const figures = (count: number): string => count.toLocaleString('en-GB');
