import { listFiles, type FileJob } from '../../state/files';
import { useList } from './useList';

/** The files that were asked for of a drawing, the last first. Null until they are known. */
export function useFileJobs(id: string): { jobs: readonly FileJob[] | null; look: () => void } {
  const { list, look } = useList(
    id,
    async () => (await listFiles(id)).jobs,
    (j) => j.endedAt === null,
  );
  return { jobs: list, look };
}
