'use client';
import { useCallback, useEffect, useState } from 'react';
import type { DeliveryReport } from '@/core/exports/deliveries/report';
import type { DeliveryWish } from '@/core/exports/deliveries/wish';
import type { JobView } from '@/core/jobs';
import { api } from './api';
import { allStored } from './calculation';
import { reasonOf } from './reason';
import type { Session } from './session';

/** What is under way is asked for this often, milliseconds. */
const askEvery = 400;

const isUnderWay = ({ state }: JobView): boolean => state === 'waiting' || state === 'running';

/** What was handed over of the opened project, the last first, and the ways to hand over, to cancel and to forget. */
export function useDeliveries(session: Session) {
  const jobs = `/api/projects/${session.id}/jobs`;
  const [deliveries, setDeliveries] = useState<readonly JobView[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const look = useCallback(async () => {
    try {
      setDeliveries((await api<{ deliveries: JobView[] }>(jobs)).deliveries);
    } catch (error) {
      setProblem(reasonOf(error));
    }
  }, [jobs]);
  useEffect(() => {
    let here = true;
    api<{ deliveries: JobView[] }>(jobs).then(
      (found) => {
        if (here) setDeliveries(found.deliveries);
      },
      (error: unknown) => {
        if (here) setProblem(reasonOf(error));
      },
    );
    return () => {
      here = false;
    };
  }, [jobs]);
  const busy = deliveries?.some(isUnderWay) ?? false;
  useEffect(() => {
    if (!busy) return;
    const timer = setInterval(() => void look(), askEvery);
    return () => clearInterval(timer);
  }, [busy, look]);
  const act = async (doing: () => Promise<unknown>): Promise<void> => {
    setProblem(null);
    try {
      await doing();
      await look();
    } catch (error) {
      setProblem(reasonOf(error));
    }
  };
  return {
    deliveries,
    problem,
    write: (wish: DeliveryWish) =>
      act(async () => {
        await allStored(session);
        const { state } = await api<JobView>(jobs, { json: { kind: 'delivery', wish } });
        if (state === 'done') setProblem('Just this is written already, of the model as it is: it stands below.');
      }),
    forget: (id: string) => act(() => api(`${jobs}/${id}`, { method: 'DELETE' })),
    /** What was told of a delivery when it was written. */
    reportOf: ({ id, files }: JobView): Promise<DeliveryReport> =>
      api(`${jobs}/${id}/files/${files.find(({ name }) => name === 'delivery.json')?.id}`),
    addressOf: (id: string, file?: string) => `${jobs}/${id}/${file === undefined ? 'files.zip' : `files/${file}`}`,
  };
}
