/** A table of a few figures without lines. */
export const PLAIN_TABLE = {
  borderCollapse: "collapse",
  "& td, & th": { py: 0.25, pr: 1.5, textAlign: "left", fontWeight: 400 },
};
