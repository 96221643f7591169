'use client';
import { api } from './api';
import { Session, type Snapshot } from './session';
import { windowId } from './windowId';

/** Loads a project as the server has it. @throws ApiError, Unreachable */
export async function openProject(id: string): Promise<Session> {
  const [{ state, history }, { intakes }] = await Promise.all([
    api<Omit<Snapshot, 'intakes'>>(`/api/projects/${id}/state`),
    api<Pick<Snapshot, 'intakes'>>(`/api/projects/${id}/intakes`),
  ]);
  return new Session(id, { state, history, intakes }, windowId());
}
