// What the linter looks at besides its own rules, in the form every such linter reads.

const rule = (message, visit) => ({
  meta: { type: "problem", schema: [], messages: { told: message } },
  create: (context) => visit((node) => context.report({ node, messageId: "told" })),
});

/** What keeps facts and says what became of them. */
const KEEPING = new Set(["record", "recordClosing", "addFacts", "closeJob"]);

export default {
  meta: { name: "yard-key" },
  rules: {
    "no-literal-spread": rule(
      "Write the keys themselves: spreading a literal hides misspelt keys from the compiler.",
      (tell) => ({
        SpreadElement(node) {
          if (node.parent.type === "ObjectExpression" && node.argument.type === "ObjectExpression")
            tell(node);
        },
      }),
    ),
    "no-ignored-record": rule(
      "Look at what became of it: a refusal that nobody reads is a fact lost.",
      (tell) => ({
        ExpressionStatement(node) {
          const call = node.expression.type === "AwaitExpression" ? node.expression.argument : null;
          if (call?.type === "CallExpression" && KEEPING.has(call.callee.name)) tell(node);
        },
      }),
    ),
    "no-clock": rule("core/ has no clock.", (tell) => ({
      NewExpression(node) {
        if (node.callee.name === "Date" && node.arguments.length === 0) tell(node);
      },
    })),
    "no-loading": rule("core/ loads nothing at run time.", (tell) => ({ ImportExpression: tell })),
  },
};
