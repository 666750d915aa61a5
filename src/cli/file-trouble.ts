/** Why a file could not be read or written, as the end of a sentence. */
export function fileTrouble(error: unknown): string {
  const { code, message } = error as NodeJS.ErrnoException;
  switch (code) {
    case "ENOENT":
      return "there is no such file or folder.";
    case "EISDIR":
      return "it is a folder.";
    case "ENOTDIR":
      return "a part of the path before it is a file, not a folder.";
    case "EACCES":
    case "EPERM":
      return "you may not; look at its permissions.";
    case "EROFS":
      return "the disk can only be read.";
    case "ENOSPC":
    case "EDQUOT":
      return "the disk is full.";
    case "EMFILE":
    case "ENFILE":
      return "too many files are open.";
    case "ENAMETOOLONG":
      return "its name is too long.";
    case "EBUSY":
    case "ETXTBSY":
      return "another program uses it.";
    case "EIO":
      return "the disk reports an error.";
    case "ELOOP":
      return "its links lead round in a circle.";
    default:
      return message ?? String(error);
  }
}

/** The file is not there at all. */
export const isMissing = (error: unknown): boolean => (error as NodeJS.ErrnoException).code === "ENOENT";
