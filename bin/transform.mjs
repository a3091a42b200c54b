// What Jest runs of ours, turned to JavaScript by SWC. In the contexts Jest makes, each look at a global goes through a trap in C++; code that
// computes spends half its time there. So each module keeps those it uses by itself, the validator's too.
import swc from "@swc/jest";

const GLOBALS = [
  ...["Array", "BigInt", "Boolean", "Error", "Float64Array", "Infinity", "Int32Array", "JSON", "Map", "Math"],
  ...["NaN", "Number", "Object", "RegExp", "Set", "String", "Symbol", "Uint8Array"],
  ...["WeakMap", "WeakSet", "parseInt", "structuredClone"],
];

/** What a module is, with the globals it uses kept on its first line, so that no line moves. */
function keeping(code) {
  const used = GLOBALS.filter(
    (name) =>
      new RegExp(`\\b${name}\\b`).test(code) &&
      !new RegExp(`(const|let|var|class|function)\\s+${name}\\b|import[^;]*\\b${name}\\b`).test(code),
  );
  return code.replace(/^('use strict';)?/, `$1const {${used.join(",")}}=globalThis;`);
}

export default {
  createTransformer(options) {
    const inner = swc.createTransformer(options);
    return {
      ...inner,
      getCacheKey: (...of) => `${inner.getCacheKey(...of)} ${GLOBALS.join(" ")}`,
      process(source, path, more) {
        // Packages are JavaScript already.
        if (path.includes("node_modules")) return { code: keeping(source) };
        const made = inner.process(source, path, more);
        return { ...made, code: keeping(made.code) };
      },
    };
  },
};
