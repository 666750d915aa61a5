import { describe, expect, it } from "vitest";
import { KEPT_ADDRESSES, keptPage } from "./kept-pages";

describe("pages that are kept for when the server is gone", () => {
  it.each([
    ["/", "/?kept"],
    ["/jobs/new", "/jobs/new?kept"],
    ["/jobs/demo-job-0412", "/jobs/-?kept"],
    ["/jobs/demo-job-0412/", "/jobs/-?kept"],
    ["/jobs/01JX/bench/record-level", "/jobs/-/bench/-?kept"],
    ["/jobs/01JX/sheet", "/jobs/-/sheet?kept"],
    ["/tapes/blank", "/tapes/blank?kept"],
  ])("%s is shown by %s", (path, page) => {
    expect(keptPage(path)).toBe(page);
    expect(KEPT_ADDRESSES).toContain(page);
  });

  it.each(["/nowhere", "/jobs", "/jobs//sheet", "/jobs/a/bench", "/jobs/a/bench/b/c", "/api/signals"])(
    "%s is none of them",
    (path) => {
      expect(keptPage(path)).toBeNull();
    },
  );
});
