'use client';
import { api } from './api';
import type { Right } from '@/core/people';
import { Session } from './session';
import type { Snapshot } from './told';
import { windowId } from './windowId';

/** Loads a project as the server has it. @throws ApiError, Unreachable */
export async function openProject(id: string): Promise<Session> {
  const [{ state, history }, { intakes }, { self }] = await Promise.all([
    api<Pick<Snapshot, 'state' | 'history'>>(`/api/projects/${id}/state`),
    api<Pick<Snapshot, 'intakes'>>(`/api/projects/${id}/intakes`),
    api<{ self: { right: Right | null } | null }>(`/api/projects/${id}/people`),
  ]);
  // Where nobody signs in everybody may all.
  const right = self === null ? 'owner' : (self.right ?? 'reader');
  return new Session(id, { state, history, intakes, right }, windowId());
}
