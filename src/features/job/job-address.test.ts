import { describe, expect, it } from "vitest";
import { jobAddress } from "./job-address";

describe("the address of a job", () => {
  it.each([
    ["/jobs/demo-job-0412", { jobId: "demo-job-0412", stationId: null }],
    ["/jobs/demo-job-0412/sheet", { jobId: "demo-job-0412", stationId: null }],
    ["/jobs/a%20b/bench/record-level", { jobId: "a b", stationId: "record-level" }],
    ["/jobs/%E0%A4%A/bench/speed", { jobId: "%E0%A4%A", stationId: "speed" }],
    ["/jobs/x/bench/", { jobId: "x", stationId: null }],
    ["/", { jobId: "", stationId: null }],
  ])("%s", (path, said) => {
    expect(jobAddress(path)).toEqual(said);
  });
});
