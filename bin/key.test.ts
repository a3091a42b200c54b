import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { describe, expect, it, test } from "@jest/globals";
import { run } from "./verbs";

interface Example {
  verb: string;
  input: string;
  good: boolean;
  expected: unknown;
}

/** Every pair of a `json <verb>` block and the `json answer` or `json error` block after it. */
const examples: Example[] = [
  ...readFileSync("docs/formats.md", "utf8").matchAll(
    /```json (\S+)\n([\s\S]*?)```\s+```json (answer|error)\n([\s\S]*?)```/g,
  ),
].map(([, verb = "", input = "", kind, expected = ""]) => ({
  verb,
  input,
  good: kind === "answer",
  expected: JSON.parse(expected) as unknown,
}));

describe("the documented examples", () => {
  it("are all there", () => {
    expect(new Set(examples.map(({ verb }) => verb))).toEqual(
      new Set([
        "length",
        "verdict",
        "candidates",
        "select",
        "needs",
        "kits",
        "capacity",
        "check-book",
        "gears",
        "diagnose",
      ]),
    );
  });
  test.each(examples.map((example, i) => [`${i + 1} ${example.verb}`, example] as const))(
    "%s",
    (_name, { verb, input, good, expected }) => {
      const answer = run(verb, input);
      expect(answer.ok).toBe(good);
      expect(answer.ok ? answer.result : { errors: answer.errors }).toEqual(expected);
    },
  );
});

describe("the door itself", () => {
  const key = (verb: string, input: string) =>
    spawnSync(process.execPath, ["--import", "tsx", "bin/key.ts", verb], {
      input,
      encoding: "utf8",
      env: { ...process.env, NODE_OPTIONS: "" },
    });

  it("answers on standard output", () => {
    const { status, stdout, stderr } = key("length", '{"text":"1,09"}');
    expect([status, stderr]).toEqual([0, ""]);
    expect(JSON.parse(stdout)).toMatchObject({ nm: 1_090_000 });
  });

  it("says on standard error what is wrong, and exits with 2", () => {
    const { status, stdout, stderr } = key("length", "{");
    expect([status, stdout]).toEqual([2, ""]);
    expect(JSON.parse(stderr)).toMatchObject({ errors: [{ path: "", message: "the input is not JSON" }] });
  });
});

describe("what is wrong", () => {
  it.each([
    ["length", "{", "not JSON"],
    ["lenght", "{}", "no verb"],
    ["length", "{}", "got nothing"],
    ["verdict", '{"spec":{"min":"2 mm","max":"1 mm"},"readings":[]}', "max is not above min"],
    [
      "verdict",
      '{"spec":{"min":"1 mm","max":"2 mm"},"readings":[{"passes":"1.2 mm","refuses":"1.1 mm"}]}',
      "not above passes",
    ],
    [
      "candidates",
      '{"spec":{"min":"1 mm","max":"2 mm"},"readings":[],"fitted":{"size":"1 mm"},"series":{"tolerance":"0.01 mm","sizes":[{"mark":"a","size":"1 mm","part":"A"}]}}',
      "too few",
    ],
    [
      "candidates",
      '{"spec":{"min":"1 mm","max":"2 mm"},"readings":["1.5 mm"],"fitted":{"size":"1 mm"},"series":{"tolerance":"0.01 mm","sizes":[{"mark":"a","size":"1 mm","part":"A"}]}}',
      "too few",
    ],
    [
      "candidates",
      '{"spec":{"min":"1 mm","max":"2 mm"},"readings":["1.1 mm","1.2 mm","1.3 mm","1.4 mm"],"fitted":{"size":"1 mm"},"series":{"tolerance":"0.01 mm","sizes":[{"mark":"a","size":"1 mm","part":"A"}]}}',
      "creeps",
    ],
    [
      "candidates",
      '{"spec":{"min":"1 mm","max":"2 mm"},"readings":["1.5 mm","1.5 mm","1.5 mm"],"fitted":{"size":"1 mm"},"series":{"tolerance":"-0.01 mm","sizes":[{"mark":"a","size":"1 mm","part":"A"}]}}',
      "below nothing",
    ],
    [
      "verdict",
      '{"spec":{"min":"1 mm","max":"2 mm"},"readings":[],"allowances":{"soaking":{"amount":"0.03 mm","within":"0.01 mm"}}}',
      "soaking closes",
    ],
    [
      "verdict",
      '{"spec":{"min":"1 mm","max":"2 mm"},"readings":[],"allowances":{"bedding":{"amount":"-0.03 mm","within":"0.01 mm"}}}',
      "bedding opens",
    ],
    [
      "verdict",
      '{"spec":{"min":"1 mm","max":"2 mm"},"readings":[],"allowances":{"bedding":{"amount":"0.03 mm","within":"-0.01 mm"}}}',
      "below nothing",
    ],
    ["verdict", '{"spec":{"min":"1 mm","max":"2 mm"},"resolution":"-0.01 mm","readings":[]}', "is no step"],
    ["length", '{"text":"1,000 thou"}', "1.000 or 1000"],
    ["length", '{"text":"1 constructor"}', "not a unit"],
    ["constructor", "{}", "no verb"],
    ["toString", "{}", "no verb"],
    ["check-book", "[]", "expected { }"],
  ])("is told of %s with %s, and what to do", (verb, input, words) => {
    const answer = run(verb, input);
    const errors = answer.ok ? [] : answer.errors;
    expect(errors[0]?.message).toContain(words);
    expect(errors[0]?.remedy).toBeTruthy();
  });
});
