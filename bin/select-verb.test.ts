import { expect, it } from "@jest/globals";
import { chooseJointly, TERMS, type JointQuestion, type Offer } from "~core/select";
import { contestedQuestion, oddQuestion, shopQuestion } from "~core/testing/choices";
import { run } from "./verbs";

const mm = (nm: number): string => `${(nm / 1e6).toFixed(6)} mm`;

/** A question as one writes it for the door. */
function written({ seats, chains, relations = [], ...rest }: JointQuestion): string {
  const lists = [...new Set(seats.map(({ offers }) => offers))];
  const offer = ({ adds, ...others }: Offer): object => ({ ...others, adds: mm(adds) });
  return JSON.stringify({
    ...rest,
    series: Object.fromEntries(lists.map((offers, i) => [`series ${i}`, offers.map(offer)])),
    seats: seats.map(({ offers, fitted, job, ...seat }) => ({
      ...seat,
      ...(job ? { job } : {}),
      series: `series ${lists.indexOf(offers)}`,
      ...(fitted ? { fitted: offer(fitted) } : {}),
    })),
    chains: chains.map(({ rest: without, min, max, target, ...chain }) => ({
      ...chain,
      seats: chain.seats.map(({ seat, sign }) => ({ seat, sign: sign > 0 ? "+" : "-" })),
      rest: mm(without),
      min: mm(min),
      max: mm(max),
      ...(target === undefined ? {} : { target: mm(target) }),
    })),
    relations: relations.map(({ by, ...relation }) => ({ ...relation, by: mm(by) })),
  });
}

it("every question the tests ask of core can be asked at the door, and is answered the same", () => {
  const all = [
    ...Array.from({ length: 60 }, (_, i) => oddQuestion(i)),
    ...Array.from({ length: 30 }, (_, i) => contestedQuestion(i)),
    shopQuestion({ seats: 12, sizes: 40, series: 2, stock: 2, seed: 5 }),
  ];
  for (const question of all) {
    const plan = chooseJointly(question);
    const values = Object.fromEntries((question.terms ?? TERMS).map((term) => [term, plan.values[term]]));
    expect(run("select", written(question))).toMatchObject({ ok: true, result: { proven: true, values } });
  }
});

it.each([
  [{ uncertainty: "0.01 mm", variance: 4 }, "chains[0]", "an uncertainty and a variance"],
  [{ uncertainty: "-0.01 mm" }, "chains[0].uncertainty", "is below nothing"],
  [{ max: "0.9 mm" }, "chains[0].max", "max is not above min"],
  [{ seats: [{ seat: "d9", sign: "-" }] }, "chains[0].seats[0].seat", 'no seat "d9"'],
  [
    {
      seats: [
        { seat: "d1", sign: "-" },
        { seat: "d1", sign: "-" },
      ],
    },
    "",
    "d1 clearance has a seat twice",
  ],
])("says where a chain is wrong: %j", (wrong, path, message) => {
  const chain = {
    id: "d1 clearance",
    seats: [{ seat: "d1", sign: "-" }],
    rest: "2.8 mm",
    min: "1 mm",
    max: "1.2 mm",
  };
  const given = {
    series: { rings: [{ id: "1.70", adds: "1.70 mm" }] },
    seats: [{ id: "d1", series: "rings" }],
    chains: [{ ...chain, ...wrong }],
  };
  expect(run("select", JSON.stringify(given))).toMatchObject({ ok: false, errors: [{ path, message }] });
});
