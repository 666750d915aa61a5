import { config, type core } from "zod";

/** Of what was found, no more than this is repeated. */
const MOST_FOUND = 40;

const EXPECTED: Record<string, string | undefined> = {
  number: "a number",
  int: "a whole number",
  string: "text",
  boolean: "true or false",
  array: "a list",
  tuple: "a list",
  object: "a group of fields",
  record: "a group of fields",
  null: "nothing",
};

/** What stands there, as a person would say it. */
function found(input: unknown): string {
  switch (typeof input) {
    case "undefined":
      return "it is missing";
    case "number":
      if (Number.isFinite(input)) return `${input} was found`;
      return Number.isNaN(input) ? "no number was found" : "a number without end was found";
    case "string":
      return input.trim() === ""
        ? "it is empty"
        : `"${input.slice(0, MOST_FOUND)}${input.length > MOST_FOUND ? "…" : ""}" was found`;
    case "boolean":
      return `${input} was found`;
    case "object":
      return input === null
        ? "nothing was found"
        : `a ${Array.isArray(input) ? "list" : "group of fields"} was found`;
    case "bigint":
    case "symbol":
    case "function":
      return "something else was found";
  }
}

const one = (values: readonly unknown[]): string => values.map((value) => JSON.stringify(value)).join(", ");

/** Of numbers their size, of texts and lists their length. */
function measured(origin: string, input: unknown): { unit: string; found: string } {
  const { length } = (input ?? "") as { length: number };
  if (origin === "string") return { unit: " characters", found: `${length} were found` };
  if (origin === "array") return { unit: " entries", found: `${length} were found` };
  return { unit: "", found: found(input) };
}

/** What is wrong with a value and what is expected there. A schema's own words come before these. */
function inWords(issue: core.$ZodRawIssue): string {
  const { input } = issue;
  switch (issue.code) {
    case "invalid_type":
      return `${EXPECTED[issue.expected] ?? "something else"} is expected, ${found(input)}`;
    case "too_big": {
      const { unit, found: there } = measured(issue.origin, input);
      return `${issue.inclusive === false ? "less than" : "at most"} ${issue.maximum}${unit} can be, ${there}`;
    }
    case "too_small": {
      const { unit, found: there } = measured(issue.origin, input);
      return `${issue.inclusive === false ? "more than" : "at least"} ${issue.minimum}${unit} must be, ${there}`;
    }
    case "invalid_format":
      return issue.format === "datetime"
        ? `a date and time as 2026-01-31T10:00:00Z is expected, ${found(input)}`
        : issue.format === "date"
          ? `a date as 2026-01-31 is expected, ${found(input)}`
          : `it is not written as it must be, ${found(input)}`;
    case "not_multiple_of":
      return `a multiple of ${issue.divisor} is expected, ${found(input)}`;
    case "unrecognized_keys":
      return `there is no field ${one(issue.keys).slice(0, MOST_FOUND)}`;
    case "invalid_value":
      return `${issue.values.length > 1 ? "one of " : ""}${one(issue.values)} is expected, ${found(input)}`;
    case "invalid_union":
      return `it is of no kind that is known, ${found(input)}`;
    case "invalid_key":
      return "the name of a field cannot be used";
    case "invalid_element":
      return "an entry cannot be used";
    case "custom":
      return `it cannot be used, ${found(input)}`;
  }
}

config({ customError: inWords });

/**
 * Schemas, whose complaints are sentences of Unzel's own: `import * as z from "@/core/text/zod"`. What is used is named
 * one by one, since all of the package would bring its sentences in fifty languages onto every page.
 */
export {
  array,
  boolean,
  coerce,
  discriminatedUnion,
  enum,
  instanceof,
  iso,
  literal,
  number,
  object,
  partialRecord,
  record,
  string,
  union,
  unknown,
  ZodError,
} from "zod";
export type { core, infer, output, ZodSafeParseResult, ZodType } from "zod";
