import { newId } from "@/storage/jobs";
import { keepPicture } from "@/storage/pictures";
import { WatchedValue } from "@/storage/watched-value";
import { KeptWorker } from "@/workers/kept-worker";
import { startPictures } from "@/workers/start-worker";

/** How it stands with the pictures that were added to one job. */
export interface TakingIn {
  /** Pictures that are not kept yet. */
  left: number;
  /** Why the last one that failed is not kept. */
  trouble: string | null;
}

const NOTHING: TakingIn = { left: 0, trouble: null };
const ask = (event: BeforeUnloadEvent) => event.preventDefault();

/**
 * Takes pictures down to size in a worker and keeps them, one after the other. That goes on after the page of the job is
 * left for another one; what would end it asks first.
 */
class PictureIntake extends WatchedValue<ReadonlyMap<string, TakingIn>> {
  private readonly worker = new KeptWorker(startPictures);

  constructor() {
    super(new Map());
  }

  /** How it stands with a job; the same object until that changes. */
  of(jobId: string): TakingIn {
    return this.now().get(jobId) ?? NOTHING;
  }

  clearTrouble(jobId: string): void {
    this.say(jobId, { trouble: null });
  }

  /** @param kept says where the picture belongs, once it is stored */
  async add(jobId: string, files: readonly File[], kept: (id: string) => Promise<void>): Promise<void> {
    this.say(jobId, { trouble: null, left: this.of(jobId).left + files.length });
    for (const file of files) {
      try {
        const { image, width, height } = await this.worker.api.reduce(file, file.name);
        const id = newId();
        const at = new Date().toISOString();
        await keepPicture({ id, jobId, at, width, height, bytes: image.size, marks: [], image });
        await kept(id);
      } catch (error) {
        this.say(jobId, { trouble: (error as Error).message });
      } finally {
        this.say(jobId, { left: this.of(jobId).left - 1 });
      }
    }
  }

  private say(jobId: string, news: Partial<TakingIn>): void {
    const all = new Map(this.now()).set(jobId, { ...this.of(jobId), ...news });
    this.change(all);
    if ([...all.values()].some(({ left }) => left > 0)) {
      window.addEventListener("beforeunload", ask);
    } else {
      window.removeEventListener("beforeunload", ask);
      this.worker.end();
    }
  }
}

export const pictureIntake = new PictureIntake();
