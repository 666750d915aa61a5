"use client";
import Box from "@mui/material/Box";
import { Link } from "@/ui/link";
import { addDays, differenceInCalendarDays, format, isWeekend, parseISO } from "date-fns";
import type { JobParts } from "@/core/records/job-records";
import { partsPlan, type PartOfJob } from "@/core/alignment/plan";
import { stationById } from "@/core/alignment/registry";
import { expectedOn, PART_WORDS, partName, stateOf } from "@/core/workshop/part";
import { shortDay } from "@/ui/short-day";
import { INK, SOFT, token } from "@/ui/theme";
import { stationHref } from "../job/job-tape-line";
import { today } from "../workshop/today";

const DAYS = 28;
const WIDTH = 1220;
const LEFT = 8;
const TOP = 22;
const LANE = 21;
const DAY = (WIDTH - 2 * LEFT) / DAYS;

/** The coming weeks as a strip with what arrives when; beside it what is overdue, to be ordered and to be fitted. */
export function PartsStrip({ jobs }: { jobs: readonly JobParts[] }) {
  const from = today();
  const plan = partsPlan(jobs, from);
  const soon = plan.expected.filter(({ part }) => dayOf(part, from) < DAYS);
  const later = plan.expected.length - soon.length;
  const lists: Array<[title: string, parts: PartOfJob[], tone: string]> = [
    ["Overdue", plan.overdue, "error.main"],
    ["Here, to be fitted", plan.toFit, "success.main"],
    ["To be ordered", plan.toOrder, "warning.main"],
    ["Under way, nobody knows until when", plan.undated, "text.secondary"],
  ];
  const shown = lists.filter(([, parts]) => parts.length > 0);
  if (shown.length + plan.expected.length === 0) return null;
  return (
    <Box component="section" aria-label="Parts" sx={{ mb: 1.5 }}>
      <Box sx={{ display: "flex", columnGap: 3, flexWrap: "wrap", mb: 0.5 }}>
        {shown.map(([title, parts, tone]) => (
          <Box
            key={title}
            sx={{ minWidth: 0, display: "flex", gap: 1, flexWrap: "wrap", alignItems: "baseline" }}
          >
            <Box component="h2" sx={{ color: tone, fontWeight: 700, fontSize: 15, m: 0 }}>
              {title}
            </Box>
            <Box
              component="ul"
              aria-label={title}
              sx={{ listStyle: "none", p: 0, m: 0, display: "flex", columnGap: 1.5, flexWrap: "wrap" }}
            >
              {parts.map((one) => (
                <PartLink key={one.part.id} {...one} />
              ))}
            </Box>
          </Box>
        ))}
      </Box>
      {plan.expected.length > 0 && <Weeks soon={soon} from={from} />}
      {later > 0 && <Box sx={{ color: "text.secondary", fontSize: 14 }}>{later} more after these weeks.</Box>}
    </Box>
  );
}

const dayOf = (part: PartOfJob["part"], from: string): number =>
  differenceInCalendarDays(parseISO(expectedOn(part)!), parseISO(from));

function PartLink({ part, records: { job, machine } }: PartOfJob) {
  const station = stationById(part.station);
  const due = expectedOn(part);
  return (
    <Box component="li">
      <Box
        component={Link}
        href={station ? stationHref(job.id, station) : `/jobs/${job.id}`}
        sx={{ display: "inline-block", color: "text.primary", py: 0.5, overflowWrap: "anywhere" }}
      >
        {partName(part)}
      </Box>{" "}
      <Box component="span" sx={{ color: "text.secondary" }}>
        {machine.name}, {due ? `was due ${shortDay(due)}` : PART_WORDS[stateOf(part)]}
      </Box>
    </Box>
  );
}

/** Four weeks of days with a flag where a part is expected. */
function Weeks({ soon, from }: { soon: PartOfJob[]; from: string }) {
  const start = parseISO(from);
  const lanes = lanesOf(soon.map(({ part }) => dayOf(part, from)));
  const height = TOP + LANE * Math.max(1, ...lanes.map((lane) => lane + 1)) + 8;
  return (
    <Box sx={{ overflowX: "auto", lineHeight: 0 }} tabIndex={0} role="region" aria-label="What arrives when">
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        style={{ minWidth: 700, width: "100%" }}
        role="group"
        aria-label={saidOf(soon)}
      >
        {Array.from({ length: DAYS }, (_, i) => {
          const day = addDays(start, i);
          const x = LEFT + i * DAY;
          return (
            <g key={i}>
              <rect
                x={x}
                y={TOP - 6}
                width={DAY}
                height={height - TOP + 2}
                fill={isWeekend(day) ? token("line") : token("leader")}
                opacity={isWeekend(day) ? 0.45 : 1}
              />
              <line x1={x} y1={TOP - 6} x2={x} y2={height - 4} stroke={token("line")} />
              <text
                x={x + DAY / 2}
                y={12}
                textAnchor="middle"
                fontSize={12}
                fill={i === 0 ? INK : SOFT}
                fontWeight={i === 0 ? 700 : 400}
              >
                {i === 0 ? "today" : day.getDate() === 1 || i === 1 ? format(day, "d MMM") : format(day, "d")}
              </text>
            </g>
          );
        })}
        {soon.map(({ part, records: { job, machine } }, i) => {
          const x = LEFT + (dayOf(part, from) + 0.5) * DAY;
          const y = TOP + lanes[i] * LANE + 10;
          const end = x > WIDTH - 260;
          return (
            <a key={part.id} href={`/jobs/${job.id}`} aria-label={`${partName(part)}, ${machine.name}`}>
              <path d={`M${x} ${y - 8} v16`} stroke={token("oxide")} strokeWidth={2.5} />
              <circle cx={x} cy={y} r={5} fill={token("oxide")} />
              <text
                x={x + (end ? -10 : 10)}
                y={y + 4.5}
                textAnchor={end ? "end" : "start"}
                fontSize={13.5}
                fontWeight={650}
                fill={INK}
                stroke={token("leader")}
                strokeWidth={4}
                paintOrder="stroke"
              >
                {partName(part)} · {machine.name}
              </text>
            </a>
          );
        })}
      </svg>
    </Box>
  );
}

const saidOf = (soon: PartOfJob[]): string =>
  soon.length === 0
    ? "Nothing arrives in these weeks."
    : soon
        .map(
          ({ part, records }) =>
            `${partName(part)} for ${records.machine.name} on ${shortDay(expectedOn(part)!)}`,
        )
        .join("; ");

/** A lane for each flag, so that no two texts lie over each other. */
function lanesOf(days: number[]): number[] {
  const ends: number[] = [];
  return days.map((day) => {
    const free = ends.findIndex((end) => end <= day);
    const lane = free < 0 ? ends.length : free;
    ends[lane] = day + TEXT_DAYS;
    return lane;
  });
}
/** A text is about so many days wide. */
const TEXT_DAYS = 8;
