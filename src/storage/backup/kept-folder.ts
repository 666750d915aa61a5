import { Dexie, type EntityTable } from "dexie";

/** What browsers that let pages write to folders add to a handle. */
export type FolderHandle = FileSystemDirectoryHandle & {
  queryPermission(how: { mode: "readwrite" }): Promise<PermissionState>;
  requestPermission(how: { mode: "readwrite" }): Promise<PermissionState>;
  keys(): AsyncIterable<string>;
};

/** The folder's handle is this browser's own and means nothing elsewhere: it has a place that no backup takes. */
class FolderDatabase extends Dexie {
  folders!: EntityTable<{ id: string; handle: FolderHandle }, "id">;

  constructor() {
    super("unzel-folder");
    this.version(1).stores({ folders: "id" });
  }
}
const places = new FolderDatabase();
const ID = "backups";

/** A folder that backups are written into by themselves, and whether the browser lets them be. */
export interface KeptFolder {
  handle: FolderHandle;
  access: PermissionState;
}

/** Null where none was chosen. */
export async function keptFolder(): Promise<KeptFolder | null> {
  const handle = (await places.folders.get(ID))?.handle;
  return handle ? { handle, access: await handle.queryPermission({ mode: "readwrite" }) } : null;
}

export const keepFolder = async (handle: FolderHandle): Promise<void> =>
  void (await places.folders.put({ id: ID, handle }));

export const letGoOfFolder = (): Promise<void> => places.folders.delete(ID);

/** Of so many days the archives stay. */
export const KEPT_DAYS = 7;
const OF_A_DAY = /^unzel-backup-\d{4}-\d\d-\d\d\.zip$/;

/**
 * Writes an archive into a folder, in the place of that day's: what stood there stays until the new one is whole.
 * Of the days before, the newest stay.
 * @param at when it was made, ISO
 * @throws Error with a sentence where the folder cannot be written to
 */
export async function writeIntoFolder(handle: FolderHandle, at: string, archive: Blob): Promise<void> {
  const name = `unzel-backup-${at.slice(0, 10)}.zip`;
  try {
    const file = await handle.getFileHandle(name, { create: true });
    const stream = await file.createWritable();
    try {
      await stream.write(archive);
      await stream.close();
    } catch (error) {
      await stream.abort().catch(() => undefined);
      // one that was made for this and never written is no backup
      if ((await file.getFile()).size === 0) await handle.removeEntry(name);
      throw error;
    }
    const days: string[] = [];
    for await (const other of handle.keys()) if (OF_A_DAY.test(other)) days.push(other);
    for (const old of days.toSorted().slice(0, -KEPT_DAYS)) await handle.removeEntry(old);
  } catch (error) {
    throw new Error(`The folder ${handle.name} could not be written to: ${why(error)}`, { cause: error });
  }
}

function why(error: unknown): string {
  const { name, message } = error as Error;
  switch (name) {
    case "NotFoundError":
      return "it is not there. Connect its disk, or choose another folder.";
    case "NotAllowedError":
      return "the browser wants to be asked again. Allow it on the page Backup.";
    case "QuotaExceededError":
      return "its disk is full. Make room there, or choose another folder.";
    default:
      return message;
  }
}
