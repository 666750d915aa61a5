/** Cautions that several stations share. */
export const MAINS =
  "Mains and stored charge inside an open machine. One hand, rings off; follow your local rules.";
