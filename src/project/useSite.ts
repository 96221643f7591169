'use client';
import { put } from '@/core/model/edits';
import { plainSite, type SiteSettings } from '@/core/model/siteSettings';
import { projectRowOf } from './projectRow';
import { useCommit, useProjectRow } from './useSession';

/** The place as it is said, and a way to say a part of it otherwise. */
export function useSite(): [SiteSettings, (label: string, part: Partial<SiteSettings>) => void] {
  const site = useProjectRow().site ?? plainSite;
  const commit = useCommit();
  const set = (label: string, part: Partial<SiteSettings>) =>
    void commit((now) => {
      const row = projectRowOf(now);
      return { label, changes: [put('project', { ...row, site: { ...(row.site ?? plainSite), ...part } })] };
    });
  return [site, set];
}
