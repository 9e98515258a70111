import { useCallback, useEffect, useRef, useState } from 'react';
import { listFiles, type FileJob } from '../../state/files';

const LOOK_MS = 500;

/** The files that were asked for of a drawing, the last first; looked at again while one is under way. Null until they are known. */
export function useFileJobs(id: string): { jobs: readonly FileJob[] | null; look: () => void } {
  const [jobs, setJobs] = useState<readonly FileJob[] | null>(null);
  const [asked, setAsked] = useState(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    let isGone = false;
    const read = async (): Promise<void> => {
      const list = await listFiles(id).then(
        (a) => a.jobs,
        () => null,
      );
      if (isGone) return;
      if (list) setJobs(list);
      if (!list || list.some((j) => j.endedAt === null)) timer.current = setTimeout(() => void read(), LOOK_MS);
    };
    void read();
    return () => {
      isGone = true;
      clearTimeout(timer.current);
    };
  }, [id, asked]);
  return { jobs, look: useCallback(() => setAsked((n) => n + 1), []) };
}
