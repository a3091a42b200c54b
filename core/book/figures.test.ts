import { describe, expect, test } from "@jest/globals";
import { bookOf } from "../../demo/units";
import {
  houseTorque,
  measurementWords,
  resolve,
  specWords,
  torqueWords,
  usedTorque,
  type HouseValue,
} from "./index";

const late = { body: "late", plate: "one" };
const house = (value: Partial<HouseValue>): HouseValue => ({
  of: "chain",
  id: "d1-clearance",
  reason: "shifts",
  by: "Edda L.",
  at: "2026-11-01",
  ...value,
});

describe("figures in the unit a person uses", () => {
  const dunlin = resolve(bookOf("marram-dunlin"), late, ["full"]);
  const group = (id: string) => dunlin.present.fasteners!.find((one) => one.id === id)!;
  const measured = (id: string) => dunlin.present.measurements!.find((one) => one.id === id)!;
  const chain = (id: string, values: HouseValue[] = []) =>
    resolve(bookOf("marram-dunlin"), late, ["full"], values).chains.find((one) => one.chain.id === id)!;

  test("torques", () => {
    expect(torqueWords(group("pan-bolts"), "mm")).toBe("9 N·m");
    expect(torqueWords(group("pan-bolts"), "in")).toBe("≈80 lbf·in");
    const godwit = bookOf("corrie-godwit").fasteners!.find(({ id }) => id === "case-bolts")!;
    expect(torqueWords(godwit, "mm")).toBe("14 N·m + 90°");
  });

  test("measurements, each in its own quantity", () => {
    expect(measurementWords(measured("solenoid-r"), "in")).toBe("5.0 to 5.8 Ω");
    expect(measurementWords(measured("line-idle"), "mm")).toBe("4.2 to 5.2 bar");
    expect(measurementWords(measured("line-idle"), "in")).toBe("≈61 to ≈75 psi");
    expect(measurementWords(measured("steel-flat"), "mm")).toBe("at most 0.15 mm");
    expect(measurementWords(measured("spring-d1"), "mm")).toBe("at least 31.50 mm");
    expect(measurementWords(measured("valve-fall"), "mm")).toContain("falls by its own weight");
  });

  test("limits, with the target and with the house's beside the book's", () => {
    expect(specWords(chain("d1-clearance"), "mm")).toBe("1.05 to 1.40 mm");
    expect(specWords(chain("d1-clearance", [house({ max: 1_300_000 as never })]), "mm")).toBe(
      "1.05 to 1.30 mm (house; the book 1.05 to 1.40 mm)",
    );
    const travel = resolve(bookOf("marram-whimbrel"), { body: "a", drive: "one" }, ["full"]).chains.find(
      (one) => one.chain.id === "band-travel",
    )!;
    expect(specWords(travel, "in")).toMatch(/^0\.100 to 0\.140 in, target 0\.115/);
  });

  test("a house torque belongs to its own group only", () => {
    const own = house({ of: "fastener", id: "pan-bolts", torque: "10 N·m" });
    expect(houseTorque(group("pan-bolts"), [own])).toBe(own);
    expect(houseTorque(group("body-bolts"), [own])).toBeNull();
    expect(usedTorque(group("pan-bolts"), [own], "mm")).toBe("10 N·m");
    expect(usedTorque(group("pan-bolts"), [own], "in")).toBe("≈89 lbf·in");
    expect(usedTorque(group("body-bolts"), [own], "mm")).toBe("11 N·m");
    expect(houseTorque(group("pan-bolts"), [house({ id: "pan-bolts" })])).toBeNull();
  });
});
