// What Jest runs of ours, turned to JavaScript by SWC. In the contexts Jest makes, each look at a global goes through a trap in C++; code that
// computes spends half its time there. So each module keeps those it uses by itself.
import swc from "@swc/jest";

const GLOBALS = ["Array", "BigInt", "JSON", "Map", "Math", "Number", "Object", "Set", "String", "WeakMap"];

export default {
  createTransformer(options) {
    const inner = swc.createTransformer(options);
    return {
      ...inner,
      getCacheKey: (...of) => `${inner.getCacheKey(...of)} ${GLOBALS.join(" ")}`,
      process(source, path, more) {
        const made = inner.process(source, path, more);
        const used = GLOBALS.filter(
          (name) =>
            new RegExp(`\\b${name}\\b`).test(made.code) &&
            !new RegExp(`(const|let|var|class|function)\\s+${name}\\b|import[^;]*\\b${name}\\b`).test(
              made.code,
            ),
        );
        // On the first line, so that no line moves.
        const kept = used.length > 0 ? `const {${used.join(",")}}=globalThis;` : "";
        return { ...made, code: kept + made.code };
      },
    };
  },
};
