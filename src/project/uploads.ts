'use client';
import { create } from 'zustand';
import type { Session } from './session';
import { few } from '@/core/few';
import { api } from './api';
import { unpacked } from './unpacked';
import { readWhileSent, uploadBecame } from './underlays';

/** A file on its way from this window to the server. */
export interface Upload {
  key: number;
  name: string;
  size: number;
  sent: number;
  message: string | null;
  abort: () => void;
}

interface UploadStore {
  uploads: Upload[];
  /** @param revises the drawing whose next revision the file is */
  send(session: Session, files: Iterable<File>, levelId: string | null, revises?: string): void;
  dismiss(key: number): void;
}

let next = 0;

/** Uploads of this window. XMLHttpRequest is used because fetch does not tell how far an upload is. */
export const useUploads = create<UploadStore>()((set, get) => {
  const change = (key: number, part: Partial<Upload>) =>
    set({ uploads: get().uploads.map((upload) => (upload.key === key ? { ...upload, ...part } : upload)) });
  const drop = (key: number) => set({ uploads: get().uploads.filter((upload) => upload.key !== key) });

  const sendOne = (session: Session, file: File, levelId: string | null, revises?: string) => {
    const key = (next += 1);
    const request = new XMLHttpRequest();
    const query = new URLSearchParams({
      name: file.name,
      ...(levelId ? { level: levelId } : {}),
      ...(revises ? { revises } : {}),
    });
    request.open('POST', `/api/projects/${session.id}/intakes?${query.toString()}`);
    request.upload.onprogress = ({ loaded }) => change(key, { sent: loaded });
    request.onload = () => {
      drop(key);
      const answer = JSON.parse(request.responseText || '{}') as { message?: string; fileId?: string };
      void uploadBecame(key, answer.fileId ?? null);
      // A refusal is kept by the server in the list of intakes, where a reload finds it too; what never got that far is
      // kept here.
      if (request.status >= 400)
        session.tell({
          kind: 'problem',
          text: answer.message ?? `${file.name} was refused with status ${request.status}.`,
        });
      void session.refreshIntakes();
    };
    request.onerror = () => {
      void uploadBecame(key, null);
      change(key, {
        message: `The upload of ${file.name} was cut off: the server does not answer. Nothing was stored; bring it in again.`,
      });
      void session.refreshIntakes();
    };
    request.onabort = () => {
      void uploadBecame(key, null);
      drop(key);
      void session.refreshIntakes();
    };
    set({
      uploads: [
        ...get().uploads,
        { key, name: file.name, size: file.size, sent: 0, message: null, abort: () => request.abort() },
      ],
    });
    request.send(file);
    // Of a building the server makes the drawings.
    if (!/\.ifc$/i.test(file.name)) void readWhileSent(key, file);
  };

  /** The drawings of a zip, one after another; what else it holds is told. */
  const sendSet = async (session: Session, zip: File, levelId: string | null) => {
    const { converts } = await api<{ converts: boolean }>(`/api/projects/${session.id}/intakes`).catch(() => ({
      converts: false,
    }));
    const result = await unpacked(zip, converts);
    if (!result.ok) {
      session.tell({ kind: 'problem', text: result.message });
      return;
    }
    const { drawings, others } = result.value;
    if (others.length > 0)
      session.tell({ kind: 'info', text: `Of ${zip.name} only the drawings were taken, not ${few(others)}.` });
    for (const drawing of drawings) sendOne(session, drawing, levelId);
  };

  return {
    uploads: [],
    send(session, files, levelId, revises) {
      for (const file of files)
        if (revises === undefined && /\.zip$/i.test(file.name)) void sendSet(session, file, levelId);
        else sendOne(session, file, levelId, revises);
    },
    dismiss: drop,
  };
});
