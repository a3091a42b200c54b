import { inDepth, type Book } from "../book";
import { plates } from "../pack";
import { once, versions, type Check, type Say } from "./check";

/** What a build step names stands before it, goes in with it, and is waited for. */
export const buildOrder: Check = {
  reads: ["teardown", "build", "soaks", "depths", "packs"],
  check(book, conditions, say) {
    const tell = once(say);
    const build = book.build ?? [];
    const place = new Map(build.map(({ id }, i) => [id, i]));
    build.forEach((step, i) => {
      for (const id of step.after ?? [])
        if ((place.get(id) ?? i) >= i)
          say(
            `build[${i}].after`,
            `${id} is to be behind ${step.id} and is listed after it`,
            `move it before ${step.id}`,
          );
    });
    (["teardown", "build"] as const).forEach((phase) =>
      (book[phase] ?? []).forEach((step, i) => {
        (step.fit ?? []).forEach(({ part }, n) => {
          if (!step.parts?.includes(part))
            say(
              `${phase}[${i}].fit[${n}].part`,
              `${part} does not go in here`,
              "name it in the step's parts",
            );
        });
        (step.check ?? []).forEach(({ id }, n) => {
          if (step.check?.findIndex((one) => one.id === id) !== n)
            say(`${phase}[${i}].check[${n}].id`, `${id} stands twice in ${step.id}`, "give each its own");
        });
      }),
    );
    for (const { unit, words } of versions(book, conditions, ["build", "soaks"]))
      for (const depth of book.depths) soaks(book, inDepth(unit, [depth]), `at depth ${depth}${words}`, tell);
    for (const { unit, words } of versions(book, conditions, ["build", "packs"]))
      lying(book, unit, words, tell);
  },
};

/** Plates lie on one another: what lies nearer to the piston goes in first. */
function lying(book: Book, { build = [], packs }: Book, words: string, tell: Say): void {
  for (const { stack, element } of packs) {
    let over = -1;
    let before = "";
    for (const step of build) {
      const own = plates(stack).flatMap(({ part, role }, i) =>
        role !== "piston" && step.parts?.includes(part) === true ? [{ part, i }] : [],
      );
      const under = own.find(({ i }) => i < over);
      if (under)
        tell(
          `build[${book.build?.findIndex(({ id }) => id === step.id) ?? 0}].parts`,
          `${under.part} lies under plates of ${element} that ${before} has put in already${words}`,
          `put it in with ${before}, or before it`,
        );
      for (const { i } of own)
        if (i > over) {
          over = i;
          before = step.id;
        }
    }
  }
}

/** What is begun is waited for, and what is waited for was begun. */
function soaks(book: Book, { build = [], soaks: known = [] }: Book, where: string, tell: Say): void {
  for (const { id } of known) {
    const begins = build.findIndex(({ starts }) => starts?.includes(id));
    const waits = build.findIndex((step) => step.waits?.includes(id));
    const at = (step: { id: string } | undefined): string =>
      `build[${book.build?.findIndex((one) => one.id === step?.id) ?? 0}]`;
    if (begins >= 0 && waits < 0)
      tell(
        `${at(build[begins])}.starts`,
        `${id} is begun and no step waits for it ${where}`,
        "name it in the `waits` of the step that uses what stood",
      );
    if (waits >= 0 && (begins < 0 || begins > waits))
      tell(
        `${at(build[waits])}.waits`,
        `${id} is waited for and no step before it begins it ${where}`,
        "name it in the `starts` of an earlier step",
      );
  }
}
