'use client';
import { api } from './api';
import type { Right } from '@/core/people';
import { Session } from './session';
import type { Snapshot } from './told';
import { windowId } from './windowId';

/** Asks for all that a project is opened with. */
const ask = (id: string) =>
  Promise.all([
    api<Pick<Snapshot, 'state' | 'history'>>(`/api/projects/${id}/state`),
    api<Pick<Snapshot, 'intakes'>>(`/api/projects/${id}/intakes`),
    api<{ self: { right: Right | null } | null }>(`/api/projects/${id}/people`),
  ]);

/** What was asked for early, until it is taken. */
let early: { id: string; answers: ReturnType<typeof ask> } | null = null;

const projectAddress = /^\/projects\/([\da-f-]{36})$/;

/** Asks for the project at an address before the page has come to life: who opens it first takes what comes. */
export function askEarly(path: string): void {
  const id = projectAddress.exec(path)?.[1];
  if (id === undefined) return;
  early = { id, answers: ask(id) };
  // Who opens it hears what went wrong.
  early.answers.catch(() => undefined);
}

/** Loads a project as the server has it. @throws ApiError, Unreachable */
export async function openProject(id: string): Promise<Session> {
  const asked = early?.id === id ? early.answers : ask(id);
  early = null;
  const [{ state, history }, { intakes }, { self }] = await asked;
  // Where nobody signs in everybody may all.
  const right = self === null ? 'owner' : (self.right ?? 'reader');
  return new Session(id, { state, history, intakes, right }, windowId());
}
