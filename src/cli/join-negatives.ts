/** Negative numbers look like options unless they are joined to theirs: "--level -12" becomes "--level=-12". */
export function joinNegatives(args: string[]): string[] {
  const joined: string[] = [];
  for (const arg of args) {
    const before = joined.at(-1);
    if (/^-\d/.test(arg) && before?.startsWith("--") && !before.includes("="))
      joined[joined.length - 1] = `${before}=${arg}`;
    else joined.push(arg);
  }
  return joined;
}
